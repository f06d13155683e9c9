import { standardCoils } from '../src/core/engine/coils';
import { layoutOf } from '../src/core/engine/layout';
import type { EngineModel, SiteKey } from '../src/core/engine/model';
import type { Cause, EngineReading, Observation, SiteReading } from '../src/core/inspection/finding';
import { ALL_NORMAL, CONDITIONS, type Condition, NORMAL } from '../src/core/inspection/vocabulary';
import type { Random } from '../src/core/stats/seeded';
import { FAULTS, type Fault, type Leaves, pick } from './faults';

/* Trays of removed parts whose cause is known, with what a tired person makes of them. */

const engine = (
  arrangement: EngineModel['arrangement'],
  ignition: EngineModel['ignition'],
  plugsPerCylinder: 1 | 2,
  rows: readonly (readonly number[])[],
  firingOrder: readonly number[],
  rests: readonly number[] = [],
): { readonly model: EngineModel; readonly rests: readonly number[] } => {
  const places = rows.length === 1 ? (['only'] as const) : (['left', 'right'] as const);
  const base = {
    arrangement,
    mounting: 'longitudinal' as const,
    ignition,
    plugsPerCylinder,
    banks: rows.map((cylinders, i) => ({ place: places[i] ?? 'only', cylinders })),
    firingOrder,
  };
  return { model: { ...base, coils: standardCoils(base), distributor: null }, rests };
};
const V6 = [
  [1, 3, 5],
  [2, 4, 6],
];
const ENGINES = [
  engine('inline', 'coil_on_plug', 1, [[1, 2, 3]], [1, 2, 3]),
  engine('inline', 'coil_on_plug', 1, [[1, 2, 3, 4]], [1, 3, 4, 2]),
  engine('inline', 'waste_spark', 1, [[1, 2, 3, 4]], [1, 3, 4, 2]),
  engine('inline', 'coil_on_plug', 2, [[1, 2, 3, 4]], [1, 3, 4, 2]),
  engine('inline', 'coil_on_plug', 1, [[1, 2, 3, 4, 5, 6]], [1, 5, 3, 6, 2, 4]),
  engine('v', 'coil_on_plug', 1, V6, [1, 2, 3, 4, 5, 6]),
  engine('v', 'waste_spark', 1, V6, [1, 6, 5, 4, 3, 2]),
  engine(
    'v',
    'coil_per_cylinder',
    1,
    [
      [1, 3, 5, 7],
      [2, 4, 6, 8],
    ],
    [1, 8, 4, 3, 6, 5, 7, 2],
    [1, 4, 6, 7],
  ),
  engine(
    'flat',
    'waste_spark',
    1,
    [
      [1, 3],
      [2, 4],
    ],
    [1, 3, 2, 4],
  ),
];

/** Of whole trays: how often a sign is seen, and how often a site has a faint mark that means nothing. */
export const NOISE = {
  none: { seen: 1, stray: 0 },
  little: { seen: 0.9, stray: 0.02 },
  much: { seen: 0.75, stray: 0.06 },
} as const;
export type Noise = keyof typeof NOISE;

/** What a smear, a speck or bad light can make one see, and how often. Nobody sees a torn boot that is whole. */
const MISTAKEN: Leaves = [
  ['nose white', 4],
  ['nose black dry', 4],
  ['nose black oily', 2],
  ['nose coloured trace', 1],
  ['nose washed clean', 1],
  ['ash', 4],
  ['glazed', 1],
  ['electrodes eroded', 4],
  ['electrodes peppered', 1],
  ['threads rusted', 4],
  ['seat sooted', 2],
  ['insulator oily', 4],
  ['carbon track', 2],
  ['oil in well', 2],
  ['water in well', 2],
  ['debris in well', 4],
  ['boot swollen', 2],
];
const GAP_MM = 1.1;
const SINCE_KM = 100_000;
const GROWN_MM = 0.1;

interface Tray {
  readonly reading: EngineReading;
  /** What acts: one cause, rarely two, sometimes none. */
  readonly causes: readonly Cause[];
  /** Something of it can still be seen. */
  readonly visible: boolean;
}

function byWeight<T>(items: readonly T[], weightOf: (item: T) => number, random: Random): T {
  let left = random() * items.reduce((sum, item) => sum + weightOf(item), 0);
  return (
    items.find((item) => {
      left -= weightOf(item);
      return left <= 0;
    }) ?? (items[0] as T)
  );
}

/** A tray. The same seed gives the same one. @param random from 0 to 1 */
export function tray(noise: Noise, random: Random): Tray {
  const { model, rests } = pick(ENGINES, random);
  const layout = layoutOf(model);
  const wanted = byWeight(
    [
      [0, 8],
      [1, 83],
      [2, 9],
    ] as const,
    ([, weight]) => weight,
    random,
  )[0];
  const acting: { readonly fault: Fault; readonly sites: readonly SiteKey[] }[] = [];
  while (acting.length < wanted) {
    const fault = byWeight(FAULTS, ({ weight }) => weight, random);
    const sites = fault.acts(layout, rests, random);
    if (sites && acting.every((one) => one.fault !== fault)) acting.push({ fault, sites });
  }
  let visible = wanted === 0;
  const sites = layout.sites.map((site): SiteReading => {
    const at = acting.filter(({ sites: on }) =>
      on.some((one) => one.cylinder === site.cylinder && one.position === site.position),
    );
    const made = siteOf(
      site,
      at.map(({ fault }) => fault),
      noise,
      random,
    );
    visible ||= made.shows;
    return made.reading;
  });
  return {
    reading: { layout, deactivated: rests, directionKnown: true, gapLimitMm: 1.4, sites },
    causes: acting.length === 0 ? ['healthy'] : acting.map(({ fault }) => fault.cause),
    visible,
  };
}

function siteOf({ cylinder, position }: SiteKey, faults: readonly Fault[], noise: Noise, random: Random) {
  const { seen: seenShare, stray } = NOISE[noise];
  const drawn = (leaves: Leaves): readonly Condition[] =>
    leaves.filter(([, often]) => random() < often).map(([word]) => word);
  const left = faults.flatMap(({ leaves, beside = [] }) => {
    const words = drawn(leaves);
    return [...(words.length > 0 ? words : leaves.slice(0, 1).map(([word]) => word)), ...drawn(beside)];
  });
  const noticed = left.filter(() => random() < seenShare);
  const overlooked = left.filter((word) => !noticed.includes(word));
  const observations: Observation[] = noticed.map((condition) => ({ condition, severity: severityOf(random) }));
  if (random() < stray) {
    const condition = byWeight(MISTAKEN, ([, weight]) => weight, random)[0];
    if (!noticed.includes(condition)) observations.push({ condition, severity: 1 });
  }
  // A region in which nothing was noticed is called normal, or passed over.
  for (const word of ALL_NORMAL) {
    const region = Object.values(CONDITIONS).find((words) =>
      (words as readonly Condition[]).includes(word),
    ) as readonly Condition[];
    const spoken = observations.some(({ condition }) => region.includes(condition));
    const passedOver = overlooked.some((one) => region.includes(one)) && random() < 0.5;
    if (!spoken && !passedOver) observations.push({ condition: word, severity: 2 });
  }
  const loose = faults.some((fault) => fault.loose) && random() < Math.max(seenShare, 0.95);
  const differs = faults.some((fault) => fault.differs);
  const gapFault = faults.find(({ gap }) => gap);
  const grows = faults.reduce((sum, { growsMm = 0 }) => sum + growsMm, 0);
  const gauge = noise === 'none' ? 0 : 0.02 * (random() - 0.5);
  const gapMm = gapFault?.gap?.(random) ?? GAP_MM + grows + gauge;
  const growth = (gapFault ? gapMm - GAP_MM : grows) + GROWN_MM * (1 + (noise === 'none' ? 0 : 0.4 * (random() - 0.5)));
  const reading: SiteReading = {
    cylinder,
    position,
    seen: observations,
    gapMm,
    breakaway: loose ? 'loose' : 'normal',
    differs,
    wear: { fittedMm: gapMm - growth, removedMm: gapMm, sinceKm: SINCE_KM },
  };
  const shows = noticed.some((word) => !NORMAL.has(word)) || loose || differs || Boolean(gapFault) || grows > 0;
  return { reading, shows };
}

const severityOf = (random: Random): 1 | 2 | 3 => {
  const at = random();
  if (at < 0.15) return 1;
  return at < 0.65 ? 2 : 3;
};
