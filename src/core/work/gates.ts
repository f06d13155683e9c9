import type { Nm } from '../shared/kinds';
import { SEIZED_AT } from '../torque/breakaway';
import { openCounts } from './ask';
import type { JobRecord } from './entry';
import { GATE_TABLE, GATES, type Gate, STAGE_WORDS, STAGES, type Stage } from './gate-table';
import {
  countsIn,
  type OrderModel,
  openPlacesIn,
  placeIn,
  type StepModel,
  shortTitle,
  stepStateIn,
} from './order-model';
import { type PlaceField, type PlaceRecord, piecesSays } from './place-fields';
import type { StepKind } from './procedure/step';
import { sayPlaces } from './say-places';

/* How the gates of one visit stand. The vehicle's page and every use-case ask here, so that a device that was offline is held by
   the same rules. */

export const isLifted = ({ lifts }: Pick<OrderModel, 'lifts'>, gate: Gate, target: string | null = null): boolean =>
  lifts.some((lift) => lift.gate === gate && (lift.target === null || lift.target === target));

const stepsOf = ({ steps }: Pick<OrderModel, 'steps'>, gate: Gate): readonly StepModel[] => {
  const kinds: readonly (StepKind | null)[] = GATE_TABLE[gate].steps;
  return steps.filter(({ kind, perSite }) => !perSite && kinds.includes(kind));
};

/** What a gate still waits for, in words; empty: it is open, or this engine has no such step. */
function gateWaits(model: OrderModel, record: JobRecord, gate: Gate): readonly string[] {
  const steps = stepsOf(model, gate)
    .filter(({ key }) => stepStateIn(record, key) !== 'done')
    .map((step) => `“${shortTitle(step)}”`);
  if (gate === 'counts') return [...countWaits(model, record), ...steps];
  return gate === 'pieces' ? piecesWait(model, record) : [...steps, ...soaked(model, record, gate)];
}

/** Plugs that came out cracked, and of which nobody has said that every piece is there. */
const piecesWait = ({ places }: OrderModel, record: JobRecord): readonly string[] =>
  places.flatMap((place) => {
    const says = place.component === 'plug' ? piecesSays(placeIn(record, place.target)) : null;
    return says === null ? [] : [`${sayPlaces([place])}: ${says}`];
  });

/** Every place done, and every count that is made before the start even. */
function countWaits(model: OrderModel, record: JobRecord): readonly string[] {
  const open = openPlacesIn(model, record);
  // A cover that goes on after the first start has its screws counted then.
  const late = new Set(model.steps.filter(({ kind }) => kind === 'lids').map(({ key }) => key));
  return [
    ...(open.length > 0 ? [`${sayPlaces(open)} not done yet.`] : []),
    ...openCounts(countsIn(model, record).filter(({ backStep }) => !late.has(backStep))),
  ];
}

/** Penetrant that nobody has cleared, before the step for it is there. */
function soaked(model: OrderModel, record: JobRecord, gate: Gate): readonly string[] {
  if (gate !== 'solvent' || stepsOf(model, gate).length > 0) return [];
  const isSoaked = model.places.some(
    ({ component, target }) => component === 'plug' && placeIn(record, target).soakedAt !== null,
  );
  return isSoaked
    ? ['Penetrant was used: clear the cylinders of fluid with the plugs out before anything is cranked.']
    : [];
}

interface GateState {
  readonly gate: Gate;
  readonly state: 'open' | 'lifted' | 'shut';
  /** What it waits for; empty where it is open. */
  readonly waits: readonly string[];
}

/** Whether an order has a gate at all: one without steps of its own is that of places and counts. */
const hasGate = (model: OrderModel, gate: Gate): boolean =>
  gate === 'counts' || gate === 'solvent' || gate === 'pieces' || stepsOf(model, gate).length > 0;

/** The gates of a visit as they stand, in the order of work; those of a place stand at the place. */
export const gatesOf = (model: OrderModel, record: JobRecord): readonly GateState[] =>
  GATES.filter((gate) => hasGate(model, gate)).map((gate): GateState => {
    const waits = gateWaits(model, record, gate);
    if (waits.length === 0) return { gate, state: 'open', waits };
    return { gate, state: isLifted(model, gate) ? 'lifted' : 'shut', waits };
  });

const isBefore = (gate: Gate, stage: Stage): boolean =>
  STAGES.indexOf(GATE_TABLE[gate].before) <= STAGES.indexOf(stage);

/**
 * Why nothing of a stage may be done yet, in words: the first gate that is shut. Null: it may. Asked of every entry, so it
 * looks no further than that gate.
 *
 * @param own the kind of a step that may itself be what opens a gate, and does not wait for it
 */
export function stopBefore(
  model: OrderModel,
  record: JobRecord,
  stage: Stage,
  doing: StepKind | null = null,
): string | null {
  for (const gate of GATES) {
    if (!isBefore(gate, stage) || (doing !== null && GATE_TABLE[gate].steps.includes(doing))) continue;
    const waits = gateWaits(model, record, gate);
    if (waits.length > 0 && !isLifted(model, gate))
      return `First, before ${STAGE_WORDS[GATE_TABLE[gate].before]}: ${GATE_TABLE[gate].says}. ${waits.join(' ')}`;
  }
  return null;
}

/** Gates that stay shut because a step was marked as not done, in words: only a supervisor lets the order close behind them. */
export const shutByNotDone = (model: OrderModel, record: JobRecord): readonly string[] =>
  gatesOf(model, record).flatMap(({ gate, state }) => {
    if (state !== 'shut') return [];
    const undone = stepsOf(model, gate).filter(({ key }) => stepStateIn(record, key) === 'not_done');
    return undone.length === 0
      ? []
      : [
          `Not done: ${undone.map((step) => `“${shortTitle(step)}”`).join(', ')}. It is a gate (${GATE_TABLE[gate].says}): do it, or have a supervisor lift it with a reason.`,
        ];
  });

/** A place as its gates see it. */
interface PlaceAtGate {
  readonly target: string;
  readonly place: PlaceRecord;
  readonly breakawayNm: Nm | null;
  /** The most that the plug is torqued to, N·m. */
  readonly mostNm: Nm;
}

/** Gates of one plug site that its record keeps shut before the place is done, by the field that opens each. */
export function placeGates(
  model: Pick<OrderModel, 'lifts'>,
  { target, place, breakawayNm, mostNm }: PlaceAtGate,
): readonly (GateState & { readonly field: PlaceField })[] {
  const { start, hole, dropped, newGap, breakawayFeel, soakedAt } = place;
  const isSeized = breakawayFeel === 'seized' || (breakawayNm !== null && breakawayNm > SEIZED_AT * mostNm);
  const shut: readonly (readonly [Gate, PlaceField, string | null])[] = [
    ['breakaway', 'breakawayFeel', isSeized && soakedAt === null ? SEIZED : null],
    ['threads', 'hole', holeSays(hole)],
    ['dropped', 'dropped', dropped === 'dropped' ? droppedSays(newGap) : null],
    ['by_hand', 'start', startSays(start)],
  ];
  return shut.flatMap(([gate, field, says]) =>
    says === null ? [] : [{ gate, field, state: isLifted(model, gate, target) ? 'lifted' : 'shut', waits: [says] }],
  );
}

const SEIZED =
  'It is seized, or came loose at more than twice its torque: penetrant first, let it soak, then to and fro. Where it does not give, a supervisor decides.';

const droppedSays = (newGap: string): string =>
  newGap === ''
    ? 'It was dropped: measure its gap again, and look at the insulator.'
    : 'It was dropped: look at the insulator, and say that it is sound.';

function startSays(start: PlaceRecord['start']): string | null {
  if (start === null) return 'Say that it was started by hand.';
  return start === 'by hand'
    ? null
    : 'It bound early: back it out by hand, look at thread and hole, clean both, and start it again by hand. Where it binds again, stop: a supervisor decides.';
}

const REPAIRS = {
  stiff: 'chase it with a thread chaser and grease, about half an hour',
  torn: 'a threaded insert, about 2 h with its kit, grease on the tool to catch the chips',
  pulled: 'the head comes off: a day or more, and its gaskets',
} as const;

/** What a thread in the head wants before a plug goes in; null: nothing. */
export function holeSays(hole: PlaceRecord['hole']): string | null {
  if (hole === null) return 'Look at the thread in the head.';
  return hole === 'sound'
    ? null
    : `The thread in the head is ${hole}: ${REPAIRS[hole]}. A supervisor decides before a plug goes in.`;
}
