import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeLabels } from './place-labels';
import { costAt, costTicks, lifeAt, lifeTicks, type Plot, wholeFrame, xOf, yOf, zoomed } from './scales';

const plot: Plot = { frame: { life: [0.3, 1.3], cost: [200, 8000] }, left: 60, top: 20, width: 700, height: 400 };

describe('scales', () => {
  it('go there and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 10, max: 90_000, noNaN: true }),
        (life, cost) => {
          expect(lifeAt(plot, xOf(plot, life))).toBeCloseTo(life, 9);
          expect(costAt(plot, yOf(plot, cost)) / cost).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it('put the limit where it belongs and dearer higher', () => {
    expect(xOf(plot, 0.3)).toBe(60);
    expect(xOf(plot, 1.3)).toBe(760);
    expect(yOf(plot, 8000)).toBe(20);
    expect(yOf(plot, 200)).toBe(420);
  });

  it('zoom about a place that stays where it is', () => {
    const at = { life: 0.9, cost: 1000 };
    const near = zoomed(plot.frame, 0.5, at);
    expect(xOf({ ...plot, frame: near }, at.life)).toBeCloseTo(xOf(plot, at.life), 9);
    expect(yOf({ ...plot, frame: near }, at.cost)).toBeCloseTo(yOf(plot, at.cost), 9);
    expect(near.life[1] - near.life[0]).toBeCloseTo(0.5, 9);
  });

  it('show the whole fleet, an empty one too', () => {
    expect(wholeFrame([])).toEqual({ life: [0.3, 1.2], cost: [100 / 1.3, 1300] });
    const { life, cost } = wholeFrame([
      { life: 1.1, cost: 300 },
      { life: 9, cost: 5000 },
    ]);
    expect(life[1]).toBe(1.6);
    expect(cost[0]).toBeLessThan(300);
    expect(cost[1]).toBeGreaterThan(5000);
  });

  it('have round ticks inside the frame', () => {
    expect(costTicks([180, 6000])).toEqual([200, 500, 1000, 2000, 5000]);
    expect(lifeTicks([0.3, 1.05], 14).map((t) => Math.round(t * 100))).toEqual([30, 40, 50, 60, 70, 80, 90, 100]);
    expect(lifeTicks([0.91, 0.99], 14)).toHaveLength(9);
    expect(lifeTicks([0.3, 1.6], 5)).toEqual([0.5, 1, 1.5]);
  });
});

describe('placeLabels', () => {
  const area = { left: 0, right: 800, top: 0, bottom: 500 };
  const some = fc.array(fc.record({ x: fc.integer({ min: 0, max: 800 }), y: fc.integer({ min: 0, max: 500 }) }), {
    maxLength: 40,
  });

  it('never lays one label on another, nor outside', () => {
    fc.assert(
      fc.property(some, (points) => {
        const labels = placeLabels(
          points.map((p, i) => ({ ...p, id: String(i), text: `unit ${i}` })),
          area,
        );
        for (const [i, a] of labels.entries()) {
          expect(a.at.y).toBeGreaterThanOrEqual(7);
          for (const b of labels.slice(i + 1)) {
            const apart =
              Math.abs(a.at.y - b.at.y) >= 14 ||
              Math.abs(a.at.x - b.at.x) >= ((a.text.length + b.text.length) * 7.6) / 2 - 1e-9;
            expect(apart).toBe(true);
          }
        }
      }),
    );
  });

  it('stands clear of rings and lines where there is room', () => {
    const text = [{ id: 'a', text: '32', x: 100, y: 100 }];
    const at = (around: Parameters<typeof placeLabels>[2]) => placeLabels(text, area, around)[0]?.at;
    expect(at({})).toEqual({ x: 100, y: 88 });
    const above = { x: 100, y: 86 };
    const [ring, line] = [at({ rings: [above] }), at({ lines: [above] })];
    for (const place of [ring, line]) expect(Math.abs((place?.y ?? 86) - 86)).toBeGreaterThan(7);
    // Hemmed in on every side it still says which it is.
    const everywhere = Array.from({ length: 900 }, (_, i) => ({
      x: 60 + (i % 30) * 3,
      y: 60 + Math.floor(i / 30) * 3,
    }));
    expect(at({ rings: everywhere })).toBeDefined();
  });

  it('gives the first wanted the best place', () => {
    const [first] = placeLabels(
      [
        { id: 'a', text: '32', x: 100, y: 100 },
        { id: 'b', text: '33', x: 102, y: 101 },
      ],
      area,
    );
    expect(first).toMatchObject({ id: 'a', at: { x: 100, y: 88 } });
  });
});
