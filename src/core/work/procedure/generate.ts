import { counted, countsAt } from './counted';
import { phaseMinutes } from './minutes';
import { close } from './phases/close';
import { open } from './phases/open';
import { plugs } from './phases/plugs';
import { prepare } from './phases/prepare';
import { prove } from './phases/prove';
import { isSeizing } from './removal';
import type { Draft, Phase, Procedure, ProcedureInput, Step } from './step';

/**
 * The steps of a visit to this engine in the order of work, from its tasks, layout, access, ignition, fuel, sheets and the
 * shop's policies, and what is counted out and in. Several tasks are one list with one opening and one closing.
 *
 * Source: general trade practice. The manufacturer's service information, local codes and licensed practice come first.
 */
export function visitProcedure(input: ProcedureInput): Procedure {
  const counts = counted(input);
  const drafts = [...prepare(input), ...open(input), ...plugs(input), ...close(input), ...prove(input)].map((step) => ({
    ...step,
    asks: [...step.asks, ...countsAt(counts, step.key)],
  }));
  const fixed = drafts.reduce((sum, step) => sum + (step.fixedMinutes ?? 0), 0);
  const besides = input.otherWork.reduce((sum, { minutes }) => sum + minutes, 0);
  const phases = phaseMinutes(input);
  const usual = Object.values(phases).reduce((sum, one) => sum + one, 0);
  // The time of an engine that always seizes has its soaks in it; for another they come on top.
  const shared = isSeizing(input.weakPoints) ? Math.max(usual - (fixed - besides), usual / 2) : usual;
  return { steps: withMinutes(drafts, phases, shared / usual), counts, minutes: Math.round(shared + fixed) };
}

/** Minutes over the steps by phase and weight, besides those that are fixed; whole minutes, one at least. */
function withMinutes(
  drafts: readonly Draft[],
  phases: Readonly<Record<Phase, number>>,
  factor: number,
): readonly Step[] {
  const weightOf = (phase: Phase): number =>
    drafts.filter((step) => step.phase === phase && step.fixedMinutes === null).reduce((sum, s) => sum + s.weight, 0);
  return drafts.map(({ weight, fixedMinutes, ...step }) => ({
    ...step,
    minutes: fixedMinutes ?? Math.max(1, Math.round((phases[step.phase] * factor * weight) / weightOf(step.phase))),
  }));
}
