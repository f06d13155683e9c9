import { eq, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { weekdayOf } from '../../src/core/calendar/plain-date';
import { planClashes } from '../../src/core/planning/plan-check';
import type { ProposalResult } from '../../src/core/planning/plan-proposal';
import { bookings, parts, planProposals, vehicles, workOrders } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { adoptProposal } from '../../src/server/planning/adopt-proposal';
import { type FleetProblem, fleetProblem } from '../../src/server/planning/fleet-problem';
import { planWorkOrder, unplanWorkOrder } from '../../src/server/planning/plan-work-order';
import {
  discardProposal,
  listProposals,
  planInBackground,
  startProposal,
  stopProposal,
  viewProposal,
} from '../../src/server/planning/proposals';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
const SCOPE = { from: '2026-11-16', days: 10, seconds: 1, seed: 1 };
const problemNow = (): Promise<FleetProblem> =>
  fleetProblem(w.deps.db, w.supervisor.fleetId, { today: w.deps.today(), now: w.deps.now() }, SCOPE);
const vehicleId = async (unit: string): Promise<string> => {
  const [row] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  return row?.id ?? '';
};
const propose = async (over: object = {}): Promise<string> => {
  const { proposalId } = value(await startProposal(w.deps, w.supervisor, { ...SCOPE, ...over }));
  await planInBackground(w.deps, w.supervisor.fleetId, proposalId);
  return proposalId;
};
const resultOf = async (proposalId: string): Promise<ProposalResult> => {
  const { result } = value(await viewProposal(w.deps, w.supervisor, { proposalId }));
  if (!result) throw new Error('no result');
  return result;
};

beforeAll(async () => {
  const demo = await demoWorkspace();
  // What is asked for in the background is done here by hand.
  w = { ...demo, deps: { ...demo.deps, jobs: { send: async () => undefined } } };
});

describe('the fleet as a problem', () => {
  it('has the days on which depots work, and nobody where they are away', async () => {
    const { problem } = await problemNow();
    expect(problem.days).toHaveLength(10);
    expect(problem.days.every((day) => weekdayOf(day) <= 5)).toBe(true);
    const away = problem.people.find(({ name }) => name === 'S. Pirie');
    expect(away?.shift.map(({ day }) => day)).toEqual(problem.days.slice(5));
    const closed = problem.bays.find(({ name }) => name === 'Quarry Cross Bay 1');
    expect(closed?.open.find(({ day }) => day === '2026-11-18')).toMatchObject({ fromMin: 720, toMin: 960 });
  });

  it('has what is open and what is due, each vehicle once, with what every day would cost', async () => {
    const { problem, jobs } = await problemNow();
    expect(new Set(jobs.map((job) => job.vehicleId)).size).toBe(jobs.length);
    expect(jobs.some(({ workOrderId }) => workOrderId === null)).toBe(true);
    expect(jobs.some(({ workOrderId }) => workOrderId !== null)).toBe(true);
    for (const [i, { costs }] of jobs.entries()) {
      expect(problem.jobs[i]?.costByDay).toEqual(costs.byDay.map(({ total }) => total));
      for (const day of costs.byDay) expect(day.total).toBeCloseTo(day.waiting + day.thrownAway + day.downtime, 9);
    }
  });

  it('keeps the bus on its route, and what is begun where it is', async () => {
    await w.deps.db.update(vehicles).set({ sleepsAtBay: true }).where(eq(vehicles.unitNumber, '8'));
    value(
      await openWorkOrder(w.deps, w.supervisor, { vehicleId: await vehicleId('8'), releaseReason: 'asked the maker' }),
    );
    const { problem, jobs } = await problemNow();
    const bus = jobs.findIndex(({ unitNumber }) => unitNumber === '8');
    const allowed = problem.jobs[bus]?.allowed ?? [];
    expect(allowed.filter(({ day }) => day === '2026-11-16')).toEqual([
      { day: '2026-11-16', fromMin: 0, toMin: 360 },
      { day: '2026-11-16', fromMin: 870, toMin: 1440 },
    ]);
    // Unit 32 is in its bay today.
    const begun = jobs.findIndex(({ unitNumber }) => unitNumber === '32');
    expect(problem.jobs[begun]?.pin).toMatchObject({ day: '2026-11-16', startMin: 480 });
  });

  it('gives parts to what is booked, then to what loses most, and lets the others wait for the ferry', async () => {
    const number = 'KM-L29';
    const wants = async () => (await problemNow()).jobs.filter(({ components }) => components.includes('lead_set'));
    await w.deps.db.update(parts).set({ onHand: 1 }).where(eq(parts.number, number));
    const short = (await wants()).filter((job) => job.short.some((part) => part.number === number));
    await w.deps.db.update(parts).set({ onHand: 0 }).where(eq(parts.number, number));
    const none = (await wants()).filter((job) => job.short.some((part) => part.number === number));
    expect(none.length).toBe(short.length + 1);
    const [served] = none.filter(({ id }) => !short.some((job) => job.id === id));
    for (const { costs } of short) expect(served?.costs.weekly[0]).toBeGreaterThanOrEqual(costs.weekly[0] ?? 0);
    // The ferry comes on Fridays.
    for (const { from } of none.flatMap((job) => job.short)) expect(weekdayOf(from)).toBe(5);
    const { problem, jobs } = await problemNow();
    for (const [i, job] of problem.jobs.entries()) {
      const last = jobs[i]?.short
        .map(({ from }) => from)
        .sort()
        .at(-1);
      expect(job.kitFrom).toBe(last ?? null);
    }
  });

  it('lets a hybrid only to those who are trained, in a bay that takes it', async () => {
    const family = (await problemNow()).jobs.length;
    value(await openWorkOrder(w.deps, w.supervisor, { vehicleId: await vehicleId('124') }));
    const { problem, jobs } = await problemNow();
    expect(jobs.length).toBeGreaterThanOrEqual(family);
    const hybrid = jobs.findIndex(({ unitNumber }) => unitNumber === '124');
    expect(problem.jobs[hybrid]).toMatchObject({ needsSkills: ['hybrid'], needsBay: ['hybrid'] });
    expect(problem.people.filter(({ skills }) => skills.includes('hybrid')).map(({ name }) => name)).toEqual(
      expect.arrayContaining(['M. Vane', 'J. Holm']),
    );
  });
});

/** A van of the depot of a bay that has no order yet. */
async function idleVanAt(bay: string): Promise<string> {
  const { rows } = await w.deps.db.execute<{ id: string }>(sql`
    select v.id from vehicles v join depots d on d.id = v.depot_id join engine_families f on f.id = v.engine_family_id
    where ${bay} like d.name || ' %' and f.code = 'AG-18'
      and not exists (select 1 from work_orders o where o.vehicle_id = v.id and o.state not in ('closed', 'cancelled'))
    order by v.unit_number limit 1`);
  return rows[0]?.id ?? '';
}

describe('a proposal', () => {
  it('is for those who plan, and for days to come', async () => {
    expect(await startProposal(w.deps, inRole(w.supervisor, 'technician'), SCOPE)).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await startProposal(w.deps, w.supervisor, { ...SCOPE, from: '2026-11-01' })).toMatchObject({
      error: { fields: { from: expect.any(String) } },
    });
  });

  it('keeps every hard rule, and says why each job is there or is not', async () => {
    const { problem } = await problemNow();
    const { plan, jobs, bays, people } = await resultOf(await propose());
    const pinned = new Set(jobs.filter(({ booked }) => booked?.isPinned).map(({ id }) => id));
    expect(
      planClashes(
        problem,
        plan.assignments.filter(({ job }) => !pinned.has(job)),
      ),
    ).toEqual([]);
    expect(plan.assignments.length + plan.unplanned.length).toBe(jobs.length);
    expect(plan.lowerBound).toBeLessThanOrEqual(plan.cost);
    for (const { why, bay, person } of plan.assignments) {
      expect(why.message.length).toBeGreaterThan(5);
      expect(bays.map(({ id }) => id)).toContain(bay);
      expect(people.map(({ id }) => id)).toContain(person);
    }
    for (const { message } of plan.unplanned) expect(message.length).toBeGreaterThan(5);
  });

  it('is adopted once: what is due gets its order, all is booked as proposed, and what was pinned stays', async () => {
    const proposalId = await propose();
    const { plan, jobs } = await resultOf(proposalId);
    const before = await w.deps.db.$count(workOrders);
    const done = value(await adoptProposal(w.deps, w.supervisor, { proposalId }));
    expect(done.planned).toBeGreaterThan(3);
    expect(await w.deps.db.$count(workOrders)).toBe(before + done.opened);
    const booked = await w.deps.db.select().from(bookings);
    for (const { workOrderId, booked: at, id } of jobs) {
      const slot = plan.assignments.find(({ job }) => job === id);
      const row = booked.find((one) => one.workOrderId === workOrderId);
      if (!slot || !row || at?.isPinned) continue;
      expect(row).toMatchObject({ bayId: slot.bay, personId: slot.person });
      expect(row.during).toContain(slot.day);
    }
    expect(await adoptProposal(w.deps, w.supervisor, { proposalId })).toMatchObject({
      error: { kind: 'conflict', message: expect.stringContaining('already') },
    });
  });

  it('proposed again and again comes to rest: then nothing of what was agreed moves', async () => {
    const second = await propose();
    value(await adoptProposal(w.deps, w.supervisor, { proposalId: second }));
    const { plan, jobs } = await resultOf(await propose());
    const moved = plan.assignments.filter(({ job, day }) => {
      const at = jobs.find(({ id }) => id === job)?.booked;
      return at && at.day !== day;
    });
    expect(moved).toEqual([]);
  });

  it('changes nothing where somebody booked the bay meanwhile', async () => {
    // Somebody takes one off the plan: it is proposed anew.
    const [agreed] = (await w.deps.db.select().from(bookings)).filter(({ during }) => !during.includes('2026-11-16'));
    value(await unplanWorkOrder(w.deps, w.supervisor, agreed?.workOrderId ?? ''));
    const proposalId = await propose();
    const { plan, bays } = await resultOf(proposalId);
    const slot = plan.assignments.find(({ job }) => job === `order ${agreed?.workOrderId}`);
    expect(slot).toBeDefined();
    if (!slot) return;
    const other = value(
      await openWorkOrder(w.deps, w.supervisor, {
        vehicleId: await idleVanAt(bays.find(({ id }) => id === slot.bay)?.name ?? ''),
      }),
    );
    const start = `${String(Math.floor(slot.startMin / 60)).padStart(2, '0')}:${String(slot.startMin % 60).padStart(2, '0')}`;
    value(
      await planWorkOrder(w.deps, w.supervisor, {
        workOrderId: other.workOrderId,
        day: slot.day,
        start,
        minutes: 30,
        bayId: slot.bay,
        personId: slot.person,
      }),
    );
    const before = await w.deps.db.select().from(bookings);
    expect(await adoptProposal(w.deps, w.supervisor, { proposalId })).toMatchObject({
      error: { message: expect.stringContaining('Nothing was changed: propose anew') },
    });
    expect(await w.deps.db.select().from(bookings)).toEqual(before);
    value(await discardProposal(w.deps, w.supervisor, { proposalId }));
    expect(await adoptProposal(w.deps, w.supervisor, { proposalId })).toMatchObject({ error: { kind: 'conflict' } });
  });

  it('is stopped, and keeps the best so far', async () => {
    const { proposalId } = value(await startProposal(w.deps, w.supervisor, { ...SCOPE, seconds: 120 }));
    value(await stopProposal(w.deps, w.supervisor, { proposalId }));
    await planInBackground(w.deps, w.supervisor.fleetId, proposalId);
    expect(await resultOf(proposalId)).toMatchObject({
      plan: { cost: expect.any(Number), endedBy: expect.stringMatching(/^(seconds|bound)$/) },
    });
    expect(await stopProposal(w.deps, w.supervisor, { proposalId })).toMatchObject({ error: { kind: 'not-found' } });
    // Done twice by a worker, it is done once.
    const [before] = await w.deps.db.select().from(planProposals).where(eq(planProposals.id, proposalId));
    await planInBackground(w.deps, w.supervisor.fleetId, proposalId);
    expect((await w.deps.db.select().from(planProposals).where(eq(planProposals.id, proposalId)))[0]).toEqual(before);
    expect(value(await listProposals(w.deps, w.supervisor)).map(({ id }) => id)).toContain(proposalId);
  });
});
