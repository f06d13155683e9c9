import { eq, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import type { BoardJob, BoardWeek } from '../../src/core/planning/board-week';
import { bookings, people, vehicles, workOrders } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { addAbsence } from '../../src/server/planning/absences';
import { moveJob, pinBooking } from '../../src/server/planning/move-job';
import { viewBoard, viewBoards } from '../../src/server/planning/view-board';
import { setWorking } from '../../src/server/work-orders/work-time';
import { demoWorkspace, inRole, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
const boardOf = async (depot = 'Northhaven', day = TODAY): Promise<BoardWeek> => {
  const board = value(await viewBoard(w.deps, w.supervisor, { depot, day }));
  if (!board) throw new Error('no depot');
  return board;
};
const jobOn = ({ jobs }: BoardWeek, unit: string): BoardJob => {
  const job = jobs.find(({ unitNumber }) => unitNumber === unit);
  if (!job) throw new Error(`no unit ${unit} on the board`);
  return job;
};
const placeOf = ({ unitNumber, place }: BoardJob) => {
  if (!place?.slot) throw new Error(`no place for unit ${unitNumber}`);
  const { day, bay, person, startMin } = place.slot;
  return { day, bayId: bay, personId: person, startMin };
};

beforeAll(async () => {
  w = await demoWorkspace();
});

describe('the board of a depot', () => {
  it('has what is booked as long as it is booked, and what waits with a place or a reason', async () => {
    const board = await boardOf();
    expect(board.problem.days).toEqual(['2026-11-16', '2026-11-17', '2026-11-18', '2026-11-19', '2026-11-20']);
    expect(jobOn(board, '32')).toMatchObject({ minutes: 210, isBegun: true, booking: { day: TODAY, startMin: 480 } });
    for (const { booking, place } of board.jobs) expect(booking === null).toBe(place !== null);
    // The bus is away whenever a bay is open.
    expect(jobOn(await boardOf('Quarry Cross'), '8').place).toMatchObject({ slot: null, reason: 'vehicle_away' });
  });

  it('is not there for a depot that is not, and looks at any week', async () => {
    expect(await viewBoard(w.deps, w.supervisor, { depot: 'Nowhere' })).toMatchObject({ error: { kind: 'not-found' } });
    const later = await boardOf('Northhaven', '2026-12-24');
    expect(later.monday).toBe('2026-12-21');
    expect(later.jobs.map(({ unitNumber }) => unitNumber)).not.toContain('21');
    expect(later.problem.bays[0]?.open.map(({ day }) => day)).not.toContain('2026-12-25');
  });

  it('is the same among the boards of all depots as alone', async () => {
    const all = value(await viewBoards(w.deps, w.supervisor, { day: '2026-11-18' }));
    expect(all.map(({ depot }) => depot.name)).toEqual(['Eastlight', 'Machair Road', 'Northhaven', 'Quarry Cross']);
    for (const board of all) expect(board).toEqual(await boardOf(board.depot.name, '2026-11-18'));
  });

  it('says why a bay is closed and a person is away, on those days alone', async () => {
    const before = await boardOf('Eastlight', '2027-01-04');
    const [bay, person] = [before.problem.bays[0], before.problem.people[0]];
    const { depot } = before;
    const away = (of: 'bay' | 'depot' | 'person', ofId: string, what: string, from: string) =>
      addAbsence(w.deps, w.supervisor, { of, ofId, what, from, to: from });
    value(await away('bay', bay?.id ?? '', 'lift inspection', '2027-01-05'));
    value(await away('depot', depot.id, 'regatta', '2027-01-06'));
    value(await away('person', person?.id ?? '', 'course', '2027-01-07'));
    const reasons = (await boardOf('Eastlight', '2027-01-04')).away.filter(
      (one) => !before.away.some(({ id, day, what }) => id === one.id && day === one.day && what === one.what),
    );
    expect(reasons).toEqual([
      { id: bay?.id, day: '2027-01-05', what: 'lift inspection' },
      { id: bay?.id, day: '2027-01-06', what: 'regatta' },
      { id: person?.id, day: '2027-01-07', what: 'course' },
    ]);
    expect((await boardOf('Eastlight', '2027-01-11')).away.map(({ what }) => what)).not.toContain('regatta');
  });
});

describe('a move', () => {
  it('opens the order of what is due, books it, and is seen on the board', async () => {
    const due = jobOn(await boardOf(), '42');
    expect(due.workOrderId).toBeNull();
    const done = value(await moveJob(w.deps, w.supervisor, { job: due.id, to: placeOf(due), version: null }));
    expect(done.opened).toBe(true);
    const job = jobOn(await boardOf(), '42');
    expect(job.booking).toMatchObject({ ...placeOf(due), version: 1 });
  });

  it('keeps every hard rule, and leaves nothing half done', async () => {
    const board = await boardOf();
    const orders = await w.deps.db.$count(workOrders);
    const due = jobOn(board, '132');
    const to = placeOf(due);
    const [pirie] = await w.deps.db.select().from(people).where(eq(people.name, 'S. Pirie'));
    const tries = [
      [{ ...to, personId: pirie?.id ?? '' }, /S. Pirie is not there/],
      [{ ...to, day: '2026-11-20', startMin: 480 }, /too hot before 09:45/],
      [{ ...to, startMin: 900 }, /not open all that time/],
      [{ ...to, day: '2026-11-13' }, /passed|not open/],
    ] as const;
    for (const [wrong, message] of tries)
      expect(await moveJob(w.deps, w.supervisor, { job: due.id, to: wrong, version: null })).toMatchObject({
        error: { kind: 'conflict', message: expect.stringMatching(message) },
      });
    expect(await w.deps.db.$count(workOrders)).toBe(orders);
    expect(await moveJob(w.deps, inRole(w.supervisor, 'viewer'), { job: due.id, to, version: null })).toMatchObject({
      error: { kind: 'forbidden' },
    });
  });

  it('made by two at once is made by one, and the other is told what it is now', async () => {
    const { id, booking } = jobOn(await boardOf(), '42');
    if (!booking) throw new Error('not booked');
    const { version, bayId, personId } = booking;
    const to = (day: string) => ({ day, bayId, personId, startMin: 600 });
    const tries = await Promise.all(
      ['2026-11-19', '2026-11-20'].map((day) => moveJob(w.deps, w.supervisor, { job: id, to: to(day), version })),
    );
    expect(tries.filter(({ ok }) => ok)).toHaveLength(1);
    expect(tries.find(({ ok }) => !ok)).toMatchObject({
      error: {
        kind: 'edited-meanwhile',
        message: expect.stringMatching(/moved unit 42 meanwhile: it is on (Thu 19|Fri 20) Nov at 10:00/),
      },
    });
  });

  it('leaves people the way between depots, and their break', async () => {
    const board = await boardOf('Eastlight', '2026-11-23');
    const person = board.problem.people.find(({ depots }) => depots.includes('Northhaven'));
    const [bay] = board.problem.bays;
    const { rows } = await w.deps.db.execute<{ id: string; depot: string; bay: string }>(sql`
      select v.id, d.name as depot, (select b.id from bays b where b.depot_id = d.id order by b.name limit 1) as bay
      from vehicles v join depots d on d.id = v.depot_id
      join due_status s on s.vehicle_id = v.id and s.component = 'plug' and s.fitment = 'match'
      join engine_families f on f.id = v.engine_family_id
      where d.name in ('Eastlight', 'Northhaven') and not f.hybrid
        and not exists (select 1 from work_orders o where o.vehicle_id = v.id) order by d.name, v.unit_number`);
    const at = (depot: string) => rows.find((row) => row.depot === depot);
    const [here, there] = [at('Eastlight'), at('Northhaven')];
    const to = (bayId: string | undefined, startMin: number) => ({
      job: { day: '2026-11-25', bayId: bayId ?? '', personId: person?.id ?? '', startMin },
      version: null,
    });
    const first = to(bay?.id, 600);
    value(await moveJob(w.deps, w.supervisor, { job: `vehicle ${here?.id}`, to: first.job, version: null }));
    const busy = (await boardOf('Northhaven', '2026-11-23')).problem.people.find(({ id }) => id === person?.id)?.busy;
    expect(busy).toMatchObject([{ day: '2026-11-25', fromMin: 600, depot: 'Eastlight' }]);
    const ends = busy?.[0]?.toMin ?? 0;
    const second = to(there?.bay, ends + 15);
    expect(
      await moveJob(w.deps, w.supervisor, { job: `vehicle ${there?.id}`, to: second.job, version: null }),
    ).toMatchObject({ error: { kind: 'conflict', message: expect.stringContaining('40 min apart') } });
  });

  it('of fifty who book the last hour, one gets it', async () => {
    const board = await boardOf('Eastlight', '2026-11-23');
    const { rows } = await w.deps.db.execute<{ id: string }>(sql`
      select v.id from vehicles v join due_status s on s.vehicle_id = v.id and s.component = 'plug' and s.fitment = 'match'
      join engine_families f on f.id = v.engine_family_id
      where v.depot_id = ${board.depot.id} and not f.hybrid
        and not exists (select 1 from work_orders o where o.vehicle_id = v.id) order by v.unit_number limit 5`);
    const [bay] = board.problem.bays;
    const [person] = board.problem.people;
    const to = { day: '2026-11-24', bayId: bay?.id ?? '', personId: person?.id ?? '', startMin: 600 };
    const tries = await Promise.all(
      Array.from({ length: 50 }, (_, i) =>
        moveJob(w.deps, w.supervisor, { job: `vehicle ${rows[i % rows.length]?.id}`, to, version: null }),
      ),
    );
    expect(tries.filter(({ ok }) => ok)).toHaveLength(1);
    for (const tried of tries) if (!tried.ok) expect(tried.error.kind).toBe('conflict');
    const booked = await w.deps.db.select().from(bookings).where(eq(bookings.bayId, to.bayId));
    expect(booked.filter(({ during }) => during.includes('2026-11-24 10:00'))).toHaveLength(1);
  });

  it('puts back what was agreed by hand, as an undo, without judging it anew', async () => {
    // Unit 21 is booked at 8:30, and cold enough at 9:45: somebody knew better.
    const { id, booking } = jobOn(await boardOf(), '21');
    if (!booking) throw new Error('not booked');
    const { day, bayId, personId, startMin, version } = booking;
    value(await moveJob(w.deps, w.supervisor, { job: id, to: null, version }));
    const back = { day, bayId, personId, startMin };
    expect(await moveJob(w.deps, w.supervisor, { job: id, to: back, version: null })).toMatchObject({ ok: false });
    value(await moveJob(w.deps, w.supervisor, { job: id, to: back, isUndo: true, version: null }));
    expect(jobOn(await boardOf(), '21').booking).toMatchObject(back);
  });
});

describe('a pin', () => {
  it('stays where it is, whoever moves it, until it is taken off', async () => {
    const { id, workOrderId, booking } = jobOn(await boardOf(), '21');
    if (!booking || !workOrderId) throw new Error('not booked');
    value(await pinBooking(w.deps, w.supervisor, { workOrderId, isPinned: true, version: booking.version }));
    expect(
      await pinBooking(w.deps, w.supervisor, { workOrderId, isPinned: true, version: booking.version }),
    ).toMatchObject({ error: { kind: 'edited-meanwhile' } });
    const pinned = jobOn(await boardOf(), '21');
    expect(pinned.isPinned).toBe(true);
    const version = pinned.booking?.version ?? 0;
    const to = { ...booking, startMin: 600 };
    for (const where of [to, null])
      expect(await moveJob(w.deps, w.supervisor, { job: id, to: where, version })).toMatchObject({
        error: { message: expect.stringContaining('pinned') },
      });
    value(await pinBooking(w.deps, w.supervisor, { workOrderId, isPinned: false, version }));
    value(await moveJob(w.deps, w.supervisor, { job: id, to, version: version + 1 }));
  });
});

describe('work as it really goes', () => {
  it('makes the bar begin when somebody began, and end when it was handed over', async () => {
    const before = jobOn(await boardOf(), '32');
    const { workOrderId, booking } = before;
    if (!workOrderId || !booking) throw new Error('not booked');
    expect(before.progress).toEqual({ startedMin: null, finishedMin: null });
    const at = (time: string) => ({ ...w.deps, now: () => new Date(`${TODAY}T${time}:00Z`) });
    const vane = { ...w.supervisor, personId: booking.personId, role: 'technician' as const };
    value(await setWorking(at('08:20'), vane, { workOrderId, working: true }));
    expect(jobOn(await boardOf(), '32').progress).toEqual({ startedMin: 500, finishedMin: null });
    await w.deps.db
      .update(workOrders)
      .set({ handedOverAt: new Date(`${TODAY}T10:40:00Z`) })
      .where(eq(workOrders.id, workOrderId));
    expect(jobOn(await boardOf(), '32')).toMatchObject({
      isFinished: true,
      progress: { startedMin: 500, finishedMin: 640 },
    });
    await w.deps.db.update(workOrders).set({ handedOverAt: null }).where(eq(workOrders.id, workOrderId));
  });

  it('says why each job is where it is, and how long the like take', async () => {
    for (const { booking, why, likely, minutes, isBegun } of (await boardOf()).jobs) {
      if (booking) expect(why?.length).toBeGreaterThan(5);
      else expect(why).toBeNull();
      if (isBegun || !likely) continue;
      expect(likely.fromMin).toBeLessThan(minutes);
      expect(likely.toMin).toBeGreaterThan(likely.fromMin);
    }
  });
});

describe('a vehicle that leaves the fleet', () => {
  it('is not brought in for what it does not live to need, and says so', async () => {
    const due = jobOn(await boardOf(), '11');
    expect(due.place?.slot).not.toBeNull();
    await w.deps.db.update(vehicles).set({ retiresOn: '2026-11-27' }).where(eq(vehicles.unitNumber, '11'));
    expect(jobOn(await boardOf(), '11').place).toMatchObject({
      slot: null,
      reason: 'cheaper_later',
      message: expect.stringContaining('it leaves the fleet on Fri 27 Nov'),
    });
    await w.deps.db.update(vehicles).set({ retiresOn: null }).where(eq(vehicles.unitNumber, '11'));
  });
});

describe('a person who falls ill', () => {
  it('has no hours that day, and nobody can be booked with them', async () => {
    const holm = (await boardOf()).problem.people.find(({ name }) => name === 'J. Holm');
    value(
      await addAbsence(w.deps, w.supervisor, { of: 'person', ofId: holm?.id ?? '', what: 'ill', from: '2026-11-20' }),
    );
    const after = (await boardOf()).problem.people.find(({ name }) => name === 'J. Holm');
    expect(after?.shift.map(({ day }) => day)).not.toContain('2026-11-20');
    const { id, booking } = jobOn(await boardOf(), '21');
    const to = { day: '2026-11-20', bayId: booking?.bayId ?? '', personId: holm?.id ?? '', startMin: 900 };
    expect(await moveJob(w.deps, w.supervisor, { job: id, to, version: booking?.version ?? null })).toMatchObject({
      error: { message: expect.stringContaining('J. Holm is not there') },
    });
  });
});
