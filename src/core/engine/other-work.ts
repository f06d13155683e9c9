import type { Km } from '../shared/kinds';
import { err, ok, type Result } from '../shared/result';
import { toSi } from '../units/unit';
import { BANK_PLACES, type BankPlace } from './model';

/* Work on an engine that is not ignition and is done in the same visit: a belt, filters, fluids, gaskets. A person puts it down
   for the family, with its interval and the bank that it lies behind. */

/** What work may set free or lay open, and what it needs done first. */
const WORK_HAZARDS = ['fuel', 'hot_coolant', 'moving_belt'] as const;
export type WorkHazard = (typeof WORK_HAZARDS)[number];

export const WORK_KINDS = [
  'air_filter',
  'cabin_filter',
  'fuel_filter',
  'fuel_line',
  'injectors',
  'intake_gaskets',
  'throttle_body',
  'cover_gaskets',
  'crankcase_valve',
  'oil_change',
  'coolant',
  'thermostat',
  'water_pump',
  'drive_belt',
  'timing_belt',
  'sensor',
  'battery',
  'general',
] as const;
export type WorkKind = (typeof WORK_KINDS)[number];

interface WorkKindRule {
  /** As a person writes it in a list; the first is its name. */
  readonly names: readonly [string, ...string[]];
  readonly hazards: readonly WorkHazard[];
}

/** What each kind of work is called and what it sets free: the gates go by the kind, never by a word. */
export const WORK_KIND_TABLE: Readonly<Record<WorkKind, WorkKindRule>> = {
  air_filter: { names: ['air filter', 'air cleaner'], hazards: [] },
  cabin_filter: { names: ['cabin filter', 'pollen filter'], hazards: [] },
  fuel_filter: { names: ['fuel filter', 'petrol filter', 'gasoline filter', 'diesel filter'], hazards: ['fuel'] },
  fuel_line: { names: ['fuel line', 'fuel hose', 'fuel pump', 'fuel regulator', 'carburettor'], hazards: ['fuel'] },
  injectors: { names: ['injectors', 'injector', 'injector rail', 'fuel rail', 'injector seals'], hazards: ['fuel'] },
  intake_gaskets: { names: ['intake gaskets', 'intake manifold gaskets', 'intake manifold'], hazards: ['fuel'] },
  throttle_body: { names: ['throttle body'], hazards: [] },
  cover_gaskets: { names: ['cover gaskets', 'cover gasket', 'cam cover gasket', 'valve cover gasket'], hazards: [] },
  crankcase_valve: { names: ['crankcase valve', 'crankcase ventilation valve', 'breather'], hazards: [] },
  oil_change: { names: ['oil change', 'engine oil', 'oil filter'], hazards: [] },
  coolant: { names: ['coolant', 'coolant hose', 'radiator'], hazards: ['hot_coolant'] },
  thermostat: { names: ['thermostat'], hazards: ['hot_coolant'] },
  water_pump: { names: ['water pump', 'coolant pump'], hazards: ['hot_coolant', 'moving_belt'] },
  drive_belt: { names: ['drive belt', 'belt', 'auxiliary belt', 'belt tensioner'], hazards: ['moving_belt'] },
  timing_belt: { names: ['timing belt', 'timing chain'], hazards: ['moving_belt'] },
  sensor: { names: ['sensor', 'oxygen sensor', 'knock sensor', 'crank sensor'], hazards: [] },
  battery: { names: ['battery'], hazards: [] },
  general: { names: ['general work'], hazards: [] },
};

const KIND_BY_NAME = new Map(
  WORK_KINDS.flatMap((kind) => WORK_KIND_TABLE[kind].names.map((name) => [name, kind] as const)),
);

/** The kind that a name stands for, to the letter but for case; null: none is called so. */
export const workKindNamed = (name: string): WorkKind | null => KIND_BY_NAME.get(name.trim().toLowerCase()) ?? null;

/** The name of a kind in lists and on screens. */
export const workKindName = (kind: WorkKind): string => WORK_KIND_TABLE[kind].names[0];

/** What is laid down for the work of a visit: a kind, under the name that the shop gives it. */
export interface VisitWork {
  readonly what: string;
  readonly kind: WorkKind;
  /** Bay time that it adds, minutes. */
  readonly minutes: number;
}

/** Whether any work of a visit sets something free. */
export const hasHazard = (work: readonly Pick<VisitWork, 'kind'>[], hazard: WorkHazard): boolean =>
  work.some(({ kind }) => WORK_KIND_TABLE[kind].hazards.includes(hazard));

export interface OtherWork extends VisitWork {
  /** Null: by time alone. One of the two is given. */
  readonly everyKm: Km | null;
  readonly everyMonths: number | null;
  /** The bank that has to be open for it; null: it is in reach at any visit. */
  readonly behind: BankPlace | null;
}

const MAX_MINUTES = 600;

type Read = { -readonly [K in Exclude<keyof OtherWork, 'kind'>]: OtherWork[K] } & { kind: WorkKind | null };

/** What a piece of an entry says; false: nothing that is known here. */
function readPiece(read: Read, piece: string): boolean {
  const distance = /^([\d., ]+) ?(km|mi)$/i.exec(piece);
  const months = /^(\d{1,3}) ?(months?|mo)$/i.exec(piece);
  const minutes = /^(\d{1,3}) ?min$/i.exec(piece);
  const bank = BANK_PLACES.find((place) => piece.toLowerCase() === `${place} bank`);
  if (distance) {
    const figure = Number((distance[1] ?? '').replace(/[., ]/g, ''));
    read.everyKm = distance[2]?.toLowerCase() === 'mi' ? Math.round(toSi(figure, 'mi')) : figure;
    return figure >= 100 && figure <= 1_000_000;
  }
  if (months) read.everyMonths = Number(months[1]);
  if (minutes) read.minutes = Number(minutes[1]);
  if (bank) read.behind = bank;
  const kind = workKindNamed(piece);
  if (kind) read.kind = kind;
  return Boolean(months ?? minutes ?? bank ?? kind);
}

const EXAMPLE = 'Write it like air filter: 40000 km, 24 months, 10 min, front bank';

/** One entry of the list; an error in words. */
function readEntry(entry: string): Result<OtherWork, string> {
  const cut = entry.lastIndexOf(':');
  const what = entry.slice(0, Math.max(0, cut)).trim();
  const read: Read = { what, kind: workKindNamed(what), everyKm: null, everyMonths: null, minutes: 0, behind: null };
  const pieces = entry
    .slice(cut + 1)
    .split(/,\s+/)
    .map((piece) => piece.trim());
  const unread = pieces.find((piece) => !readPiece(read, piece));
  if (what === '' || unread !== undefined) return err(`“${unread ?? entry}” cannot be read. ${EXAMPLE}`);
  const { kind } = read;
  if (kind === null)
    return err(
      `“${what}” is no kind of work that is known, so nobody can tell whether it opens the fuel line. Name its kind after the colon, as in “${what}: fuel filter, 40000 km, 20 min”. Kinds: ${WORK_KINDS.map(workKindName).join(', ')}`,
    );
  if (read.everyKm === null && read.everyMonths === null) return err(`“${what}” has no interval. ${EXAMPLE}`);
  if (read.minutes < 1 || read.minutes > MAX_MINUTES) return err(`“${what}” needs its minutes, 1 to ${MAX_MINUTES}`);
  return ok({ ...read, kind });
}

/**
 * Other work as a person lists it: "air filter: 40000 km, 24 months, 10 min, front bank", entries separated by a bar. Work under a
 * name of its own says its kind: "petrol strainer: fuel filter, 40000 km, 20 min".
 *
 * @returns an error in words that names the entry which cannot be read
 */
export function otherWorkFromText(text: string): Result<readonly OtherWork[], string> {
  const list: OtherWork[] = [];
  for (const entry of text
    .split('|')
    .map((part) => part.trim())
    .filter(Boolean)) {
    const read = readEntry(entry);
    if (!read.ok) return read;
    if (list.some(({ what }) => what === read.value.what)) return err(`“${read.value.what}” stands there twice`);
    list.push(read.value);
  }
  return ok(list);
}

/** The list that `otherWorkFromText` reads back. */
export const otherWorkText = (list: readonly OtherWork[]): string =>
  list
    .map(({ what, kind, everyKm, everyMonths, minutes, behind }) => {
      const pieces = [
        workKindNamed(what) === kind ? null : workKindName(kind),
        everyKm === null ? null : `${everyKm} km`,
        everyMonths === null ? null : `${everyMonths} months`,
        `${minutes} min`,
        behind === null ? null : `${behind} bank`,
      ];
      return `${what}: ${pieces.filter((piece) => piece !== null).join(', ')}`;
    })
    .join(' | ');
