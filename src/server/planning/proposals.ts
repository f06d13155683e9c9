import { and, desc, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { MAX_PLAN_DAYS } from '@/core/planning/plan-problem';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { people, planProposals } from '@/db/schema';
import type { Deps } from '../deps';
import { ensureDueStatus } from '../due/ensure-due-status';
import { fail, notFound, type Outcome } from '../failure';
import { log } from '../log';
import { useCase } from '../use-case';
import { lockDone } from './adopt-proposal';
import { fleetProblem } from './fleet-problem';
import { solvePlan } from './solve';

const USUAL_DAYS = 10;
const USUAL_SECONDS = 10;
const MAX_SECONDS = 120;

const proposalInput = z.object({
  /** First day; left out: today. */
  from: z.iso.date('Give a day as 2026-12-24.').optional(),
  days: z.coerce.number().int('A whole number.').min(1, 'At least a day.').max(MAX_PLAN_DAYS).default(USUAL_DAYS),
  seconds: z.coerce.number().min(1, 'At least a second.').max(MAX_SECONDS).default(USUAL_SECONDS),
  seed: z.coerce.number().int().min(0).max(1_000_000).default(1),
});

/** Asks for a plan of the fleet: it is worked out in the background. */
export const startProposal = useCase({
  permission: 'plan work orders',
  input: proposalInput,
  async run(deps, actor, { from, ...scope }): Promise<Outcome<{ proposalId: string }>> {
    const today = deps.today();
    if (from !== undefined && from < today)
      return fail('invalid', 'This day has passed.', { from: 'Choose today or a later day.' });
    return deps.db.transaction(async (tx) => {
      const [row] = await tx
        .insert(planProposals)
        .values({ fleetId: actor.fleetId, askedBy: actor.personId, scope: { from: from ?? today, ...scope } })
        .returning({ id: planProposals.id });
      if (!row) throw new Error('the proposal was not written');
      await writeAudit(tx, actor, {
        action: 'create',
        entity: 'plan-proposal',
        entityId: row.id,
        changes: { from: from ?? today, ...scope },
      });
      await deps.jobs.send(tx, 'plan-fleet', { fleetId: actor.fleetId, proposalId: row.id });
      return ok({ proposalId: row.id });
    });
  },
});

const TELL_MS = 500;

/** Works a proposal out. Stopped, it keeps the best so far. */
export async function planInBackground(deps: Deps, fleetId: FleetId, proposalId: string): Promise<void> {
  const isProposal = and(eq(planProposals.fleetId, fleetId), eq(planProposals.id, proposalId));
  const [row] = await deps.db
    .update(planProposals)
    .set({ state: 'running' })
    .where(and(isProposal, inArray(planProposals.state, ['queued', 'running'])))
    .returning();
  if (!row) return;
  const stop = new AbortController();
  if (row.isStopped) stop.abort();
  let latest: PlanProgress | null = null;
  const telling = setInterval(() => {
    deps.db
      .update(planProposals)
      .set({ progress: latest })
      .where(isProposal)
      .returning({ isStopped: planProposals.isStopped })
      .then(([now]) => now?.isStopped && stop.abort())
      .catch((err: unknown) => log.warn({ err }, 'the progress of a plan was not told'));
  }, TELL_MS);
  try {
    await ensureDueStatus(deps.db, fleetId, deps.today());
    const { problem, jobs } = await fleetProblem(deps.db, fleetId, { today: deps.today(), now: deps.now() }, row.scope);
    const plan = await solvePlan(problem, { onNews: (news) => (latest = news), stop: stop.signal });
    await deps.db
      .update(planProposals)
      .set({
        state: 'done',
        progress: { cost: plan.cost, bound: plan.lowerBound, share: 1 },
        result: { days: problem.days, plan, jobs, bays: problem.bays, people: problem.people },
        finishedAt: deps.now(),
      })
      .where(isProposal);
  } catch (error) {
    await deps.db
      .update(planProposals)
      .set({ state: 'failed', problem: 'It could not be worked out. See the server log.', finishedAt: deps.now() })
      .where(isProposal);
    throw error;
  } finally {
    clearInterval(telling);
  }
}

const proposalId = z.object({ proposalId: z.uuid() });

/** Ends the search of one that is running; the best so far is kept. */
export const stopProposal = useCase({
  permission: 'plan work orders',
  input: proposalId,
  async run(deps, actor, { proposalId: id }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [row] = await tx
        .update(planProposals)
        .set({ isStopped: true })
        .where(
          and(
            eq(planProposals.fleetId, actor.fleetId),
            eq(planProposals.id, id),
            inArray(planProposals.state, ['queued', 'running']),
          ),
        )
        .returning({ id: planProposals.id });
      if (!row) return notFound('running proposal');
      await writeAudit(tx, actor, { action: 'stop', entity: 'plan-proposal', entityId: id, changes: {} });
      return ok(null);
    });
  },
});

export const discardProposal = useCase({
  permission: 'plan work orders',
  input: proposalId,
  async run(deps, actor, { proposalId: id }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const row = await lockDone(tx, actor.fleetId, id);
      if (!row.ok) return row;
      await tx.update(planProposals).set({ state: 'discarded' }).where(eq(planProposals.id, id));
      await writeAudit(tx, actor, { action: 'discard', entity: 'plan-proposal', entityId: id, changes: {} });
      return ok(null);
    });
  },
});

/** A proposal with how far it is, or what it came to. */
export const viewProposal = useCase({
  permission: 'read the fleet',
  input: proposalId,
  async run(deps, actor, { proposalId: id }) {
    const [row] = await deps.db
      .select({ proposal: planProposals, askedBy: people.name })
      .from(planProposals)
      .innerJoin(people, eq(people.id, planProposals.askedBy))
      .where(and(eq(planProposals.fleetId, actor.fleetId), eq(planProposals.id, id)));
    return row ? ok({ ...row.proposal, askedBy: row.askedBy }) : notFound('proposal');
  },
});

const MAX_LISTED = 20;

/** The latest proposals, without what they came to. */
export const listProposals = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select({
        id: planProposals.id,
        name: planProposals.name,
        state: planProposals.state,
        scope: planProposals.scope,
        progress: planProposals.progress,
        createdAt: planProposals.createdAt,
        askedBy: people.name,
      })
      .from(planProposals)
      .innerJoin(people, eq(people.id, planProposals.askedBy))
      .where(eq(planProposals.fleetId, actor.fleetId))
      .orderBy(desc(planProposals.createdAt))
      .limit(MAX_LISTED);
    return ok(rows);
  },
});
