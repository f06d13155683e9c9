interface Violation {
  readonly code: 'unique' | 'foreign-key' | 'check' | 'exclusion';
  readonly constraint: string;
}

const CODES: Readonly<Record<string, Violation['code']>> = {
  '23505': 'unique',
  '23503': 'foreign-key',
  '23514': 'check',
  '23P01': 'exclusion',
};

/** The constraint that a failed write broke, or null for any other failure. */
export function violation(error: unknown): Violation | null {
  const cause = error instanceof Error && error.cause ? error.cause : error;
  if (typeof cause !== 'object' || cause === null || !('code' in cause)) return null;
  const code = CODES[String(cause.code)];
  const constraint = 'constraint' in cause ? String(cause.constraint) : '';
  return code ? { code, constraint } : null;
}
