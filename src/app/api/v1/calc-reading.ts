import { z } from 'zod';
import { standardCoils } from '@/core/engine/coils';
import { layoutOf, modelFaults } from '@/core/engine/layout';
import {
  ARRANGEMENTS,
  BANK_PLACES,
  type EngineModel,
  IGNITIONS,
  MOUNTINGS,
  POSITIONS,
  siteId,
} from '@/core/engine/model';
import { CAUSES, CONFIDENCES, URGENCIES } from '@/core/inspection/finding';
import { readEngine } from '@/core/inspection/findings';
import { SHAPES } from '@/core/inspection/shape';
import { ALL_CONDITIONS, BREAKAWAY_FEELS, isCondition } from '@/core/inspection/vocabulary';
import { calculation } from './calculation';

const cylinder = z.number().int().min(1).max(16);
const site = z.object({ cylinder, position: z.enum(POSITIONS).default('A') });

const layoutInput = z
  .object({
    arrangement: z.enum(ARRANGEMENTS),
    mounting: z.enum(MOUNTINGS).default('longitudinal'),
    ignition: z.enum(IGNITIONS).default('coil_on_plug'),
    plugs_per_cylinder: z.union([z.literal(1), z.literal(2)]).default(1),
    /** Bank 1 first, the one that holds cylinder 1; cylinders in their order along it. */
    banks: z
      .array(z.object({ place: z.enum(BANK_PLACES), cylinders: z.array(cylinder).min(1).max(16) }))
      .min(1)
      .max(2),
    firing_order: z.array(cylinder).min(1).max(16),
    /** Cylinders that rest at part load. */
    deactivated: z.array(cylinder).max(16).default([]),
  })
  .superRefine((input, check) => {
    if (check.issues.length > 0) return;
    const odd = input.ignition === 'waste_spark' && input.firing_order.length % 2 === 1;
    const faults = odd ? ['waste spark needs an even number of cylinders'] : modelFaults(modelOf(input));
    for (const message of faults) check.addIssue({ code: 'custom', message });
  });

function modelOf(input: {
  arrangement: EngineModel['arrangement'];
  mounting: EngineModel['mounting'];
  ignition: EngineModel['ignition'];
  plugs_per_cylinder: 1 | 2;
  banks: EngineModel['banks'];
  firing_order: readonly number[];
}): EngineModel {
  const { arrangement, mounting, ignition, banks } = input;
  const base = {
    arrangement,
    mounting,
    ignition,
    banks,
    plugsPerCylinder: input.plugs_per_cylinder,
    firingOrder: input.firing_order,
  };
  return {
    ...base,
    coils: standardCoils(base),
    distributor: ignition === 'distributor' ? { rotation: 'clockwise', towerOfCylinder1: 1 } : null,
  };
}

const condition = z.string().refine(isCondition, {
  message: `One of: ${ALL_CONDITIONS.join(', ')}.`,
});
const readingInput = z
  .object({
    layout: layoutInput,
    direction_known: z.boolean().default(true),
    gap_limit_mm: z.number().gt(0).max(25).optional(),
    /** A site that is left out was not looked at. */
    sites: z
      .array(
        site.extend({
          observations: z
            .array(z.object({ condition, severity: z.union([z.literal(1), z.literal(2), z.literal(3)]).default(2) }))
            .max(40),
          gap_mm: z.number().gt(0).max(25).optional(),
          breakaway: z.enum(BREAKAWAY_FEELS).optional(),
          fitted_gap_mm: z.number().gt(0).max(25).optional(),
          since_km: z.number().gt(0).max(3_000_000).optional(),
          /** Its number is not the one on record. */
          differs: z.boolean().optional(),
        }),
      )
      .min(1)
      .max(32),
  })
  .superRefine(({ layout, sites }, check) => {
    if (check.issues.length > 0) return;
    const known = new Set(layoutOf(modelOf(layout)).sites.map(siteId));
    const seen = new Set<string>();
    sites.forEach((given, i) => {
      const id = siteId(given);
      if (!known.has(id))
        check.addIssue({ code: 'custom', path: ['sites', i], message: `This engine has no cylinder ${id}.` });
      if (seen.has(id))
        check.addIssue({ code: 'custom', path: ['sites', i], message: `Cylinder ${id} is given twice.` });
      seen.add(id);
    });
  });

const where = z.object({ cylinder, position: z.enum(POSITIONS) });
const readingOutput = z.object({
  findings: z.array(
    z.object({
      cause: z.enum(CAUSES),
      shape: z.enum(SHAPES),
      sites: z.array(where),
      confidence: z.enum(CONFIDENCES),
      urgency: z.enum(URGENCIES),
      evidence: z.array(where.extend({ words: z.string() })),
      /** Sites of that place that were looked at and show something else. */
      against: z.array(where.extend({ words: z.string() })),
      /** Plugs that were looked at, of all that the engine has. */
      looked: z.number().int(),
      of: z.number().int(),
      next: z.array(z.string()),
    }),
  ),
});

function reading(input: z.output<typeof readingInput>): z.output<typeof readingOutput> {
  const layout = layoutOf(modelOf(input.layout));
  const given = new Map(input.sites.map((site) => [siteId(site), site]));
  const findings = readEngine({
    layout,
    deactivated: input.layout.deactivated,
    directionKnown: input.direction_known,
    gapLimitMm: input.gap_limit_mm ?? null,
    sites: layout.sites.map((place) => {
      const observed = given.get(siteId(place));
      const { fitted_gap_mm: fittedMm, gap_mm: removedMm, since_km: sinceKm } = observed ?? {};
      return {
        cylinder: place.cylinder,
        position: place.position,
        seen: observed?.observations ?? null,
        gapMm: observed?.gap_mm ?? null,
        breakaway: observed?.breakaway ?? null,
        differs: observed?.differs ?? null,
        wear: fittedMm && removedMm && sinceKm ? { fittedMm, removedMm, sinceKm } : null,
      };
    }),
  });
  return {
    findings: findings.map((finding) => ({
      ...finding,
      sites: [...finding.sites],
      evidence: [...finding.evidence],
      against: [...finding.against],
      next: [...finding.next],
    })),
  };
}

export const READING_CALCULATION = calculation(
  'What the removed parts of an engine say together, with evidence and what to check next',
  readingInput,
  readingOutput,
  reading,
);
