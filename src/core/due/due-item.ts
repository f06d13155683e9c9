import type { PlainDate } from '../calendar/plain-date';
import type { Component } from '../engine/quantities';
import type { UseRate } from '../odometer/use-rate';
import type { Km, VehicleId } from '../shared/kinds';
import type { Binding, Certainty, DueDates, DueState } from './due';
import type { SeizingRisk } from './seizing-risk';

/** What the due list can be sorted by. */
export const DUE_SORTS = ['pressure', 'life', 'due', 'unit', 'depot', 'odometer'] as const;

/** Another component of the vehicle, as far as a list tells of it. */
export interface OtherDue {
  readonly component: Component;
  readonly state: DueState;
  readonly lifeUsed: number | null;
  readonly certainty: Certainty | null;
  /** The likely due day. */
  readonly due: PlainDate | null;
}

/** One vehicle of the due list, as screens, files and the HTTP interface tell of it. */
export interface DueItem {
  /** The one asked for, else the one that binds first. */
  readonly component: Component;
  /** What else the vehicle has on record, the soonest first. */
  readonly others: readonly OtherDue[];
  readonly vehicleId: VehicleId;
  readonly unitNumber: string;
  readonly name: string;
  readonly depot: string;
  readonly dutyGroup: string;
  readonly engineCode: string;
  readonly partNumber: string | null;
  readonly state: DueState;
  /** When the part that speaks for the component was fitted, and at how much. */
  readonly fittedOn: PlainDate | null;
  readonly fittedKm: Km | null;
  /** Share of the binding limit used by the worst site. */
  readonly lifeUsed: number | null;
  /** Money a week if the work waits: of the component asked for, else of all of them. */
  readonly pressure: number | null;
  /** Of a failure on the road. */
  readonly failureCost: number;
  readonly binds: Binding | null;
  readonly limitKm: Km | null;
  /** Whose limit: the sheet's, that of the part's own maker where it is less, or the shop's ceiling for the electrode. */
  readonly limitBy: 'sheet' | 'maker' | 'shop';
  readonly limitMonths: number | null;
  /** Below 1 under the option of early change. */
  readonly limitShare: number;
  readonly certainty: Certainty | null;
  readonly due: DueDates | null;
  /** What its own dash will show then; null: another limit binds, or it is past. In km, as the dash counts. */
  readonly dueAtDashKm: Km | null;
  /** Its own service reminder has been on since then; null: off, or of another component. */
  readonly reminderOn: PlainDate | null;
  /** Number of its open misfire, which counts in the cost of waiting; null: none is open. */
  readonly misfire: number | null;
  /** Of plugs that were never out; null: nothing speaks for it. */
  readonly seizing: SeizingRisk | null;
  /** What the dash shows. */
  readonly odometerUnit: 'km' | 'mi';
  readonly odometerKm: Km | null;
  readonly odometerOn: PlainDate | null;
  readonly odometerNowKm: Km | null;
  readonly rate: Pick<UseRate, 'kmPerDay' | 'used' | 'borrowed'> | null;
  readonly suspectReadings: number;
  readonly fitmentWhy: string | null;
  readonly openWorkOrder: { readonly id: string; readonly number: number; readonly plannedOn: PlainDate | null } | null;
}
