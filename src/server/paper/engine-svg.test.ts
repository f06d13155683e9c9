import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, transverseV6 } from '@/core/engine/any-engine.fixture';
import { layoutOf, siteName } from '@/core/engine/layout';
import { engineSvg } from './engine-svg';

describe('the engine on paper', () => {
  it('has every site once, each bank by name, and lies within its frame', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const layout = layoutOf(model);
        const { svg } = engineSvg(layout);
        const names = [...svg.matchAll(/text-anchor="middle">([^<]+)<\/text>/g)].map(([, name]) => name);
        expect(names).toEqual([...layout.sites.map((site) => siteName(layout, site)), 'front of the vehicle']);
        for (const { place } of model.banks) if (place !== 'only') expect(svg).toContain(`>${place}</text>`);
        const [left = 0, top = 0, width = 0, height = 0] = (/viewBox="([^"]+)"/.exec(svg)?.[1] ?? '')
          .split(' ')
          .map(Number);
        for (const [, x, y] of svg.matchAll(/<circle cx="([^"]+)" cy="([^"]+)"/g)) {
          expect(Number(x) - 24).toBeGreaterThanOrEqual(left);
          expect(Number(x) + 24).toBeLessThanOrEqual(left + width);
          expect(Number(y) - 24).toBeGreaterThanOrEqual(top);
          expect(Number(y) + 24).toBeLessThanOrEqual(top + height);
        }
      }),
    );
  });

  it('has the front bank nearer the foot of the page when the engine lies across', () => {
    const { svg } = engineSvg(layoutOf(transverseV6));
    const y = (name: string) => Number(new RegExp(`y="([^"]+)" font-size="21"[^>]*>${name}<`).exec(svg)?.[1]);
    expect(y('2')).toBeGreaterThan(y('1'));
  });
});
