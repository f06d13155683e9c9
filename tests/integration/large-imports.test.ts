import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { JobName } from '../../src/contracts/jobs';
import { odometerReadings } from '../../src/db/schema';
import { handle } from '../../src/jobs/handlers';
import type { Actor } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import {
  adjustImport,
  confirmImport,
  discardImport,
  refusedRowsCsv,
  uploadFile,
  viewImport,
} from '../../src/server/imports/import-file';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

/* A file too large for a request: the app keeps it and asks for its check; a worker reads it, and does what was confirmed. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
/** What the app asked for, as a worker would hear it. */
let asked: { readonly name: JobName; readonly data: unknown }[];
let app: Deps;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});
beforeEach(() => {
  asked = [];
  app = { ...w.deps, jobs: { send: async (_, name, data) => void asked.push({ name, data }) } };
});

const work = async () => {
  for (const { name, data } of asked.splice(0)) await handle(w.deps, name, data);
};

const LINES = process.env.TEST_DEEP ? 40_000 : 5_000;
/** A column that nobody reads makes the file large. */
const REMARK = 'x'.repeat(240);
/** Readings of one vehicle, a day's twice, all of them refused but the first: of units that are not here. */
const text = (day: string): string =>
  [
    'unit_number,read_on,odometer,unit,source,remark',
    `13,${day},91000,km,yard walk,${REMARK}`,
    ...Array.from({ length: LINES - 1 }, (_, i) => `X${i},${day},${90_000 + i},km,yard walk,${REMARK}`),
  ].join('\n');
const upload = async (day: string, deps = app) =>
  value(
    await uploadFile(deps, actor, {
      fileName: 'odometer.csv',
      bytes: new TextEncoder().encode(text(day)),
      kind: 'odometer',
      background: true,
    }),
  ).importId;
const view = async (importId: string) => value(await viewImport(app, actor, importId));
const readings = () => w.deps.db.$count(odometerReadings);

describe('a large file', () => {
  it('is taken without being read, checked by a worker, and shown as far as a page shows it', async () => {
    const importId = await upload('2026-11-10');
    expect(await view(importId)).toMatchObject({ state: 'checking', plan: null });
    expect(asked).toEqual([{ name: 'check-import', data: { fleetId: actor.fleetId, importId } }]);
    await work();
    const { state, plan } = await view(importId);
    expect([state, plan?.rowCount, plan?.counts.add, plan?.counts.refuse]).toEqual(['checked', LINES, 1, LINES - 1]);
    expect(plan?.rows.length).toBe(201);
    const refused = value(await refusedRowsCsv(app, actor, importId))
      .trim()
      .split('\n');
    expect(refused).toHaveLength(LINES);
    expect(refused[1]).toContain('unit X0 is not here yet');
  });

  it('is imported by a worker, all of it, once however often the job is taken', async () => {
    const importId = await upload('2026-11-11');
    await work();
    const before = await readings();
    value(await confirmImport(app, actor, { importId, digest: (await view(importId)).plan?.digest }));
    expect(await view(importId)).toMatchObject({ state: 'applying', plan: null });
    expect(await readings()).toBe(before);
    expect(await confirmImport(app, actor, { importId })).toMatchObject({ error: { kind: 'conflict' } });
    const [job] = asked;
    await work();
    if (job) await handle(w.deps, job.name, job.data);
    expect(await view(importId)).toMatchObject({ state: 'applied', counts: { add: 1, refuse: LINES - 1 } });
    expect(await readings()).toBe(before + 1);
  });

  it('does nothing, and shows the new outcome, where the workspace has changed since it was shown', async () => {
    const [first, second] = [await upload('2026-11-12'), await upload('2026-11-12')];
    await work();
    value(await confirmImport(app, actor, { importId: first }));
    value(await confirmImport(app, actor, { importId: second }));
    await work();
    const after = await view(second);
    expect(after).toMatchObject({ state: 'checked', problem: expect.stringContaining('The workspace changed') });
    expect(after.plan?.counts).toMatchObject({ add: 0, skip: 1 });
  });

  it('is checked anew when a column is matched otherwise', async () => {
    const importId = await upload('2026-11-13');
    await work();
    value(await adjustImport(app, actor, { importId, mapping: { unit_number: 'unit_number', read_on: 'read_on' } }));
    expect(await view(importId)).toMatchObject({ state: 'checking', plan: null });
    await work();
    expect((await view(importId)).plan?.counts.add).toBe(0);
  });

  it('may be discarded before it is checked, and its job then does nothing', async () => {
    const importId = await upload('2026-11-14');
    value(await discardImport(app, actor, importId));
    await work();
    expect(await view(importId)).toMatchObject({ state: 'discarded', plan: null });
    expect(await refusedRowsCsv(app, actor, importId)).toMatchObject({ error: { kind: 'not-found' } });
  });

  it('is of those who may import, in their own fleet', async () => {
    const importId = await upload('2026-11-15');
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    for (const [person, kind] of [
      [inRole(actor, 'viewer'), 'forbidden'],
      [stranger, 'not-found'],
    ] as const) {
      expect(await viewImport(app, person, importId)).toMatchObject({ error: { kind } });
      expect(await confirmImport(app, person, { importId })).toMatchObject({ error: { kind } });
      expect(await refusedRowsCsv(app, person, importId)).toMatchObject({ error: { kind } });
    }
    await handle(w.deps, 'check-import', { fleetId: stranger.fleetId, importId });
    expect(await view(importId)).toMatchObject({ state: 'checking' });
  });
});

describe('a small file', () => {
  it('is checked and imported at once, and asks for no worker', async () => {
    const bytes = new TextEncoder().encode('unit_number,read_on,odometer\n13,2026-11-15,91500');
    const small = { fileName: 'odometer.csv', bytes, background: true };
    const { importId } = value(await uploadFile(app, actor, small));
    expect((await view(importId)).plan?.rowCount).toBe(1);
    value(await confirmImport(app, actor, { importId }));
    expect(await view(importId)).toMatchObject({ state: 'applied' });
    expect(asked).toEqual([]);
  });
});
