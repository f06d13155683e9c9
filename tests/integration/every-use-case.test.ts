import { randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import { sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { ROLES } from '../../src/core/shared/role';
import { type Actor, may } from '../../src/server/access';
import { createFirstSupervisor } from '../../src/server/fleet/first-run';
import { isUseCase, type UseCase } from '../../src/server/use-case';
import { fleetDigest, tablesWithFleet } from '../builders/fleet-digest';
import { demoWorkspace, emptyWorkspace, value, type Workspace } from '../builders/workspace';

/* Every use-case there is, found by itself: each is tried as every role, and as another fleet with the ids of this one. */

const modules = import.meta.glob(['../../src/server/**/*.ts', '!../../src/server/**/*.test.ts'], { eager: true });
const all = Object.entries(modules).flatMap(([path, module]) =>
  Object.entries(module as Record<string, unknown>).flatMap(([name, found]) =>
    isUseCase(found)
      ? [{ name: `${path.replace('../../src/server/', '').replace('.ts', '')} ${name}`, useCase: found }]
      : [],
  ),
);

let w: Workspace & { readonly supervisor: Actor };
/** Ids of the fleet's rows, by table. */
let ids: ReadonlyMap<string, readonly string[]>;
let stranger: Actor;

/** What is asked for in the background is not done here. */
const withQuietQueue = <T extends Workspace>(of: T): T => ({
  ...of,
  deps: { ...of.deps, jobs: { send: async () => undefined } },
});

beforeAll(async () => {
  w = withQuietQueue(await demoWorkspace());
  ids = await idsOf(w.supervisor.fleetId);
  const { rows } = await w.deps.db.execute<{ id: string }>(
    sql`insert into fleets (name) values ('Another fleet') returning id`,
  );
  const fleetId = rows[0]?.id ?? '';
  const person = await w.deps.db.execute<{ id: string }>(
    sql`insert into people (fleet_id, name, role) values (${fleetId}, 'S. Tranger', 'supervisor') returning id`,
  );
  stranger = { ...w.supervisor, fleetId, personId: person.rows[0]?.id ?? '', name: 'S. Tranger' };
});

async function idsOf(fleetId: string): Promise<ReadonlyMap<string, readonly string[]>> {
  const found = new Map<string, readonly string[]>();
  for (const table of await tablesWithFleet(w.pool)) {
    const { rows } = await w.deps.db
      .execute<{ id: string }>(sql`select id::text from ${sql.identifier(table)} where fleet_id = ${fleetId} limit 3`)
      .catch(() => ({ rows: [] }));
    found.set(
      table,
      rows.flatMap(({ id }) => (/^[0-9a-f]{8}-[0-9a-f-]{27}$/.test(id) ? [id] : [])),
    );
  }
  return found;
}

/** Names of fields, and the table whose ids they take. */
const TABLE_OF: Readonly<Record<string, string>> = {
  vehicleId: 'vehicles',
  vehicleIds: 'vehicles',
  workOrderId: 'work_orders',
  sheetId: 'spec_sheets',
  chosenSheetId: 'spec_sheets',
  personId: 'people',
  ownerId: 'people',
  depotId: 'depots',
  bayId: 'bays',
  deliveryId: 'deliveries',
  trialId: 'trials',
  wrenchId: 'wrenches',
  banId: 'banned_sellers',
  importId: 'imports',
  followUpId: 'follow_ups',
  waitId: 'work_order_waits',
};
const TEXTS: Readonly<Record<string, string>> = {
  on: '2026-11-16',
  day: '2026-11-20',
  until: '2026-12-20',
  start: '08:00',
  reviewOn: '2027-01-01',
  calibratedOn: '2026-01-01',
  readOn: '2026-11-16',
  at: '2026-11-16T08:00:00Z',
  target: 'site 1A',
  site: '1A',
  odometer: '88600',
  text: '88600 km',
  unitNumber: '11',
  email: 'new@example.org',
  password: 'gravel-otter-lantern',
};

/** An input of the shape, with ids of the demo fleet wherever one is wanted. */
function inputOf(schema: z.ZodType, key = ''): unknown {
  const def = schema.def as {
    type: string;
    innerType?: z.ZodType;
    element?: z.ZodType;
    shape?: Record<string, z.ZodType>;
    options?: z.ZodType[];
    entries?: Record<string, string>;
    values?: unknown[];
    in?: z.ZodType;
    format?: string;
  };
  switch (def.type) {
    case 'object':
      return Object.fromEntries(Object.entries(def.shape ?? {}).map(([name, inner]) => [name, inputOf(inner, name)]));
    case 'array':
      return [inputOf(def.element as z.ZodType, key)];
    case 'optional':
    case 'nullable':
    case 'default':
    case 'prefault':
    case 'catch':
    case 'readonly':
      return inputOf(def.innerType as z.ZodType, key);
    case 'pipe':
      return inputOf(def.in as z.ZodType, key);
    case 'union':
      return inputOf(def.options?.[0] as z.ZodType, key);
    case 'enum':
      return Object.values(def.entries ?? {})[0];
    case 'literal':
      return def.values?.[0];
    case 'number':
      return 1;
    case 'boolean':
      return true;
    case 'record':
      return {};
    case 'date':
      return new Date();
    case 'string':
      if (def.format === 'uuid') return ids.get(TABLE_OF[key] ?? '')?.[0] ?? randomUUID();
      if (def.format === 'date') return '2026-11-16';
      return TEXTS[key] ?? 'abc';
    default:
      if (key === 'file') return Readable.from([Buffer.from('unit_number,read_on,odometer\n11,2026-11-16,5\n')]);
      if (key === 'bytes') return Buffer.from('ffd8ff00', 'hex');
      if (key === 'entries') return { id: randomUUID() };
      return null;
  }
}

/** Every input worth trying: for a lone id, that of any row of the fleet. */
const inputsOf = ({ input }: UseCase<z.ZodType | undefined, unknown>): readonly unknown[] => {
  if (!input) return [undefined];
  const one = inputOf(input);
  return typeof one === 'string' && /^[0-9a-f-]{36}$/.test(one) ? [...ids.values()].flat() : [one];
};

describe('every use-case', () => {
  it('is found', () => {
    expect(all.length).toBeGreaterThan(100);
  });

  it('is refused to every role that may not, whatever is asked, and to nobody else for that', async () => {
    for (const { name, useCase } of all)
      for (const role of ROLES) {
        const answered = await useCase.withUnknown(w.deps, { ...w.supervisor, role }, { nothing: 'of the kind' });
        const forbidden = !answered.ok && answered.error.kind === 'forbidden';
        expect([name, role, forbidden]).toEqual([name, role, !may({ role }, useCase.permission)]);
      }
  });

  it('tells another fleet nothing of this one and changes nothing of it, by any id', async () => {
    const before = await fleetDigest(w.pool, w.supervisor.fleetId);
    const known = new Set([...ids.values()].flat());
    let tried = 0;
    for (const { name, useCase } of all)
      for (const input of inputsOf(useCase)) {
        const answered = await useCase.withUnknown(w.deps, stranger, input);
        const text = JSON.stringify(answered);
        const sent = JSON.stringify(input) ?? '';
        const leaked = [...known].filter((id) => text.includes(id) && !sent.includes(id));
        expect([name, leaked]).toEqual([name, []]);
        if (answered.ok && typeof input === 'string' && known.has(input))
          expect([name, answered.value]).toEqual([name, []]);
        tried += 1;
      }
    expect(tried).toBeGreaterThan(300);
    expect(await fleetDigest(w.pool, w.supervisor.fleetId)).toEqual(before);
  });

  it('answers an empty workspace without failing', async () => {
    const empty = withQuietQueue(await emptyWorkspace());
    const actor = value(
      await createFirstSupervisor(empty.deps, {
        fleetName: 'Test',
        name: 'T. Ester',
        email: 't@example.org',
        password: 'long enough pw',
      }),
    );
    for (const { name, useCase } of all)
      for (const input of inputsOf(useCase).slice(0, 1))
        await expect(useCase.withUnknown(empty.deps, actor, input), name).resolves.toHaveProperty('ok');
  });

  it('answers text that cannot be stored with a refusal, wherever it stands', async () => {
    for (const { name, useCase } of all) {
      if (!useCase.input) continue;
      const poisoned = JSON.parse(JSON.stringify(inputOf(useCase.input) ?? null), (_, v) =>
        typeof v === 'string' && !/^[0-9a-f-]{36}$/.test(v) ? 'a\0b\ud83d' : v,
      );
      if (!JSON.stringify(poisoned).includes('\\u0000')) continue;
      const answered = await useCase.withUnknown(w.deps, w.supervisor, poisoned);
      const entries = name.endsWith('recordEntries');
      expect([name, answered.ok]).toEqual([name, entries && answered.ok]);
    }
  });
});
