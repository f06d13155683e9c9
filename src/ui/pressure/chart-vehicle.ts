import type { ChartPoint } from '@/core/reliability/chart-point';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { STATE_WORDS } from '@/text/due-words';
import { dateText, moneyText, NONE, percentText, spanText } from '@/text/format';

/** A vehicle as the chart and its list show it. */
export interface ChartVehicle extends ChartPoint {
  /** Place on the ramp from cold to hot, 0 to 5. */
  readonly heat: number;
}

/** Shares of the fleet, the highest pressure first, at which the ramp grows colder. */
const HEAT_SHARES = [0.04, 0.12, 0.28, 0.5, 0.75] as const;

/** Colours by rank: what is hot depends on the fleet, as the work does. @param points highest pressure first */
export const withHeat = <T extends object>(points: readonly T[]): readonly (T & { heat: number })[] =>
  points.map((point, i) => {
    const below = HEAT_SHARES.findIndex((share) => (i + 0.5) / points.length < share);
    return { ...point, heat: below < 0 ? 0 : 5 - below };
  });

/** When it is due; which component, where it is not the plugs. */
export function dueText(vehicle: ChartVehicle): string {
  const words = dayText(vehicle);
  return vehicle.component === 'plug' ? words : `${COMPONENT_WORDS[vehicle.component].toLowerCase()}: ${words}`;
}

function dayText({ state, certainty, p10, p50, p90 }: ChartVehicle): string {
  if (state === 'deferred') return `deferred to ${dateText(p50)}`;
  if (state === 'blocked') return 'another fault first';
  if (certainty === 'assumed' && state === 'inspect') return 'history assumed: look first';
  if (p50 === null) return 'nothing dates it';
  const span = p10 && p90 && p10 !== p90 ? ` (${spanText(p10, p90)})` : '';
  return `due ${dateText(p50)}${span}`;
}

export const lifeText = ({ life, certainty }: ChartVehicle): string =>
  certainty === 'assumed' && life > 2 ? NONE : `${percentText(life)} used`;

/** All that the chart shows of a vehicle, in words. */
export const vehicleWords = (p: ChartVehicle, currency: string): string =>
  `${p.unit} ${p.name}, ${p.engine}: ${lifeText(p)}, ${moneyText(p.pressure, currency)} a week, ${moneyText(p.cost, currency)} for a failure, ${STATE_WORDS[p.state].toLowerCase()}, ${dueText(p)}`;
