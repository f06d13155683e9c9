import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { absences, bays, depots, people, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { changeBay, listBays } from '../../src/server/fleet/bays';
import { changePresence, listPeople } from '../../src/server/fleet/people';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { absenceOf, addAbsence, listAbsences, readCalendar, removeAbsence } from '../../src/server/planning/absences';
import { exportAbsences } from '../../src/server/planning/export-absences';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
const idOf = async (table: typeof depots | typeof people, name: string): Promise<string> => {
  const [row] = await w.deps.db.select({ id: table.id }).from(table).where(eq(table.name, name));
  return row?.id ?? '';
};

beforeAll(async () => {
  w = await demoWorkspace();
});

describe('what the planner plans with', () => {
  it('is there on the first day: every bay takes any vehicle in the hours of its depot', async () => {
    const list = value(await listBays(w.deps, w.supervisor));
    expect(list).toHaveLength(6);
    expect(list.find(({ depot, name }) => depot === 'Northhaven' && name === 'Bay 2')).toMatchObject({
      can: ['hybrid', 'lift'],
      ownHours: null,
    });
    expect(list.find(({ depot, name }) => depot === 'Quarry Cross' && name === 'Bay 2')?.ownHours).toMatchObject({
      5: { fromMin: 480, toMin: 720 },
    });
  });

  it('says what a bay takes and when it is open, and what it cannot read', async () => {
    const [bay] = value(await listBays(w.deps, w.supervisor));
    const change = (over: object, who = w.supervisor) =>
      changeBay(w.deps, who, { bayId: bay?.id ?? '', name: bay?.name ?? '', ...over });
    value(await change({ can: 'Hybrid, gas;  lift', hours: 'Mon 07:00-15:00' }));
    const after = value(await listBays(w.deps, w.supervisor)).find(({ id }) => id === bay?.id);
    expect(after).toMatchObject({ can: ['hybrid', 'gas', 'lift'], ownHours: { 1: { fromMin: 420, toMin: 900 } } });
    // A name alone leaves the rest as it is.
    value(await change({}));
    expect(value(await listBays(w.deps, w.supervisor)).find(({ id }) => id === bay?.id)).toMatchObject({
      can: after?.can,
    });
    expect(await change({ hours: 'mornings' })).toMatchObject({ error: { fields: { hours: expect.any(String) } } });
    expect(await change({ can: '' }, inRole(w.supervisor, 'technician'))).toMatchObject({
      error: { kind: 'forbidden' },
    });
    value(await change({ can: '', hours: '' }));
  });

  it('says where a person works, on what they are trained, and their shifts', async () => {
    const personId = await idOf(people, 'A. Corrie');
    const person = async () => value(await listPeople(w.deps, w.supervisor)).find(({ id }) => id === personId);
    const version = (await person())?.version ?? 0;
    const depotIds = [await idOf(depots, 'Eastlight')];
    const change = (over: object) =>
      changePresence(w.deps, w.supervisor, {
        personId,
        version,
        depotIds,
        skills: 'gas',
        hours: 'Mon Tue 07:00-15:00',
        ...over,
      });
    expect(await change({ depotIds: [personId] })).toMatchObject({ error: { kind: 'not-found' } });
    value(await change({}));
    expect(await person()).toMatchObject({ depotIds, skills: ['gas'], hours: { 2: { fromMin: 420, toMin: 900 } } });
    expect(await change({})).toMatchObject({ error: { kind: 'edited-meanwhile' } });
  });
});

describe('absences', () => {
  const add = async (over: object, who = w.supervisor) =>
    addAbsence(w.deps, who, {
      of: 'person',
      ofId: await idOf(people, 'M. Vane'),
      what: 'course',
      from: '2026-12-01',
      ...over,
    } as Parameters<typeof addAbsence>[2]);

  it('of the demo are there: a bus by a rule, a person on holiday, a bay that is inspected', async () => {
    const list = value(await listAbsences(w.deps, w.supervisor));
    expect(list.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['unit 8 harbour bus', 'S. Pirie', 'Quarry Cross Bay 1']),
    );
    expect(list.find(({ name }) => name === 'unit 8 harbour bus')?.rule).toBe('FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR');
  });

  it('are kept once or by a rule, told what is wrong, and taken back', async () => {
    const { absenceId } = value(
      await add({ to: '2026-12-03', fromTime: '08:00', toTime: '12:00', rule: 'freq=yearly' }),
    );
    const [row] = await w.deps.db.select().from(absences).where(eq(absences.id, absenceId));
    expect(row && absenceOf(row)).toEqual({
      from: '2026-12-01',
      to: '2026-12-03',
      hours: { fromMin: 480, toMin: 720 },
      rule: 'FREQ=YEARLY',
      except: [],
    });
    for (const [over, field] of [
      [{ to: '2026-11-30' }, 'to'],
      [{ fromTime: '08:00' }, 'toTime'],
      [{ fromTime: '12:00', toTime: '08:00' }, 'toTime'],
      [{ rule: 'every Monday' }, 'rule'],
      [{ what: '' }, 'what'],
    ] as const)
      expect(await add(over)).toMatchObject({ error: { fields: { [field]: expect.any(String) } } });
    expect(await add({ of: 'vehicle' })).toMatchObject({ error: { kind: 'not-found' } });
    expect(await add({}, inRole(w.supervisor, 'viewer'))).toMatchObject({ error: { kind: 'forbidden' } });
    value(await removeAbsence(w.deps, w.supervisor, { absenceId }));
    expect(await removeAbsence(w.deps, w.supervisor, { absenceId })).toMatchObject({ error: { kind: 'not-found' } });
  });

  it('come from a calendar file, and come anew when it is read again', async () => {
    const [unit] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, '15'));
    const calendar = (...events: string[]) =>
      ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:demo', ...events, 'END:VCALENDAR', ''].join('\r\n');
    const event = (uid: string, day: string): string =>
      ['BEGIN:VEVENT', `UID:${uid}`, 'SUMMARY:village round', `DTSTART;VALUE=DATE:${day}`, 'END:VEVENT'].join('\r\n');
    const read = (text: string) => readCalendar(w.deps, w.supervisor, { of: 'vehicle', ofId: unit?.id ?? '', text });
    const own = async () =>
      value(await listAbsences(w.deps, w.supervisor)).filter(({ name }) => name.startsWith('unit 15 '));
    expect(value(await read(calendar(event('a', '20261201'), event('b', '20261202'))))).toEqual({ read: 2 });
    expect(value(await read(calendar(event('b', '20261209'))))).toEqual({ read: 1 });
    expect((await own()).map(({ fromDay, toDay }) => [fromDay, toDay])).toEqual([['2026-12-09', '2026-12-09']]);
    expect(await read('dear all')).toMatchObject({
      error: { fields: { text: expect.stringContaining('no calendar') } },
    });
    expect(await own()).toHaveLength(1);
  });

  it('go out as a file and come in again with nothing to add', async () => {
    const text = value(await exportAbsences(w.deps, w.supervisor));
    const { importId } = value(
      await uploadFile(w.deps, w.supervisor, { fileName: 'absences.csv', bytes: new TextEncoder().encode(text) }),
    );
    const { counts } = value(await confirmImport(w.deps, w.supervisor, { importId }));
    expect(counts).toMatchObject({ add: 0, refuse: 0 });
    expect(counts.skip).toBe(await w.deps.db.$count(absences));
    expect(await w.deps.db.$count(bays)).toBe(6);
  });
});
