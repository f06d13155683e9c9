import { eq } from 'drizzle-orm';
import { partKey } from '@/core/catalogue/match';
import { insertStays, REMOVAL_REASONS, type RemovalReason } from '@/core/components/history';
import type { Certainty } from '@/core/due/due';
import { layoutOf, sitesFromText } from '@/core/engine/layout';
import { type SiteKey, siteId } from '@/core/engine/model';
import { placesOf } from '@/core/engine/places';
import { bankNamed } from '@/core/engine/sides';
import { certaintyOf } from '@/core/odometer/intake';
import type { FleetId, Km } from '@/core/shared/kinds';
import { keptKm, keptMm } from '@/core/units/round';
import { KM_PER_MILE } from '@/core/units/unit';
import { TASK_COMPONENTS } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { loadStays, type NewStay, newStay, saveHistory } from '@/db/commands/component-history';
import { type EngineFamily, loadFamilies } from '@/db/queries/catalogue';
import { fittedComponents, parts, vehicles } from '@/db/schema';
import { refreshDue } from '../../due/refresh-due';
import { defineKind, type PlannedRow, type PlanScope, type RawRow } from '../kind';

type Values = Omit<Parameters<typeof newStay>[0], 'fleetId' | 'cylinder' | 'position'>;
interface HistoryWrite {
  readonly values: Values;
  readonly sites: readonly SiteKey[];
  /** Why the parts that were there came out. */
  readonly removed: RemovalReason;
}

interface Here {
  readonly vehicles: ReadonlyMap<string, typeof vehicles.$inferSelect>;
  readonly families: ReadonlyMap<string, EngineFamily>;
  readonly parts: ReadonlyMap<string, string>;
  readonly done: Set<string>;
  /** Where each tag is said to have gone in, by tag and day. */
  readonly tags: Map<string, string>;
}

const FITTED = TASK_COMPONENTS;

export const serviceHistoryKind = defineKind<HistoryWrite>({
  name: 'service-history',
  title: 'Service history',
  about:
    'One row a past service: which plugs, coils with their tags, leads, cap or other ignition parts went in, at which sites, when and at what distance. “about 2019”, “60 or 70 thousand” and “unknown” are kept as what they are, apart from exact figures.',
  needs: ['vehicles'],
  dateColumns: ['serviced_on'],
  columns: [
    { key: 'unit_number', required: true, help: 'The vehicle', example: '32', aliases: ['unit_no', 'vehicle'] },
    {
      key: 'serviced_on',
      help: 'Day, “about 2019”, or unknown',
      example: '2023-06-12',
      aliases: ['date', 'fitted_on'],
    },
    {
      key: 'odometer',
      help: 'Distance then, “about 60,000”, or unknown',
      example: '42100',
      aliases: ['reading', 'mileage'],
    },
    { key: 'unit', help: 'km or mi', example: 'km' },
    {
      key: 'sites',
      help: 'all, bank 1, or cylinders such as 1 3 5 or 1A 2B; all for a cap, a rotor or a lead set',
      example: 'all',
      aliases: ['cylinders'],
    },
    { key: 'part_number', help: 'By the record; empty when it names none', example: 'EM-7310', aliases: ['part'] },
    { key: 'gap', help: 'As fitted', example: '1.05', aliases: ['gap_fitted'] },
    { key: 'gap_unit', help: 'mm, in or thou', example: 'mm' },
    {
      key: 'history',
      help: 'proven (seen on paper), probable or unknown; probable when empty',
      example: 'proven',
      aliases: ['certainty'],
    },
    { key: 'component', help: 'What went in; plug when empty', example: 'plug', choices: FITTED },
    { key: 'tag', help: 'Serial or tag of a coil: one row a coil', example: '' },
    {
      key: 'removal_reason',
      help: 'Why the parts before these came out; unknown when empty',
      example: 'planned',
      choices: REMOVAL_REASONS,
    },
  ],

  moreExamples: [
    {
      unit_number: '32',
      serviced_on: '2025-02-11',
      odometer: '84000',
      unit: 'km',
      sites: '2',
      component: 'coil',
      part_number: 'NL-3806',
      tag: 'NC-2201',
      history: 'proven',
      removal_reason: 'failed',
    },
    {
      unit_number: '4',
      serviced_on: 'about 2019',
      odometer: 'about 108,000',
      unit: 'mi',
      sites: 'all',
      component: 'lead_set',
      part_number: 'KM-L46',
      history: 'probable',
    },
    {
      unit_number: '4',
      serviced_on: '2020-04-14',
      odometer: '109200',
      unit: 'mi',
      sites: 'all',
      component: 'cap',
      part_number: 'KM-C46',
      history: 'proven',
      removal_reason: 'planned',
    },
  ],

  async plan(q, scope, rows) {
    const here = await whatIsHere(q, scope.fleetId);
    return rows.map((row) => planRow(row, scope, here));
  },

  async apply(tx, { fleetId, today }, writes) {
    const touched = [...new Set(writes.map((write) => write.values.vehicleId))];
    const tags = writes.flatMap(({ values }) => values.tag ?? []);
    const before: readonly NewStay[] = await loadStays(tx, fleetId, touched, tags);
    const reasons = new Map(
      writes.flatMap(({ values, sites, removed }) =>
        sites.map(({ cylinder, position }) => [newStay({ fleetId, ...values, cylinder, position }), removed] as const),
      ),
    );
    await saveHistory(
      tx,
      insertStays(before, [...reasons.keys()], (taker) => reasons.get(taker) ?? 'unknown'),
    );
    await refreshDue(tx, fleetId, today, touched);
  },
});

async function whatIsHere(q: Querier, fleetId: FleetId): Promise<Here> {
  const vehicleRows = await q.select().from(vehicles).where(eq(vehicles.fleetId, fleetId));
  const partRows = await q.select({ id: parts.id, key: parts.numberKey }).from(parts).where(eq(parts.fleetId, fleetId));
  const fitted = await q.select().from(fittedComponents).where(eq(fittedComponents.fleetId, fleetId));
  return {
    vehicles: new Map(vehicleRows.map((row) => [row.unitNumber, row])),
    families: new Map((await loadFamilies(q, fleetId)).map((family) => [family.id, family])),
    parts: new Map(partRows.map((row) => [row.key, row.id])),
    tags: new Map(),
    done: new Set(fitted.map((row) => fitKey(row, siteId(row)))),
  };
}

const fitKey = (row: Pick<NewStay, 'vehicleId' | 'component' | 'installedOn' | 'installedKm'>, site: string): string =>
  `${row.vehicleId} ${row.component} ${row.installedOn} ${row.installedKm} ${site}`;

/** The places at the sites that a text names; null where one of them is not there. A coil has one place, however many plugs it fires. */
function sitesNamed(
  text: string,
  component: (typeof FITTED)[number],
  { model }: EngineFamily,
  steering: Parameters<typeof bankNamed>[2],
): readonly SiteKey[] | null {
  const layout = layoutOf(model);
  const bank = bankNamed(model, text, steering);
  const named = bank
    ? layout.sites.filter((site) => bank.cylinders.includes(site.cylinder))
    : sitesFromText(layout, text);
  return named && placesOf(layout, component, named);
}

function planRow({ line, reader: r }: RawRow, scope: PlanScope, here: Here): PlannedRow<HistoryWrite> {
  const number = r.required('unit_number');
  const vehicle = here.vehicles.get(number);
  const family = vehicle && here.families.get(vehicle.engineFamilyId);
  const what = `unit ${number}`;
  if (!vehicle || !family) {
    if (number) r.faults.push(`unit ${number} is not here yet: import vehicles.csv first`);
    return { line, verdict: 'refuse', what, reasons: r.faults };
  }
  const on = r.date('serviced_on');
  if (on && on.date > scope.today) r.fault('serviced_on', `${on.date} is in the future`);
  if (on?.certainty === 'exact' && on.date < vehicle.inServiceOn)
    r.fault('serviced_on', `is before the vehicle came into service on ${vehicle.inServiceOn}`);
  const km = readDistance(r, scope.options.unit ?? vehicle.odometerUnit);
  const typedSites = r.text('sites') ?? 'all';
  const named = r.oneOf('component', FITTED, 'plug') ?? 'plug';
  // The coil of an engine with a coil rail is that rail.
  const component = named === 'coil' && family.model.ignition === 'coil_rail' ? 'rail' : named;
  const sites = sitesNamed(typedSites, component, family, vehicle.steering);
  const tag = r.text('tag');
  if (tag !== null && sites && sites.length !== 1)
    r.fault('tag', 'a tag is of one coil: name its one cylinder under sites');
  if (!sites) r.fault('sites', `“${typedSites}” names a cylinder that ${family.code} does not have`);
  if (sites?.length === 0) r.fault('component', `${family.code} has no ${component.replace('_', ' ')}`);
  const partNumber = r.text('part_number');
  const gap = r.quantity('gap', 'gap', 'gap_unit', 'mm');
  const removed = r.oneOf('removal_reason', REMOVAL_REASONS, 'unknown') ?? 'unknown';
  const history = r.oneOf('history', ['proven', 'probable', 'unknown'], 'probable') ?? 'probable';
  if (r.faults.length > 0 || !sites) return { line, verdict: 'refuse', what, reasons: r.faults };
  if (!on && !km)
    return {
      line,
      verdict: 'skip',
      what,
      reasons: ['neither day nor distance is known: life stays “assumed” from new'],
    };
  const values: Values = {
    vehicleId: vehicle.id,
    component,
    tag,
    partId: partNumber === null ? null : (here.parts.get(partKey(partNumber)) ?? null),
    believedNumber: partNumber,
    history,
    installedOn: on?.date ?? vehicle.inServiceOn,
    installedOnCertainty: on?.certainty ?? 'assumed',
    installedOnAsTyped: r.text('serviced_on') ?? 'unknown',
    installedKm: km?.km ?? 0,
    installedKmCertainty: km?.certainty ?? 'assumed',
    installedKmAsTyped: km?.asTyped ?? 'unknown',
    gapMm: gap ? keptMm(gap.si) : null,
    gapAsTyped: gap?.asTyped ?? null,
  };
  const place = tag === null ? null : `${vehicle.id} ${siteId(sites[0] ?? { cylinder: 0, position: 'A' })}`;
  const tagKey = `${tag} ${values.installedOn}`;
  if (place !== null && (here.tags.get(tagKey) ?? place) !== place)
    return { line, verdict: 'refuse', what, reasons: [`coil ${tag} cannot go into two places on one day`] };
  if (place !== null) here.tags.set(tagKey, place);
  const fresh = sites.filter((site) => !here.done.has(fitKey(values, siteId(site))));
  for (const site of fresh) here.done.add(fitKey(values, siteId(site)));
  const label = `${what}, ${component === 'plug' ? '' : `${component.replace('_', ' ')} at `}${typedSites === 'all' ? 'all cylinders' : `cylinders ${typedSites}`}`;
  return fresh.length === 0
    ? { line, verdict: 'skip', what: label, reasons: ['already here'] }
    : { line, verdict: 'add', what: label, reasons: [], write: { values, sites: fresh, removed } };
}

/** "60 or 70 thousand" counts from the lower figure: life is then never taken as less than it may be. */
function readDistance(
  r: RawRow['reader'],
  unit: 'km' | 'mi',
): { km: Km; certainty: Certainty; asTyped: string } | null {
  const typed = r.text('odometer');
  if (typed === null || /^(unknown|not known|\?+)$/i.test(typed)) return null;
  const rough =
    /^(?:about|around|ca\.?|~)?\s*(\d{1,4})\s*(?:(?:or|to|-)\s*\d{1,4}\s*)?(?:thousand|k)\s*(km|mi)?$/i.exec(typed);
  if (rough)
    return {
      km: Number(rough[1]) * 1000 * ((rough[2]?.toLowerCase() ?? unit) === 'mi' ? KM_PER_MILE : 1),
      certainty: 'estimated',
      asTyped: typed,
    };
  const value = r.quantityOf('odometer', typed, 'distance', 'unit', unit);
  return value && { km: keptKm(value.si), certainty: certaintyOf(value), asTyped: typed };
}
