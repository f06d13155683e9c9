import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import type { Actor } from './access';
import type { Deps } from './deps';
import { fail, Refused } from './failure';
import { invalidInput, isUseCase, useCase } from './use-case';

const supervisor: Actor = {
  personId: 'p',
  fleetId: 'f',
  role: 'supervisor',
  name: 'R. Tolland',
  unitSystem: 'metric',
};
const viewer: Actor = { ...supervisor, role: 'viewer' };
const deps = {} as Deps;

const asked: unknown[] = [];
const double = useCase({
  permission: 'import data',
  input: z.object({ count: z.coerce.number().int().min(1, 'At least one.'), note: z.string().default('') }),
  async run(_deps, _actor, input) {
    asked.push(input);
    if (input.note === 'refuse') throw new Refused({ kind: 'conflict', message: 'It is taken.' });
    if (input.note === 'break') throw new Error('no disk');
    return ok(input.count * 2);
  },
});

describe('a use-case', () => {
  it('runs with what its input reads, defaults filled in', async () => {
    expect(await double(deps, supervisor, { count: '4' })).toEqual({ ok: true, value: 8 });
    expect(asked.pop()).toEqual({ count: 4, note: '' });
  });

  it('refuses who may not before it looks at the input', async () => {
    expect(await double.withUnknown(deps, viewer, { count: 'many' })).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    expect(asked).toEqual([]);
  });

  it('names each field that does not fit, and runs nothing', async () => {
    expect(await double.withUnknown(deps, supervisor, { count: 0 })).toMatchObject({
      error: { kind: 'invalid', fields: { count: 'At least one.' } },
    });
    expect(await double.withUnknown(deps, supervisor, undefined)).toMatchObject({ error: { kind: 'invalid' } });
    expect(asked).toEqual([]);
  });

  it('refuses text that no database can store, wherever it stands', async () => {
    for (const note of ['a\0b', 'half \ud800'])
      expect(await double(deps, supervisor, { count: 1, note })).toMatchObject({
        error: { kind: 'invalid', fields: { note: expect.stringContaining('cannot be stored') } },
      });
    expect(asked).toEqual([]);
  });

  it('turns what is refused within into its answer, and hides no other error', async () => {
    expect(await double(deps, supervisor, { count: 1, note: 'refuse' })).toEqual(fail('conflict', 'It is taken.'));
    await expect(double(deps, supervisor, { count: 1, note: 'break' })).rejects.toThrow('no disk');
    asked.length = 0;
  });

  it('is known for one by whoever goes over all of them', () => {
    expect([isUseCase(double), isUseCase(() => 1), isUseCase(null)]).toEqual([true, false, false]);
  });
});

describe('a use-case that judges its text itself', () => {
  const lenient = useCase({
    permission: 'read the fleet',
    input: z.object({ texts: z.array(z.string()) }),
    judgesTextItself: true,
    run: async (_deps, _actor, { texts }) => ok(texts.length),
  });

  it('is given all of it', async () => {
    expect(await lenient(deps, viewer, { texts: ['a', 'b\0'] })).toEqual({ ok: true, value: 2 });
  });
});

describe('invalidInput', () => {
  const errorOf = (schema: z.ZodType, value: unknown): z.ZodError => {
    const read = schema.safeParse(value);
    if (read.success) throw new Error('it fits');
    return read.error;
  };

  it('answers an id that is none as what is not there', () => {
    const shape = z.object({ vehicleId: z.uuid(), name: z.string() });
    expect(invalidInput(errorOf(shape, { vehicleId: 'x', name: 'y' }))).toMatchObject({ error: { kind: 'not-found' } });
    expect(invalidInput(errorOf(shape, { vehicleId: crypto.randomUUID() }))).toMatchObject({
      error: { kind: 'invalid', fields: { name: expect.any(String) } },
    });
  });

  it('says so where a person was to choose', () => {
    const shape = z.object({ bayId: z.uuid('Choose a bay.') });
    expect(invalidInput(errorOf(shape, { bayId: '' }))).toMatchObject({
      error: { fields: { bayId: 'Choose a bay.' } },
    });
  });

  it('gives the message itself where the whole is wrong', () => {
    expect(invalidInput(errorOf(z.string('Give a name.'), 5))).toMatchObject({ error: { message: 'Give a name.' } });
  });
});
