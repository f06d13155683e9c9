import { type AccessItem, itemsOnTheWay } from '@/core/engine/access-items';
import { gatesOf } from '@/core/work/gates';
import { type WayPart, wayParts } from '@/core/work/procedure/kit';
import { type ProcedureInput, stepOf } from '@/core/work/procedure/step';
import { sitesReached } from '@/core/work/procedure/visit';
import { stepTarget } from '@/core/work/targets';
import { type FloorState, jobRecordOf, orderModelOf } from './order-state';
import { procedureInput } from './procedure-of';

/* The way to the plugs of one order: what is wanted for it, where there is a choice, what was found broken, and its gates. */

/** A place on the way where there are two methods. */
export interface WayChoice {
  readonly usual: AccessItem;
  readonly others: readonly AccessItem[];
  /** Key of the one that is taken. */
  readonly taken: string;
}

/** Found missing or broken on arrival: not charged to whoever says so. */
interface ArrivalDefect {
  readonly step: string;
  readonly title: string;
  readonly says: string;
  readonly saidBy: string | null;
  /** The part that often breaks there; null: nobody has written one. */
  readonly part: { readonly what: string; readonly number: string | null } | null;
  /** Pictures at that step. */
  readonly photos: readonly string[];
}

export interface WayView {
  readonly parts: readonly WayPart[];
  readonly choices: readonly WayChoice[];
  readonly defects: readonly ArrivalDefect[];
}

export function wayOf(state: FloorState): WayView {
  const input = procedureInput(state, null);
  return {
    parts: wayParts(input),
    choices: choicesOf(state, input),
    defects: defectsOf(state),
  };
}

function choicesOf({ family, vehicle, order }: FloorState, input: ProcedureInput): readonly WayChoice[] {
  const items = family.accessItems ?? [];
  const cylinders = new Set(sitesReached(input).map(({ cylinder }) => cylinder));
  const reached = itemsOnTheWay(items, cylinders, vehicle.options, {});
  return reached.flatMap((usual): WayChoice[] => {
    const others = items.filter(({ insteadOf }) => insteadOf === usual.key);
    const known = others.some(({ key }) => key === order.ways[usual.key]);
    return others.length === 0 ? [] : [{ usual, others, taken: known ? (order.ways[usual.key] ?? '') : usual.key }];
  });
}

function defectsOf({ steps, photos, family }: FloorState): readonly ArrivalDefect[] {
  return steps.flatMap((step): ArrivalDefect[] => {
    const says = step.answers.found?.trim();
    if (!says) return [];
    const item = family.accessItems?.find(({ key }) => step.kind !== null && step.key === stepOf(step.kind, key));
    return [
      {
        step: step.key,
        title: step.title,
        says,
        saidBy: step.saidBy,
        part: item?.breaks ? { what: item.breaks.what, number: item.breaks.number } : null,
        photos: photos.filter(({ target }) => target === stepTarget(step.key)).map(({ id }) => id),
      },
    ];
  });
}

/** The gates of an order as they stand, each with the lift that lets the work past it. */
export function gatesViewOf(state: FloorState) {
  const model = orderModelOf(state);
  return gatesOf(model, jobRecordOf(state)).map((gate) => ({
    ...gate,
    lift: state.lifts.find((lift) => lift.gate === gate.gate && lift.target === null) ?? null,
  }));
}
