import type { SiteKey } from '../engine/model';
import { WHOLE_ENGINE } from '../engine/places';
import { coolantCauses } from './coolant';
import { type Explained, explain, type Group, type Pattern, shows, type Tray } from './explain';
import type { Cause, Confidence, EngineReading, Finding, SiteReading, Urgency } from './finding';
import { PART_RULES } from './part-rules';
import type { Rule } from './rule';
import { RULES } from './rules';
import { type Shape, shapeOf } from './shape';
import { against, type Looked, SIGNS, type Sign, type SignName } from './signs';
import { NORMAL } from './vocabulary';

/** A row of plugs that differs from the other row differs by its spark, whatever it shows: mixture is the same for both. */
const oneRow = (signs: readonly SignName[]): Rule => ({ ...RULES.one_position_weak, signs });

const GROUPS = {
  hot: { signs: ['hot'], rules: [oneRow(['hot']), RULES.bank_lean, RULES.runner_leak, RULES.lean_or_hot] },
  dark: {
    signs: ['dry', 'oily', 'ash'],
    rules: [
      RULES.rests_at_part_load,
      RULES.one_position_weak,
      RULES.bank_rich,
      RULES.rich_or_weak_spark,
      RULES.oil_everywhere,
      RULES.ash,
    ],
  },
  wear: {
    signs: ['over', 'grown', 'eroded'],
    rules: [RULES.partner_polarity, oneRow(['grown', 'eroded']), RULES.bank_wears_faster, RULES.electrodes_worn],
  },
} as const satisfies Readonly<Record<string, Group>>;

/** What a sign means where no place as a whole explains it. */
const ALONE_MEANS = {
  hot: RULES.cylinder_hot,
  dry: RULES.cylinder_rich,
  oily: RULES.oil_inside,
  ash: RULES.ash,
  grown: RULES.wears_faster,
  eroded: RULES.electrodes_worn,
} as const satisfies Readonly<Partial<Record<SignName, Rule>>>;
type AloneSign = keyof typeof ALONE_MEANS;
const isAloneSign = (sign: SignName): sign is AloneSign => sign in ALONE_MEANS;

/** Signs that mean the same wherever they stand. */
const ANYWHERE: readonly Rule[] = [
  RULES.detonation,
  RULES.loose_plug,
  RULES.seat_leaked,
  RULES.oil_outside,
  RULES.tracked,
  RULES.water_in_well,
  RULES.coolant_in_well,
  RULES.other_part,
  RULES.glazed,
  RULES.bridged,
  RULES.cracked,
  RULES.threads_hurt,
  RULES.wrong_gaskets,
  RULES.debris,
  RULES.boot_spent,
  RULES.connector_broken,
  ...Object.values(PART_RULES),
];

/** A finding before it is put into words. */
interface Draft {
  readonly rule: Rule;
  readonly shape: Shape;
  readonly sites: readonly Looked[];
  readonly signs: readonly SignName[];
  /** Looked at, of the same place, and without it. */
  readonly without?: readonly Looked[];
  /** From 0 to 1: that this is the cause, given that what was seen was there. */
  readonly probability: number;
}

/**
 * What the removed parts of an engine say together: each finding with the sites that speak for it and against it, how sure it
 * is, how urgent, and what to check next. What stops the work comes first, then what is likeliest and matters most.
 *
 * A condition means by where it stands: soot on all, on one bank and on one cylinder are three causes. The causes are weighed
 * against each other, as signs are missed and stray ones seen. Where nothing is wrong and something was looked at, the one
 * finding is that it is healthy, for that is evidence too.
 */
export function readEngine(reading: EngineReading): readonly Finding[] {
  const looked = reading.sites.filter(wasLooked);
  const apart = readApart(reading);
  if (looked.length + apart.length === 0) return [];
  const tray: Tray = { reading, looked, shown: signsOf(reading, [...looked, ...apart]) };
  const showing = (signs: readonly SignName[]): readonly Looked[] => looked.filter((site) => shows(tray, site, signs));
  const drafts = [
    ...coolantCauses(reading.layout, showing(['coolant'])).flatMap(({ cause, sites }) =>
      together(tray, RULES[cause], ['coolant'], sites),
    ),
    ...ANYWHERE.flatMap((rule) => together(tray, rule, rule.signs, showing(rule.signs))),
    ...ANYWHERE.flatMap((rule) =>
      apart
        .filter((part) => shows(tray, part, rule.signs))
        .map(
          (part): Draft => ({
            rule,
            signs: rule.signs,
            sites: [part],
            shape: part.cylinder === WHOLE_ENGINE.cylinder ? 'engine' : 'one',
            probability: 1,
          }),
        ),
    ),
    ...[GROUPS.hot, GROUPS.dark].flatMap((group) => groupDrafts(explain(group, tray), tray)),
    ...wearDrafts(tray),
  ];
  if (drafts.length === 0)
    return looked.length > 0 && [...looked, ...apart].every(isHealthy) ? [healthy(reading, looked)] : [];
  return drafts
    .map((draft) => weighed(draft, tray))
    .sort((a, b) => b.weight - a.weight || ORDER.indexOf(a.finding.cause) - ORDER.indexOf(b.finding.cause))
    .map(({ finding }) => finding);
}

const wasLooked = (site: SiteReading): site is Looked => site.seen !== null;

/** What is read by itself: cap and rotor, which belong to no cylinder, and what a meter says where nobody has looked. */
function readApart({ engine, sites }: EngineReading): readonly Looked[] {
  const ofEngine = engine && { ...WHOLE_ENGINE, gapMm: null, breakaway: null, differs: null, wear: null, ...engine };
  return [
    ...(ofEngine && (ofEngine.seen || ofEngine.outOfRange?.length) ? [{ ...ofEngine, seen: ofEngine.seen ?? [] }] : []),
    ...sites.flatMap((site) => (site.seen === null && site.outOfRange?.length ? [{ ...site, seen: [] }] : [])),
  ];
}

function signsOf(reading: EngineReading, looked: readonly Looked[]): Tray['shown'] {
  const names = Object.keys(SIGNS) as SignName[];
  const all = new Map(
    looked.map((site) => [site, new Map(names.map((name) => [name, SIGNS[name](site, reading)] as const))] as const),
  );
  return (site, sign) => all.get(site)?.get(sign) ?? null;
}

/** What a rule says of these sites together; nothing of none. */
function together(
  { reading, looked }: Tray,
  rule: Rule,
  signs: readonly SignName[],
  sites: readonly Looked[],
  probability = 1,
): readonly Draft[] {
  return sites.length === 0 ? [] : [{ rule, signs, sites, shape: shapeOf(reading, sites, looked), probability }];
}

/** What a group of signs is explained by: whole places first, then the cylinders that are left. */
function groupDrafts({ patterns, alone }: Explained, tray: Tray): readonly Draft[] {
  const signs = [...new Set(alone.map(({ sign }) => sign))].filter(isAloneSign);
  return [
    ...patterns.map((pattern) => patternDraft(pattern, tray)),
    ...signs.flatMap((sign) => {
      const left = alone.filter((finding) => finding.sign === sign);
      const sites = left.map(({ site }) => site);
      const probability = left.reduce((sum, finding) => sum + finding.probability, 0) / left.length;
      return together(tray, ALONE_MEANS[sign], [sign], sites, probability);
    }),
  ];
}

function patternDraft({ rule, shape, sites, probability }: Pattern, tray: Tray): Draft {
  const affected = (site: Looked): boolean => shows(tray, site, rule.signs);
  return {
    rule,
    shape,
    signs: rule.signs,
    sites: sites.filter(affected),
    without: sites.filter((site) => !affected(site)),
    probability,
  };
}

/** So far over its limit a gap is worn out whatever else explains that it wears. */
const FAR_OVER = 1.2;
/** A second explanation for the same gaps. */
const ALSO = 0.6;

/** A gap over its limit is told whatever explains it: polarity makes one of a pair wear more, it does not make it good. */
function wearDrafts(tray: Tray): readonly Draft[] {
  const { looked, shown } = tray;
  const { gapLimitMm } = tray.reading;
  const explained = explain(GROUPS.wear, tray);
  const over = looked.filter((site) => shown(site, 'over'));
  const far = over.some(({ gapMm }) => (gapMm ?? 0) > FAR_OVER * (gapLimitMm ?? Number.POSITIVE_INFINITY));
  const within = explained.patterns.find(({ sites }) => over.every((site) => sites.includes(site)));
  const cylinders = new Set(over.map(({ cylinder }) => cylinder));
  const worn = cylinders.size === 1 ? RULES.gap_worn_in_one : RULES.gap_worn_out;
  // What grew or eroded at a site whose gap is over its limit is told with it.
  const others = { ...explained, alone: explained.alone.filter(({ site }) => !over.includes(site)) };
  return [
    ...groupDrafts(others, tray).map((draft) =>
      draft.rule === RULES.partner_polarity && far ? { ...draft, probability: ALSO * draft.probability } : draft,
    ),
    ...together(tray, worn, ['over', 'grown'], over, within && !far ? ALSO : 1),
  ];
}

/** How likely a sign of each severity is there, and not a mark that means nothing. */
const REAL = [0.45, 0.92, 0.97] as const;
const real = ({ severity }: Sign): number => REAL[severity - 1] ?? REAL[1];
/** Other causes look the same, or no place stands out. */
const AMBIGUOUS = 0.75;
/** Which end of the tray is which is not known: of single cylinders it may be the one at the other end. */
const UNDECLARED = 0.9;

/** That at least one of the signs is there: one after the other, each counts less than the one before. */
const surely = (signs: readonly Sign[]): number => 1 - signs.reduce((left, sign) => left * (1 - real(sign)), 1);

const MATTERS: Readonly<Record<Urgency, number>> = { stop: 100, before_return: 1.6, soon: 1.3, note: 1 };
const ORDER: readonly Cause[] = Object.values(RULES).map(({ id }) => id);
const HIGH = 0.9;
const MEDIUM = 0.6;
const confidenceOf = (probability: number): Confidence => {
  if (probability >= HIGH) return 'high';
  return probability >= MEDIUM ? 'medium' : 'low';
};

function weighed(
  { rule, shape, sites, signs, without = [], probability: given }: Draft,
  { reading, looked, shown }: Tray,
) {
  const signsAt = (site: Looked): readonly Sign[] => signs.flatMap((sign) => shown(site, sign) ?? []);
  const strongest = sites.flatMap((site) => [...signsAt(site)].sort((a, b) => b.severity - a.severity).slice(0, 1));
  const share = looked.length / reading.layout.sites.length;
  const probability =
    given *
    surely(strongest) *
    (rule.ambiguous || shape === 'some' ? AMBIGUOUS : 1) *
    (reading.directionKnown || shape === 'all' || shape === 'engine' ? 1 : UNDECLARED) *
    (shape === 'one' || shape === 'engine' ? 1 : Math.min(1, 0.5 + 0.6 * share));
  const { urgentWith } = rule;
  const urgent = urgentWith && sites.some((site) => shown(site, urgentWith.sign)) ? urgentWith : null;
  const urgency = urgent?.urgency ?? rule.urgency;
  const finding: Finding = {
    cause: rule.id,
    shape,
    sites: sites.map(key),
    evidence: sites.map((site) => ({
      ...key(site),
      words: signsAt(site)
        .map(({ words }) => words)
        .join(', '),
    })),
    against: without.map((site) => ({ ...key(site), words: against(site, signs) })),
    looked: looked.length,
    of: reading.layout.sites.length,
    confidence: rule.measured && probability < MEDIUM ? 'medium' : confidenceOf(probability),
    urgency,
    next: urgent ? [urgent.next, ...rule.next] : rule.next,
  };
  const isTurned = !reading.directionKnown && isOneBank(reading.layout, shape, sites);
  // In tenths: what is closer than that is told in the order of the rules.
  const weight = Math.round(10 * MATTERS[urgency] * probability);
  return { finding: isTurned ? unplaced(finding) : finding, weight };
}

/** Whether a finding is of one of two banks: of a bank as a whole, or of one of each pair where those are a bank. */
const isOneBank = ({ model: { banks } }: EngineReading['layout'], shape: Shape, sites: readonly SiteKey[]): boolean =>
  banks.length > 1 &&
  (shape === 'bank' ||
    (shape === 'partners' &&
      banks.some(({ cylinders }) => sites.every(({ cylinder }) => cylinders.includes(cylinder)))));

/** With two rows a tray that is read from its other end shows the other bank: until its direction is declared no side is named. */
function unplaced(finding: Finding): Finding {
  const seen = [...new Set(finding.evidence.map(({ words }) => words))].join('; ');
  return {
    ...finding,
    sites: [],
    evidence: [],
    against: [],
    confidence: finding.confidence === 'high' ? 'medium' : finding.confidence,
    next: [
      `One of the banks, nobody can tell which: declare which end of the tray is the front (${finding.sites.length} of one row: ${seen}).`,
      ...finding.next,
    ],
  };
}

const key = ({ cylinder, position }: SiteKey): SiteKey => ({ cylinder, position });

const isHealthy = ({ seen }: Looked): boolean =>
  seen.length > 0 && seen.every(({ condition }) => NORMAL.has(condition));

function healthy({ layout }: EngineReading, looked: readonly Looked[]): Finding {
  const whole = looked.length === layout.sites.length;
  return {
    cause: 'healthy' satisfies Cause,
    shape: looked.length > 1 ? 'all' : 'one',
    sites: looked.map(key),
    evidence: looked.map((site) => ({ ...key(site), words: site.seen.map(({ condition }) => condition).join(', ') })),
    against: [],
    looked: looked.length,
    of: layout.sites.length,
    confidence: whole ? 'high' : 'medium',
    urgency: 'note',
    next: [],
  };
}
