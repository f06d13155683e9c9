import type { PlainDate } from '../calendar/plain-date';
import type { Binding, Certainty, DueState } from '../due/due';
import type { Component } from '../engine/quantities';

/** One vehicle on the chart. */
export interface ChartPoint {
  readonly id: string;
  readonly unit: string;
  readonly name: string;
  readonly group: string;
  readonly engine: string;
  readonly depot: string;
  /** What binds first. */
  readonly component: Component;
  /** Life used by what binds first now, and where four more weeks take it. */
  readonly life: number;
  readonly lifeIn28: number;
  /** Of a failure on the road. */
  readonly cost: number;
  /** Money a week if it waits, of all its components. */
  readonly pressure: number;
  readonly state: DueState;
  readonly certainty: Certainty | null;
  readonly binds: Binding | null;
  readonly p10: PlainDate | null;
  readonly p50: PlainDate | null;
  readonly p90: PlainDate | null;
  /** Bay time of the service. */
  readonly minutes: number;
  readonly orderId: string | null;
  readonly orderNumber: number | null;
  readonly retiresOn: PlainDate | null;
}
