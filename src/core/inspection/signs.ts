import { siteId } from '../engine/model';
import { fastWear } from '../gap/wear';
import { sayGap } from '../units/say';
import type { EngineReading, Observation, OutOfRange, SiteReading } from './finding';
import type { Condition } from './vocabulary';

/* What is looked for at one site. Where it stands in the engine is for the rules. */

export type Looked = SiteReading & { readonly seen: readonly Observation[] };

/** A sign that is there. Severity from 1, just visible, to 3, beyond doubt. */
export interface Sign {
  readonly words: string;
  readonly severity: number;
}
type SignOf = (site: Looked, reading: EngineReading) => Sign | null;

const any =
  (...conditions: readonly Condition[]): SignOf =>
  ({ seen }) => {
    const noticed = seen.filter(({ condition }) => conditions.includes(condition));
    if (noticed.length === 0) return null;
    return {
      words: noticed.map(({ condition }) => condition).join(', '),
      severity: Math.max(...noticed.map(({ severity }) => severity)),
    };
  };

const isLoose = ({ breakaway }: SiteReading): boolean => breakaway === 'loose';
const tightOnly =
  (sign: SignOf): SignOf =>
  (site, reading) =>
    isLoose(site) ? null : sign(site, reading);

/** Gas past the seat of a loose plug blackens it and heats the nose. */
const loose: SignOf = (site, reading) => {
  if (!isLoose(site)) return null;
  const seat = any('seat sooted')(site, reading);
  const nose = any('nose white', 'nose blistered')(site, reading);
  return {
    words: ['came out loose', seat?.words, nose?.words].filter(Boolean).join(', '),
    severity: seat ? 3 : 2,
  };
};

/** Soot and ash on an oily nose come of the oil. */
const oily: SignOf = (site, reading) =>
  any('nose black oily')(site, reading) && any('nose black oily', 'nose black dry', 'ash')(site, reading);
const dryOnly =
  (sign: SignOf): SignOf =>
  (site, reading) =>
    oily(site, reading) ? null : sign(site, reading);

const over: SignOf = (site, reading) => {
  const { gapMm } = site;
  const { gapLimitMm } = reading;
  if (gapMm === null || gapLimitMm === null || gapMm <= gapLimitMm) return null;
  const eroded = any('electrodes eroded')(site, reading);
  return {
    words: [`gap ${sayGap(gapMm)}, over ${sayGap(gapLimitMm)}`, eroded?.words].filter(Boolean).join(', '),
    severity: gapMm > 1.1 * gapLimitMm ? 3 : 2,
  };
};

const grown: SignOf = (site, { sites }) => {
  const fast = fastWear(sites).get(siteId(site));
  return fast === undefined
    ? null
    : {
        words: `wears ${fast.rate.toFixed(1)} µm per 1,000 km, the others ${fast.others.toFixed(1)}`,
        severity: fast.rate > 2 * fast.others ? 3 : 2,
      };
};

const measured =
  (...kinds: readonly OutOfRange['measured'][]): SignOf =>
  ({ outOfRange = [] }) => {
    const readings = outOfRange.filter((entry) => kinds.includes(entry.measured));
    return readings.length === 0 ? null : { words: readings.map(({ words }) => words).join(', '), severity: 3 };
  };

/** Both at one place: what they say together. */
const both =
  (first: SignOf, second: SignOf): SignOf =>
  (site, reading) => {
    const [firstSign, other] = [first(site, reading), second(site, reading)];
    return firstSign && other
      ? { words: `${firstSign.words}, ${other.words}`, severity: Math.max(firstSign.severity, other.severity) }
      : null;
  };
const without =
  (sign: SignOf, ...others: readonly SignOf[]): SignOf =>
  (site, reading) =>
    others.some((other) => other(site, reading)) ? null : sign(site, reading);

const soot = any('nose black dry');
const tracked = any('carbon track', 'boot tracked');
const cracked = any('insulator cracked', 'nose cracked');
/** A plug whose spark finds another way does not burn clean: its soot is told with the cause. */
const withSoot =
  (sign: SignOf): SignOf =>
  (site, reading) => {
    const [signs, black] = [sign(site, reading), soot(site, reading)];
    return signs && black ? { ...signs, words: `${signs.words}; ${black.words}, which this explains` } : signs;
  };
const oilThere = any('oil in well', 'insulator oily', 'coil oily', 'seal weeping');
const badCoil: SignOf = (site, reading) =>
  any('coil body cracked', 'coil swollen', 'coil melted', 'coil tower tracked')(site, reading) ??
  measured('primary', 'secondary')(site, reading);
const badLead: SignOf = (site, reading) =>
  any('lead burnt', 'lead boot torn', 'lead tracked', 'lead terminal loose')(site, reading) ??
  measured('lead')(site, reading);
const starvedByCoil = both(soot, badCoil);
const starvedByLead = without(both(soot, badLead), starvedByCoil);
const swollen = any('boot swollen');
const agedLead = any('lead burnt', 'lead chafed', 'lead boot torn', 'lead terminal loose');

/** Half of the leads looked at, or more, and three at least. */
const leadsAged: SignOf = (site, reading) => {
  const looked = reading.sites.filter(
    (other): other is Looked => other.seen?.some(({ condition }) => condition.startsWith('lead')) ?? false,
  );
  const aged = looked.filter((other) => agedLead(other, reading));
  return aged.length >= 3 && 2 * aged.length >= looked.length ? agedLead(site, reading) : null;
};

/** Gaps over their limit at half of the plugs that were measured, or more. */
const wideGaps = ({ sites, gapLimitMm }: EngineReading): boolean => {
  const gaps = sites.flatMap(({ gapMm }) => gapMm ?? []);
  return gapLimitMm !== null && gaps.length > 0 && 2 * gaps.filter((gap) => gap > gapLimitMm).length >= gaps.length;
};
const capBurnt = any('cap terminals burnt');

/** Every sign. A condition that is not normal, a gap, a feel or a number that is not right belongs to one at least. */
export const SIGNS = {
  detonation: any('electrodes melted', 'electrodes peppered'),
  coolant: any('nose coloured trace', 'nose washed clean'),
  loose,
  seat: tightOnly(any('seat sooted')),
  hot: tightOnly(any('nose white', 'nose blistered')),
  dry: dryOnly(without(soot, starvedByCoil, starvedByLead, tracked, cracked)),
  oily,
  ash: dryOnly(any('ash')),
  oil_outside: any('insulator oily', 'oil in well'),
  tracked: withSoot(tracked),
  water: any('water in well', 'threads rusted'),
  coolant_outside: any('coolant in well'),
  differs: ({ differs }) => (differs ? { words: 'its number is not the one on record', severity: 3 } : null),
  over,
  grown,
  eroded: any('electrodes eroded'),
  glazed: any('glazed'),
  bridged: any('bridged'),
  cracked: withSoot(cracked),
  threads: (site, reading) => {
    const galled = any('threads galled')(site, reading);
    if (site.breakaway !== 'seized') return galled;
    return { words: [galled?.words, 'seized'].filter(Boolean).join(', '), severity: galled?.severity ?? 2 };
  },
  gaskets: any('gasket missing', 'gasket doubled'),
  debris: any('debris in well'),
  // Swollen beside oil is told with the oil, below.
  boot: (site, reading) =>
    any('boot torn', ...(oilThere(site, reading) ? [] : (['boot swollen'] as const)))(site, reading),
  connector: any('connector tab broken'),
  coil_cracked: any('coil body cracked'),
  coil_overheated: any('coil swollen', 'coil melted'),
  coil_tower: any('coil tower tracked'),
  coil_terminal: any('coil terminal corroded'),
  coil_oily: any('coil oily'),
  coil_stuck: any('coil stuck in the well'),
  coil_primary: measured('primary'),
  coil_secondary: measured('secondary'),
  starved_by_coil: starvedByCoil,
  boot_by_oil: both(swollen, oilThere),
  boot_spring: any('boot spring corroded'),
  boot_left: any('boot left on the plug'),
  connector_pins: any('connector pins corroded'),
  lead_burnt: without(any('lead burnt'), leadsAged),
  lead_chafed: without(any('lead chafed'), leadsAged),
  lead_boot: without(any('lead boot torn'), leadsAged),
  lead_track: any('lead tracked'),
  lead_loose: without(any('lead terminal loose'), leadsAged),
  lead_crossed: any('lead of another cylinder'),
  lead_high: measured('lead'),
  starved_by_lead: starvedByLead,
  lead_aged: leadsAged,
  seal_leaks: any('seal weeping'),
  seal_hard: any('seal hard'),
  cap_cracked: any('cap cracked'),
  cap_tracked: any('cap tracked'),
  cap_burnt: (site, reading) => (wideGaps(reading) ? null : capBurnt(site, reading)),
  cap_burnt_by_gaps: (site, reading) => (wideGaps(reading) ? capBurnt(site, reading) : null),
  cap_oxidised: any('cap terminals oxidised'),
  cap_wet: any('cap wet inside'),
  cap_button: any('cap centre button worn'),
  rotor_burnt: any('rotor tip burnt'),
  rotor_cracked: any('rotor cracked'),
  rotor_worn: any('rotor worn'),
  rotor_corroded: any('rotor corroded'),
  rotor_high: measured('rotor'),
} as const satisfies Readonly<Record<string, SignOf>>;
export type SignName = keyof typeof SIGNS;

const MEASURED: readonly SignName[] = ['grown', 'over'];

/**
 * How likely a site where the cause acts does not show it: nobody described that region, somebody described it as something
 * else, or it was measured and is not there.
 */
const MISSED = { unsaid: 0.1, saidOtherwise: 0.05, measured: 0.02 };

/** How likely the cause acts at this site and yet shows none of these signs. */
export function missed(site: Looked, signs: readonly SignName[]): number {
  if (site.wear && signs.some((sign) => MEASURED.includes(sign))) return MISSED.measured;
  return site.seen.some(({ condition }) => condition.startsWith('nose')) ? MISSED.saidOtherwise : MISSED.unsaid;
}

/** What speaks at a site against a cause whose signs it does not show. */
export function against(site: Looked, signs: readonly SignName[]): string {
  if (site.gapMm !== null && signs.some((sign) => MEASURED.includes(sign))) return `gap ${sayGap(site.gapMm)}`;
  const nose = site.seen.find(({ condition }) => condition.startsWith('nose'));
  return nose?.condition ?? 'does not show it';
}
