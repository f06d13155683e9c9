import type { z } from 'zod';

export interface Calculation {
  readonly about: string;
  readonly input: z.ZodType;
  readonly output: z.ZodType;
  run(input: unknown): unknown;
}

/** Ties a schema to its calculation: what is run has been checked by it. */
export function calculation<I extends z.ZodType, O extends z.ZodType>(
  about: string,
  input: I,
  output: O,
  run: (input: z.output<I>) => z.output<O>,
): Calculation {
  return { about, input, output, run: (raw) => run(input.parse(raw)) };
}
