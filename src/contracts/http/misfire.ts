import { z } from 'zod';
import { SAID_KINDS } from '@/core/misfire/case-entry';
import { CASE_STATES, DECISIONS } from '@/core/misfire/case-state';
import { DRIVING } from '@/core/misfire/driving';
import { CAUSES, SUSPECT_PARTS, TEST_KINDS } from '@/core/misfire/misfire-case';
import { codesText, complaint, entryInput } from '../misfire';

/* Misfires over HTTP. */

export const casesQuery = z.object({
  unit: z.string().max(60).optional(),
  state: z.enum(CASE_STATES).optional(),
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  /** Number of the last case of the page before. */
  cursor: z.coerce.number().int().min(1).optional(),
});

const hypothesis = z.object({
  cause: z.enum(CAUSES),
  cylinders: z.array(z.number().int()),
  probability: z.number(),
});

export const caseItem = z.object({
  id: z.uuid(),
  number: z.number().int(),
  unit_number: z.string(),
  state: z.enum(CASE_STATES),
  opened_on: z.string(),
  opened_km: z.number().nullable(),
  points_to: hypothesis.nullable(),
  work_order: z.number().int().nullable(),
  watch_until_km: z.number().nullable(),
});
export const caseList = z.object({ items: z.array(caseItem), next_cursor: z.number().int().nullable() });

export const caseDetail = caseItem.extend({
  /** What was said, found, tried and decided, in its order. */
  entries: z.array(
    z.object({
      id: z.uuid(),
      at: z.string(),
      by: z.string().nullable(),
      said: z.looseObject({ kind: z.enum(SAID_KINDS) }),
    }),
  ),
  hypotheses: z.array(hypothesis),
  next: z
    .object({
      action: z.enum(['test', 'replace', 'refer', 'watch']),
      test: z.enum(['swap', ...TEST_KINDS]).nullable(),
      component: z.enum(SUSPECT_PARTS).nullable(),
      cylinders: z.array(z.number().int()),
      minutes: z.number(),
      expected_cost: z.number(),
      says: z.string(),
      why: z.string(),
    })
    .nullable(),
  stop_driving: z.boolean(),
  driving: z.enum(DRIVING),
  contradictions: z.array(z.string()),
});

export const reportBody = complaint.omit({ kind: true }).extend({
  unit_number: z.string().trim().min(1).max(60),
  /** As typed or as another program prints them. */
  codes: z.union([z.literal(''), codesText]).default(''),
});
export const reported = z.object({
  id: z.uuid(),
  number: z.number().int(),
  /** The vehicle had a case that this one goes on with. */
  goes_on: z.boolean(),
  stop_driving: z.boolean(),
});

export const caseEntriesBody = z.object({ entries: z.array(entryInput).min(1).max(50) });
export const caseEntriesKept = z.object({
  /** Those that were not there yet. */
  kept: z.number().int(),
});

export const decisionBody = z.object({
  decision: z.enum(DECISIONS),
  words: z.string().trim().max(500).default(''),
  /** What is mended or referred. */
  cause: z.object({ cause: z.enum(CAUSES), cylinders: z.array(z.number().int()).max(16) }).optional(),
});
export const decisionMade = z.object({
  /** The visit that is to cure it; null: it is none. */
  work_order_id: z.uuid().nullable(),
});
