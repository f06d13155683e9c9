import type { Bank } from '../engine/model';

/** Slack from which a lead hangs in a loop that has to be held, mm. Source: trade guidance. */
const LOOP_FROM_MM = 50;

/**
 * Cylinders that stand side by side in a bank and fire one after the other. Where their leads run along each other, the
 * field of one can fire the other early: they are kept apart, or cross at a right angle.
 */
export function crossfirePairs(
  banks: readonly Bank[],
  firingOrder: readonly number[],
): readonly (readonly [number, number])[] {
  const besides = banks.flatMap(({ cylinders }) =>
    cylinders.slice(1).map((cylinder, i) => [cylinders[i] ?? cylinder, cylinder] as const),
  );
  const n = firingOrder.length;
  const inTurn = (a: number, b: number): boolean =>
    Math.abs(firingOrder.indexOf(a) - firingOrder.indexOf(b)) === 1 ||
    Math.abs(firingOrder.indexOf(a) - firingOrder.indexOf(b)) === n - 1;
  return besides.filter(([a, b]) => inTurn(a, b));
}

/** What to mind when the leads of an engine are laid, one note a line. */
export function routingNotes(
  banks: readonly Bank[],
  firingOrder: readonly number[],
  slackMm: readonly number[],
): readonly string[] {
  const pairs = crossfirePairs(banks, firingOrder);
  const loops = slackMm.flatMap((slack, i) => (slack >= LOOP_FROM_MM ? [`${i + 1} (${slack} mm)`] : []));
  return [
    ...pairs.map(
      ([a, b]) =>
        `Leads ${a} and ${b}: side by side and fired one after the other. Keep them in separate clips, or cross them at a right angle.`,
    ),
    ...(loops.length > 0
      ? [`Places with a loop to hold: ${loops.join(', ')}. Clip it clear of exhaust, belts and linkages.`]
      : []),
    'Every lead in its loom clip, none over the exhaust or against a sharp edge, boots pushed on until they click.',
  ];
}
