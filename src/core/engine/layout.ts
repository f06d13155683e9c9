import { ignitionFaults, terminalWords } from './coils';
import { type Bank, type BankPlace, type EngineModel, type Mounting, POSITIONS, type SiteKey, siteId } from './model';

export interface Site extends SiteKey {
  /** From 1. */
  readonly bank: number;
  /** Place along its bank, from 0. */
  readonly place: number;
  /** Drawing coordinates seen from above with the front of the vehicle at the bottom: one step is one cylinder. */
  readonly x: number;
  readonly y: number;
}

export interface Layout {
  readonly model: EngineModel;
  /** In order of cylinder, then position. */
  readonly sites: readonly Site[];
  readonly cylinders: number;
}

const ARRANGEMENT_WORDS: Readonly<Record<EngineModel['arrangement'], string>> = {
  v: 'a V',
  flat: 'a flat',
  inline: 'an inline',
};

/** What is wrong with a model, in words for the person who typed it. Empty when it is consistent. */
export function modelFaults(model: EngineModel): readonly string[] {
  const { arrangement, banks, firingOrder, mounting } = model;
  const numbers = banks.flatMap((bank) => bank.cylinders).sort((a, b) => a - b);
  const faults: string[] = [];
  if (numbers.length === 0 || numbers.length > 16) faults.push('an engine here has 1 to 16 cylinders');
  if (numbers.some((n, i) => n !== i + 1))
    faults.push(`the banks must hold each cylinder from 1 to ${numbers.length} once, got ${numbers.join(' ')}`);
  const wantedBanks = arrangement === 'inline' ? 1 : 2;
  if (banks.length !== wantedBanks)
    faults.push(
      `${ARRANGEMENT_WORDS[arrangement]} engine has ${wantedBanks} bank${wantedBanks > 1 ? 's' : ''}, got ${banks.length}`,
    );
  if (!banks[0]?.cylinders.includes(1)) faults.push('bank 1 is the one that holds cylinder 1');
  if ([...firingOrder].sort((a, b) => a - b).join() !== numbers.join())
    faults.push(`the firing order must name each cylinder once, got ${firingOrder.join(' ') || 'nothing'}`);
  faults.push(...placeFaults(banks, mounting), ...holeFaults(model));
  return faults.length > 0 ? faults : ignitionFaults(model);
}

function placeFaults(banks: readonly Bank[], mounting: Mounting): readonly string[] {
  const places = banks.map((bank) => bank.place);
  if (banks.length === 1) return places[0] === 'only' ? [] : ['a single bank has the place “only”'];
  if (banks.length !== 2) return [];
  const wanted = mounting === 'transverse' ? ['front', 'rear'] : ['left', 'right'];
  return [...places].sort().join() === wanted.join()
    ? []
    : [`the two banks of a ${mounting} engine stand ${wanted.join(' and ')}, got ${places.join(' and ')}`];
}

function holeFaults({ holes, banks, plugsPerCylinder }: EngineModel): readonly string[] {
  if (!holes) return [];
  if (plugsPerCylinder === 1) return ['only two plugs a cylinder have an order of holes of their own'];
  if (holes.length !== banks.length)
    return [`give the order of holes for each bank: ${banks.length}, got ${holes.length}`];
  return banks.flatMap((bank, i) => {
    const wanted = bank.cylinders.flatMap((cylinder) => POSITIONS.map((position) => siteId({ cylinder, position })));
    const given = holes[i]?.map(siteId) ?? [];
    return [...given].sort().join() === [...wanted].sort().join()
      ? []
      : [`the holes of bank ${i + 1} are ${wanted.join(' ')}, each once, got ${given.join(' ') || 'nothing'}`];
  });
}

/**
 * Plug sites of an engine with their place in the drawing.
 *
 * @throws RangeError for a model with faults (see `modelFaults`): it is checked before it is stored
 */
export function layoutOf(model: EngineModel): Layout {
  const [fault] = modelFaults(model);
  if (fault) throw new RangeError(`layoutOf: ${fault}`);
  const positions = POSITIONS.slice(0, model.plugsPerCylinder);
  const sites = model.banks.flatMap((bank, bankIndex) =>
    bank.cylinders.flatMap((cylinder, place) =>
      positions.map((position) => ({
        cylinder,
        position,
        bank: bankIndex + 1,
        place,
        ...coordinates(model, bank, { cylinder, position }, holeOf(model, bankIndex, { cylinder, position })),
      })),
    ),
  );
  sites.sort((a, b) => a.cylinder - b.cylinder || a.position.localeCompare(b.position));
  return { model, sites, cylinders: model.firingOrder.length };
}

/** Two holes in a row lie this far apart, in steps of a cylinder, as those across a head do. */
const HOLE_STEP = 0.72;

/** Where a hole lies along its bank, from 0; -1 where those of a cylinder lie beside one another. */
const holeOf = ({ holes }: EngineModel, bank: number, site: SiteKey): number =>
  holes?.[bank]?.findIndex((hole) => siteId(hole) === siteId(site)) ?? -1;

/** A V's bank or a flat engine's side lies one and a half steps from the middle; beside one another, B sits further out than A. */
function coordinates(
  { mounting, plugsPerCylinder }: EngineModel,
  bank: Bank,
  { cylinder, position }: SiteKey,
  hole: number,
): { x: number; y: number } {
  const inARow = hole >= 0;
  const spread = plugsPerCylinder === 2 && !inARow ? HOLE_STEP / 2 : 0;
  const outwards = bank.place === 'left' || bank.place === 'rear' ? -1 : 1;
  const across = (bank.place === 'only' ? 0 : outwards * 0.85) + (position === 'A' ? -spread : spread) * outwards;
  const along = inARow ? hole * HOLE_STEP : bank.cylinders.indexOf(cylinder);
  return mounting === 'transverse' ? { x: along, y: across } : { x: across, y: -along };
}

/**
 * The holes of a bank as they lie along the head, as a person lists them: "1A 3A 1B 3B", banks separated by a bar.
 *
 * @returns null where an entry is no plug of an engine with two a cylinder; whether the list is whole is for `modelFaults`
 */
export function holesFromText(text: string): readonly (readonly SiteKey[])[] | null {
  const banks = text.split('|').map((bank) =>
    bank
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map((token): SiteKey | null => {
        const match = /^(\d{1,2})([ab])$/i.exec(token);
        return match ? { cylinder: Number(match[1]), position: match[2]?.toUpperCase() === 'B' ? 'B' : 'A' } : null;
      }),
  );
  const read = banks.map((bank) => bank.filter((hole) => hole !== null));
  return read.every((bank, i) => bank.length > 0 && bank.length === banks[i]?.length) ? read : null;
}

/** The list that `holesFromText` reads back. */
export const holesText = (holes: readonly (readonly SiteKey[])[]): string =>
  holes.map((bank) => bank.map(siteId).join(' ')).join(' | ');

/** The sites of a bank in the order in which they lie along it. @param bank from 1 */
export const alongBank = ({ model, sites }: Layout, bank: number): readonly Site[] =>
  sites
    .filter((site) => site.bank === bank)
    .sort((a, b) => holeOf(model, bank - 1, a) - holeOf(model, bank - 1, b) || a.place - b.place);

/** A plug's place by the name of its site: "3" is "cylinder 3", "3B" is "cylinder 3, plug B". */
export function cylinderText(name: string): string {
  const [, cylinder, plug] = /^(\d+)([A-Z])$/.exec(name) ?? [];
  return plug ? `cylinder ${cylinder}, plug ${plug}` : `cylinder ${name}`;
}

/** The same for several: "cylinders 1, 2"; one with two plugs is named short among others, "cylinders 3A, 3B". */
export const cylindersText = (names: readonly string[]): string =>
  names.length === 1 ? cylinderText(names[0] ?? '') : `cylinders ${names.join(', ')}`;

/** What a person calls the site: "3" with one plug a cylinder, "3B" with two. */
export function siteName(layout: Layout, site: SiteKey): string {
  if (site.cylinder === 0) return 'engine';
  return layout.model.plugsPerCylinder === 1 ? String(site.cylinder) : siteId(site);
}

const PLACE_WORDS: Readonly<Record<BankPlace, string>> = {
  only: '',
  left: 'left bank',
  right: 'right bank',
  front: 'front bank',
  rear: 'rear bank',
};

/** "rear bank, 2nd of 3 from the left" */
export function sitePlace(layout: Layout, site: Site): string {
  const bank = layout.model.banks[site.bank - 1];
  if (!bank) return '';
  const from = layout.model.mounting === 'transverse' ? 'from the left' : 'from the front';
  const hole = holeOf(layout.model, site.bank - 1, site);
  const where =
    hole < 0
      ? `${ordinal(site.place + 1)} of ${bank.cylinders.length} ${from}`
      : `${ordinal(hole + 1)} hole of ${bank.cylinders.length * 2} ${from}`;
  return [PLACE_WORDS[bank.place], where].filter(Boolean).join(', ');
}

/** The same with the terminal of its coil that serves it, where somebody has said. */
export const siteWhere = (layout: Layout, site: Site): string =>
  [sitePlace(layout, site), terminalWords(layout.model, site)].filter(Boolean).join(', ');

const ENDINGS = ['th', 'st', 'nd', 'rd'];
const ordinal = (n: number): string => `${n}${n > 10 && n < 14 ? 'th' : (ENDINGS[n % 10] ?? 'th')}`;

/** Cylinders beside this one in its own bank: a head gasket can leak between them. */
export function neighbours(layout: Layout, cylinder: number): readonly number[] {
  const bank = layout.model.banks.find((b) => b.cylinders.includes(cylinder));
  if (!bank) return [];
  const at = bank.cylinders.indexOf(cylinder);
  return [bank.cylinders[at - 1], bank.cylinders[at + 1]].filter((n) => n !== undefined);
}

/**
 * Sites that a person's list names: "all", "1 3 5", "1A, 1B", "bank 2". A cylinder without position means all its plugs.
 *
 * @returns null when the list names a site that this engine does not have
 */
export function sitesFromText(layout: Layout, text: string): readonly Site[] | null {
  const plain = text.trim().toLowerCase();
  if (plain === '' || plain === 'all') return layout.sites;
  const bank = /^bank\s*(\d)$/.exec(plain);
  if (bank) return atLeastOne(layout.sites.filter((s) => s.bank === Number(bank[1])));
  const sites: Site[] = [];
  for (const token of plain.split(/[\s,;+/]+/).filter(Boolean)) {
    const match = /^(\d{1,2})([ab])?$/.exec(token);
    const named = layout.sites.filter(
      (s) => s.cylinder === Number(match?.[1]) && (!match?.[2] || s.position === match[2].toUpperCase()),
    );
    if (!match || named.length === 0) return null;
    sites.push(...named.filter((s) => !sites.includes(s)));
  }
  return sites;
}

const atLeastOne = (sites: readonly Site[]): readonly Site[] | null => (sites.length > 0 ? sites : null);
