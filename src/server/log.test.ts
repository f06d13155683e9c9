import { describe, expect, it } from 'vitest';
import { plainError } from './log';

describe('plainError', () => {
  it('leaves out the parameters of a query, and the values that the database repeats', () => {
    const cause = Object.assign(new Error('duplicate key: Key (token)=(secret-token) exists'), {
      code: '23505',
      constraint: 'session_token_unique',
    });
    const error = new Error('Failed query: select * from session where token = $1\nparams: secret-token', { cause });
    const plain = plainError(error);
    expect(JSON.stringify(plain)).not.toContain('secret-token');
    expect(plain).toMatchObject({
      message: 'Failed query: select * from session where token = $1',
      cause: { message: 'PostgreSQL 23505', constraint: 'session_token_unique' },
    });
    expect(plain.stack).toContain('log.test.ts');
  });

  it('never shows what was thrown instead of an error', () => {
    expect(JSON.stringify(plainError('secret'))).not.toContain('secret');
  });
});
