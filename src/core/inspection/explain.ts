import type { EngineReading } from './finding';
import type { Rule } from './rule';
import { ALONE } from './rules';
import { type PlaceSites, placesOf } from './shape';
import { type Looked, missed, type Sign, type SignName } from './signs';

/* Which causes, each acting on a place as a whole, explain what a tray shows of one group of signs: by Bayes' rule over all
   sets of up to three causes, the empty set among them, which leaves every sign to a fault of its own cylinder. */

/** Signs that share causes, and the causes that act on whole places. */
export interface Group {
  readonly signs: readonly SignName[];
  readonly rules: readonly Rule[];
}

/** A cause that acts on a place. */
export interface Pattern extends PlaceSites<Looked> {
  readonly rule: Rule;
  /** From 0 to 1, given that what was seen was there. */
  readonly probability: number;
}

/** A sign at a site that no pattern of the best set explains. */
interface Alone {
  readonly site: Looked;
  readonly sign: SignName;
  /** That it is a fault of its own, from 0 to 1. */
  readonly probability: number;
}

export interface Explained {
  readonly patterns: readonly Pattern[];
  readonly alone: readonly Alone[];
}

/** What came out of an engine, with every sign of it looked for once. */
export interface Tray {
  readonly reading: EngineReading;
  /** Sites that were looked at; the others are no evidence. */
  readonly looked: readonly Looked[];
  /** What a sign looks like at a site, where it is there. */
  readonly shown: (site: Looked, sign: SignName) => Sign | null;
}

/** Whether a site shows any of these. */
export const shows = ({ shown }: Tray, site: Looked, signs: readonly SignName[]): boolean =>
  signs.some((sign) => shown(site, sign));

type Candidate = PlaceSites<Looked> & { readonly rule: Rule; readonly prior: number };

/** Two may act at once, seldom three; more have never been told apart. */
const AT_ONCE = 3;
/** Of all candidates only so many, the likeliest alone, are taken together. */
const TOGETHER = 8;
const SEEN = Math.log(0.9);

/**
 * The likeliest set of causes for a group of signs.
 *
 * @returns patterns of the likeliest set, and what it leaves to single cylinders, each with its probability over all sets
 */
export function explain({ signs, rules }: Group, tray: Tray): Explained {
  const { looked, shown } = tray;
  const there = looked.flatMap((site) => signs.flatMap((sign) => (shown(site, sign) ? [{ site, sign }] : [])));
  if (there.length === 0) return { patterns: [], alone: [] };
  const candidates = rules.flatMap((rule) => candidatesOf(rule, tray));
  const weigh = (set: readonly Candidate[]) => logWeight(set, there, tray);
  const likeliest = [...candidates].sort((a, b) => weigh([b]) - weigh([a])).slice(0, TOGETHER);
  const sets = subsets(likeliest).map((set) => ({ set, log: weigh(set) }));
  const best = sets.reduce((a, b) => (b.log > a.log ? b : a));
  const weights = sets.map(({ set, log }) => ({ set, weight: Math.exp(log - best.log) }));
  const total = weights.reduce((sum, { weight }) => sum + weight, 0);
  const share = (counts: (set: readonly Candidate[]) => boolean): number =>
    weights.reduce((sum, { set, weight }) => (counts(set) ? sum + weight : sum), 0) / total;
  return {
    patterns: best.set.map((pattern) => ({ ...pattern, probability: share((set) => set.includes(pattern)) })),
    alone: there
      .filter(({ site, sign }) => !explains(best.set, site, sign))
      .map(({ site, sign }) => ({ site, sign, probability: share((set) => !explains(set, site, sign)) })),
  };
}

/** The places on which a cause may act: half of the sites and two cylinders at least show it. */
function candidatesOf(rule: Rule, tray: Tray): readonly Candidate[] {
  const affected = (site: Looked): boolean => shows(tray, site, rule.signs);
  return placesOf(tray.reading, tray.looked, affected).flatMap(({ shape, sites }) => {
    const prior = rule.places?.[shape];
    const showing = sites.filter(affected);
    const cylinders = new Set(showing.map(({ cylinder }) => cylinder));
    return prior && cylinders.size >= 2 && 2 * showing.length >= sites.length ? [{ rule, shape, sites, prior }] : [];
  });
}

const explains = (set: readonly Candidate[], site: Looked, sign: SignName): boolean =>
  set.some(({ rule, sites }) => rule.signs.includes(sign) && sites.includes(site));

/** ln of the prior of a set of causes times the likelihood of what is there, and of what is not. */
function logWeight(
  set: readonly Candidate[],
  there: readonly { readonly site: Looked; readonly sign: SignName }[],
  tray: Tray,
): number {
  let log = 0;
  for (const { rule, sites, prior } of set) {
    log += Math.log(prior);
    for (const site of sites) if (!shows(tray, site, rule.signs)) log += Math.log(missed(site, rule.signs));
  }
  // A fault of its own shows at every plug of its cylinder and is counted once.
  const keys = new Set<string>();
  for (const { site, sign } of there) {
    const fault = `${sign} ${site.cylinder}`;
    if (explains(set, site, sign) || keys.has(fault)) log += SEEN;
    else {
      keys.add(fault);
      log += Math.log(ALONE);
    }
  }
  return log;
}

function subsets<T>(items: readonly T[]): readonly (readonly T[])[] {
  let sets: readonly (readonly T[])[] = [[]];
  for (const item of items)
    sets = [...sets, ...sets.filter(({ length }) => length < AT_ONCE).map((set) => [...set, item])];
  return sets;
}
