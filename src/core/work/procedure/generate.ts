import { counted, countsAt } from './counted';
import { close } from './phases/close';
import { open } from './phases/open';
import { plugs } from './phases/plugs';
import { prepare } from './phases/prepare';
import { prove } from './phases/prove';
import { isSeizing } from './removal';
import type { Draft, Phase, Procedure, ProcedureInput, Step } from './step';

/** Shares of the job's time by phase. Source: trade guidance, coarse; a shop's own times win. */
const SHARE: Readonly<Record<Phase, number>> = { prepare: 0.15, open: 0.2, plugs: 0.35, close: 0.15, prove: 0.15 };

/**
 * The steps of a plug service on this engine in the order of work, from its layout, access, ignition, fuel, sheet and the
 * shop's policies, and what is counted out and in.
 *
 * Source: general trade practice. The manufacturer's service information, local codes and licensed practice come first.
 */
export function plugServiceProcedure(input: ProcedureInput): Procedure {
  const counts = counted(input);
  const drafts = [...prepare(input), ...open(input), ...plugs(input), ...close(input), ...prove(input)].map((step) => ({
    ...step,
    asks: [...step.asks, ...countsAt(counts, step.key)],
  }));
  const fixed = drafts.reduce((sum, step) => sum + (step.fixedMinutes ?? 0), 0);
  // The time of an engine that always seizes has its soaks in it; for another they come on top.
  const shared = isSeizing(input.weakPoints) ? Math.max(input.minutes - fixed, input.minutes / 2) : input.minutes;
  return { steps: withMinutes(drafts, shared), counts, minutes: Math.round(shared + fixed) };
}

/** Minutes over the steps by phase and weight, besides those that are fixed; whole minutes, one at least. */
function withMinutes(drafts: readonly Draft[], minutes: number): readonly Step[] {
  const weightOf = (phase: Phase): number =>
    drafts.filter((step) => step.phase === phase && step.fixedMinutes === null).reduce((sum, s) => sum + s.weight, 0);
  return drafts.map(({ weight, fixedMinutes, ...step }) => ({
    ...step,
    minutes: fixedMinutes ?? Math.max(1, Math.round((minutes * SHARE[step.phase] * weight) / weightOf(step.phase))),
  }));
}
