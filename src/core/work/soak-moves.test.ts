import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pipelineMinutes, soakPipeline } from './procedure/soak';
import { nextSoakMove, type Soaking } from './soak-moves';

const times = { prepare: 4, soak: 30, remove: 8 };
const minute = 60_000;
const names = (n: number): string[] => Array.from({ length: n }, (_, i) => `${i + 1}A`);

/** One person who does at once what they are told, from nothing to the last plug out: minutes. */
function obey(sites: readonly string[]): number {
  let now = 0;
  let left: Soaking[] = sites.map((site) => ({ site, soakedAt: null }));
  for (let moves = 0; left.length > 0; moves++) {
    if (moves > 100) throw new Error('it never ends');
    const { next } = nextSoakMove(left, times, now);
    if (next?.kind === 'prepare') {
      now += times.prepare * minute;
      left = left.map((s) => (s.site === next.site ? { ...s, soakedAt: now } : s));
    } else if (next?.kind === 'wait') now = next.untilMs;
    else if (next?.kind === 'remove') {
      now += times.remove * minute;
      left = left.filter(({ site }) => site !== next.site);
    }
  }
  return now / minute;
}

describe('nextSoakMove', () => {
  it('leads one person through as fast as the pipeline, and says beforehand when it ends', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), (n) => {
        const took = obey(names(n));
        expect(took).toBe(pipelineMinutes(soakPipeline(names(n), times)));
        const said = nextSoakMove(
          names(n).map((site) => ({ site, soakedAt: null })),
          times,
          0,
        ).doneMs;
        expect(said / minute).toBe(took);
      }),
    );
  });

  it('never sends to a plug whose soak is not over, and counts down what is left', () => {
    const { next, left } = nextSoakMove(
      [
        { site: '1A', soakedAt: 0 },
        { site: '2A', soakedAt: 6 * minute },
      ],
      times,
      20 * minute,
    );
    expect(next).toEqual({ kind: 'wait', site: '1A', untilMs: 30 * minute });
    expect(left).toEqual([
      { site: '1A', minutes: 10 },
      { site: '2A', minutes: 16 },
    ]);
    expect(nextSoakMove([{ site: '1A', soakedAt: 0 }], times, 30 * minute).next).toEqual({
      kind: 'remove',
      site: '1A',
    });
    expect(nextSoakMove([], times, 5)).toEqual({ next: null, doneMs: 5, left: [] });
  });
});
