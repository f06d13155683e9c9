import { beforeAll, describe, expect, it } from 'vitest';
import { keepResultForm } from '../../src/contracts/forms/parts';
import { ROLES, type Role } from '../../src/core/shared/role';
import { type Actor, may } from '../../src/server/access';
import { listTokens } from '../../src/server/auth/access-tokens';
import { keepResult, listKept } from '../../src/server/bench/keep-result';
import { viewBench } from '../../src/server/bench/view-bench';
import { listWrenches } from '../../src/server/bench/wrenches';
import { listUnmatched } from '../../src/server/catalogue/list-unmatched';
import { listNumberCodes } from '../../src/server/catalogue/read-number';
import { listEngines } from '../../src/server/catalogue/view-engine';
import { listParts } from '../../src/server/catalogue/view-part';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { CATALOGUE_KINDS, exportRows } from '../../src/server/exports/catalogue-csv';
import { listFollowUps } from '../../src/server/findings/follow-up';
import { listBays, listDepots } from '../../src/server/fleet/bays';
import { find } from '../../src/server/fleet/find';
import { createFirstSupervisor } from '../../src/server/fleet/first-run';
import { listVehicles } from '../../src/server/fleet/view-vehicle';
import { listSuspects } from '../../src/server/odometer/list-suspects';
import { listSuspectHours } from '../../src/server/odometer/resolve-hours';
import { viewPolicies } from '../../src/server/policies/view-policies';
import { listBans } from '../../src/server/stock/ban-seller';
import { listDeliveries } from '../../src/server/stock/resolve-delivery';
import { listTrials } from '../../src/server/stock/trials';
import { listWaiting } from '../../src/server/work-orders/list-waiting';
import { listWorkOrders } from '../../src/server/work-orders/list-work-orders';
import { demoWorkspace, emptyWorkspace, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
beforeAll(async () => {
  w = await demoWorkspace();
});

/** Everything that lists something of a fleet, as the number of rows that it shows. */
const LISTS: Readonly<Record<string, (w: Workspace, actor: Actor) => Promise<number>>> = {
  vehicles: async (w, a) => value(await listVehicles(w.deps, a, { limit: 1000 })).items.length,
  due: async (w, a) => value(await listDue(w.deps, a, dueFilter.parse({}))).total,
  'work orders': async (w, a) => value(await listWorkOrders(w.deps, a)).items.length,
  bays: async (w, a) => value(await listBays(w.deps, a)).length,
  depots: async (w, a) => value(await listDepots(w.deps, a)).length,
  engines: async (w, a) => value(await listEngines(w.deps, a)).length,
  unmatched: async (w, a) => value(await listUnmatched(w.deps, a)).length,
  parts: async (w, a) => value(await listParts(w.deps, a)).length,
  wrenches: async (w, a) => value(await listWrenches(w.deps, a)).length,
  kept: async (w, a) => value(await listKept(w.deps, a)).length,
  deliveries: async (w, a) => value(await listDeliveries(w.deps, a)).length,
  bans: async (w, a) => value(await listBans(w.deps, a)).length,
  trials: async (w, a) => value(await listTrials(w.deps, a)).length,
  'number codes': async (w, a) => value(await listNumberCodes(w.deps, a)).length,
  suspects: async (w, a) => value(await listSuspects(w.deps, a)).length,
  'follow-ups': async (w, a) => value(await listFollowUps(w.deps, a)).length,
  waiting: async (w, a) => value(await listWaiting(w.deps, a)).length,
  'suspect hours': async (w, a) => value(await listSuspectHours(w.deps, a)).length,
  found: async (w, a) => value(await find(w.deps, a, '1')).length,
  'bench sheets': async (w, a) => value(await viewBench(w.deps, a)).sheets.length,
  exceptions: async (w, a) => value(await viewPolicies(w.deps, a)).policies.flatMap((p) => p.exceptions).length,
  ...Object.fromEntries(
    CATALOGUE_KINDS.map((kind) => [
      `export of ${kind}`,
      async (w: Workspace, a: Actor) => value(await exportRows(w.deps, a, kind)).length,
    ]),
  ),
};

describe('what one fleet has', () => {
  it.each(Object.keys(LISTS))('%s is there for it and unseen by another', async (name) => {
    const stranger: Actor = { ...w.supervisor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await LISTS[name]?.(w, w.supervisor)).toBeGreaterThan(0);
    expect(await LISTS[name]?.(w, stranger)).toBe(0);
  });

  it.each(ROLES)('can be read by a %s', async (role: Role) => {
    for (const list of Object.values(LISTS)) expect(await list(w, { ...w.supervisor, role })).toBeGreaterThan(0);
  });

  it('keeps tokens to the person who made them', async () => {
    expect(value(await listTokens(w.deps, w.supervisor))).toHaveLength(1);
    const other: Actor = { ...w.supervisor, personId: '00000000-0000-4000-8000-000000000000' };
    expect(value(await listTokens(w.deps, other))).toEqual([]);
  });
});

describe('an empty workspace', () => {
  it('answers every list with nothing instead of failing', async () => {
    const empty = await emptyWorkspace();
    const actor = value(
      await createFirstSupervisor(empty.deps, {
        fleetName: 'Test',
        name: 'T. Ester',
        email: 't@example.org',
        password: 'long enough pw',
      }),
    );
    for (const [name, list] of Object.entries(LISTS)) expect([name, await list(empty, actor)]).toEqual([name, 0]);
  });
});

describe('who may do what', () => {
  it('is refused by default and never wider for a viewer than for anyone else', () => {
    const writes = [
      'enter catalogue data',
      'check spec sheets',
      'receive parts',
      'resolve quarantined parts',
      'ban sellers',
      'run trials',
      'choose shop policies',
      'keep bench results',
      'manage wrenches',
      'record odometer readings',
      'resolve odometer readings',
    ] as const;
    for (const write of writes) {
      expect([write, may({ role: 'supervisor' }, write)]).toEqual([write, true]);
      expect([write, may({ role: 'viewer' }, write)]).toEqual([write, false]);
    }
    expect(may({ role: 'technician' }, 'choose shop policies')).toBe(false);
    expect(may({ role: 'parts_clerk' }, 'resolve quarantined parts')).toBe(false);
  });

  it('keeps a result only on an order of the same fleet', async () => {
    const stranger: Actor = { ...w.supervisor, fleetId: '00000000-0000-4000-8000-000000000000' };
    const input = keepResultForm.schema.parse({ tool: 'gaps', input: {}, summary: 'x', workOrderNumber: '1001' });
    expect(await keepResult(w.deps, stranger, input)).toMatchObject({ ok: false, error: { kind: 'invalid' } });
  });
});
