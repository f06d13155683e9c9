import { z } from 'zod';
import { codesIn } from '@/core/engine/fault-code';
import { LAMPS, type Said } from '@/core/misfire/case-entry';
import {
  CAUSES,
  type DoneTest,
  FOUND_WORDS,
  MOVABLE_PARTS,
  SUSPECT_PARTS,
  SWAP_OUTCOMES,
  SYMPTOMS,
  TEST_KINDS,
  TEST_OUTCOMES,
  type TestOutcome,
} from '@/core/misfire/misfire-case';

/* What a screen, a device or a program may say of a misfire, and tests as they stand on every border. */

export const cylinder = z.number('Name a cylinder by its number.').int().min(1).max(16);
/** A cause, with the cylinders that it is looked for at. */
export const cause = z.object({ cause: z.enum(CAUSES), cylinders: z.array(z.number().int().min(1).max(16)).max(16) });
const words = z.string().trim().max(500, 'At most 500 characters.');
const share = z.number().min(0, 'Between empty and full.').max(1, 'Between empty and full.');

const swapParts = {
  moved: z.array(z.enum(MOVABLE_PARTS)).min(1, 'Say which parts changed places.').max(MOVABLE_PARTS.length),
  from: cylinder,
  to: cylinder,
  /** The boots stayed on their plugs: else they go with the coils that they hang on. */
  boots_stayed: z.boolean().optional(),
};
const twoPlaces = ({ from, to }: { readonly from: number; readonly to: number }): boolean => from !== to;
const TWO_PLACES = { path: ['to'], message: 'Two parts change places: name another cylinder.' };

export const swapDone = z
  .object({ test: z.literal('swap'), ...swapParts, outcome: z.enum(SWAP_OUTCOMES) })
  .refine(twoPlaces, TWO_PLACES);

const ALL_OUTCOMES = [...new Set(Object.values(TEST_OUTCOMES).flat())] as [TestOutcome, ...TestOutcome[]];
export const otherTestDone = z
  .object({
    test: z.enum(TEST_KINDS),
    component: z.enum(SUSPECT_PARTS).nullable().default(null),
    cylinder: cylinder.nullable().default(null),
    outcome: z.enum(ALL_OUTCOMES),
  })
  .superRefine(({ test, outcome }, context) => {
    const possible: readonly string[] = TEST_OUTCOMES[test];
    if (!possible.includes(outcome))
      context.addIssue({ code: 'custom', path: ['outcome'], message: `of ${test} it is ${possible.join(', ')}` });
  });

/** A test as the core has it. */
export function asTest(test: z.output<typeof swapDone> | z.output<typeof otherTestDone>): DoneTest {
  if (test.test !== 'swap') return test;
  const { boots_stayed: bootsStayed, ...swap } = test;
  return bootsStayed ? { ...swap, bootsStayed } : swap;
}

/** One fault code: P, B, C or U and four characters. */
export const faultCode = z
  .string()
  .trim()
  .toUpperCase()
  .regex(/^[PBCU][0-9A-F]{4}$/, 'This is no fault code: a letter P, B, C or U and four characters, as P0301.');

/** Codes as they are typed, or as another program prints them: whatever stands around them is left out. */
export const codesText = z
  .string()
  .max(20_000, 'At most 20,000 characters.')
  .refine(
    (text) => codesIn(text).length > 0,
    'There is no fault code in this: a letter P, B, C or U and four characters, as P0301.',
  );

export const complaint = z.object({
  kind: z.literal('complaint'),
  words: words.default(''),
  symptoms: z.array(z.enum(SYMPTOMS)).max(SYMPTOMS.length).default([]),
  lamp: z.enum(LAMPS, 'Say whether the engine lamp is off, on or flashing.'),
  /** Named in words. */
  cylinders: z.array(cylinder).max(16).default([]),
});

const code = z.object({
  code: faultCode,
  freeze: z.record(z.string().max(40), z.string().max(60)).default({}),
});

/** What may be said; what is decided has a use-case of its own. */
const saidInput = z.discriminatedUnion('kind', [
  complaint,
  z.object({
    kind: z.literal('codes'),
    codes: z.array(code).max(60),
    source: z.string().trim().max(60).default('typed'),
  }),
  z.object({
    kind: z.literal('counts'),
    /** Misfires in 1,000 firings. */
    counts: z
      .array(
        z.object({
          cylinder,
          misfires: z
            .number('Give misfires in 1,000 firings, 0 to 1000.')
            .min(0, 'Give misfires in 1,000 firings, 0 to 1000.')
            .max(1000, 'Give misfires in 1,000 firings, 0 to 1000.'),
        }),
      )
      .min(1, 'Give the count of one cylinder at least.')
      .max(16),
  }),
  z.object({ kind: z.literal('found'), cylinder, word: z.enum(FOUND_WORDS) }),
  z.object({ kind: z.literal('swapped'), ...swapParts }).refine(twoPlaces, TWO_PLACES),
  z.object({ kind: z.literal('put_back'), ...swapParts }).refine(twoPlaces, TWO_PLACES),
  z.object({ kind: z.literal('test'), test: z.union([swapDone, otherTestDone]) }),
  z
    .object({
      kind: z.literal('tank'),
      moment: z.enum(['usual', 'now', 'after']),
      km: z.number().min(1, 'At least 1 km.').max(5000),
      /** Of the gauge, from 0 to 1, at the begin and at the end of the drive. */
      from: share,
      to: share,
    })
    .refine(({ from, to }) => to < from, { path: ['to'], message: 'The tank is emptier at the end of the drive.' }),
  z.object({
    kind: z.literal('changed'),
    words: words.min(2, 'Say what changed.'),
    /** How long ago, km. */
    km: z.number().min(0).max(1_000_000),
  }),
  z.object({ kind: z.literal('note'), words: words.min(1, 'Write something.') }),
]);
export type SaidInput = z.output<typeof saidInput>;

/** What is said, as it is kept. */
export function asSaid(input: SaidInput): Said {
  switch (input.kind) {
    case 'test':
      return { kind: 'test', test: asTest(input.test) };
    case 'swapped':
    case 'put_back': {
      const { boots_stayed: bootsStayed, ...swap } = input;
      return bootsStayed ? { ...swap, bootsStayed } : swap;
    }
    default:
      return input;
  }
}

export const entryInput = z.object({
  /** Made by the device: what is sent twice is kept once. */
  id: z.uuid('An entry has an id of its own, a UUID.'),
  /** Whose it is: on a shared device the next person's sign-in does not make it theirs. Missing: the sender's. */
  by: z.uuid().optional(),
  at: z.iso.datetime({ offset: true }),
  said: saidInput,
});
