import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Ask, askFaults, openCounts, type Written } from './ask';

const written = (over: Partial<Written> = {}): Written => ({
  nowMs: Date.parse('2026-11-16T09:00:00Z'),
  answers: {},
  counts: [],
  codesKept: [],
  photos: 0,
  bench: { missing: [], wrong: [] },
  followUps: 0,
  ...over,
});
const plugs = (...names: readonly string[]) => names.map((name) => ({ component: 'plug' as const, name }));
const ask = (over: Partial<Ask>): Ask => ({ key: 'k', what: 'the thing', kind: 'text', ...over });
const count = { key: 'rags', what: 'rags in ports', expected: 3, out: null, back: null, found: '' };

describe('askFaults', () => {
  const cases: readonly (readonly [Ask, Partial<Written>])[] = [
    [ask({}), { answers: { k: 'by me at nine' } }],
    [ask({ kind: 'choice', choices: ['cold', 'hot'], accepts: ['cold'] }), { answers: { k: 'cold' } }],
    [ask({ kind: 'count', key: 'out:rags' }), { counts: [{ ...count, out: 3 }] }],
    [ask({ kind: 'count', key: 'back:rags' }), { counts: [{ ...count, out: 3, back: 3 }] }],
    [ask({ kind: 'codes', key: 'before' }), { codesKept: ['before'] }],
    [ask({ kind: 'codes', key: 'before' }), { answers: { before: 'none, by the hand reader' } }],
    [ask({ kind: 'wait', minutes: 10 }), { answers: { k: '2026-11-16T08:50:00Z' } }],
    [ask({ kind: 'photo' }), { photos: 1 }],
    [ask({ kind: 'photo' }), { answers: { k: 'left of the filler' } }],
    [ask({ kind: 'follow_up' }), { followUps: 1 }],
  ];

  it.each(cases)('holds %j until it is written down, and no longer', (one, answer) => {
    expect(askFaults([one], written({ counts: [count] }))).toHaveLength(1);
    expect(askFaults([one], written(answer))).toEqual([]);
  });

  it('takes no blank for an answer, and none that the work may not go on with', () => {
    expect(askFaults([ask({})], written({ answers: { k: '   ' } }))).toHaveLength(1);
    const temperature = ask({ kind: 'choice', choices: ['cold', 'hot'], accepts: ['cold'] });
    expect(askFaults([temperature], written({ answers: { k: 'hot' } }))[0]).toContain('has to be cold');
  });

  it('lets nobody cut a wait short, by however little', () => {
    const wait = ask({ kind: 'wait', minutes: 10 });
    const begun = written().nowMs;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20 * 60 }), (seconds) => {
        const faults = askFaults(
          [wait],
          written({ answers: { k: new Date(begun).toISOString() }, nowMs: begun + seconds * 1000 }),
        );
        expect(faults.length).toBe(seconds < 600 ? 1 : 0);
      }),
    );
    expect(askFaults([wait], written({ answers: { k: '2026-11-16T08:52:30Z' } }))[0]).toContain('3 more minutes');
    expect(askFaults([wait], written({ answers: { k: 'a while ago' } }))[0]).toContain('Begin the 10 minutes');
  });

  it('names the sites whose new plug nobody has measured', () => {
    expect(
      askFaults([ask({ kind: 'parts' })], written({ bench: { missing: plugs('2', '5'), wrong: [] } }))[0],
    ).toContain('Cylinders 2, 5');
    expect(askFaults([ask({ kind: 'parts' })], written())).toEqual([]);
  });
});

describe('a road test', () => {
  const asks = [
    ask({ kind: 'odometer', key: 'from', what: 'before' }),
    ask({ kind: 'odometer', key: 'to', what: 'after' }),
  ];
  const faults = (from: string, to: string) => askFaults(asks, written({ answers: { from, to } }));

  it('is read off the dash twice, goes forward, and not too far', () => {
    expect(faults('41,310 km', '41322')).toEqual([]);
    expect(faults('', '')).toHaveLength(2);
    expect(faults('a good way', '41322')).toHaveLength(1);
    expect(faults('41322', '41310')[0]).toContain('less than');
    expect(faults('41310', '51310')[0]).toContain('cannot be');
  });
});

describe('openCounts', () => {
  it('are closed only when as many came back as went out, and as many went out as there are', () => {
    fc.assert(
      fc.property(fc.option(fc.nat(9)), fc.option(fc.nat(9)), (out, back) => {
        const open = openCounts([{ ...count, expected: null, out, back }]).length > 0;
        expect(open).toBe(out === null || back === null || out !== back);
        expect(openCounts([{ ...count, out, back }]).length > 0).toBe(open || out !== 3);
      }),
    );
  });

  it('asks at once for a screw that is still in the engine, until somebody says that it was missing', () => {
    const step = [ask({ kind: 'count', key: 'out:rags' })];
    const said = (found: string) => askFaults(step, written({ counts: [{ ...count, out: 2, found }] }));
    expect(said('')).toEqual([expect.stringContaining('2 out, and there should be 3')]);
    expect(said('one was missing')).toEqual([]);
    // What was missing may be made up, and no more than that.
    const back = (n: number) => openCounts([{ ...count, out: 2, back: n, found: 'one was missing' }]);
    expect([1, 2, 3, 4].map((n) => back(n).length)).toEqual([1, 0, 0, 1]);
  });
});
