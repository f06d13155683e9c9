import { engine, inline4, transverseV6 as v6 } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import type { EngineModel } from '../engine/model';
import { siteId } from '../engine/model';
import type { EngineReading, Finding, Observation, SiteReading } from './finding';
import type { Condition } from './vocabulary';

/* Engines, and what their removed plugs show, for the tests of findings. */

export const wasteSpark4 = engine({ ...inline4, ignition: 'waste_spark', coils: undefined as never });
export const twin4 = engine({ ...inline4, plugsPerCylinder: 2, coils: undefined as never });
export const v8 = engine({
  arrangement: 'v',
  mounting: 'longitudinal',
  ignition: 'coil_per_cylinder',
  plugsPerCylinder: 1,
  banks: [
    { place: 'left', cylinders: [1, 3, 5, 7] },
    { place: 'right', cylinders: [2, 4, 6, 8] },
  ],
  firingOrder: [1, 8, 4, 3, 6, 5, 7, 2],
});
export const flat4 = engine({
  arrangement: 'flat',
  mounting: 'longitudinal',
  ignition: 'waste_spark',
  plugsPerCylinder: 1,
  banks: [
    { place: 'right', cylinders: [1, 3] },
    { place: 'left', cylinders: [2, 4] },
  ],
  firingOrder: [1, 3, 2, 4],
});
export const inline3 = engine({
  ...inline4,
  banks: [{ place: 'only', cylinders: [1, 2, 3] }],
  firingOrder: [1, 2, 3],
  coils: undefined as never,
});

export const wasteSparkV6 = engine({ ...v6, ignition: 'waste_spark', coils: undefined as never });

const GOOD: readonly Condition[] = ['nose tan', 'no deposits', 'electrodes sharp'];
export const RESTS = [1, 4, 6, 7];

export interface Shown {
  readonly conditions?: readonly Condition[] | null;
  readonly severity?: Observation['severity'];
  readonly gap?: number;
  readonly breakaway?: SiteReading['breakaway'];
  readonly differs?: boolean;
  /** Grown since it was fitted at 1.0 mm, 100,000 km ago. */
  readonly grownMm?: number;
}

export const bad = (...conditions: Condition[]): Shown => ({ conditions });
export const unseen: Shown = { conditions: null };

/** An engine in which the sites named show something and all others are as they should be. "3" names every plug of 3. */
export function reading(
  model: EngineModel,
  shown: Readonly<Record<string, Shown>>,
  over: Partial<Omit<EngineReading, 'sites' | 'layout'>> = {},
): EngineReading {
  const layout = layoutOf(model);
  return {
    layout,
    deactivated: [],
    directionKnown: true,
    gapLimitMm: 1.4,
    ...over,
    sites: layout.sites.map((site): SiteReading => {
      const {
        conditions,
        severity = 2,
        gap = 1.1,
        breakaway = 'normal',
        differs = false,
        grownMm,
      } = shown[siteId(site)] ?? shown[String(site.cylinder)] ?? shown.rest ?? {};
      const words = conditions === undefined ? GOOD : conditions;
      return {
        cylinder: site.cylinder,
        position: site.position,
        seen: words === null ? null : words.map((condition) => ({ condition, severity })),
        gapMm: gap,
        breakaway,
        differs,
        wear: grownMm === undefined ? null : { fittedMm: 1, removedMm: 1 + grownMm, sinceKm: 100_000 },
      };
    }),
  };
}

export const told = (findings: readonly Finding[]) =>
  findings.map(({ cause, shape, sites }) => `${cause} ${shape} ${sites.map(({ cylinder }) => cylinder).join(' ')}`);

export const soot = bad('nose black dry');
export const oily = bad('nose black oily');
export const white = bad('nose white');
export const trace = bad('nose coloured trace');
export const washed = bad('nose washed clean');
export const worn: Shown = { gap: 1.6 };
export const rest = (shown: Shown) => ({ rest: shown });
