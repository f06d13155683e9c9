import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hasBreak, minutesWithBreak, travelBetween } from './person-day';

const breaks = { minutes: 30, fromMin: 660, toMin: 840 };
const noWay = () => 0;
const stay = (fromMin: number, toMin: number) => ({ fromMin, toMin });

describe('the way between depots', () => {
  it('stands for both directions, and takes nothing where nobody named it', () => {
    const named = { travelMin: { N: { M: 35 } } };
    expect([travelBetween(named, 'N', 'M'), travelBetween(named, 'M', 'N')]).toEqual([35, 35]);
    expect([travelBetween(named, 'N', 'E'), travelBetween(named, 'N', 'N'), travelBetween({}, 'N', 'M')]).toEqual([
      0, 0, 0,
    ]);
  });
});

describe('a break', () => {
  it.each([
    ['work that begins in the window needs none', [stay(660, 900)], true],
    ['work that ends in the window needs none', [stay(480, 840)], true],
    ['half an hour between two jobs', [stay(480, 700), stay(730, 900)], true],
    ['a minute too few', [stay(480, 700), stay(729, 900)], false],
    ['free, but before the window', [stay(480, 600), stay(660, 800), stay(800, 900)], false],
    ['a job over the whole window has its break within', [stay(480, 900)], true],
  ])('%s', (_, stays, has) => expect(hasBreak(stays, breaks, noWay)).toBe(has));

  it('is not on the way: before it or after it', () => {
    const stays = [stay(480, 650), stay(720, 900)];
    expect(hasBreak(stays, breaks, () => 30)).toBe(true);
    expect(hasBreak(stays, breaks, () => 40)).toBe(true);
    expect(hasBreak(stays, breaks, () => 41)).toBe(false);
  });

  it('makes only a job longer that covers the window', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 0, max: 900 }), (minutes, start) => {
        const covers = start <= breaks.fromMin && start + minutes >= breaks.toMin;
        expect(minutesWithBreak(minutes, start, breaks)).toBe(covers ? minutes + 30 : minutes);
        expect(minutesWithBreak(minutes, start, null)).toBe(minutes);
      }),
    );
  });
});
