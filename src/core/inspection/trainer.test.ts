import { describe, expect, it } from 'vitest';
import type { TaskComponent } from '../work/task';
import { GRADES, type Graded, gradesFor, nextPart, rightShare, TRAINER_PARTS, trainerPart } from './trainer';
import { CONDITIONS, NORMAL, REGIONS_OF } from './vocabulary';

/** Any generator will do, as long as the same number gives the same plug. */
const seeded = (seed: number) => {
  let state = seed * 2654435761;
  return () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
  };
};
const part = (n: number) => trainerPart(n, seeded(n + 1));

/** What may be said of a component. */
const wordsOf = (component: TaskComponent): readonly string[] =>
  REGIONS_OF[component].flatMap((region) => CONDITIONS[region]);

describe('trainerPart', () => {
  it('is the same for everyone, and shows what its answer needs', () => {
    for (let n = 0; n < TRAINER_PARTS; n++) {
      expect(part(n)).toEqual(part(n));
      const { component, answer, seen, gapMm } = part(n);
      const faults = Object.keys(seen).filter((word) => !NORMAL.has(word));
      expect(faults.length > 0).toBe(answer !== 'normal' && answer !== 'part_normal');
      expect((gapMm ?? 0) > 1.4).toBe(answer === 'worn_out');
      expect(gapMm === null).toBe(component !== 'plug');
      expect(gradesFor(component)).toContain(answer);
      for (const word of Object.keys(seen)) expect(wordsOf(component)).toContain(word);
    }
  });
});

describe('nextPart', () => {
  it('shows every grade before any a second time, then the one that a person does not know', () => {
    const graded: Graded[] = [];
    for (let i = 0; i < GRADES.length; i++) {
      const { number, answer } = part(nextPart(graded));
      graded.push({ plug: number, answer, given: answer });
    }
    expect(new Set(graded.map(({ answer }) => answer)).size).toBe(GRADES.length);
    const many = [...graded];
    let water = 0;
    for (let i = 0; i < 60; i++) {
      const { number, answer } = part(nextPart(many));
      if (answer === 'water') water += 1;
      many.push({ plug: number, answer, given: answer === 'water' ? 'normal' : answer });
    }
    expect(water).toBeGreaterThan(15);
    expect(rightShare(many, 'water')).toBeLessThan(0.2);
  });

  it('never shows the same plug of a grade twice before its others', () => {
    const graded: Graded[] = [];
    for (let i = 0; i < TRAINER_PARTS; i++) {
      const { number, answer } = part(nextPart(graded));
      graded.push({ plug: number, answer, given: answer });
    }
    expect(new Set(graded.map(({ plug: n }) => n)).size).toBe(TRAINER_PARTS);
  });
});
