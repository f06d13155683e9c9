import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine } from '@/core/engine/any-engine.fixture';
import { type Box, boxOf } from '@/core/engine/drawing';
import { layoutOf } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { extentOf, ignitionShapes } from './ignition-geometry';

const overlap = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

describe('ignitionShapes', () => {
  const drawn = (model: Parameters<typeof layoutOf>[0]) => {
    const layout = layoutOf(model);
    const at = new Map(layout.sites.map((s) => [siteId(s), { x: s.x * 84, y: s.y * 70 }]));
    return { layout, at, shapes: ignitionShapes(layout, at) };
  };

  it('draws every coil once, and a lead to every plug that no coil sits on', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const { layout, at, shapes } = drawn(model);
        expect(shapes.coils).toHaveLength(model.coils.length);
        const onPlug = (x: number, y: number): boolean =>
          [...at.values()].some((p) => Math.abs(Math.hypot(p.x - x, p.y - y) - 24) < 1e-6);
        const reached = shapes.leads.filter(({ to }) => onPlug(to.x, to.y)).length;
        const apart = { coil_on_plug: 0, coil_rail: 0, distributor: layout.cylinders } as Record<string, number>;
        expect(reached).toBe(apart[model.ignition] ?? layout.sites.length);
        const space = extentOf(shapes, boxOf([...at.values()], 40));
        for (const { from, to } of shapes.leads)
          for (const { x, y } of [from, to]) {
            expect(x >= space.left && x <= space.right && y >= space.top && y <= space.bottom).toBe(true);
          }
      }),
    );
  });

  it('never draws a coil beside the engine over the engine or over another coil', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const { at, shapes } = drawn(model);
        const apart = shapes.coils.filter((coil) => !coil.over);
        for (const coil of apart) {
          expect(overlap(coil.box, boxOf([...at.values()], 30))).toBe(false);
          for (const other of apart) if (other !== coil) expect(overlap(coil.box, other.box)).toBe(false);
        }
      }),
    );
  });

  it('gives a distributor one tower a cylinder', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        if (model.ignition !== 'distributor') return;
        const towers = drawn(model).shapes.distributor?.towers ?? [];
        expect(towers.map((t) => t.cylinder).sort((a, b) => a - b)).toEqual(
          [...model.firingOrder].sort((a, b) => a - b),
        );
      }),
    );
  });
});
