import { addDays } from '@/core/calendar/plain-date';
import type { DueItem, OtherDue } from '@/core/due/due-item';
import { WINDOW_DAYS } from '@/core/due/vehicle-due';
import type { Km } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { bindingText, STATE_WORDS, seizingText, sinceText, sureText } from '@/text/due-words';
import { countText, dateText, distanceText, NONE, percentText, spanText } from '@/text/format';

/** Columns that can be left out; vehicle and due date always stand. */
export const DUE_COLUMNS = ['life', 'pressure', 'depot', 'limit', 'odometer', 'sure', 'order'] as const;
export type DueColumn = (typeof DUE_COLUMNS)[number];

export const COLUMN_WORDS: Readonly<Record<DueColumn, string>> = {
  life: 'Life used',
  pressure: 'Pressure',
  depot: 'Depot',
  limit: 'Limit that binds',
  odometer: 'Odometer now',
  sure: 'How sure',
  order: 'Work order',
};

/** A vehicle of the due list in words, as little of it as the page needs. */
export interface DueRow {
  readonly id: string;
  readonly unit: string;
  readonly name: string;
  readonly engine: string;
  readonly depot: string;
  readonly group: string;
  readonly lifeUsed: number | null;
  readonly assumed: boolean;
  readonly life: string;
  /** What binds first, and what else is due about then. */
  readonly what: string;
  readonly also: string;
  readonly state: string;
  readonly urgent: boolean;
  /** What else makes waiting dear: "misfire 12". */
  readonly trouble: string | null;
  readonly due: string;
  /** Money a week: of the vehicle, or of the component that the list is of. */
  readonly pressure: number | null;
  readonly currency: string;
  /** The pressure is that of the whole vehicle. */
  readonly isWhole: boolean;
  readonly limit: string;
  readonly odometer: string;
  readonly suspects: number;
  readonly sure: string;
  readonly order: { readonly id: string; readonly number: number; readonly when: string } | null;
  /** What can be done where there is no work order. */
  readonly next: 'open' | 'waits' | 'resolve' | null;
}

export function dueRow(
  item: DueItem,
  { system, currency, canOpen, isWhole }: { system: UnitSystem; currency: string; canOpen: boolean; isWhole: boolean },
): DueRow {
  const assumed = item.certainty === 'assumed';
  const order = item.openWorkOrder;
  return {
    id: item.vehicleId,
    unit: item.unitNumber,
    name: item.name,
    engine: [item.engineCode, item.partNumber].filter(Boolean).join(' · '),
    depot: item.depot,
    group: item.dutyGroup,
    lifeUsed: item.lifeUsed,
    assumed,
    life: lifeWords(item.lifeUsed, assumed),
    what: COMPONENT_WORDS[item.component],
    also: [
      item.reminderOn && `dash service light on since ${dateText(item.reminderOn)}`,
      item.seizing && seizingText(item.seizing, system),
      alsoText(item),
    ]
      .filter(Boolean)
      .join('; '),
    state: STATE_WORDS[item.state],
    urgent: item.state === 'past' || item.state === 'soon',
    trouble: item.misfire === null ? null : `misfire ${item.misfire}`,
    due: dueText(item, system),
    pressure: item.pressure,
    currency,
    isWhole,
    limit: bindingText(item, system),
    odometer: distanceText(item.odometerNowKm, system),
    suspects: item.suspectReadings,
    sure: item.state === 'no-match' ? (item.fitmentWhy ?? '') : sureText(item, system),
    order: order && {
      id: order.id,
      number: order.number,
      when: order.plannedOn ? dateText(order.plannedOn) : 'not planned',
    },
    next: nextOf(item, canOpen),
  };
}

function nextOf({ state }: DueItem, canOpen: boolean): DueRow['next'] {
  if (state === 'blocked') return 'waits';
  if (state === 'no-match') return 'resolve';
  return canOpen ? 'open' : null;
}

/** The others that are wanted by then as well: "also to inspect: distributor cap, rotor; also lead set 3 Mar 2027". */
function alsoText({ others, due }: DueItem): string {
  const until = due ? addDays(due.p50, WINDOW_DAYS) : null;
  const named = (those: readonly OtherDue[]): string =>
    those.map(({ component }) => COMPONENT_WORDS[component].toLowerCase()).join(', ');
  const past = others.filter(({ state }) => state === 'past');
  const look = others.filter(({ state }) => state === 'inspect');
  const coming = others.filter(
    ({ state, due: day }) => state === 'soon' || (state === 'later' && day !== null && until !== null && day <= until),
  );
  return [
    past.length > 0 && `also past: ${named(past)}`,
    look.length > 0 && `also to inspect: ${named(look)}`,
    coming.length > 0 && `also ${coming.map((other) => `${named([other])} ${dateText(other.due)}`).join(', ')}`,
  ]
    .filter(Boolean)
    .join('; ');
}

function dueText(
  { state, component, fittedOn, fittedKm, odometerNowKm, due, dueAtDashKm, odometerUnit }: DueItem,
  system: UnitSystem,
): string {
  if (state === 'inspect') return 'nothing recorded: look first';
  if (!due && state === 'no-date' && component !== 'plug')
    return `changed on failure; ${sinceText({ fittedOn, fittedKm, odometerNowKm }, system)}`;
  if (!due) return '';
  const dash = dueAtDashKm === null ? '' : `, at ${dashText(dueAtDashKm, odometerUnit)}`;
  return `${dateText(due.p50)}${due.p10 === due.p90 ? '' : ` (${spanText(due.p10, due.p90)})`}${dash}`;
}

/** As its own dash will show it, whatever the reader's unit. */
const dashText = (km: Km, unit: 'km' | 'mi'): string => `${countText(Math.round(fromSi(km, unit)))} ${unit}`;

/** An assumed history that says “three times over” says only that nobody knows. */
function lifeWords(lifeUsed: number | null, assumed: boolean): string {
  if (lifeUsed === null) return NONE;
  return assumed && lifeUsed > 2 ? 'assumed' : percentText(lifeUsed);
}
