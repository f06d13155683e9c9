import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { daysBetween } from '@/core/calendar/plain-date';
import { layoutOf } from '@/core/engine/layout';
import { allPlaces } from '@/core/engine/places';
import { answersTo } from '@/core/inspection/answer';
import { optionsInForce, type PolicyOptions } from '@/core/policy/policies';
import type { Km, VehicleId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { OtherWorkDue } from '@/core/work/other-work';
import { replaceTasks } from '@/core/work/procedure/generate';
import { assumedCoilChance, type ComponentFacts, type Proposal, proposeVisit } from '@/core/work/proposal';
import { isTaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { loadFollowUps, loadUnanswered } from '@/db/queries/findings';
import { choicesFor, loadPolicyChoices } from '@/db/queries/policies';
import { taskPlaces } from '@/db/schema';
import type { Actor } from '../access';
import { fitmentFor, fitmentOf, type VehicleFitment } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { loadCosts } from '../due/costs';
import { type DueView, viewDue } from '../due/list-due';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { corrected, ratiosOf } from './learned-of';
import { otherWorkOf } from './other-work';
import type { TaskInput } from './plan-tasks';
import { earlierRemoval } from './previous-set';
import { familyEngine } from './procedure-of';

/** A set of plugs without an interval is taken to last so long, years. */
const USUAL_YEARS = 4;
const YEAR_DAYS = 365.25;

export interface VisitProposal {
  readonly proposals: readonly Proposal[];
  /** Chance that one coil fails before the plugs are changed again, as it is assumed. */
  readonly coilChance: number;
  readonly coilsOption: string;
  readonly currency: string;
  readonly labourPerHour: number;
  /** Something of the vehicle is on an open order already. */
  readonly isOnOrder: boolean;
  /** What somebody put down to be done for this vehicle. */
  readonly followUps: readonly string[];
  /** What else of the engine could be done, not ignition. */
  readonly otherWork: readonly OtherWorkDue[];
}

/** What belongs to a visit of a vehicle if it is opened now. */
export const viewProposal = useCase({
  permission: 'open work orders',
  input: z.uuid(),
  async run(deps, actor, vehicleId): Promise<Outcome<VisitProposal>> {
    const fitment = await fitmentOf(deps.db, actor.fleetId, deps.today(), vehicleId);
    if (!fitment) return notFound('vehicle');
    const proposal = await proposalFor(deps, actor, fitment);
    return ok({ ...proposal, otherWork: await otherWorkOf(deps, fitment, proposal.proposals) });
  },
});

/** The same where the vehicle is at hand. */
export async function proposalFor(
  deps: Deps,
  actor: Actor,
  fitment: VehicleFitment,
): Promise<Omit<VisitProposal, 'otherWork'>> {
  const { vehicle, family } = fitment;
  const { db } = deps;
  // One after the other: where an order is being opened they share its connection.
  const due = await viewDue(deps, actor, vehicle.id);
  const costs = await loadCosts(db, actor.fleetId);
  const choices = await loadPolicyChoices(db, actor.fleetId);
  const unanswered = await loadUnanswered(db, vehicle.id);
  const waiting = await loadFollowUps(db, actor.fleetId, { vehicleId: vehicle.id, open: true });
  const onOrder = await componentsOnOrder(deps, vehicle.id);
  const layout = layoutOf(family.model);
  const options = optionsInForce(choicesFor(choices, vehicle));
  const components = due.ok ? factsOf(fitment, due.value, onOrder) : [];
  const years = due.ok ? yearsOfPlugs(due.value) : USUAL_YEARS;
  const coilChance = assumedCoilChance(years);
  return {
    proposals: proposeVisit({
      today: deps.today(),
      engine: await engineFor(db, fitment, options),
      components,
      options,
      money: costs,
      retires: vehicle.retiresOn && {
        on: vehicle.retiresOn,
        share: daysBetween(deps.today(), vehicle.retiresOn) / (years * YEAR_DAYS),
      },
      coilChance,
      findings: unanswered.map(({ key, found: finding }) => ({
        key,
        answers: answersTo(finding, (component) => allPlaces(layout, component).length > 0),
      })),
    }),
    coilChance,
    coilsOption: options.coils_with_plugs,
    currency: costs.currency,
    labourPerHour: costs.labourPerHour,
    isOnOrder: onOrder.size > 0,
    followUps: waiting.map(({ followUp }) => followUp.what),
  };
}

/** The engine of a vehicle as its visits are computed, by what the shop's own took. */
async function engineFor(q: Querier, { vehicle, family }: VehicleFitment, policies: PolicyOptions) {
  const { options, fuel } = vehicle;
  const engine = { ...familyEngine(family), options, fuel, policies, earlier: await earlierRemoval(q, vehicle.id) };
  return corrected(engine, replaceTasks(engine, ['plug']), await ratiosOf(q, family));
}

/** Components of which some place is on an open order already. */
async function componentsOnOrder({ db }: Deps, vehicleId: VehicleId): Promise<ReadonlySet<string>> {
  const rows = await db
    .selectDistinct({ component: taskPlaces.component })
    .from(taskPlaces)
    .where(and(eq(taskPlaces.vehicleId, vehicleId), eq(taskPlaces.live, true)));
  return new Set(rows.map(({ component }) => component));
}

function factsOf(
  vehicleFitment: VehicleFitment,
  due: DueView,
  onOrder: ReadonlySet<string>,
): readonly ComponentFacts[] {
  const layout = layoutOf(vehicleFitment.family.model);
  return due.components.flatMap((item): ComponentFacts[] => {
    const { component } = item;
    if (!isTaskComponent(component) || onOrder.has(component)) return [];
    const { fitment } = fitmentFor(vehicleFitment, component);
    return [
      {
        component,
        state: item.state,
        certainty: item.certainty,
        due: item.due?.p50 ?? null,
        lifeUsed: item.lifeUsed,
        price: fitment.kind === 'match' ? fitment.spec.part.price : null,
        quantity: allPlaces(layout, component).length,
      },
    ];
  });
}

/** How long a new set of plugs will last here, years: by its interval and the use of the vehicle. */
function yearsOfPlugs({ components, useRate }: DueView): number {
  const plugs = components.find(({ component }) => component === 'plug');
  const byTime = plugs?.limitMonths == null ? Number.POSITIVE_INFINITY : plugs.limitMonths / 12;
  const byDistance =
    plugs?.limitKm == null || !useRate ? Number.POSITIVE_INFINITY : yearsFor(plugs.limitKm, useRate.kmPerDay);
  const years = Math.min(byTime, byDistance);
  return Number.isFinite(years) ? years : USUAL_YEARS;
}

const yearsFor = (km: Km, kmPerDay: number): number =>
  kmPerDay > 0 ? km / kmPerDay / YEAR_DAYS : Number.POSITIVE_INFINITY;

/** A proposal as the task that is put on. */
export const toTask = ({ action, component, places, why, reason }: Proposal): TaskInput => ({
  action,
  component,
  places,
  why,
  note: '',
  ...(reason.kind === 'finding' ? { findingKey: reason.key } : {}),
});
