import type { PlainDate } from '../calendar/plain-date';
import type { VehicleId, WorkOrderId } from '../shared/kinds';
import type { TaskComponent } from '../work/task';
import type { VisitCosts } from './day-costs';
import type { PlanBay, PlanPerson, PlanSlot } from './plan-problem';
import type { SolvedPlan } from './solver/plan';

/* A plan of the fleet that is proposed: asked for, worked out in the background, looked at, then adopted or not. */

export const PROPOSAL_STATES = ['queued', 'running', 'done', 'failed', 'adopted', 'discarded'] as const;

export interface PlanScope {
  /** First day that is planned. */
  readonly from: PlainDate;
  /** How many days on which some depot works. */
  readonly days: number;
  /** The most that the search may take. */
  readonly seconds: number;
  readonly seed: number;
}

/** How far the search is. */
export interface PlanProgress {
  readonly cost: number | null;
  readonly bound: number | null;
  /** From 0 to 1. */
  readonly share: number;
}

/** What a job is, beside what the planner sees of it. */
export interface JobFacts {
  readonly id: string;
  readonly vehicleId: VehicleId;
  readonly unitNumber: string;
  readonly name: string;
  readonly depot: string;
  /** Null: it is due, and planning it opens one. */
  readonly workOrderId: WorkOrderId | null;
  readonly number: number | null;
  readonly components: readonly TaskComponent[];
  readonly minutes: number;
  /** Within which four of five visits like it end, minutes. */
  readonly likely: { readonly fromMin: number; readonly toMin: number };
  /** What the vehicle costs each week that it waits, as everywhere; null: nobody knows. */
  readonly weekCost: number | null;
  /** What each day would cost, and leaving it out, opened down to where it comes from. */
  readonly costs: VisitCosts;
  readonly coolFromMin: number | null;
  /** Parts that are short, with when they are there. */
  readonly short: readonly { readonly number: string; readonly from: PlainDate }[];
  /** Where it is booked now, and whether that may move. */
  readonly booked: (PlanSlot & { readonly isPinned: boolean }) | null;
}

/** What adopting a proposal did. */
export interface Adopted {
  readonly planned: number;
  readonly opened: number;
  readonly moved: number;
  /** Jobs that could not be opened, with why. */
  readonly refused: readonly { readonly unitNumber: string; readonly message: string }[];
}

/** All that a proposal came to. */
export interface ProposalResult {
  readonly days: readonly PlainDate[];
  readonly plan: SolvedPlan;
  readonly jobs: readonly JobFacts[];
  readonly bays: readonly PlanBay[];
  readonly people: readonly PlanPerson[];
}
