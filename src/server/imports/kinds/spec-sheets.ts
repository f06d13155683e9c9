import { and, eq } from 'drizzle-orm';
import { partKey, SOURCE_RANKS } from '@/core/catalogue/match';
import { TEMPERATURES } from '@/core/catalogue/others-in-force';
import { layoutOf } from '@/core/engine/layout';
import { COMPONENTS, type Component, quantityOf } from '@/core/engine/quantities';
import { REGAP_POLICIES } from '@/core/gap/check';
import { SHEET_LUBRICANTS, TORQUE_CONDITIONS } from '@/core/policy/apply';
import type { FleetId } from '@/core/shared/kinds';
import { doubtOfTorque } from '@/core/torque/plan';
import { PLAUSIBLE_SCREW, type Window } from '@/core/units/read-quantity';
import { roundTo } from '@/core/units/round';
import type { Querier, Tx } from '@/db/client';
import {
  type ComponentSheet,
  type EngineFamily,
  loadFamilies,
  loadParts,
  loadSheets,
  type PartRow,
} from '@/db/queries/catalogue';
import { parts, specSheets } from '@/db/schema';
import { refreshFamiliesSoon } from '../../due/refresh-families';
import { defineKind, differences, type PlannedRow, type PlanScope, type RawRow, SeenBefore } from '../kind';
import { type PartValues, readAttributes } from './parts';
import { SHEET_COLUMNS } from './spec-sheet-columns';

type SheetValues = Omit<typeof specSheets.$inferInsert, 'fleetId' | 'id' | 'partId' | 'createdAt'>;
interface SheetWrite {
  readonly part: PartValues;
  readonly sheet: SheetValues;
}

interface Here {
  readonly families: ReadonlyMap<string, EngineFamily>;
  readonly parts: ReadonlyMap<string, PartRow>;
  readonly sheets: ReadonlyMap<string, ComponentSheet>;
}

export const specSheetsKind = defineKind<SheetWrite>({
  name: 'spec-sheets',
  title: 'Spec sheets',
  about:
    'One row a spec: the part for an engine family, and for a plug its gap, torque (clean dry threads) and interval, with its source. A sheet never changes once it is here; give a change a new revision number. A sheet from memory is kept, but releases no work.',
  needs: ['engine-families'],
  dateColumns: ['source_dated', 'expires_on', 'built_from', 'built_to'],
  columns: SHEET_COLUMNS,

  async plan(q, scope, rows) {
    const here = await whatIsHere(q, scope);
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, here, seen));
  },

  async apply(tx, { fleetId, today, jobs }, writes, personId) {
    for (const write of writes) await save(tx, fleetId, write, personId);
    // Any of them can change which sheet holds for any vehicle of its family.
    const families = writes.map(({ sheet }) => sheet.engineFamilyId);
    await refreshFamiliesSoon(tx, jobs, fleetId, today, families, 'a spec sheet was entered');
  },
});

async function whatIsHere(q: Querier, { fleetId, today }: PlanScope): Promise<Here> {
  const families = new Map((await loadFamilies(q, fleetId)).map((family) => [family.code, family]));
  const sheets = new Map((await loadSheets(q, fleetId, today)).map((sheet) => [sheetKey(sheet), sheet]));
  return { families, parts: new Map((await loadParts(q, fleetId)).map((part) => [part.numberKey, part])), sheets };
}

const sheetKey = (s: SheetValues | ComponentSheet): string =>
  JSON.stringify([
    s.engineFamilyId,
    s.component,
    [s.variant, s.modelYearFrom, s.modelYearTo, s.builtFrom, s.builtTo, s.serialFrom, s.serialTo],
    [s.fuel, s.induction, s.market],
    s.sourceDocument,
    s.revision,
  ]);

function planRow(row: RawRow, here: Here, seen: SeenBefore): PlannedRow<SheetWrite> {
  const { line, reader: r } = row;
  const code = r.required('engine_family');
  const what = `${code} sheet for ${r.text('part_number') ?? '?'}`;
  const family = here.families.get(code);
  if (code && !family) r.fault('engine_family', `${code} is not here yet: import engine-families.csv first`);
  const component = r.oneOf('component', COMPONENTS, 'plug') ?? 'plug';
  const part = readPart(r, component, here);
  const sheet = family ? readSheet(r, family, component, part) : null;
  if (r.faults.length > 0 || !sheet) return { line, verdict: 'refuse', what, reasons: r.faults };
  const known = here.parts.get(part.numberKey);
  const clash = known ? differences(known, withoutBlanks(part)) : [];
  if (clash.length > 0)
    return {
      line,
      verdict: 'refuse',
      what,
      reasons: [`part ${part.number} is already here with another ${clash.join(', ')}`],
    };
  const otherPart = known ? null : seen.check(`part ${part.numberKey}`, line, withoutBlanks(part));
  if (otherPart?.verdict === 'refuse')
    return { line, verdict: 'refuse', what, reasons: [`part ${part.number}: ${otherPart.reason}`] };
  const again = seen.check(sheetKey(sheet), line, { part, sheet });
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  return againstSheets(line, what, part, sheet, here);
}

function againstSheets(
  line: number,
  what: string,
  part: PartValues,
  sheet: SheetValues,
  here: Here,
): PlannedRow<SheetWrite> {
  const before = here.sheets.get(sheetKey(sheet));
  if (!before) return { line, verdict: 'add', what, reasons: [], write: { part, sheet } };
  const changed = differences(
    { ...before, number: before.part.numberKey },
    // Who is named as its checker is a remark.
    { ...sheet, saidCheckedBy: before.saidCheckedBy, number: part.numberKey },
  );
  if (changed.length === 0) return { line, verdict: 'skip', what, reasons: ['already here'] };
  return {
    line,
    verdict: 'refuse',
    what,
    reasons: [
      `revision ${sheet.revision} is already here with another ${changed.join(', ')}. Give the change revision ${sheet.revision + 1}`,
    ],
  };
}

const withoutBlanks = (part: PartValues): Record<string, unknown> => {
  const { number: _, ...rest } = part;
  return Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== null));
};

/** A part that is here may be named by its number alone. */
function readPart(r: RawRow['reader'], component: Component, here: Here): PartValues {
  const number = r.required('part_number');
  const numberKey = partKey(number);
  const known = here.parts.get(numberKey);
  if (known && r.text('part_maker') === null && r.text('thread') === null && r.text('electrode') === null)
    return { number, numberKey, maker: known.maker, kind: component, thread: known.thread, seat: known.seat };
  return { number, numberKey, maker: r.required('part_maker'), kind: component, ...readAttributes(r, component) };
}

function readSheet(
  r: RawRow['reader'],
  family: EngineFamily,
  component: Component,
  part: PartValues,
): SheetValues | null {
  const plug = component === 'plug';
  const gap = readEnds(r, 'gap', 'mm', plug);
  const torque = readEnds(r, 'torque', 'N·m', plug, plug ? undefined : PLAUSIBLE_SCREW);
  const ohms = readOhms(r);
  const [enteredBy, saidCheckedBy] = [r.required('entered_by'), r.text('checked_by')];
  const sourceKind = r.oneOf('source_kind', SOURCE_RANKS);
  const document = r.required('source_document');
  const [dated, expires] = [r.date('source_dated'), r.date('expires_on')];
  const interval = readInterval(r, plug);
  const scope = readScope(r, family);
  if (saidCheckedBy !== null && saidCheckedBy === enteredBy)
    r.fault('checked_by', 'must be another person than entered_by');
  if (!plug && quantityOf(layoutOf(family.model), component) === 0)
    r.fault('component', `${family.code} has no ${component.replace('_', ' ')} by its layout`);
  const { thread, seat } = part;
  if (!sourceKind || (plug && (!gap || !torque || !thread || !seat))) return null;
  const doubt = plug && torque && thread && seat ? doubtOfTorque(torque, thread, seat, family.headMaterial) : null;
  if (doubt) r.fault(r.text('torque') === null ? 'torque_min' : 'torque', doubt);
  return {
    engineFamilyId: family.id,
    component,
    ...scope,
    gapMinMm: gap && roundTo(gap.min, 4),
    gapMaxMm: gap && roundTo(gap.max, 4),
    gapTargetMm: gap?.target == null ? null : roundTo(gap.target, 4),
    gapAsTyped: gap?.asTyped ?? null,
    torqueMinNm: torque && roundTo(torque.min, 2),
    torqueMaxNm: torque && roundTo(torque.max, 2),
    torqueAsTyped: torque?.asTyped ?? null,
    ...ohms,
    angleDeg: r.integer('angle_deg', 5, 360),
    ...interval,
    engineTemperature: r.text('engine_temperature') === null ? null : r.oneOf('engine_temperature', TEMPERATURES),
    lubricant: r.text('lubricant') === null ? null : r.oneOf('lubricant', SHEET_LUBRICANTS),
    regap: r.text('regap') === null ? null : r.oneOf('regap', REGAP_POLICIES),
    method: r.text('method'),
    sourceKind,
    sourceDocument: document,
    sourceDated: dated?.date ?? null,
    expiresOn: expires?.date ?? null,
    revision: r.integer('revision', 1, 999) ?? 1,
    torqueFor: r.text('torque_for') === null ? null : r.oneOf('torque_for', TORQUE_CONDITIONS),
    enteredBy,
    saidCheckedBy,
    note: r.text('note'),
  };
}

interface Ends {
  readonly min: number;
  readonly max: number;
  readonly target: number | null;
  readonly asTyped: string;
}

/** A range in one column, or its ends in two. */
function readEnds(
  r: RawRow['reader'],
  key: 'gap' | 'torque',
  unit: 'mm' | 'N·m',
  wanted: boolean,
  window?: Window,
): Ends | null {
  const whole = r.text(key);
  if (whole !== null) {
    const range = r.range(key, key, `${key}_unit`, unit, window);
    const by = range?.assumedShare ? `, ±${100 * range.assumedShare} % by the shop` : '';
    return range && { min: range.minSi, max: range.maxSi, target: range.targetSi, asTyped: `${whole}${by}` };
  }
  const min = r.quantity(`${key}_min`, key, `${key}_unit`, unit, window);
  const max = r.quantity(`${key}_max`, key, `${key}_unit`, unit, window);
  if (!min || !max) {
    if (wanted || min || max) r.fault(`${key}_min`, 'give both ends of the range');
    return null;
  }
  if (min.si > max.si) r.fault(`${key}_min`, `is above ${key}_max`);
  return { min: min.si, max: max.si, target: null, asTyped: `${min.asTyped} to ${max.asTyped}` };
}

/** What a meter may show: of the windings of a coil, and of a lead or rotor from end to end. */
function readOhms(r: RawRow['reader']) {
  const [primary, secondary, ends] = (['primary', 'secondary', 'resistance'] as const).map((key) =>
    r.range(key, 'resistance', 'resistance_unit', 'Ω'),
  );
  const perMetre = r.quantity('ohm_per_metre', 'resistance', 'resistance_unit', 'Ω');
  return {
    primaryMinOhm: primary?.minSi ?? null,
    primaryMaxOhm: primary?.maxSi ?? null,
    primaryAsTyped: primary ? r.text('primary') : null,
    secondaryMinOhm: secondary?.minSi ?? null,
    secondaryMaxOhm: secondary?.maxSi ?? null,
    secondaryAsTyped: secondary ? r.text('secondary') : null,
    minOhm: ends?.minSi ?? null,
    maxOhm: ends?.maxSi ?? null,
    ohmAsTyped: ends ? r.text('resistance') : null,
    maxOhmPerMetre: perMetre?.si ?? null,
  };
}

function readInterval(r: RawRow['reader'], wanted: boolean) {
  if (!wanted && r.text('interval')?.toLowerCase() === 'on failure') return ON_FAILURE;
  const interval = r.quantity('interval', 'distance', 'interval_unit', 'km');
  const severe = r.quantity('interval_severe', 'distance', 'interval_unit', 'km');
  const months = r.integer('interval_months', 1, 600);
  if (wanted && !interval && !months) r.fault('interval', 'give a distance, months, or both');
  if (interval && interval.si < 1000)
    r.fault('interval', `${interval.asTyped} is too short for an interval. Is a k missing?`);
  const words = [interval?.asTyped, severe && `severe ${severe.asTyped}`, months && `${months} months`].filter(Boolean);
  return {
    intervalKm: interval ? roundTo(interval.si, 1) : null,
    intervalSevereKm: severe ? roundTo(severe.si, 1) : null,
    intervalMonths: months,
    intervalAsTyped: words.length > 0 ? words.join(', ') : null,
  };
}

/** No interval: it is replaced when it fails, and its age and distance are kept all the same. */
const ON_FAILURE = { intervalKm: null, intervalSevereKm: null, intervalMonths: null, intervalAsTyped: 'on failure' };

/** Which vehicles of the family it is for. */
function readScope(r: RawRow['reader'], family: EngineFamily) {
  const variant = r.text('variant');
  if (variant !== null && !family.variants.includes(variant))
    r.fault(
      'variant',
      `${family.code} has no variant “${variant}”: it knows ${family.variants.join(' and ') || 'none'}`,
    );
  const [modelYearFrom, modelYearTo] = [
    r.integer('model_year_from', 1950, 2100),
    r.integer('model_year_to', 1950, 2100),
  ];
  const [builtFrom, builtTo] = [r.date('built_from')?.date ?? null, r.date('built_to')?.date ?? null];
  const [serialFrom, serialTo] = [r.integer('serial_from', 0, 999_999), r.integer('serial_to', 0, 999_999)];
  const spans = [
    ['model_year', modelYearFrom, modelYearTo],
    ['built', builtFrom, builtTo],
    ['serial', serialFrom, serialTo],
  ] as const;
  for (const [key, from, to] of spans)
    if (from !== null && to !== null && from > to)
      r.fault(`${key}_from`, `is after ${key}_to: the range is upside down`);
  const [fuel, induction, market] = [r.text('fuel'), r.text('induction'), r.text('market')];
  return { variant, modelYearFrom, modelYearTo, builtFrom, builtTo, serialFrom, serialTo, fuel, induction, market };
}

/** To the digits that the column keeps. */

async function save(tx: Tx, fleetId: FleetId, { part, sheet }: SheetWrite, enteredById: string | null): Promise<void> {
  await tx
    .insert(parts)
    .values({ fleetId, ...part })
    .onConflictDoNothing({ target: [parts.fleetId, parts.numberKey] });
  const [row] = await tx
    .select({ id: parts.id })
    .from(parts)
    .where(and(eq(parts.fleetId, fleetId), eq(parts.numberKey, part.numberKey)));
  if (!row) throw new Error('the part was not written');
  await tx.insert(specSheets).values({ fleetId, partId: row.id, enteredById, ...sheet });
}
