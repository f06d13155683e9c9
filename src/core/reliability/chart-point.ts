import type { PlainDate } from '../calendar/plain-date';
import type { Binding, Certainty, DueState } from '../due/due';

/** One vehicle on the chart. */
export interface ChartPoint {
  readonly id: string;
  readonly unit: string;
  readonly name: string;
  readonly group: string;
  readonly engine: string;
  readonly depot: string;
  /** Life used by the worst site now, and where four more weeks take it. */
  readonly life: number;
  readonly lifeIn28: number;
  /** Of a failure on the road. */
  readonly cost: number;
  /** Money a week if it waits. */
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
