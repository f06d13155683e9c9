import { randomUUID } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Said } from '../../src/core/misfire/case-entry';
import { normalFor } from '../../src/core/work/place-fields';
import { fittedComponents, followUps, misfireCases } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { listFollowUps } from '../../src/server/findings/follow-up';
import { decideCase, mendCase } from '../../src/server/misfire/decide';
import { endDriverAddress, makeDriverAddress, reportByAddress } from '../../src/server/misfire/driver-address';
import { withDriving } from '../../src/server/misfire/may-it-drive';
import { reportMisfire } from '../../src/server/misfire/open-case';
import { keepCodesOfCase, sayOfCase, takeBackEntry } from '../../src/server/misfire/say';
import { dealtWithReport, listUnfiledReports } from '../../src/server/misfire/unfiled-reports';
import { listCases, viewCase } from '../../src/server/misfire/view-case';
import { recordReadings } from '../../src/server/odometer/record-readings';
import { cancelWorkOrder, closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSteps, enter } from '../builders/floor';
import { demoWorkspace, idOfUnit, inRole, TODAY, value, type Workspace } from '../builders/workspace';

/* A misfire from a driver's words to the visit that cures it, and back where it did not. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const told = { words: 'shakes uphill', symptoms: ['load'] as const, lamp: 'on' as const, cylinders: [] };
const report = (unitNumber: string, over: object = {}, codes = '', who = actor) =>
  reportMisfire(w.deps, who, { unitNumber, codes, complaint: { ...told, symptoms: [...told.symptoms], ...over } });
const entryOf = (said: Said) => ({ id: randomUUID(), at: '2026-11-16T08:30:00Z', said: said as never });
const say = (caseId: string, ...said: readonly Said[]) =>
  sayOfCase(w.deps, actor, { caseId, entries: said.map(entryOf) });
const caseNumbered = async (number: number | null): Promise<string> => {
  const [row] = await w.deps.db
    .select()
    .from(misfireCases)
    .where(and(eq(misfireCases.fleetId, actor.fleetId), eq(misfireCases.number, number ?? 0)));
  return row?.id ?? '';
};
const misfireInDueList = async (search: string) =>
  value(await listDue(w.deps, actor, dueFilter.parse({ search }))).items.find(({ unitNumber }) => unitNumber === search)
    ?.misfire;
const view = async (caseId: string) => value(await viewCase(w.deps, actor, caseId));
const coilsOf = async (unit: string) =>
  (
    await w.deps.db
      .select({ cylinder: fittedComponents.cylinder, tag: fittedComponents.tag })
      .from(fittedComponents)
      .where(
        and(
          eq(fittedComponents.vehicleId, await idOfUnit(w.deps, unit)),
          eq(fittedComponents.component, 'coil'),
          isNull(fittedComponents.removedOn),
        ),
      )
  )
    .sort((a, b) => a.cylinder - b.cylinder)
    .map(({ tag }) => tag);

describe('a report', () => {
  it('opens a case, and a second one of the same vehicle goes on with it', async () => {
    const first = value(await report('12', {}, 'P0302'));
    expect(first).toMatchObject({ goesOn: false, driving: { driving: 'free' } });
    const second = value(await report('12', { lamp: 'flashing', symptoms: ['idle'] }));
    expect(second).toMatchObject({
      caseId: first.caseId,
      number: first.number,
      goesOn: true,
      driving: { driving: 'stop', reasons: [{ kind: 'lamp' }] },
    });
    const { story, advice } = await view(first.caseId);
    expect(story).toMatchObject({ codes: ['P0302'], symptoms: ['load', 'idle'], lamp: 'flashing' });
    expect(advice.driving).toBe('stop');
    // The due list names what makes waiting so dear.
    expect(await misfireInDueList('12')).toBe(first.number);
  });

  it('of two at the same moment leaves one case', async () => {
    const both = await Promise.all([report('13'), report('13')]);
    expect(new Set(both.map((one) => value(one).caseId)).size).toBe(1);
    expect((await view(value(both[0]).caseId)).entries).toHaveLength(2);
  });

  it('of a vehicle that is not there says so at its field, and opens nothing', async () => {
    const before = (await w.deps.db.select().from(misfireCases)).length;
    expect(await report('9999')).toMatchObject({
      error: { kind: 'invalid', fields: { unitNumber: expect.stringContaining('no unit 9999') } },
    });
    expect(await report('12', { lamp: 'blinking' })).toMatchObject({ error: { kind: 'invalid' } });
    expect(await report('12', {}, 'it says something')).toMatchObject({
      error: { fields: { codes: expect.any(String) } },
    });
    expect(await w.deps.db.select().from(misfireCases)).toHaveLength(before);
  });

  it('comes from anybody, and only those who work on vehicles say what they found', async () => {
    const { caseId } = value(await report('12', {}, '', inRole(actor, 'viewer')));
    const refused = await sayOfCase(w.deps, inRole(actor, 'viewer'), {
      caseId,
      entries: [entryOf({ kind: 'note', words: 'looked' })],
    });
    expect(refused).toMatchObject({ error: { kind: 'forbidden' } });
  });

  it('comes by the address for drivers without an account, until it is replaced', async () => {
    const { secret } = value(await makeDriverAddress(w.deps, actor));
    const sent = { unitNumber: '21', driver: 'the library driver', complaint: { ...told, lamp: 'flashing' } };
    const { number } = value(await reportByAddress(w.deps, secret, sent));
    const { entries } = await view(await caseNumbered(number));
    expect(entries[0]).toMatchObject({ who: null, entry: { driver: 'the library driver', saidBy: null } });
    expect(await reportByAddress(w.deps, secret, { ...sent, driver: '' })).toMatchObject({
      error: { kind: 'invalid' },
    });
    value(await makeDriverAddress(w.deps, actor));
    expect(await reportByAddress(w.deps, secret, sent)).toMatchObject({ error: { kind: 'not-found' } });
    value(await endDriverAddress(w.deps, actor));
    expect(await makeDriverAddress(w.deps, inRole(actor, 'technician'))).toMatchObject({
      error: { kind: 'forbidden' },
    });
  });

  it('by the address is never lost: of a watched vehicle, of a closed case, of a unit that is not there', async () => {
    const { secret } = value(await makeDriverAddress(w.deps, actor));
    const sent = (unitNumber: string, lamp = 'on') =>
      reportByAddress(w.deps, secret, { unitNumber, driver: 'the night driver', complaint: { ...told, lamp } });
    const { caseId } = value(await report('15'));
    for (const decision of ['watch', 'refer', 'close'] as const) {
      value(await decideCase(w.deps, actor, { caseId, decision, words: 'to see' }));
      const again = value(await sent('15', 'flashing'));
      expect(again.driving.driving).toBe('stop');
      expect(await caseNumbered(again.number)).toBe(caseId);
      expect((await view(caseId)).misfire.state).toBe(decision === 'refer' ? 'referred' : 'open');
    }
    const open = await w.deps.db
      .select()
      .from(followUps)
      .where(and(eq(followUps.misfireCaseId, caseId), isNull(followUps.doneAt)));
    expect(open).toEqual([]);
    const stray = value(await sent('9999', 'flashing'));
    expect(stray).toMatchObject({ number: null, driving: { driving: 'stop' } });
    const [kept] = value(await listUnfiledReports(w.deps, actor));
    expect(kept).toMatchObject({
      unitNumber: '9999',
      driver: 'the night driver',
      report: { complaint: { lamp: 'flashing' } },
    });
    expect(await listUnfiledReports(w.deps, inRole(actor, 'viewer'))).toMatchObject({ error: { kind: 'forbidden' } });
    value(await dealtWithReport(w.deps, actor, { reportId: kept?.id ?? '' }));
    expect(value(await listUnfiledReports(w.deps, actor))).toEqual([]);
  });

  it('by the address is not taken without end', async () => {
    const { secret } = value(await makeDriverAddress(w.deps, actor));
    const sent = { unitNumber: '21', driver: 'somebody', complaint: told };
    const outcomes = [];
    for (let i = 0; i < 31; i += 1) outcomes.push((await reportByAddress(w.deps, secret, sent)).ok);
    expect(outcomes.filter(Boolean).length).toBeLessThanOrEqual(30);
    expect(outcomes.at(-1)).toBe(false);
  });
});

describe('what is said of a case', () => {
  it('goes in under the name of whoever said it, and is refused from another on a shared device', async () => {
    const { caseId } = value(await report('24'));
    const mine = { ...entryOf({ kind: 'note', words: 'mine' }), by: actor.personId };
    const theirs = { ...entryOf({ kind: 'note', words: 'theirs' }), by: randomUUID() };
    expect(await sayOfCase(w.deps, actor, { caseId, entries: [mine, theirs] })).toMatchObject({
      error: { kind: 'forbidden', message: expect.stringContaining('Somebody else') },
    });
    expect((await view(caseId)).entries.map(({ entry }) => entry.said.kind)).toEqual(['complaint']);
    expect(value(await sayOfCase(w.deps, actor, { caseId, entries: [mine] })).kept).toBe(1);
  });

  it('proposes nothing once the case is closed, and only a watch once it is cured', async () => {
    const { caseId } = value(await report('13', { lamp: 'flashing' }, 'P0302'));
    value(
      await say(caseId, { kind: 'test', test: { test: 'replace', component: 'coil', cylinder: 2, outcome: 'cured' } }),
    );
    const cured = (await view(caseId)).advice;
    expect(cured).toMatchObject({ driving: 'free', steps: [{ action: 'watch' }] });
    value(await decideCase(w.deps, actor, { caseId, decision: 'close', words: 'it was the coil' }));
    expect((await view(caseId)).advice).toMatchObject({ driving: 'free', steps: [], underway: null });
  });

  it('is kept once however often it is sent, and taken back where it was wrong', async () => {
    const { caseId } = value(await report('14', {}, 'P0301'));
    const entry = entryOf({ kind: 'found', cylinder: 1, word: 'well_wet' });
    const twice = { caseId, entries: [entry, entry] };
    expect(value(await sayOfCase(w.deps, actor, twice)).kept).toBe(1);
    expect(value(await sayOfCase(w.deps, actor, twice)).kept).toBe(0);
    expect((await view(caseId)).story.found).toEqual([{ cylinder: 1, word: 'well_wet', after: 0 }]);
    value(await takeBackEntry(w.deps, actor, { caseId, entryId: entry.id }));
    expect((await view(caseId)).story.found).toEqual([]);
    expect(await takeBackEntry(w.deps, actor, { caseId, entryId: entry.id })).toMatchObject({
      error: { kind: 'not-found' },
    });
  });

  it('names no cylinder that the engine does not have, and nothing of it is kept', async () => {
    const { caseId } = value(await report('14'));
    const before = (await view(caseId)).entries.length;
    const outcome = await say(
      caseId,
      { kind: 'note', words: 'first' },
      { kind: 'found', cylinder: 9, word: 'well_wet' },
    );
    expect(outcome).toMatchObject({ error: { message: 'This engine has no cylinder 9.' } });
    expect((await view(caseId)).entries).toHaveLength(before);
  });

  it('takes codes out of what another program printed, and from the reader of the demo', async () => {
    const { caseId } = value(await report('15'));
    value(await keepCodesOfCase(w.deps, actor, { caseId, by: 'hand', typed: 'P0303 stored\nspeed 40 km/h; p0171' }));
    expect((await view(caseId)).codes.map(({ code, says }) => [code, says !== null])).toEqual([
      ['P0303', true],
      ['P0171', true],
    ]);
    expect((await keepCodesOfCase(w.deps, actor, { caseId, by: 'reader' })).ok).toBe(true);
    expect(await keepCodesOfCase(w.deps, actor, { caseId, by: 'hand', typed: 'nothing' })).toMatchObject({
      error: { fields: { typed: expect.stringContaining('no fault code') } },
    });
  });
});

describe('a swap', () => {
  it('moves the tags in the record at once, and back', async () => {
    const { caseId } = value(await report('11', {}, 'P0303'));
    const before = await coilsOf('11');
    value(await say(caseId, { kind: 'swapped', moved: ['coil'], from: 3, to: 1 }));
    expect(await coilsOf('11')).toEqual([before[2], before[1], before[0], before[3]]);
    const { story, advice, entries } = await view(caseId);
    expect(story.underway).toEqual({ moved: ['coil'], from: 3, to: 1 });
    expect(advice.underway?.outcomes).toHaveLength(4);
    const entryId = entries.at(-1)?.entry.id ?? '';
    expect(await takeBackEntry(w.deps, actor, { caseId, entryId })).toMatchObject({ error: { kind: 'conflict' } });
    value(await say(caseId, { kind: 'put_back', moved: ['coil'], from: 3, to: 1 }));
    expect(await coilsOf('11')).toEqual(before);
    // What is not swapped is not put back: that would swap it.
    expect(await say(caseId, { kind: 'put_back', moved: ['coil'], from: 3, to: 1 })).toMatchObject({
      error: { kind: 'conflict', message: expect.stringContaining('do not stand swapped') },
    });
    expect(await coilsOf('11')).toEqual(before);
  });

  it('does not make the cylinder that ate two coils less of a suspect', async () => {
    const { caseId } = value(await report('11'));
    const { advice } = await view(caseId);
    const chance = (cause: string) => advice.causes.find((one) => one.cause === cause)?.probability ?? 0;
    expect(chance('boot')).toBeGreaterThan(chance('coil'));
  });
});

describe('the end of a case', () => {
  const mend = (caseId: string, cause: 'coil' | 'injector' | 'boot', cylinder: number) =>
    mendCase(w.deps, actor, { caseId, cause: { cause, cylinders: [cylinder] } });
  let caseId = '';
  let order = '';

  it('puts the cure on a visit where the part sits now, with its reason', async () => {
    caseId = value(await report('11')).caseId;
    value(
      await say(
        caseId,
        { kind: 'swapped', moved: ['coil'], from: 3, to: 1 },
        { kind: 'test', test: { test: 'swap', moved: ['coil'], from: 3, to: 1, outcome: 'moved' } },
      ),
    );
    order = value(await mend(caseId, 'coil', 3)).workOrderId;
    const { tasks } = value(await viewWorkOrder(w.deps, actor, order));
    expect(tasks[0]?.row).toMatchObject({ action: 'replace', component: 'coil', why: 'misfire' });
    expect(tasks[0]?.places.map(({ place }) => place.cylinder)).toEqual([1]);
    expect((await view(caseId)).misfire).toMatchObject({ state: 'mending', workOrderId: order });
    expect(await mend(caseId, 'coil', 3)).toMatchObject({ error: { kind: 'conflict' } });
  });

  it('is open again where the visit is cancelled', async () => {
    value(await cancelWorkOrder(w.deps, actor, { workOrderId: order, reason: 'to try' }));
    expect((await view(caseId)).misfire).toMatchObject({ state: 'open', workOrderId: null });
    order = value(await mend(caseId, 'coil', 3)).workOrderId;
  });

  it('puts no injector on a visit: it is referred, with what was found', async () => {
    const other = value(await report('12')).caseId;
    expect(await mend(other, 'injector', 2)).toMatchObject({
      error: { kind: 'conflict', message: expect.stringContaining('Refer it') },
    });
    const refer = { caseId: other, decision: 'refer' as const, words: 'injector shop', cause: null };
    value(await decideCase(w.deps, actor, refer));
    expect((await view(other)).misfire.state).toBe('referred');
    expect(await decideCase(w.deps, actor, { ...refer, words: '' })).toMatchObject({ error: { kind: 'invalid' } });
  });

  it('takes a boot with its coil where no sheet names it alone, and nothing is half done where nothing fits', async () => {
    const other = value(await report('101', {}, 'P0302')).caseId;
    const { workOrderId } = value(await mend(other, 'boot', 2));
    const { tasks } = value(await viewWorkOrder(w.deps, actor, workOrderId));
    expect(tasks.map(({ row }) => row.component)).toContain('coil');
    const none = value(await report('52', {}, 'P0302')).caseId;
    const outcome = await mendCase(w.deps, actor, { caseId: none, cause: { cause: 'rotor', cylinders: [1, 2, 3, 4] } });
    expect(outcome.ok).toBe(false);
    expect((await view(none)).misfire).toMatchObject({ state: 'open', workOrderId: null });
  });

  it('watches once the visit is closed, with a follow-up for 800 km', async () => {
    await enter(w.deps, actor, order, 'coil 1A', {
      seen: normalFor('coil'),
      newNumber: 'NL-1804',
      tagIn: 'NC-777',
      torqueMethod: 'wrench',
      installedTorque: '9.0 N·m',
      done: true,
    });
    expect(await doSteps(w.deps, actor, order)).toEqual([]);
    const { order: row } = value(await viewWorkOrder(w.deps, actor, order));
    const km = (await view(caseId)).odometerKm ?? 0;
    value(
      await closeWorkOrder(w.deps, actor, {
        workOrderId: order,
        version: row.version,
        odometer: `${Math.round(km)} km`,
      }),
    );
    const { misfire } = await view(caseId);
    expect(misfire).toMatchObject({ state: 'watching', watchUntilKm: Math.round(km) + 800 });
    expect(await misfireInDueList('11')).toBeNull();
    const open = value(await listFollowUps(w.deps, actor, { open: true }));
    expect(open.find(({ followUp }) => followUp.misfireCaseId === caseId)).toMatchObject({
      isDue: false,
      caseNumber: misfire.number,
      followUp: { dueKm: Math.round(km) + 800 },
    });
  });

  it('goes on with all it knew where it comes back, and knows what cured nothing', async () => {
    const again = value(await report('11', { words: 'it is back' }));
    expect(again).toMatchObject({ caseId, goesOn: true });
    const { misfire, story } = await view(caseId);
    expect(misfire.state).toBe('open');
    expect(story.codes).toEqual(['P0303']);
    expect(story.testsDone).toContainEqual({ test: 'replace', component: 'coil', cylinder: 1, outcome: 'not_cured' });
    const [row] = await w.deps.db.select().from(followUps).where(eq(followUps.misfireCaseId, caseId));
    expect(row).toMatchObject({ outcome: 'It came back.' });
  });

  it('is over when somebody says so, and much later the vehicle has a new one', async () => {
    value(await decideCase(w.deps, actor, { caseId, decision: 'close', words: 'boot 3 it was', cause: null }));
    expect(await say(caseId, { kind: 'note', words: 'late' })).toMatchObject({ error: { kind: 'conflict' } });
    const km = (await view(caseId)).odometerKm ?? 0;
    const later = { ...w.deps, today: () => '2027-03-01' };
    value(
      await recordReadings(later, actor, {
        readings: [{ unitNumber: '11', on: '2027-03-01', text: `${Math.round(km) + 6000} km` }],
      }),
    );
    const fresh = await reportMisfire(later, actor, { unitNumber: '11', complaint: { ...told, symptoms: ['load'] } });
    expect(value(fresh)).toMatchObject({ goesOn: false });
    expect(value(fresh).caseId).not.toBe(caseId);
  });
});

describe('the list', () => {
  it('is read a page at a time, the newest first, and by state', async () => {
    const first = value(await listCases(w.deps, actor, { limit: 2 }));
    expect(first.items).toHaveLength(2);
    const second = value(await listCases(w.deps, actor, { limit: 2, before: first.next ?? undefined }));
    const numbers = [...first.items, ...second.items].map(({ misfire }) => misfire.number);
    expect(numbers).toEqual([...numbers].sort((a, b) => b - a));
    const closed = value(await listCases(w.deps, actor, { limit: 100, states: ['closed'] }));
    expect(closed.items.every(({ misfire }) => misfire.endedOn === TODAY)).toBe(true);
  });

  it('says of each vehicle whether it may be driven on, as the page of the misfire does', async () => {
    value(await report('104', { lamp: 'flashing' }));
    const { items } = value(await listCases(w.deps, actor, { limit: 100 }));
    const rows = await withDriving(w.deps, actor, items);
    expect(rows.map(({ advice }) => advice.driving)).toContain('stop');
    for (const { advice, misfire } of rows) expect((await view(misfire.id)).advice).toMatchObject(advice);
  });

  it('shows nothing of this fleet to another', async () => {
    const stranger: Actor = { ...actor, fleetId: randomUUID() as Actor['fleetId'] };
    expect(value(await listCases(w.deps, stranger, { limit: 10 })).items).toEqual([]);
    const [mine] = value(await listCases(w.deps, actor, { limit: 1 })).items;
    expect(await viewCase(w.deps, stranger, mine?.misfire.id ?? '')).toMatchObject({ error: { kind: 'not-found' } });
  });
});
