import { standardCoils } from '../src/core/engine/coils';
import { layoutOf } from '../src/core/engine/layout';
import type { EngineModel, SiteKey } from '../src/core/engine/model';
import type { EngineReading, Finding, SiteReading } from '../src/core/inspection/finding';
import { readEngine } from '../src/core/inspection/findings';
import { ALL_NORMAL, CONDITIONS, type Condition } from '../src/core/inspection/vocabulary';

/* docs/judgement.md: trays of one class each, in which one rule used to err. What is right of each is said here by hand. */

type Rows = readonly (readonly number[])[];

function engine(
  ignition: EngineModel['ignition'],
  plugsPerCylinder: 1 | 2,
  rows: Rows,
  firingOrder: readonly number[],
) {
  const base = {
    arrangement: rows.length === 1 ? ('inline' as const) : ('v' as const),
    mounting: 'longitudinal' as const,
    ignition,
    plugsPerCylinder,
    banks: rows.map((cylinders, i) => ({
      place: rows.length === 1 ? ('only' as const) : ((['left', 'right'] as const)[i] ?? 'left'),
      cylinders,
    })),
    firingOrder,
  };
  return layoutOf({ ...base, coils: standardCoils(base), distributor: null });
}
const FOUR = engine('coil_on_plug', 1, [[1, 2, 3, 4]], [1, 3, 4, 2]);
const TWIN = engine('coil_on_plug', 2, [[1, 2, 3, 4]], [1, 3, 4, 2]);
const WASTE_FOUR = engine('waste_spark', 1, [[1, 2, 3, 4]], [1, 3, 4, 2]);
const V6_ROWS = [
  [1, 3, 5],
  [2, 4, 6],
];
const V6 = engine('coil_on_plug', 1, V6_ROWS, [1, 2, 3, 4, 5, 6]);
const WASTE_V6 = engine('waste_spark', 1, V6_ROWS, [1, 6, 5, 4, 3, 2]);
const V8_ROWS = [
  [1, 3, 5, 7],
  [2, 4, 6, 8],
];
const V8 = engine('coil_per_cylinder', 1, V8_ROWS, [1, 8, 4, 3, 6, 5, 7, 2]);
const LIMIT_MM = 1.4;

type Shows = Partial<Pick<SiteReading, 'gapMm' | 'wear'>> & { readonly words?: readonly Condition[] };

/** A tray of which some sites show something, and the rest is normal. */
function tray(
  layout: EngineReading['layout'],
  shows: (site: SiteKey) => Shows,
  { deactivated = [] as readonly number[], directionKnown = true } = {},
): EngineReading {
  const sites = layout.sites.map((site): SiteReading => {
    const { words = [], gapMm = 1.1, wear = null } = shows(site);
    const spoken = (normal: Condition): boolean =>
      Object.values(CONDITIONS).some(
        (region) =>
          (region as readonly Condition[]).includes(normal) &&
          words.some((word) => (region as readonly Condition[]).includes(word)),
      );
    const seen = [...words, ...ALL_NORMAL.filter((normal) => !spoken(normal))].map((condition) => ({
      condition,
      severity: 2 as const,
    }));
    return { cylinder: site.cylinder, position: site.position, seen, gapMm, breakaway: 'normal', differs: false, wear };
  });
  return { layout, deactivated, directionKnown, gapLimitMm: LIMIT_MM, sites };
}

const grownMm = (mm: number): Pick<SiteReading, 'wear' | 'gapMm'> => ({
  gapMm: 1 + mm,
  wear: { fittedMm: 1, removedMm: 1 + mm, sinceKm: 100_000 },
});

interface Class {
  readonly name: string;
  readonly trays: readonly EngineReading[];
  readonly isRight: (findings: readonly Finding[]) => boolean;
}

const cylindersOf = ({ sites }: EngineReading['layout']) => [...new Set(sites.map(({ cylinder }) => cylinder))];
const atCylinder = (layouts: readonly EngineReading['layout'][], words: readonly Condition[]) =>
  layouts.flatMap((layout) =>
    cylindersOf(layout).map((cylinder) =>
      tray(layout, (site) => (site.cylinder === cylinder && site.position === 'A' ? { words } : {})),
    ),
  );
const resting = (word: Condition) =>
  [
    [1, 4, 6, 7],
    [2, 3, 5, 8],
  ].map((rests) =>
    tray(V8, ({ cylinder }) => (rests.includes(cylinder) ? { words: [word] } : {}), { deactivated: rests }),
  );
const firstIs =
  (cause: Finding['cause']) =>
  ([first]: readonly Finding[]): boolean =>
    first?.cause === cause;
const alone =
  (cause: Finding['cause']) =>
  (findings: readonly Finding[]): boolean =>
    findings.length === 1 && findings[0]?.cause === cause;

const ONE_ROW: readonly (readonly Condition[])[] = [
  ['nose black dry'],
  ['nose black oily'],
  ['nose white'],
  ['electrodes eroded'],
];

const CLASSES: readonly Class[] = [
  {
    name: 'a burnt track explains soot at its place',
    trays: (['carbon track', 'boot tracked'] as const).flatMap((track) =>
      atCylinder([FOUR, TWIN, V6, V8], [track, 'nose black dry']),
    ),
    isRight: alone('tracked'),
  },
  {
    name: 'a cracked nose explains soot at its place',
    trays: atCylinder([FOUR, TWIN, V6, V8], ['insulator cracked', 'nose black dry']),
    isRight: alone('cracked'),
  },
  {
    name: 'one row of two differs: that row’s spark',
    trays: ONE_ROW.flatMap((words) =>
      (['A', 'B'] as const).map((row) => tray(TWIN, ({ position }) => (position === row ? { words } : {}))),
    ),
    isRight: firstIs('one_position_weak'),
  },
  {
    name: 'one of each waste-spark pair wears more: polarity',
    trays: [
      ...[
        [1, 3],
        [1, 2],
        [4, 3],
        [4, 2],
      ].map((ends) => tray(WASTE_FOUR, ({ cylinder }) => grownMm(ends.includes(cylinder) ? 0.3 : 0.1))),
      ...V6_ROWS.map((row) => tray(WASTE_V6, ({ cylinder }) => grownMm(row.includes(cylinder) ? 0.3 : 0.1))),
    ],
    isRight: firstIs('partner_polarity'),
  },
  {
    name: 'a bank wears faster where each cylinder has its coil',
    trays: [V6, V8].flatMap((layout) =>
      layout.model.banks.map((bank) =>
        tray(layout, ({ cylinder }) => grownMm(bank.cylinders.includes(cylinder) ? 0.3 : 0.1)),
      ),
    ),
    isRight: firstIs('bank_wears_faster'),
  },
  {
    name: 'oil at resting cylinders is urgent',
    trays: resting('nose black oily'),
    isRight: (findings) =>
      findings.some(
        ({ evidence, urgency }) => urgency !== 'note' && evidence.some(({ words }) => words.includes('oily')),
      ),
  },
  {
    name: 'soot alone at resting cylinders is not',
    trays: resting('nose black dry'),
    isRight: (findings) => firstIs('rests_at_part_load')(findings) && findings[0]?.urgency === 'note',
  },
  {
    name: 'a gap over its limit is never low',
    trays: [FOUR, TWIN, WASTE_FOUR, V6, WASTE_V6, V8].flatMap((layout) =>
      [true, false].flatMap((directionKnown) =>
        [1, 2, 3].map((every) =>
          tray(layout, ({ cylinder }) => (cylinder % every === 0 ? { gapMm: LIMIT_MM + 0.05 } : {}), {
            directionKnown,
          }),
        ),
      ),
    ),
    isRight: (findings) =>
      findings.some(({ cause, confidence }) => cause.startsWith('gap_worn') && confidence !== 'low'),
  },
];

let isWrong = false;
for (const { name, trays, isRight } of CLASSES) {
  const read = trays.map((one) => readEngine(one));
  const right = read.filter(isRight).length;
  isWrong ||= right < trays.length;
  process.stdout.write(`| ${name} | ${right} of ${trays.length} |\n`);
  if (process.argv.includes('-v'))
    for (const findings of read.filter((one) => !isRight(one)))
      process.stdout.write(
        `  ${findings.map(({ cause, urgency, confidence }) => `${cause} ${urgency} ${confidence}`).join('; ')}\n`,
      );
}
process.exitCode = isWrong ? 1 : 0;
