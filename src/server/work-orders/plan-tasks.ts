import { z } from 'zod';
import type { ReleaseBlocker } from '@/core/catalogue/match';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { BANK_PLACES, type SiteKey } from '@/core/engine/model';
import { choosePlaces, type PlaceChoice, placeId } from '@/core/engine/places';
import { ok } from '@/core/shared/result';
import { placeName } from '@/core/work/say-places';
import { placeTarget } from '@/core/work/targets';
import { TASK_ACTIONS, TASK_COMPONENTS, TASK_WHYS } from '@/core/work/task';
import { type ComponentSheet, isPlugSheet } from '@/db/queries/catalogue';
import { fitmentFor, type VehicleFitment } from '../catalogue/fitment-of';
import { whyNoMatch } from '../due/refresh-due';
import { fail, type Outcome } from '../failure';

const MAX_PLACES = 32;

/** Places as a person writes them: "all", "front bank", "2A, 3". */
function placesFromText(text: string): PlaceChoice {
  const plain = text.trim().toLowerCase();
  if (plain === '' || plain === 'all') return 'all';
  const bank = BANK_PLACES.find((place) => plain === place || plain === `${place} bank`);
  return bank
    ? { bank }
    : plain
        .split(/[\s,;+]+/)
        .filter(Boolean)
        .slice(0, MAX_PLACES);
}

/** A task as a person or a program asks for it. */
const taskInput = z.object({
  action: z.enum(TASK_ACTIONS, 'An action is replace, inspect or test.'),
  component: z.enum(TASK_COMPONENTS, 'Choose what is worked on.'),
  places: z
    .union([
      z.object({ bank: z.enum(BANK_PLACES) }),
      z.array(z.string().trim().min(1).max(12)).min(1).max(MAX_PLACES).readonly(),
      z.string().max(120).transform(placesFromText),
    ])
    .default('all'),
  why: z.enum(TASK_WHYS).default('due'),
  /** More about why, in words. */
  note: z.string().trim().max(300).default(''),
  /** The finding that it answers. */
  findingKey: z.string().max(400).optional(),
});
export type TaskInput = z.output<typeof taskInput>;

const MAX_TASKS = 20;
export const tasksInput = z.array(taskInput).min(1, 'Name at least one task.').max(MAX_TASKS);

/** A service of all plugs: what a vehicle that is due comes in for. */
export const PLUG_SERVICE: TaskInput = { action: 'replace', component: 'plug', places: 'all', why: 'due', note: '' };

/** A task as it will be put on: its places in this engine, and the sheet in force. */
export interface TaskPlan extends Omit<TaskInput, 'places'> {
  readonly places: readonly SiteKey[];
  readonly sheet: ComponentSheet | null;
  readonly blockers: readonly ReleaseBlocker[];
}

const BLOCKERS: Readonly<Record<ReleaseBlocker, string>> = {
  unchecked: 'has been checked by nobody but the one who entered it',
  expired: 'has expired',
  'makers-disagree': 'is contradicted by another of its rank, and their ranges do not overlap',
  'boost-between':
    'is for another intake pressure; this vehicle’s lies between two known ones, where the tighter gap is taken once it is approved',
  'boost-unknown': 'is for another intake pressure, and nobody states a gap for this vehicle’s',
};

/**
 * Each task with its places and its sheet, or why one of them cannot be done: a part is never guessed, and a sheet that
 * nobody checked releases nothing without a reason.
 */
export function planTasks(
  fitment: VehicleFitment,
  inputs: readonly TaskInput[],
  releaseReason: string,
): Outcome<readonly TaskPlan[]> {
  const layout = layoutOf(fitment.family.model);
  const plans: TaskPlan[] = [];
  for (const input of inputs) {
    const plan = planTask(fitment, layout, input, releaseReason);
    if (!plan.ok) return plan;
    plans.push(plan.value);
  }
  const twice = namedTwice(layout, plans);
  return twice
    ? fail('conflict', `${twice} is in two of these tasks. One part at one place is in one task.`)
    : ok(plans);
}

function planTask(
  vehicleFitment: VehicleFitment,
  layout: Layout,
  { places: chosen, ...input }: TaskInput,
  releaseReason: string,
): Outcome<TaskPlan> {
  const { component, action } = input;
  const places = choosePlaces(layout, component, chosen);
  if (!places.ok) return fail('invalid', places.error, { places: places.error });
  const { fitment, blockers } = fitmentFor(vehicleFitment, component);
  const { unitNumber } = vehicleFitment.vehicle;
  // What goes in, or goes back to a torque, goes by a sheet; what is looked at may have none.
  const needsSheet = action === 'replace' || component === 'plug';
  if (fitment.kind !== 'match')
    return needsSheet
      ? fail(
          'conflict',
          `Unit ${unitNumber} has no firm match, so no ${component.replace('_', ' ')} can be named. ${whyNoMatch(fitment)} Resolve it on the vehicle's page.`,
        )
      : ok({ ...input, places: places.value, sheet: null, blockers: [] });
  const [blocker] = blockers;
  if (blocker && releaseReason.length < 3 && needsSheet)
    return fail(
      'conflict',
      `The spec sheet in force ${BLOCKERS[blocker]}. Have it mended, or give the reason for which you release it on the page of unit ${unitNumber}.`,
      { releaseReason: 'Say why this sheet may be worked by.' },
    );
  const isReleased = blockers.length === 0 || releaseReason.length >= 3;
  const sheet = isReleased && (component !== 'plug' || isPlugSheet(fitment.spec)) ? fitment.spec : null;
  return ok({ ...input, places: places.value, sheet, blockers: sheet ? blockers : [] });
}

/** A place that two tasks name, as a person calls it; null: none. */
function namedTwice(layout: Layout, plans: readonly TaskPlan[]): string | null {
  const seen = new Set<string>();
  for (const { component, places } of plans)
    for (const place of places) {
      const target = placeTarget(component, placeId(place));
      if (seen.has(target)) {
        const name = placeName(layout, component, place);
        return component === 'plug' ? `Plug ${name}` : name;
      }
      seen.add(target);
    }
  return null;
}
