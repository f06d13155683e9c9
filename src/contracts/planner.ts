import type { PlanProblem } from '@/core/planning/plan-problem';
import type { SolvedPlan } from '@/core/planning/plan-proposal';
import type { Plan } from '@/core/planning/solver/plan';

/* What is said between a planner's threads and whoever started them, in a browser and on a server alike. */

/** One thread searches, the other proves how good a plan can be at best. */
export type PlannerTask =
  | { readonly kind: 'search'; readonly problem: PlanProblem }
  | { readonly kind: 'bound'; readonly problem: PlanProblem };

export type PlannerNews =
  | { readonly kind: 'progress'; readonly cost: number; readonly share: number }
  | { readonly kind: 'bound'; readonly bound: number }
  | { readonly kind: 'plan'; readonly plan: Plan }
  | { readonly kind: 'bound-done'; readonly bound: number };

/** Said to a search: keep the best so far. */
export const STOP = 'stop';

/** Figures are money: less than this is the same. */
const SAME_COST = 0.005;

export function solved(plan: Plan, bound: number): SolvedPlan {
  const lowerBound = Math.min(bound, plan.cost);
  return { ...plan, lowerBound, isProven: plan.cost - lowerBound < SAME_COST };
}
