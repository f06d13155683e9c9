import type { SiteKey } from '../engine/model';
import { type CoolantCause, coolantCauses } from './coolant';
import { type Explained, explain, type Group, type Pattern, type Shown } from './explain';
import type { Cause, Confidence, EngineReading, Finding, Urgency } from './finding';
import { RULES, type Rule } from './rules';
import { type Shape, shapeOf } from './shape';
import { against, type Looked, SIGNS, type Sign, type SignName } from './signs';
import { NORMAL } from './vocabulary';

const GROUPS = {
  hot: { signs: ['hot'], rules: [RULES.bank_lean, RULES.runner_leak, RULES.lean_or_hot] },
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
    rules: [RULES.partner_polarity, RULES.bank_wears_faster, RULES.electrodes_worn],
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
  const looked = reading.sites.filter((site): site is Looked => site.seen !== null);
  if (looked.length === 0) return [];
  const shown = signsOf(reading, looked);
  const drafts = [
    ...coolantCauses(
      reading.layout,
      looked.filter((site) => shown(site, 'coolant')),
    ).map((found) => coolantDraft(found, reading, looked)),
    ...ANYWHERE.flatMap((rule) =>
      together(
        rule,
        rule.signs,
        looked.filter((site) => rule.signs.some((sign) => shown(site, sign))),
        reading,
        looked,
      ),
    ),
    ...[GROUPS.hot, GROUPS.dark].flatMap((group) =>
      groupDrafts(explain(group, reading, looked, shown), reading, looked, shown),
    ),
    ...wearDrafts(reading, looked, shown),
  ];
  if (drafts.length === 0) return looked.every(isHealthy) ? [healthy(reading, looked)] : [];
  return drafts
    .map((draft) => weighed(draft, reading, looked, shown))
    .sort((a, b) => b.weight - a.weight || ORDER.indexOf(a.finding.cause) - ORDER.indexOf(b.finding.cause))
    .map(({ finding }) => finding);
}

/** Every sign of every site, looked for once. */
function signsOf(reading: EngineReading, looked: readonly Looked[]): Shown {
  const names = Object.keys(SIGNS) as SignName[];
  const all = new Map(
    looked.map((site) => [site, new Map(names.map((name) => [name, SIGNS[name](site, reading)] as const))] as const),
  );
  return (site, sign) => all.get(site)?.get(sign) ?? null;
}

function together(
  rule: Rule,
  signs: readonly SignName[],
  sites: readonly Looked[],
  reading: EngineReading,
  looked: readonly Looked[],
  probability = 1,
): readonly Draft[] {
  return sites.length === 0 ? [] : [{ rule, signs, sites, shape: shapeOf(reading, sites, looked), probability }];
}

const coolantDraft = ({ cause, sites }: CoolantCause, reading: EngineReading, looked: readonly Looked[]): Draft => ({
  rule: RULES[cause],
  sites,
  shape: shapeOf(reading, sites, looked),
  signs: ['coolant'],
  probability: 1,
});

/** What a group of signs is explained by: whole places first, then the cylinders that are left. */
function groupDrafts(
  { patterns, alone }: Explained,
  reading: EngineReading,
  looked: readonly Looked[],
  shown: Shown,
): readonly Draft[] {
  const signs = [...new Set(alone.map(({ sign }) => sign))].filter(isAloneSign);
  return [
    ...patterns.map((pattern) => patternDraft(pattern, shown)),
    ...signs.flatMap((sign) => {
      const left = alone.filter((one) => one.sign === sign);
      return together(
        ALONE_MEANS[sign],
        [sign],
        left.map(({ site }) => site),
        reading,
        looked,
        left.reduce((sum, { probability }) => sum + probability, 0) / left.length,
      );
    }),
  ];
}

function patternDraft({ rule, shape, sites, probability }: Pattern, shown: Shown): Draft {
  const shows = (site: Looked): boolean => rule.signs.some((sign) => shown(site, sign));
  return {
    rule,
    shape,
    signs: rule.signs,
    sites: sites.filter(shows),
    without: sites.filter((site) => !shows(site)),
    probability,
  };
}

/** So far over its limit a gap is worn out whatever else explains that it wears. */
const FAR_OVER = 1.2;
/** A second explanation for the same gaps. */
const ALSO = 0.6;

/** A gap over its limit is told whatever explains it: polarity makes one of a pair wear more, it does not make it good. */
function wearDrafts(reading: EngineReading, looked: readonly Looked[], shown: Shown): readonly Draft[] {
  const explained = explain(GROUPS.wear, reading, looked, shown);
  const over = looked.filter((site) => shown(site, 'over'));
  const isOver = (site: Looked): boolean => over.includes(site);
  const far = over.some(({ gapMm }) => (gapMm ?? 0) > FAR_OVER * (reading.gapLimitMm ?? Number.POSITIVE_INFINITY));
  const within = explained.patterns.find(({ sites }) => over.every((site) => sites.includes(site)));
  const cylinders = new Set(over.map(({ cylinder }) => cylinder));
  const worn = cylinders.size === 1 ? RULES.gap_worn_in_one : RULES.gap_worn_out;
  // What grew or eroded at a site whose gap is over its limit is told with it.
  const others = { ...explained, alone: explained.alone.filter(({ site }) => !isOver(site)) };
  return [
    ...groupDrafts(others, reading, looked, shown).map((draft) =>
      draft.rule === RULES.partner_polarity && far ? { ...draft, probability: ALSO * draft.probability } : draft,
    ),
    ...together(worn, ['over', 'grown'], over, reading, looked, within && !far ? ALSO : 1),
  ];
}

/** How likely a sign of each severity is there, and not a mark that means nothing. */
const REAL = [0.45, 0.92, 0.97] as const;
const real = ({ severity }: Sign): number => REAL[severity - 1] ?? REAL[1];
/** Other causes look the same, or no place stands out. */
const AMBIGUOUS = 0.75;
/** Which end of the tray is which is not known. */
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
  reading: EngineReading,
  looked: readonly Looked[],
  shown: Shown,
) {
  const signsAt = (site: Looked): readonly Sign[] => signs.flatMap((sign) => shown(site, sign) ?? []);
  const strongest = sites.flatMap((site) => [...signsAt(site)].sort((a, b) => b.severity - a.severity).slice(0, 1));
  const share = looked.length / reading.layout.sites.length;
  const probability =
    given *
    surely(strongest) *
    (rule.ambiguous || shape === 'some' ? AMBIGUOUS : 1) *
    (reading.directionKnown || shape === 'all' ? 1 : UNDECLARED) *
    (shape === 'one' ? 1 : Math.min(1, 0.5 + 0.6 * share));
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
    confidence: confidenceOf(probability),
    urgency: rule.urgency,
    next: rule.next,
  };
  // In tenths: what is closer than that is told in the order of the rules.
  return { finding, weight: Math.round(10 * MATTERS[rule.urgency] * probability) };
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
