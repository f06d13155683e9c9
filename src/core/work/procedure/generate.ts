import { allPlaces } from '../../engine/places';
import type { TaskComponent } from '../task';
import { counted, countsAt } from './counted';
import { close } from './phases/close';
import { open } from './phases/open';
import { plugs } from './phases/plugs';
import { prepare } from './phases/prepare';
import { prove } from './phases/prove';
import type { Draft, Procedure, ProcedureEngine, ProcedureInput, Step } from './step';
import { replaceAt, type VisitTask } from './visit';

/**
 * The steps of a visit to this engine in the order of work, from its tasks, layout, access items, ignition, fuel, sheets and
 * the shop's policies, and what is counted out and in. Several tasks are one list with one opening and one closing, and what
 * was taken off goes on again in exactly the reverse order.
 *
 * Source: general trade practice. The manufacturer's service information, local codes and licensed practice come first.
 */
export function visitProcedure(input: ProcedureInput): Procedure {
  const drafts = draftsOf(input);
  const counts = counted(input, new Set(drafts.flatMap(({ tools }) => tools)).size);
  const share = statedShare(input);
  const steps = drafts.map(
    ({ isFixed, ...step }): Step => ({
      ...step,
      asks: [...step.asks, ...countsAt(counts, step.key)],
      minutes: Math.max(1, Math.round(step.minutes * (isFixed ? 1 : share) * input.correction)),
    }),
  );
  return { steps, counts, minutes: steps.reduce((sum, step) => sum + step.minutes, 0) };
}

/** Bay time of a visit, minutes: the sum of the steps that it will have. */
export const visitMinutes = (engine: ProcedureEngine, tasks: readonly VisitTask[]): number =>
  visitProcedure({ ...engine, tasks, plug: null, otherWork: [] }).minutes;

/** What getting to some parts and closing again takes, minutes; to all plugs where nothing is said. */
export const openingMinutes = (
  engine: ProcedureEngine,
  tasks: readonly VisitTask[] = replaceTasks(engine, ['plug']),
): number =>
  visitProcedure({ ...engine, tasks, plug: null, otherWork: [] })
    .steps.filter(({ phase, kind }) => phase === 'open' || phase === 'close' || kind === 'lids')
    .reduce((sum, { minutes }) => sum + minutes, 0);

/** The tasks of a visit that replaces these components wherever the engine has them. */
export const replaceTasks = (
  { layout }: Pick<ProcedureEngine, 'layout'>,
  components: readonly TaskComponent[],
): readonly VisitTask[] => components.map((component) => replaceAt(component, allPlaces(layout, component)));

const draftsOf = (input: ProcedureInput): readonly Draft[] => [
  ...prepare(input),
  ...open(input),
  ...plugs(input),
  ...close(input),
  ...prove(input),
];

/** What a stated time may be off by before it is doubted more than the computed one. */
const LEAST_SHARE = 0.25;

/**
 * By how much the minutes of the steps are stretched so that a service of all plugs takes what somebody stated for it: where
 * no items are written that is the better figure. 1 where they are.
 */
function statedShare(input: ProcedureInput): number {
  if (input.items !== null) return 1;
  const drafts = draftsOf({ ...input, tasks: replaceTasks(input, ['plug']), plug: null, otherWork: [], earlier: null });
  const sum = (fixed: boolean): number =>
    drafts.reduce((minutes, step) => (step.isFixed === fixed ? minutes + step.minutes : minutes), 0);
  return Math.max(LEAST_SHARE, (input.minutes - sum(true)) / sum(false));
}
