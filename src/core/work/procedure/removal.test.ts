import { describe, expect, it } from 'vitest';
import { BREAKAWAY_FEELS, type BreakawayFeel } from '../../inspection/vocabulary';
import { type EarlierRemoval, REMOVALS, removalOf } from './removal';

const earlier = (feel: BreakawayFeel | null, compound: string | null = 'nickel compound'): EarlierRemoval => ({
  on: '2023-05-02',
  feel,
  compound,
});

describe('removalOf', () => {
  it.each([
    ['an engine that never seized, nothing on record', false, null, 'usual'],
    ['one that came out easily', false, earlier('normal'), 'usual'],
    ['one that was tight', false, earlier('tight'), 'short'],
    ['one that was seized, though its family does not', false, earlier('seized'), 'long'],
    ['a family that seizes, nothing on record', true, null, 'long'],
    ['that family, out easily and in with compound', true, earlier('normal'), 'short'],
    ['that family, out easily and in dry', true, earlier('loose', null), 'long'],
    ['that family, nobody noted how they came', true, earlier(null), 'long'],
    ['that family, not noticed is not easy', true, earlier('unknown'), 'long'],
    ['that family, tight in spite of compound', true, earlier('tight'), 'long'],
  ] as const)('%s', (_, seizes, last, removal) => {
    expect(removalOf(seizes, last).removal).toBe(removal);
  });

  it('never takes a family that seizes for a harmless one, nor a worse last time for a better', () => {
    const hardness = (seizes: boolean, last: EarlierRemoval | null) =>
      REMOVALS.indexOf(removalOf(seizes, last).removal);
    const pasts = [null, ...BREAKAWAY_FEELS.flatMap((feel) => [earlier(feel), earlier(feel, null)])];
    for (const past of pasts) expect(hardness(true, past)).toBeGreaterThanOrEqual(hardness(false, past));
    for (const seizes of [true, false])
      for (const compound of ['nickel compound', null]) {
        const order = (['normal', 'tight', 'seized'] as const).map((feel) => hardness(seizes, earlier(feel, compound)));
        expect(order).toEqual([...order].sort((a, b) => a - b));
      }
  });

  it('says why, with the day', () => {
    expect(removalOf(true, earlier('normal')).because).toMatch(/2023-05-02.*nickel compound/);
    expect(removalOf(true, null).because).toMatch(/no earlier removal/);
  });
});
