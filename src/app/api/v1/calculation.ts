import type { z } from 'zod';

/** Who asks, and whether they still wait for the answer. */
export interface CalculationCall {
  readonly personId: string;
  readonly signal: AbortSignal;
}

export interface Calculation {
  readonly about: string;
  readonly input: z.ZodType;
  readonly output: z.ZodType;
  run(input: unknown, call?: CalculationCall): unknown;
  /** Why an input that is well formed cannot be worked on; null: it can. */
  conflict?(input: unknown): string | null;
  /** The most that a request may be, where that is more than usual. */
  readonly maxBytes?: number;
}

/** Ties a schema to its calculation: what is run has been checked by it. */
export function calculation<I extends z.ZodType, O extends z.ZodType>(
  about: string,
  input: I,
  output: O,
  run: (input: z.output<I>, call?: CalculationCall) => z.output<O> | Promise<z.output<O>>,
): Calculation {
  return { about, input, output, run: (raw, call) => run(input.parse(raw), call) };
}
