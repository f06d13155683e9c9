import { partKey } from '../catalogue/match';
import type { Nm } from '../shared/kinds';
import { wrenchFaults } from '../torque/at-vehicle';
import type { PersonUnits } from '../units/person-units';
import { askFaults } from './ask';
import { coolingFault, USUAL_COOLING_MIN } from './cooling';
import type { Fields, JobRecord } from './entry';
import { stageOfStep } from './gate-table';
import { placeGates, stopBefore } from './gates';
import {
  countsIn,
  fieldsOf,
  isNewAt,
  type OrderModel,
  type PlaceModel,
  placeIn,
  quantityIn,
  type StepModel,
  type TaskModel,
  taskOf,
} from './order-model';
import { benchFaults, type Faults, isFitted, placeFaults } from './place-done';
import { type PlaceQuantity, type PlaceRecord, placeRecord } from './place-fields';
import { sayPlaces } from './say-places';
import { answerField, stepTarget } from './targets';

/* What keeps a place from being done and a step from being ticked: what each asks for, and the gates before it. */

/**
 * Why a place cannot be called done yet, by field.
 *
 * @param over fields that a press would write besides
 */
export function placeFaultsIn(
  model: OrderModel,
  record: JobRecord,
  target: string,
  units: PersonUnits,
  over: Fields = {},
): Faults {
  const place = model.places.find((place) => place.target === target);
  const task = place && taskOf(model, place);
  if (!place || !task) return {};
  const texts = placeRecord({ ...fieldsOf(record, target), ...over });
  const si = (field: PlaceQuantity): number | null => quantityIn(model, target, field, texts[field], units);
  const fitted = numbersBeside(model, record, place).flatMap(({ key, done }) => (done ? [key] : []));
  const figures = {
    newGapMm: si('newGap'),
    installedTorqueNm: si('installedTorque'),
    primaryOhm: si('primaryOhm'),
    secondaryOhm: si('secondaryOhm'),
    ohm: si('ohm'),
  };
  return {
    ...placeFaults(texts, figures, task.action, task.rules, fitted),
    ...gateFaults(model, place, task, texts, si('breakawayTorque')),
    ...wrenchInHand(model, task, texts, si('wrenchSetting')),
  };
}

/** What is wrong with the wrench, where one tightens to a torque. */
function wrenchInHand(
  { wrenches, today }: OrderModel,
  { rules }: TaskModel,
  { torqueMethod, wrench, adapter, remark }: PlaceRecord,
  settingNm: Nm | null,
): Faults {
  if (torqueMethod !== 'wrench' || rules.torqueNm === null) return {};
  return wrenchFaults(wrenches, rules.torqueNm, { wrench, adapter, settingNm, remark }, today);
}

/** A step that asks when the engine was shut off is held as long as it is hot; one that does not goes by the touch. */
function coolingFaultAt({ asks }: StepModel, fields: Fields, nowMs: number): string | null {
  const shut = asks.find(({ kind }) => kind === 'clock');
  if (!shut) return null;
  const answerOf = (key: string): string => String(fields[answerField(key)] ?? '');
  return coolingFault(
    { shutAt: answerOf('shut'), outside: answerOf('outside'), head: answerOf('head') },
    shut.minutes ?? USUAL_COOLING_MIN,
    nowMs,
  );
}

/** What the gates of a plug's own place keep it from. A plug that stays in as it is has none. */
function gateFaults(
  model: OrderModel,
  { target }: PlaceModel,
  { action, rules }: TaskModel,
  place: PlaceRecord,
  breakawayNm: Nm | null,
): Faults {
  if (rules.component !== 'plug' || (!isFitted(action, place) && place.result === 'bad')) return {};
  return Object.fromEntries(
    placeGates(model, { target, place, breakawayNm, mostNm: rules.torqueNm.max })
      .filter(({ state }) => state === 'shut')
      .map(({ field, waits }) => [field, waits.join(' ')]),
  );
}

/** The numbers read at the other places of a component, by key. */
const numbersBeside = (
  { places }: OrderModel,
  record: JobRecord,
  place: PlaceModel,
): readonly { readonly key: string; readonly done: boolean }[] =>
  places.flatMap((other) => {
    const { done, newNumber } = placeIn(record, other.target);
    return other.component === place.component && other.target !== place.target && newNumber
      ? [{ key: partKey(newNumber), done }]
      : [];
  });

/** New parts as they lie on the bench. */
interface BenchCheck {
  /** Places whose new part has no number yet, or whose new plug no gap. */
  readonly missing: readonly PlaceModel[];
  /** What is wrong with the others, in words, each with its places: another number, designs that are mixed, a gap outside its range. */
  readonly wrong: readonly string[];
}

/** Whether each new part that is laid out is the right one: read, measured and judged before anything is opened. */
export function checkBench(model: OrderModel, record: JobRecord, units: PersonUnits): BenchCheck {
  const missing: PlaceModel[] = [];
  const wrong = new Map<string, PlaceModel[]>();
  for (const place of model.places) {
    const task = taskOf(model, place);
    if (!task || place.moved || !isNewAt(model, record, place)) continue;
    const texts = placeIn(record, place.target);
    if (texts.newNumber === '' || (place.component === 'plug' && texts.newGap === '')) missing.push(place);
    const gapMm = quantityIn(model, place.target, 'newGap', texts.newGap, units);
    const goesIn = new Set(task.rules.accepted.flat());
    const beside = numbersBeside(model, record, place).flatMap(({ key }) => (goesIn.has(key) ? [key] : []));
    const faults = benchFaults(texts, gapMm, task.rules, beside);
    for (const field of ['newNumber', 'newGap'] as const) {
      const fault = texts[field] === '' ? undefined : faults[field];
      if (fault) wrong.set(fault, [...(wrong.get(fault) ?? []), place]);
    }
  }
  return { missing, wrong: [...wrong].map(([fault, places]) => `${sayPlaces(places)}: ${fault}`) };
}

/**
 * What keeps a step from being ticked, in words.
 *
 * @param nowMs by the clock of whoever ticks it
 */
export function stepFaultsIn(
  model: OrderModel,
  record: JobRecord,
  key: string,
  nowMs: number,
  units: PersonUnits,
): readonly string[] {
  const step = model.steps.find((candidate) => candidate.key === key);
  if (!step) return [];
  const stage = stageOfStep(step.kind);
  const shut = stage ? stopBefore(model, record, stage, step.kind) : null;
  if (shut) return [shut];
  const target = stepTarget(key);
  const fields = fieldsOf(record, target);
  if (step.kind === 'isolate' && !model.mayIsolate)
    return [
      'Only a person qualified for traction systems isolates this one and says so: have one of them do it and tick it.',
    ];
  const hot = step.kind === 'cold' ? coolingFaultAt(step, fields, nowMs) : null;
  if (hot) return [hot];
  return askFaults(step.asks, {
    nowMs,
    answers: Object.fromEntries(step.asks.map((ask) => [ask.key, String(fields[answerField(ask.key)] ?? '')])),
    counts: countsIn(model, record),
    codesKept: model.codesKept,
    photos: model.photos.filter((photo) => photo.target === target).length,
    bench: checkBench(model, record, units),
    followUps: model.followUps,
  });
}
