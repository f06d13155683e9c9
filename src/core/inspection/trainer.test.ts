import { describe, expect, it } from 'vitest';
import { GRADES, type Graded, nextPlug, rightShare, TRAINER_PLUGS, trainerPlug } from './trainer';
import { NORMAL } from './vocabulary';

/** Any generator will do, as long as the same number gives the same plug. */
const seeded = (seed: number) => {
  let state = seed * 2654435761;
  return () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
  };
};
const plug = (n: number) => trainerPlug(n, seeded(n + 1));

describe('trainerPlug', () => {
  it('is the same for everyone, and shows what its answer needs', () => {
    for (let n = 0; n < TRAINER_PLUGS; n++) {
      expect(plug(n)).toEqual(plug(n));
      const { answer, seen, gapMm } = plug(n);
      const faults = Object.keys(seen).filter((word) => !NORMAL.has(word));
      expect(faults.length > 0).toBe(answer !== 'normal');
      expect(gapMm > 1.4).toBe(answer === 'worn_out');
    }
  });
});

describe('nextPlug', () => {
  it('shows every grade before any a second time, then the one that a person does not know', () => {
    const graded: Graded[] = [];
    for (let i = 0; i < GRADES.length; i++) {
      const { number, answer } = plug(nextPlug(graded));
      graded.push({ plug: number, answer, said: answer });
    }
    expect(new Set(graded.map(({ answer }) => answer)).size).toBe(GRADES.length);
    const many = [...graded];
    let water = 0;
    for (let i = 0; i < 40; i++) {
      const { number, answer } = plug(nextPlug(many));
      if (answer === 'water') water += 1;
      many.push({ plug: number, answer, said: answer === 'water' ? 'normal' : answer });
    }
    expect(water).toBeGreaterThan(15);
    expect(rightShare(many, 'water')).toBeLessThan(0.2);
  });

  it('never shows the same plug of a grade twice before its others', () => {
    const graded: Graded[] = [];
    for (let i = 0; i < TRAINER_PLUGS; i++) {
      const { number, answer } = plug(nextPlug(graded));
      graded.push({ plug: number, answer, said: answer });
    }
    expect(new Set(graded.map(({ plug: n }) => n)).size).toBe(TRAINER_PLUGS);
  });
});
