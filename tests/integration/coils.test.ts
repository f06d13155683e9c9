import { and, eq, isNull } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { swapCoilsForm } from '../../src/contracts/forms/vehicles';
import { claimOf } from '../../src/core/components/warranty';
import { fittedComponents, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { swapCoils } from '../../src/server/fleet/swap-coils';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { confirmImport, uploadFile, viewImport } from '../../src/server/imports/import-file';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const vehicleId = async (unit: string): Promise<string> =>
  (await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit)))[0]?.id ?? '';
const coils = async (unit: string) => value(await viewVehicle(w.deps, actor, await vehicleId(unit))).coils;
const now = async (unit: string) => (await coils(unit)).now.map(({ fitted }) => [fitted.cylinder, fitted.tag]).sort();

describe('coils by tag', () => {
  it('say which cylinder keeps losing them', async () => {
    const found = await coils('11');
    expect(found.repeatFailures).toEqual([{ cylinder: 3, lost: 2 }]);
    expect(await now('11')).toEqual([
      [1, 'AC-101'],
      [2, 'AC-102'],
      [3, 'AC-188'],
      [4, 'AC-104'],
    ]);
  });

  it('bring the warranty of their number with them, and no claim where nobody said why they came out', async () => {
    const { gone, coils: all } = await coils('11');
    expect(gone.map(({ fitted, warranty }) => [fitted.tag, warranty?.months, warranty?.km])).toEqual([
      ['AC-131', 24, 60_000],
      ['AC-103', 24, 60_000],
    ]);
    const stays = all.find(({ tag }) => tag === 'AC-131')?.stays ?? [];
    expect(claimOf(stays, { months: 36, km: 60_000 })).toBeNull();
    const failed = stays.map((stay) => ({ ...stay, removalReason: 'failed' as const }));
    expect(claimOf(failed, { months: 36, km: 60_000 })).toEqual({
      isWithin: true,
      isAbout: false,
      until: '2026-05-08',
      ageKm: 37_900,
    });
  });

  it('are followed from cylinder to cylinder, and a moved one is not lost', async () => {
    const found = await coils('32');
    expect(found.repeatFailures).toEqual([]);
    expect(found.coils.find((coil) => coil.tag === 'PC-202')?.stays).toMatchObject([
      { cylinder: 2, installedOn: '2018-05-07', removedOn: '2025-02-11', removalReason: 'swap' },
      { cylinder: 4, installedOn: '2025-02-11', removedOn: null, removalReason: null },
    ]);
  });

  it('change nothing about the plugs in the same sites', async () => {
    const [row] = await w.deps.db
      .select()
      .from(fittedComponents)
      .where(
        and(
          eq(fittedComponents.vehicleId, await vehicleId('11')),
          eq(fittedComponents.component, 'plug'),
          eq(fittedComponents.cylinder, 3),
          isNull(fittedComponents.removedOn),
        ),
      );
    expect(row).toMatchObject({ installedOn: '2024-12-31', tag: null });
  });
});

describe('swapping two coils', () => {
  const swap = async (unit: string, over: object = {}, who = actor) => {
    const parsed = swapCoilsForm.schema.safeParse({
      vehicleId: await vehicleId(unit),
      first: '1',
      second: '2',
      reason: 'misfire moves?',
      ...over,
    });
    return parsed.success ? swapCoils(w.deps, who, parsed.data) : parsed.error;
  };

  it('takes each with its tag, and back again', async () => {
    expect(await swap('11')).toMatchObject({ ok: true });
    expect((await now('11')).slice(0, 2)).toEqual([
      [1, 'AC-102'],
      [2, 'AC-101'],
    ]);
    expect(await swap('11')).toMatchObject({ ok: true });
    expect((await now('11')).slice(0, 2)).toEqual([
      [1, 'AC-101'],
      [2, 'AC-102'],
    ]);
    expect((await coils('11')).coils.find((coil) => coil.tag === 'AC-101')?.stays.map((s) => s.cylinder)).toEqual([
      1, 2, 1,
    ]);
  });

  it('done twice at one time happens twice, one after the other', async () => {
    const both = await Promise.all([swap('11'), swap('11')]);
    expect(both.every((answer) => 'ok' in answer)).toBe(true);
    const tags = (await now('11')).map(([, tag]) => tag);
    expect(new Set(tags).size).toBe(4);
  });

  it('needs tags, two cylinders, a reason and someone who may', async () => {
    expect(await swap('12')).toMatchObject({
      ok: false,
      error: { kind: 'conflict', message: expect.stringContaining('tag') },
    });
    expect(await swap('11', { second: '1' })).toMatchObject({ issues: [{ path: ['second'] }] });
    expect(await swap('11', { reason: '' })).toMatchObject({ issues: [{ path: ['reason'] }] });
    expect(await swap('11', {}, inRole(actor, 'viewer'))).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
  });
});

describe('a file of coils', () => {
  const check = async (rows: string) => {
    const text = `unit_number,serviced_on,odometer,unit,sites,part_number,component,tag\n${rows}`;
    const { importId } = value(
      await uploadFile(w.deps, actor, {
        fileName: 'service-history.csv',
        bytes: new TextEncoder().encode(text),
        kind: 'service-history',
      }),
    );
    return { importId, plan: value(await viewImport(w.deps, actor, importId)).plan };
  };

  it.each([
    ['13,2026-01-05,80000,km,all,NL-1104,coil,X1', 'name its one cylinder'],
    ['13,2026-01-05,80000,km,9,NL-1104,coil,X1', 'does not have'],
    ['13,2026-01-05,80000,km,1,NL-1104,gearbox,X1', 'Use one of plug, coil'],
  ])('refuses %s', async (row, words) => {
    const { plan } = await check(row);
    expect(plan?.rows[0]).toMatchObject({ verdict: 'refuse', reasons: [expect.stringContaining(words)] });
  });

  it('refuses a coil in two places on one day, and a rail is one place', async () => {
    const { plan } = await check('13,2026-01-05,80000,km,1,NL-1104,coil,X1\n13,2026-01-05,80000,km,2,NL-1104,coil,X1');
    expect(plan?.rows.map((r) => r.verdict)).toEqual(['add', 'refuse']);
    const rail = await check('14,2026-01-05,70000,km,all,NL-1310,coil,R1');
    expect(rail.plan?.rows[0]).toMatchObject({ verdict: 'add' });
    value(await confirmImport(w.deps, actor, { importId: rail.importId }));
    expect(await now('14')).toEqual([[1, 'R1']]);
  });

  it('moves a coil that turns up in another vehicle', async () => {
    const { importId } = await check('12,2026-03-01,95000,km,1,NL-1804,coil,AC-104');
    value(await confirmImport(w.deps, actor, { importId }));
    expect((await now('11')).map(([cylinder]) => cylinder)).toEqual([1, 2, 3]);
    expect(await now('12')).toEqual([[1, 'AC-104']]);
  });
});
