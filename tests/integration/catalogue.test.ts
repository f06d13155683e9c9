import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { loadSheets } from '../../src/db/queries/catalogue';
import { parts, people, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { answerFitment, answerInput } from '../../src/server/catalogue/answer-fitment';
import { checkSheet } from '../../src/server/catalogue/check-sheet';
import { enterRow } from '../../src/server/catalogue/enter-row';
import { listUnmatched } from '../../src/server/catalogue/list-unmatched';
import { listEngines, viewEngine } from '../../src/server/catalogue/view-engine';
import { findPart, listParts, viewPart } from '../../src/server/catalogue/view-part';
import { CATALOGUE_KINDS, exportCatalogue, exportRows, familyFields } from '../../src/server/exports/catalogue-csv';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { confirmImport, uploadFile, viewImport } from '../../src/server/imports/import-file';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { doSite } from '../builders/floor';
import { demoWorkspace, inRole, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const vehicleId = async (unit: string): Promise<string> =>
  (await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit)))[0]?.id ?? '';
const vehicle = async (unit: string) => value(await viewVehicle(w.deps, actor, await vehicleId(unit)));
const engine = async (code: string) => {
  const found = value(await listEngines(w.deps, actor)).find((item) => item.family.code === code);
  return value(await viewEngine(w.deps, actor, found?.family.id ?? ''));
};
const partId = async (number: string): Promise<string> =>
  (await w.deps.db.select().from(parts).where(eq(parts.number, number)))[0]?.id ?? '';
const part = async (number: string) => value(await viewPart(w.deps, actor, await partId(number)));

describe('the demo catalogue', () => {
  it('has thirteen engines, each with a sheet and at least two vehicles', async () => {
    const engines = value(await listEngines(w.deps, actor));
    expect(engines).toHaveLength(13);
    for (const { family, vehicles: n } of engines) {
      expect([family.code, n >= 2]).toEqual([family.code, true]);
      const view = value(await viewEngine(w.deps, actor, family.id));
      expect(view.scopes.length).toBeGreaterThan(0);
      expect(view.others.length).toBeGreaterThan(0);
    }
    expect(engines.reduce((sum, item) => sum + item.vehicles, 0)).toBe(72);
  });

  it('counts by layout: twelve plugs and six coils, sixteen and eight, one rail', async () => {
    const count = async (code: string) =>
      Object.fromEntries((await engine(code)).quantities.map(({ component, quantity }) => [component, quantity]));
    expect(await count('SX-29B')).toMatchObject({ plug: 12, coil: 6, lead: 12, lead_set: 1 });
    expect(await count('SX-61T')).toMatchObject({ plug: 16, coil: 8 });
    expect(await count('AG-13R')).toMatchObject({ plug: 4, rail: 1, boot: 4 });
    expect(await count('TV-46D')).toMatchObject({ plug: 6, lead: 7, cap: 1, rotor: 1 });
  });

  it('stands sources side by side: the rank decides, memory never, an overlap or a stop', async () => {
    const [ag18] = (await engine('AG-18')).scopes;
    expect(ag18?.sheets.map((s) => s.sourceKind)).toEqual(['service_information', 'box', 'memory']);
    expect(ag18?.inForceId).toBe(ag18?.sheets[0]?.id);
    const makers = (await engine('PW-31W')).scopes.find((s) => s.scope === 'up to 2009');
    expect(makers?.agreement).toMatchObject({ gapMm: null, torqueNm: { min: 15, max: 20 } });
    expect(makers?.sheets[0]?.blockers).toEqual(['makers-disagree']);
  });
});

describe('fitment of a vehicle', () => {
  it('splits by day of build, serial, fuel and model year', async () => {
    const spec = async (unit: string): Promise<string> => {
      const { fitment } = await vehicle(unit);
      return fitment.kind === 'match'
        ? fitment.spec.part.number
        : `${fitment.kind} ${'key' in fitment ? fitment.key : ''}`;
    };
    expect(await spec('151')).toBe('KM-2801');
    expect(await spec('153')).toBe('KM-2808');
    expect(await spec('152')).toBe('needs-answer built-on');
    expect(await spec('132')).toBe('FS-5201');
    expect(await spec('133')).toBe('FS-5210');
    expect(await spec('135')).toBe('needs-answer serial');
    expect(await spec('53')).toBe('FS-2106');
    expect(await spec('51')).toBe('FS-2105');
    expect(await spec('158')).toBe('needs-answer fuel');
    expect(await spec('156')).toBe('KM-3110');
  });

  it('groups what is open by the question that resolves most', async () => {
    const groups = value(await listUnmatched(w.deps, actor));
    expect(groups.map((g) => [g.familyCode, g.key, g.vehicles.length])).toEqual([
      ['PW-38', 'variant', 4],
      ['PW-21F', 'fuel', 1],
      ['SX-52L', 'serial', 1],
      ['TV-28', 'built-on', 1],
    ]);
    expect(groups[0]?.candidates).toEqual([
      { scope: 'with deactivation', part: 'FS-3812' },
      { scope: 'without deactivation', part: 'FS-3807' },
    ]);
  });

  const answer = async (unit: string, said: object) => {
    const { vehicle: row } = await vehicle(unit);
    return answerFitment(w.deps, actor, answerInput.parse({ vehicleId: row.id, version: row.version, ...said }));
  };

  it('takes an answer once and remembers who gave it', async () => {
    value(await answer('152', { builtOn: '2017-06-30' }));
    const after = await vehicle('152');
    expect(after.fitment).toMatchObject({ kind: 'match', spec: { part: { number: 'KM-2801' } } });
    expect(after.answers[0]).toMatchObject({
      who: actor.name,
      changes: { from: { builtOn: null }, to: { builtOn: '2017-06-30' } },
    });
    expect(value(await listUnmatched(w.deps, actor)).map((g) => g.familyCode)).not.toContain('TV-28');
  });

  it('reads the serial from the VIN that is typed', async () => {
    expect(await answer('135', { vin: '00ASX52L0HN04' })).toMatchObject({
      ok: false,
      error: { fields: { vin: expect.stringContaining('17 characters') } },
    });
    value(await answer('135', { vin: '00ASX52L0HN-042500' }));
    expect((await vehicle('135')).fitment).toMatchObject({ kind: 'match', spec: { part: { number: 'FS-5210' } } });
  });

  it.each([
    [{ variant: 'with wings' }, 'variant'],
    [{ chosenSheetId: '00000000-0000-4000-8000-000000000000' }, 'chosenSheetId'],
  ])('refuses %j and changes nothing', async (said, field) => {
    const before = (await vehicle('127')).vehicle;
    expect(await answer('127', said)).toMatchObject({ ok: false, error: { fields: { [field]: expect.any(String) } } });
    expect((await vehicle('127')).vehicle).toEqual(before);
  });

  it('refuses an answer to a vehicle that changed meanwhile, and an empty one', async () => {
    const { vehicle: row } = await vehicle('128');
    const stale = answerInput.parse({ vehicleId: row.id, version: row.version - 1, variant: 'with deactivation' });
    expect(await answerFitment(w.deps, actor, stale)).toMatchObject({ ok: false, error: { kind: 'edited-meanwhile' } });
    expect(await answer('128', {})).toMatchObject({ ok: false, error: { kind: 'invalid' } });
    expect(await answerFitment(w.deps, inRole(actor, 'viewer'), { ...stale, version: row.version })).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
  });
});

describe('releasing work by a sheet', () => {
  it('is refused for an unchecked sheet without a reason, and the reason stays on the order', async () => {
    const id = await vehicleId('153');
    expect((await vehicle('153')).blockers).toEqual(['unchecked']);
    for (const releaseReason of [undefined, '', ' x '])
      expect(await openWorkOrder(w.deps, actor, { vehicleId: id, releaseReason })).toMatchObject({
        ok: false,
        error: { kind: 'conflict', message: expect.stringContaining('checked by nobody') },
      });
    value(await openWorkOrder(w.deps, actor, { vehicleId: id, releaseReason: 'figures read out by the maker' }));
  });

  it('is free once another person has checked it, never the one who entered it', async () => {
    const scope = (await engine('TV-28')).scopes.find((s) => s.scope.includes('2017-07-01 on'));
    const sheetId = scope?.inForceId ?? '';
    expect(await checkSheet(w.deps, actor, { sheetId })).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('You entered') },
    });
    const [vane] = await w.deps.db.select().from(people).where(eq(people.name, 'M. Vane'));
    const other: Actor = { ...actor, personId: vane?.id ?? '', name: 'M. Vane', role: 'technician' };
    value(await checkSheet(w.deps, other, { sheetId }));
    expect(await checkSheet(w.deps, other, { sheetId })).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    expect((await vehicle('154')).blockers).toEqual([]);
    value(await openWorkOrder(w.deps, actor, { vehicleId: await vehicleId('154') }));
  });

  it('is not released by a name in a file: who entered and who checked are persons, set here', async () => {
    const row =
      'AG-18,KM-4180,Kilnmark,nickel,M14,gasket,19,16,1.00 to 1.10 mm,22 to 28 Nm,45000,km,bulletin,Bulletin 7,2,A. Nyone,M. Vane';
    const head =
      'engine_family,part_number,part_maker,electrode,thread,seat,reach_mm,hex_mm,gap,torque,interval,interval_unit,source_kind,source_document,revision,entered_by,checked_by';
    const bytes = new TextEncoder().encode(`${head}\n${row}\n`);
    const [clerk] = await w.deps.db.select().from(people).where(eq(people.role, 'parts_clerk'));
    const own: Actor = { ...actor, personId: clerk?.id ?? '', name: clerk?.name ?? '', role: 'parts_clerk' };
    const { importId } = value(await uploadFile(w.deps, own, { fileName: 'spec-sheets.csv', bytes }));
    expect(value(await confirmImport(w.deps, own, { importId })).counts).toMatchObject({ add: 1 });
    const sheet = (await loadSheets(w.deps.db, actor.fleetId, TODAY)).find((s) => s.sourceDocument === 'Bulletin 7');
    expect(sheet).toMatchObject({ checkedBy: null, saidCheckedBy: 'M. Vane', enteredById: own.personId });
    const sheetId = sheet?.id ?? '';
    expect(await checkSheet(w.deps, { ...own, name: 'Another Name' }, { sheetId })).toMatchObject({
      error: { message: expect.stringContaining('You entered') },
    });
    value(await checkSheet(w.deps, actor, { sheetId }));
  });

  it('stops where two makers of one rank do not overlap', async () => {
    expect((await vehicle('155')).blockers).toEqual(['makers-disagree']);
    expect(await openWorkOrder(w.deps, actor, { vehicleId: await vehicleId('155') })).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('do not overlap') },
    });
  });
});

describe('a part in hand', () => {
  it('is known by any of its numbers', async () => {
    expect(value(await findPart(w.deps, actor, 'em 7301')).part?.number).toBe('EM-7301');
    const old = await part('EM-7301');
    expect(old.current).toMatchObject({ kind: 'replaced', redesigned: false, part: { number: 'EM-7310' } });
    expect(old.vehicles.filter((v) => v.takes === 'yes').map((v) => v.unitNumber)).toEqual([
      '32',
      '33',
      '34',
      '35',
      '36',
      '37',
    ]);
    expect(old.vehicles[0]?.quantity).toBe(6);
    expect(old.history.map((p) => p.number)).toEqual(['EM-7301', 'EM-7310']);
  });

  it('of a redesign goes in only as a whole set, and never backwards', async () => {
    const takes = async (number: string) =>
      Object.fromEntries((await part(number)).vehicles.map((v) => [v.unitNumber, v.takes]));
    expect(await takes('FS-5210')).toMatchObject({ 131: 'whole-set', 133: 'yes' });
    expect(await takes('FS-5201')).toMatchObject({ 131: 'yes', 133: 'superseded' });
    expect((await part('FS-5201')).mixes).toMatchObject([{ mixing: 'never-mix', part: { number: 'FS-5210' } }]);
  });

  it('that is mistyped is offered, never taken', async () => {
    const found = value(await findPart(w.deps, actor, 'EM-7130'));
    expect(found.part).toBeNull();
    expect(found.near).toMatchObject([{ number: 'EM-7310', why: '3 and 1 swapped' }]);
    expect(value(await findPart(w.deps, actor, 'https://nowhere.example/x'))).toEqual({
      part: null,
      number: null,
      near: [],
    });
  });

  it('with a suffix is read by its maker’s table, and held against the record and the sheets', async () => {
    const found = value(await findPart(w.deps, actor, 'fs 2210 h6.95'));
    expect(found.part).toBeNull();
    if (found.number?.kind !== 'read') throw new Error('not read');
    expect(found.number.base?.number).toBe('FS-2210');
    expect(found.number.checks.map((c) => [c.attribute, c.verdict])).toEqual([
      ['resistor', 'agrees'],
      ['heatRange', 'agrees'],
      ['preGapMm', 'contradicts'],
    ]);
    // Two makers' sheets hold: what is asked for suits both.
    const askFor = { asSoldMm: 0.95, verdict: { action: 'open' }, askFor: 'FS-2210H6.105' };
    expect(found.number.gaps).toMatchObject([askFor, askFor]);
  });

  it('that says another plug than its base is told so', async () => {
    const found = value(await findPart(w.deps, actor, 'FS-2210XH4'));
    if (found.number?.kind !== 'read') throw new Error('not read');
    expect(found.number.checks.filter((c) => c.verdict === 'contradicts').map((c) => c.attribute)).toEqual([
      'resistor',
      'heatRange',
    ]);
    expect(value(await findPart(w.deps, actor, 'FS-2210Q')).number).toMatchObject({ kind: 'unknown', rest: 'Q' });
  });

  it('was filled from its number where the file said nothing', async () => {
    const view = await part('FS-2210H6.90');
    expect(view.part).toMatchObject({ resistor: true, heatRange: 6, preGapMm: 0.9 });
    expect(view.number).toMatchObject({ kind: 'read', base: { number: 'FS-2210' } });
    expect((await part('FS-2210')).number).toBeNull();
  });

  it('finds its equivalents, and every refusal says why', async () => {
    const { comparisons } = await part('KM-4180');
    const verdict = (number: string) => comparisons.find((c) => c.part.number === number);
    expect(verdict('EM-4182')?.verdict).toBe('equivalent');
    expect(verdict('FS-4190')).toMatchObject({ verdict: 'refused' });
    expect(verdict('FS-4190')?.attributes.find((a) => a.attribute === 'Reach')?.why).toContain('strike the piston');
    expect(verdict('EM-4177')?.attributes.find((a) => a.attribute === 'Resistor')?.why).toContain('never taken away');
  });

  it('shows the current number for each of the list', async () => {
    const list = value(await listParts(w.deps, actor));
    expect(list.find((p) => p.part.number === 'KM-418')?.current).toMatchObject({ kind: 'replaced' });
    expect(list.find((p) => p.part.number === 'KM-4180')?.current).toEqual({ kind: 'itself' });
  });
});

describe('what goes into one engine', () => {
  const site = (
    workOrderId: string,
    cylinder: number,
    newNumber: string,
    torque = '26 Nm',
    compound: string | null = null,
  ) =>
    doSite(w.deps, actor, workOrderId, `${cylinder}A`, {
      newNumber,
      newGap: '1.10',
      torqueMethod: 'wrench',
      installedTorque: torque,
      compound,
    });

  it('may be the renumbered box, and is never a mix of old design and new', async () => {
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId: await vehicleId('133') }));
    expect(await site(workOrderId, 1, 'FS-5210')).toBeNull();
    expect(await site(workOrderId, 2, 'FS-5201')).toContain('never mixed within one engine');
    const renumbered = value(await openWorkOrder(w.deps, actor, { vehicleId: await vehicleId('35') }));
    expect(await site(renumbered.workOrderId, 1, 'EM-7301', '17 Nm')).toBeNull();
  });

  it('takes the current redesign for a sheet that still names the old, as a whole set', async () => {
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId: await vehicleId('132') }));
    // The sheet says nickel compound, so the dry 26 to 30 N·m is lowered by 30 %.
    expect(await site(workOrderId, 1, 'FS-5210', '27 Nm', 'nickel compound')).toContain(
      '18.2 to 21 N·m (13.4 to 15.5 lbf·ft), lowered for the compound',
    );
    expect(await site(workOrderId, 1, 'FS-5210', '20 Nm')).toContain('name the one that is on the threads');
    expect(await site(workOrderId, 1, 'FS-5210', '20 Nm', 'nickel compound')).toBeNull();
    expect(await site(workOrderId, 3, 'FS-5201', '20 Nm', 'nickel compound')).not.toBeNull();
  });
});

describe('entering by hand', () => {
  const enter = (kind: string, fields: Record<string, string>, who = actor) => enterRow(w.deps, who, { kind, fields });
  const rows = async (): Promise<number[]> =>
    Promise.all(CATALOGUE_KINDS.map(async (kind) => value(await exportRows(w.deps, actor, kind)).length));
  const sheet = {
    engine_family: 'AG-18',
    part_number: 'KM-4180',
    gap: '1.05 ± 0.05 mm',
    torque: '22 to 28 Nm',
    interval: '45000 km',
    source_kind: 'bulletin',
    source_document: 'Demo data: bulletin 26-1',
    entered_by: 'somebody else',
    checked_by: 'a third person',
  };

  it('keeps a sheet unchecked and under the name of the one who enters it', async () => {
    value(await enter('spec-sheets', sheet));
    const entered = (await engine('AG-18')).scopes[0]?.sheets.find((s) => s.sourceDocument.endsWith('26-1'));
    expect(entered).toMatchObject({
      enteredBy: actor.name,
      checkedBy: null,
      gapTargetMm: 1.05,
      gapMinMm: 1,
      gapMaxMm: 1.1,
    });
  });

  it.each([
    ['a range upside down', { gap: '1.10 to 1.00 mm' }, 'gap', 'upside down'],
    ['swapped units', { torque: '22 to 28 lbf·in' }, 'torque', 'N·m'],
    ['a slip of the decimal mark', { gap: '0.30 to 0.35 in' }, 'gap', '0.03'],
    ['a lone number', { gap: '1.05' }, 'gap', 'no range'],
    [
      'an unknown thread',
      { part_number: 'ZZ-99', part_maker: 'Kilnmark', electrode: 'nickel', thread: 'M13', seat: 'gasket' },
      'thread',
      'M8, M10, M12',
    ],
    ['no interval', { interval: '' }, 'interval', 'give a distance'],
    ['years upside down', { model_year_from: '2020', model_year_to: '2015' }, 'model_year_from', 'upside down'],
    ['a component that the engine has not', { component: 'cap', part_number: 'KM-C46' }, 'component', 'has no cap'],
    ['an engine that is not here', { engine_family: 'XX-1' }, 'engine_family', 'not here yet'],
  ])('refuses %s, says where, and writes nothing', async (_, over, field, words) => {
    const before = await rows();
    const answer = await enter('spec-sheets', { ...sheet, source_document: 'Demo data: another', ...over });
    expect(answer).toMatchObject({ ok: false, error: { fields: { [field]: expect.stringContaining(words) } } });
    expect(await rows()).toEqual(before);
  });

  it('refuses another sheet under the same source and revision', async () => {
    expect(await enter('spec-sheets', { ...sheet, gap: '1.0 to 1.2 mm' })).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('Give the change revision 2') },
    });
  });

  it('refuses a circle of supersessions', async () => {
    const before = value(await listParts(w.deps, actor));
    const circle = {
      old_number: 'EM-7310',
      new_number: 'EM-7301',
      supersession: 'renumbered',
      source: 'Demo data: wrong',
    };
    expect(await enter('supersessions', circle)).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('a circle: EM-7301 → EM-7310 → EM-7301') },
    });
    expect(await enter('supersessions', { ...circle, new_number: 'NL-1804' })).toMatchObject({
      ok: false,
      error: { fields: { new_number: 'is a coil, the old one a plug' } },
    });
    expect(value(await listParts(w.deps, actor))).toEqual(before);
  });

  it('refuses a renumbering to a part that is longer, and takes a code that begins with a hyphen', async () => {
    const longer = {
      old_number: 'KM-4180',
      new_number: 'FS-4190',
      supersession: 'renumbered',
      source: 'Demo data: wrong',
    };
    expect(await enter('supersessions', longer)).toMatchObject({
      ok: false,
      error: { fields: { supersession: expect.stringContaining('reach (19 mm, then 26.5 mm)') } },
    });
    const code = { maker: 'Newmake', attribute: 'base', place: '0', code: 'NM-####', value: '', source: 'Demo data' };
    value(await enter('number-codes', code));
    value(await enter('number-codes', { ...code, attribute: 'gap', place: '1', code: '-##', value: 'tenths of a mm' }));
  });

  it('asks when two successors are open', async () => {
    value(
      await enter('supersessions', {
        old_number: 'KM-2801',
        new_number: 'KM-2808',
        supersession: 'redesigned',
        source: 'Demo data: list',
      }),
    );
    value(
      await enter('supersessions', {
        old_number: 'KM-2801',
        new_number: 'KM-4180',
        supersession: 'redesigned',
        source: 'Demo data: list',
      }),
    );
    expect((await part('KM-2801')).current).toMatchObject({ kind: 'needs-answer' });
  });

  it('changes an engine, and every fault of its wiring is named', async () => {
    const { family } = await engine('PW-31W');
    const fields = familyFields(family);
    expect(await enter('engine-families', { ...fields, coils: '1 2, 3 4, 5 6' })).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('companions lie half a firing order apart: 1+4, 2+5, 3+6') },
    });
    expect(await enter('engine-families', { ...fields, fasteners: 'pack bolt M6 x4 90 Nm' })).toMatchObject({
      ok: false,
      error: { fields: { fasteners: expect.stringContaining('far from the usual') } },
    });
    expect(await enter('engine-families', { ...fields, access: 'open 60' })).toMatchObject({
      ok: false,
      error: { fields: { access: 'names 1 banks, the engine has 2' } },
    });
    expect(await enter('engine-families', { ...fields, lead_lengths_mm: '300 400' })).toMatchObject({
      ok: false,
      error: { fields: { lead_lengths_mm: expect.any(String) } },
    });
    value(await enter('engine-families', { ...fields, service_minutes: '140' }));
    expect((await engine('PW-31W')).family.serviceMinutes).toBe(140);
  });

  it('is for those who may, and for kinds that exist', async () => {
    expect(await enter('parts', {}, inRole(actor, 'technician'))).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    expect(await enter('secrets', {})).toMatchObject({ ok: false, error: { kind: 'not-found' } });
    expect(
      await enter('parts', { number: 'NEW-1', maker: 'Kilnmark', kind: 'plug', electrode: 'nickel', thread: 'M14' }),
    ).toMatchObject({
      ok: false,
      error: { fields: { seat: expect.stringContaining('gasket, conical') } },
    });
  });
});

describe('catalogue files', () => {
  it('go out and come in again unchanged', async () => {
    for (const kind of CATALOGUE_KINDS) {
      const text = value(await exportCatalogue(w.deps, actor, kind));
      const { importId } = value(
        await uploadFile(w.deps, actor, { fileName: `${kind}.csv`, bytes: new TextEncoder().encode(text), kind }),
      );
      const { plan } = value(await viewImport(w.deps, actor, importId));
      expect([
        kind,
        plan?.counts,
        plan?.rows.filter((r) => r.verdict !== 'skip').map((r) => [r.what, r.reasons]),
      ]).toEqual([kind, { add: 0, change: 0, refuse: 0, skip: plan?.rows.length }, []]);
    }
  });

  it('are for members of the fleet', async () => {
    const stranger: Actor = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(value(await exportRows(w.deps, stranger, 'parts'))).toEqual([]);
    expect(await viewPart(w.deps, stranger, await partId('KM-4180'))).toMatchObject({
      ok: false,
      error: { kind: 'not-found' },
    });
    expect((await viewVehicle(w.deps, stranger, await vehicleId('11'))).ok).toBe(false);
  });
});
