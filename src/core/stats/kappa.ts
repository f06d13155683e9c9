/**
 * Agreement of two graders beyond chance: Cohen's kappa.
 *
 * @param pairs what each said of the same item
 * @returns 1 for full agreement, 0 for that of chance, below for worse; null where it cannot be told: no pair, or both gave
 * one and the same grade to everything
 *
 * Source: J. Cohen, A coefficient of agreement for nominal scales, Educational and Psychological Measurement 20 (1960).
 */
export function cohensKappa(pairs: readonly (readonly [string, string])[]): number | null {
  if (pairs.length === 0) return null;
  const n = pairs.length;
  const agreed = pairs.filter(([a, b]) => a === b).length / n;
  const grades = new Set(pairs.flat());
  const share = (side: 0 | 1, grade: string): number => pairs.filter((pair) => pair[side] === grade).length / n;
  const byChance = [...grades].reduce((sum, grade) => sum + share(0, grade) * share(1, grade), 0);
  return byChance >= 1 ? null : (agreed - byChance) / (1 - byChance);
}
