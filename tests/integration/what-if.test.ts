import { and, eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { planAtOnce } from '../../src/core/planning/solver/plan';
import { borrowedBay, type WhatIfChange, withChanges } from '../../src/core/planning/what-if';
import { absences, bays, bookings, planProposals } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { adoptProposal } from '../../src/server/planning/adopt-proposal';
import { listFeeds, makeFeed, readFeed, removeFeed } from '../../src/server/planning/feeds';
import { viewProposal } from '../../src/server/planning/proposals';
import { viewBoard } from '../../src/server/planning/view-board';
import { keepWhatIf, viewWhatIf } from '../../src/server/planning/what-if';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
beforeAll(async () => {
  w = await demoWorkspace();
});

const DAY = '2026-11-17';
/** The fleet planned with something otherwise, as a screen would send it back. */
async function planned(changes: readonly WhatIfChange[]) {
  const { problem, jobs } = value(await viewWhatIf(w.deps, w.supervisor));
  const other = withChanges(problem, changes);
  const { assignments, cost } = planAtOnce(other, 4000);
  const slots = assignments.map(({ job, day, bay, person, startMin }) => ({ job, day, bay, person, startMin }));
  return { slots, cost, jobs, problem: other };
}
const vane = async (): Promise<string> =>
  value(await viewWhatIf(w.deps, w.supervisor)).problem.people.find(({ name }) => name === 'M. Vane')?.id ?? '';

describe('a second plan', () => {
  it('is kept under its name with what it costs and why, worked out here', async () => {
    const changes: WhatIfChange[] = [{ kind: 'person_away', person: await vane(), from: DAY, to: DAY }];
    const { slots, cost } = await planned(changes);
    const { proposalId } = value(await keepWhatIf(w.deps, w.supervisor, { name: 'M. Vane ill', changes, slots }));
    const kept = value(await viewProposal(w.deps, w.supervisor, { proposalId }));
    expect(kept).toMatchObject({ state: 'done', name: 'M. Vane ill', changes });
    expect(kept.result?.plan.cost).toBeCloseTo(cost, 6);
    expect(kept.result?.plan.assignments).toHaveLength(slots.length);
    for (const { why } of kept.result?.plan.assignments ?? []) expect(why.message.length).toBeGreaterThan(5);
  });

  it('that breaks a rule, or is of a fleet that has changed, is not kept', async () => {
    const { slots } = await planned([]);
    const [first] = slots.filter(({ day }) => day === DAY || day > DAY);
    if (!first) throw new Error('nothing is planned');
    const tries = [
      slots.map((slot) => (slot === first ? { ...slot, startMin: 30 } : slot)),
      slots.map((slot) => (slot === first ? { ...slot, bay: 'no bay' } : slot)),
      [...slots, { ...first, job: 'vehicle 11111111-1111-4111-8111-111111111111' }],
    ];
    for (const wrong of tries)
      expect(await keepWhatIf(w.deps, w.supervisor, { name: 'wrong', changes: [], slots: wrong })).toMatchObject({
        error: { kind: 'conflict', message: expect.stringContaining('work it out again') },
      });
    expect(await keepWhatIf(w.deps, inRole(w.supervisor, 'viewer'), { name: 'x', changes: [], slots })).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await w.deps.db.$count(planProposals, eq(planProposals.name, 'wrong'))).toBe(0);
  });

  it('is adopted with what it takes for granted: who is away, and a bay that is borrowed for its day', async () => {
    const person = await vane();
    const { jobs, problem } = value(await viewWhatIf(w.deps, w.supervisor));
    const bus = jobs.find(({ unitNumber }) => unitNumber === '41');
    const own = problem.bays.filter(({ depot }) => depot === 'Quarry Cross');
    const changes: WhatIfChange[] = [
      ...own.map(({ id }) => ({ kind: 'bay_closed' as const, bay: id, from: DAY, to: DAY })),
      { kind: 'person_away', person, from: DAY, to: DAY },
      { kind: 'bay_more', depot: 'Quarry Cross', day: DAY },
      { kind: 'vehicle_away', job: bus?.id ?? '', from: '2026-11-16', to: '2026-11-18' },
    ];
    const { slots } = await planned(changes);
    expect(slots.some(({ bay }) => bay === borrowedBay('Quarry Cross', DAY))).toBe(true);
    const { proposalId } = value(await keepWhatIf(w.deps, w.supervisor, { name: 'a long Tuesday', changes, slots }));
    const done = value(await adoptProposal(w.deps, w.supervisor, { proposalId }));
    expect(done.planned).toBeGreaterThan(3);
    const [borrowed] = await w.deps.db
      .select()
      .from(bays)
      .where(eq(bays.name, `Borrowed ${DAY}`));
    expect(borrowed).toBeDefined();
    const there = await w.deps.db
      .select()
      .from(bookings)
      .where(eq(bookings.bayId, borrowed?.id ?? ''));
    expect(there.length).toBeGreaterThan(0);
    for (const { during } of there) expect(during).toContain(DAY);
    const ill = await w.deps.db
      .select()
      .from(absences)
      .where(and(eq(absences.ofId, person), eq(absences.what, 'a long Tuesday')));
    expect(ill).toMatchObject([{ fromDay: DAY, toDay: DAY }]);
    // From the next day on the bay is given back.
    const week = value(await viewBoard(w.deps, w.supervisor, { depot: 'Quarry Cross', day: '2026-11-24' }));
    expect(week?.problem.bays.find(({ id }) => id === borrowed?.id)?.open).toEqual([]);
  });
});

describe('a calendar feed', () => {
  it('is read by whoever has its address, and by nobody once it is replaced', async () => {
    const feeds = value(await listFeeds(w.deps, w.supervisor));
    const depot = feeds.find(({ of, name }) => of === 'depot' && name === 'Northhaven');
    if (!depot) throw new Error('no depot');
    expect(feeds.every(({ madeAt }) => madeAt === null)).toBe(true);
    const target = { of: depot.of, ofId: depot.ofId };
    const first = value(await makeFeed(w.deps, w.supervisor, target));
    const text = (await readFeed(w.deps, first.secret)) ?? '';
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/);
    expect(text.replaceAll('\r\n ', '')).toContain('LOCATION:Northhaven\\, Bay 1');
    expect(text).not.toContain('Machair Road');
    const second = value(await makeFeed(w.deps, w.supervisor, target));
    expect(await readFeed(w.deps, first.secret)).toBeNull();
    expect(await readFeed(w.deps, second.secret)).not.toBeNull();
    value(await removeFeed(w.deps, w.supervisor, target));
    expect(await readFeed(w.deps, second.secret)).toBeNull();
    expect(await removeFeed(w.deps, w.supervisor, target)).toMatchObject({ error: { kind: 'not-found' } });
  });

  it('of a person has their jobs alone, with the order of their changes', async () => {
    const holm = value(await listFeeds(w.deps, w.supervisor)).find(({ name }) => name === 'J. Holm');
    const { secret } = value(await makeFeed(w.deps, w.supervisor, { of: 'person', ofId: holm?.ofId ?? '' }));
    const text = ((await readFeed(w.deps, secret)) ?? '').replaceAll('\r\n ', '');
    expect(text).toContain('J. Holm');
    expect(text).not.toContain('M. Vane');
    expect(text).toMatch(/SEQUENCE:\d/);
    expect(
      await makeFeed(w.deps, inRole(w.supervisor, 'technician'), { of: 'person', ofId: holm?.ofId ?? '' }),
    ).toMatchObject({ error: { kind: 'forbidden' } });
  });
});
