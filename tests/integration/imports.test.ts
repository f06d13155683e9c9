import { readFileSync } from 'node:fs';
import { eq, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { importSamples } from '../../demo/load';
import { loadImport } from '../../src/db/queries/imports';
import { auditTrail } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { toCsv } from '../../src/server/exports/csv';
import { exportDue } from '../../src/server/exports/due-csv';
import { createFirstSupervisor } from '../../src/server/fleet/first-run';
import { parseCsv } from '../../src/server/imports/csv/parse';
import {
  adjustImport,
  confirmImport,
  refusedRowsCsv,
  uploadFile,
  viewImport,
} from '../../src/server/imports/import-file';
import { IMPORT_KINDS, type ImportKindName } from '../../src/server/imports/kind';
import { planImport } from '../../src/server/imports/plan-import';
import { templateOf } from '../../src/server/imports/templates';
import { malformedFiles } from '../builders/malformed';
import { emptyWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace;
let actor: Actor;
beforeAll(async () => {
  w = await emptyWorkspace();
  actor = value(
    await createFirstSupervisor(w.deps, {
      fleetName: 'Test',
      name: 'T. Ester',
      email: 't@example.org',
      password: 'long enough pw',
    }),
  );
});

const sample = (kind: string) => readFileSync(`samples/${kind}.csv`, 'utf8');
const upload = async (kind: ImportKindName, text: string | Uint8Array) =>
  uploadFile(w.deps, actor, {
    fileName: `${kind}.csv`,
    bytes: typeof text === 'string' ? new TextEncoder().encode(text) : text,
    kind,
  });
const planOf = async (importId: string) => {
  const row = await loadImport(w.deps.db, actor.fleetId, importId);
  const plan = row && (await planImport(w.deps.db, row, w.deps));
  if (!plan?.ok) throw new Error('no plan');
  return plan.value;
};
const check = async (kind: ImportKindName, text: string) => {
  const { importId } = value(await upload(kind, text));
  return { importId, plan: await planOf(importId) };
};
const confirm = async (importId: string) => value(await confirmImport(w.deps, actor, { importId })).counts;
const countRows = async () => {
  const tables = [
    'engine_families',
    'spec_sheets',
    'parts',
    'vehicles',
    'depots',
    'odometer_readings',
    'fitted_components',
    'supersessions',
    'heat_crosses',
  ];
  const { rows } = await w.deps.db.execute(
    sql.raw(`select ${tables.map((t) => `(select count(*) from ${t})::int as ${t}`).join(', ')}`),
  );
  return rows[0];
};

describe('in any order', () => {
  it('says what is missing instead of failing, and takes the file once it is there', async () => {
    const early = await check('odometer', sample('odometer'));
    expect(early.plan.counts.refuse).toBe(early.plan.rows.length);
    expect(early.plan.rows[0]?.reasons[0]).toContain('import vehicles.csv first');
    const vehicles = await check('vehicles', sample('vehicles'));
    expect(vehicles.plan.rows[0]?.reasons).toEqual([
      'engine_family: TV-46D is not here yet: import engine-families.csv first',
    ]);
    await importSamples(w.deps, actor);
    const later = value(await viewImport(w.deps, actor, early.importId));
    expect(later.plan?.counts).toMatchObject({ refuse: 0, add: 0 });
  });

  it('changes nothing the second time', async () => {
    const before = await countRows();
    for (const kind of IMPORT_KINDS) {
      const { importId, plan } = await check(kind, sample(kind));
      expect(plan.counts).toEqual({ add: 0, change: 0, refuse: 0, skip: plan.rows.length });
      expect(await confirm(importId)).toEqual(plan.counts);
    }
    expect(await countRows()).toEqual(before);
  });

  it('tells the kind by the header alone, and every template is a file of its kind', async () => {
    for (const kind of IMPORT_KINDS) {
      const named = value(
        await uploadFile(w.deps, actor, { fileName: 'export (3).csv', bytes: new TextEncoder().encode(sample(kind)) }),
      );
      expect(named.kind).toBe(kind);
      const { plan } = await check(kind, value(templateOf(kind)));
      expect(plan.missing).toEqual([]);
      expect(plan.rows).toHaveLength(kind === 'service-history' ? 4 : 1);
      if (kind === 'service-history') expect(plan.rows.filter(({ verdict }) => verdict === 'refuse')).toEqual([]);
    }
  });
});

describe('forms of a file', () => {
  const readings = (rows: string, header = 'unit_number,read_on,odometer,unit') =>
    check('odometer', `${header}\n${rows}`);

  it.each([
    ['semicolons and decimal commas', 'unit_number;read_on;odometer;unit\n11;2026-11-14;121500,5;km', 121_500.5],
    ['tabs', 'unit_number\tread_on\todometer\tunit\n11\t2026-11-14\t121501\tkm', 121_501],
    [
      'a mark, CRLF and quotes',
      '\ufeff"unit_number","read_on","odometer","unit"\r\n"11","2026-11-14","121,502","km"\r\n',
      121_502,
    ],
    ['a miles column', 'unit_number,read_on,odometer_mi\n11,2026-11-14,75500', 121_505.5],
    ['a unit behind the figure', 'Vehicle,Date,Mileage\n11,14 Nov 2026,75500 mi', 121_505.5],
  ])('reads %s', async (_, text, km) => {
    const { plan } = await check('odometer', text);
    expect(plan.rows).toMatchObject([{ verdict: 'add', write: { odometerKm: km, readOn: '2026-11-14' } }]);
  });

  it('reads UTF-16 and old Windows coding', async () => {
    const utf16 = Buffer.from(`\ufeffunit_number,read_on,odometer\n11,2026-11-14,121510`, 'utf16le');
    const first = value(await upload('odometer', new Uint8Array(utf16)));
    expect(value(await viewImport(w.deps, actor, first.importId)).plan?.counts.add).toBe(1);
    const latin = Buffer.from('code,name\n', 'latin1');
    const second = value(
      await upload(
        'odometer',
        new Uint8Array(
          Buffer.concat([
            Buffer.from('unit_number,read_on,odometer,source\n11,2026-11-14,121511,J\xf6rg', 'latin1'),
            latin.subarray(0, 0),
          ]),
        ),
      ),
    );
    expect((await planOf(second.importId)).rows[0]).toMatchObject({
      write: { source: 'Jörg' },
    });
  });

  it('asks which comes first when the file cannot decide, and remembers the answer', async () => {
    const text = 'unit_number,read_on,odometer,unit,dash\n11,03/11/2026,120900,km,a\n11,04/11/2026,120950,km,a';
    const { importId, plan } = await check('odometer', text);
    expect(plan.questions.map((q) => q.key)).toEqual(['dateOrder']);
    expect(await confirmImport(w.deps, actor, { importId })).toMatchObject({ ok: false });
    value(await adjustImport(w.deps, actor, { importId, options: { dateOrder: 'day-first' } }));
    expect((await planOf(importId)).rows[0]).toMatchObject({
      what: 'unit 11 on 2026-11-03',
    });
    const again = await check('odometer', text.replace('120950', '120951'));
    expect(again.plan.questions).toEqual([]);
    const decided = await readings('11,25/10/2026,120100,km\n11,03/11/2026,120900,km');
    expect(decided.plan.rows[1]?.what).toBe('unit 11 on 2026-11-03');
  });

  it('takes a column mapping once, and remembers it', async () => {
    const text = 'Wagen,Tag,Stand\n11,2026-11-14,121520';
    const { importId, plan } = await check('odometer', text);
    expect(plan.missing).toEqual(['unit_number', 'read_on']);
    value(
      await adjustImport(w.deps, actor, {
        importId,
        mapping: { unit_number: 'Wagen', read_on: 'Tag', odometer: 'Stand' },
      }),
    );
    expect(value(await viewImport(w.deps, actor, importId)).plan?.counts.add).toBe(1);
    expect((await check('odometer', text)).plan.missing).toEqual([]);
  });
});

describe('judging rows', () => {
  it('keeps a doubtful reading apart, and skips repeats in one file', async () => {
    const { importId, plan } = await check(
      'odometer',
      'unit_number,read_on,odometer,unit\n13,2026-11-14,88400,km\n13,2026-11-14,88400,km\n13,2026-11-15,8840,km\n13,2026-11-15,188400,km',
    );
    expect(plan.rows.map((r) => [r.verdict, r.reasons.length])).toEqual([
      ['add', 0],
      ['skip', 1],
      ['add', 1],
      ['add', 1],
    ]);
    await confirm(importId);
    expect(
      value(await listDue(w.deps, actor, dueFilter.parse({}))).items.find((i) => i.unitNumber === '13'),
    ).toMatchObject({
      odometerKm: 88_400,
      suspectReadings: 2,
    });
  });

  it('refuses a spec with a unit slip, and says which', async () => {
    const header =
      'engine_family,variant,model_year_from,model_year_to,part_number,part_maker,electrode,thread,seat,reach_mm,hex_mm,gap_min,gap_max,gap_unit,torque_min,torque_max,torque_unit,interval,interval_severe,interval_unit,interval_months,source_kind,source_document,source_dated,revision,entered_by,checked_by,note';
    const row = (gap: string, torque: string, unit: string) =>
      `AG-18,,,,ZZ-1,Kilnmark,nickel,M14,gasket,19,16,${gap},1.10,mm,${torque},${torque},${unit},45000,,km,,bulletin,Demo data,2024-01-01,1,A,B,`;
    const { plan } = await check(
      'spec-sheets',
      [
        header,
        row('10.0', '25', 'Nm'),
        row('1.0', '230', 'in-lb'),
        row('1.0', '16', 'Nm').replace(',16,16,Nm', ',14,14,Nm'),
      ].join('\n'),
    );
    expect(plan.rows.map((r) => r.verdict)).toEqual(['refuse', 'add', 'refuse']);
    expect(plan.rows[0]?.reasons[0]).toContain('did you mean 1.00 mm');
    expect(plan.rows[2]?.reasons[0]).toContain('lbf·ft');
  });

  it('never changes a spec sheet in place', async () => {
    const { plan } = await check(
      'spec-sheets',
      sample('spec-sheets').replace('1.00,1.10,mm,,22,28', '1.00,1.10,mm,,23,28'),
    );
    expect(plan.rows.find((r) => r.verdict === 'refuse')?.reasons[0]).toContain('Give the change revision 4');
  });

  it('keeps estimates and unknowns as what they are', async () => {
    const { importId, plan } = await check(
      'service-history',
      'unit_number,serviced_on,odometer,unit,sites,part_number,gap,gap_unit,history\n52,about 2023,60 or 70 thousand,mi,2,FS-2105,,,probable\n52,unknown,unknown,,3,,,,',
    );
    expect(plan.rows).toMatchObject([
      {
        verdict: 'add',
        write: {
          values: {
            installedOnCertainty: 'estimated',
            installedKmCertainty: 'estimated',
            installedKmAsTyped: '60 or 70 thousand',
          },
        },
      },
      { verdict: 'skip' },
    ]);
    await confirm(importId);
    const { rows } = await w.deps.db.execute(
      sql`select f.installed_km::float8 as km, f.removed_on from fitted_components f join vehicles v on v.id = f.vehicle_id where v.unit_number = '52' and cylinder = 2 order by installed_on`,
    );
    expect(rows).toEqual([
      { km: expect.closeTo(96_560.6, 1), removed_on: '2024-01-06' },
      { km: expect.any(Number), removed_on: null },
    ]);
  });

  it('refuses two rows that contradict each other', async () => {
    const [header, row = ''] = sample('vehicles').split('\n');
    const { plan } = await check(
      'vehicles',
      [header, row.replace('4,', '900,'), row.replace('4,', '900,').replace('Quarry Cross', 'Eastlight')].join('\n'),
    );
    expect(plan.rows.map((r) => r.verdict)).toEqual(['add', 'refuse']);
  });

  it('gives the refused rows back as a file with reasons', async () => {
    const { importId } = await check(
      'odometer',
      'unit_number,read_on,odometer,unit\n13,2026-13-01,90000,km\n999,2026-11-01,"=1+1",km',
    );
    const table = parseCsv(value(await refusedRowsCsv(w.deps, actor, importId)));
    expect(table.ok && table.value.rows.map((r) => r.cells.at(-1))).toEqual([
      expect.stringContaining('read_on'),
      expect.stringContaining('unit 999 is not here yet'),
    ]);
  });

  it('writes nothing when the workspace changed since the check', async () => {
    const text = 'unit_number,read_on,odometer,unit\n14,2026-11-14,76150,km';
    const [a, b] = [await check('odometer', text), await check('odometer', text)];
    await confirm(a.importId);
    expect(await confirmImport(w.deps, actor, { importId: b.importId, digest: b.plan.digest })).toMatchObject({
      ok: false,
      error: { kind: 'edited-meanwhile' },
    });
    expect(await confirmImport(w.deps, actor, { importId: a.importId })).toMatchObject({
      ok: false,
      error: { kind: 'conflict' },
    });
  });

  it('is closed to those who may not import', async () => {
    for (const role of ['technician', 'viewer'] as const) {
      expect(
        await uploadFile(w.deps, inRole(actor, role), { fileName: 'x.csv', bytes: new Uint8Array([65]) }),
      ).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
    }
  });
});

describe.each(IMPORT_KINDS)('malformed %s.csv', (kind) => {
  const table = parseCsv(readFileSync(`samples/${kind}.csv`, 'utf8'));
  const files = table.ok ? malformedFiles(table.value.header, table.value.rows[0]?.cells ?? []) : [];

  it('comes in at least forty kinds', () => expect(files.length).toBeGreaterThanOrEqual(40));

  it('is answered in words and writes nothing', async () => {
    const before = await countRows();
    const audits = await w.deps.db.$count(auditTrail, eq(auditTrail.action, 'import'));
    for (const { name, bytes } of files) {
      const uploaded = await upload(kind, bytes);
      if (!uploaded.ok) {
        expect(uploaded.error, name).toMatchObject({ kind: 'invalid', message: expect.stringMatching(/\w{3,}/) });
        continue;
      }
      const { plan } = value(await viewImport(w.deps, actor, uploaded.value.importId));
      const judged =
        plan &&
        (plan.missing.length > 0 ||
          plan.questions.length > 0 ||
          plan.rows.every((row) => row.verdict === 'skip' || (row.verdict === 'refuse' && row.reasons.length > 0)));
      expect(judged, `${name}: ${JSON.stringify(plan?.rows.slice(0, 2))}`).toBe(true);
    }
    expect(await countRows()).toEqual(before);
    expect(await w.deps.db.$count(auditTrail, eq(auditTrail.action, 'import'))).toBe(audits);
  });
});

describe('CSV that we write', () => {
  it('is safe to open in a spreadsheet, and reads back as itself', async () => {
    const text = toCsv(
      ['a', 'b'],
      [
        ['=cmd', '@x'],
        ['+1', '-2'],
        ['a,"b"\nc', null],
      ],
    );
    expect(text).not.toMatch(/(^|,|\n)"?[=@+]/);
    const back = parseCsv(text);
    expect(back.ok && back.value.rows[2]?.cells[0]).toBe('a,"b"\nc');
    expect(value(await exportDue(w.deps, actor, dueFilter.parse({}))).split('\r\n').length).toBeGreaterThan(72);
  });
});

describe('number codes', () => {
  const HEAD = 'maker,place,attribute,code,value,source\n';
  const plug = (number: string, cells: string) =>
    `number,maker,kind,electrode,thread,seat,resistor,heat_range,pre_gap\n${number},Testline,plug,nickel,M14,gasket,${cells}\n`;

  it('fill what a part’s row leaves empty, and refuse a row that says another thing', async () => {
    const table = `${HEAD}Testline,0,base,TL-###,,list\nTestline,1,resistor,R,yes,list\nTestline,2,gap,G#,tenths of a mm,list\n`;
    await confirm((await check('number-codes', table)).importId);
    const filled = await check('parts', plug('TL-100RG9', ',,'));
    expect(filled.plan.rows).toMatchObject([
      {
        verdict: 'add',
        reasons: ['with resistor, read from the number', 'gap as sold 0.90 mm (0.035 in), read from the number'],
      },
    ]);
    const wrong = await check('parts', plug('TL-100RG9', 'no,,1.1 mm'));
    expect(wrong.plan.rows[0]).toMatchObject({ verdict: 'refuse' });
    expect(wrong.plan.rows[0]?.reasons.join(' ')).toMatch(
      /resistor: the number says with resistor.*pre_gap: .*0.90 mm/,
    );
    expect((await check('parts', plug('TL-100', 'no,,1.1 mm'))).plan.rows[0]).toMatchObject({ verdict: 'add' });
  });

  it('can be corrected, and are refused where they make no table', async () => {
    const again = await check('number-codes', `${HEAD}Testline,2,gap,G#,hundredths of a mm,list 2\n`);
    expect(again.plan.rows).toMatchObject([{ verdict: 'change', reasons: ['was tenths of a mm'] }]);
    const bad = await check(
      'number-codes',
      `${HEAD}Testline,2,heat_range,H,6,list\nTestline,1,resistor,X,perhaps,list\nTestline,3,gap,J,8,list\n`,
    );
    expect(bad.plan.rows.map((row) => row.verdict)).toEqual(['refuse', 'refuse', 'refuse']);
    expect(bad.plan.rows[0]?.reasons[0]).toContain('place 2 of Testline says gap already');
  });
});
