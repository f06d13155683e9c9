import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { hashPassword, verifyPassword } from 'better-auth/crypto';
import { and, eq } from 'drizzle-orm';
import { changePasswordForm, resetPasswordForm } from '@/contracts/forms/people';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { account, people, session, user } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { log } from '../log';
import { useCase } from '../use-case';

let judge: ZxcvbnFactory | undefined;

/** Why a password is too easily guessed; null: it is not. @param own what others know of the person: name and address */
export function weaknessOf(text: string, names: readonly string[]): string | null {
  judge ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const { score } = judge.check(
    text,
    names.flatMap((words) => words.split(/[\s.@_-]+/).filter(Boolean)),
  );
  return score > 1
    ? null
    : 'This password is among the first that are tried. Take some words that have nothing to do with each other.';
}

/** The refusal of a password that is too easily guessed; null: it will do. */
export function refuseWeak(text: string, names: readonly string[], field = 'password') {
  const weakness = weaknessOf(text, names);
  return weakness === null ? null : fail('invalid', weakness, { [field]: weakness });
}

/** Sets the password of an account and signs it out everywhere, but for the session that asks. */
async function setPassword(tx: Tx, userId: string, text: string): Promise<void> {
  await tx
    .update(account)
    .set({ password: await hashPassword(text) })
    .where(and(eq(account.userId, userId), eq(account.providerId, 'credential')));
  await tx.delete(session).where(eq(session.userId, userId));
}

/** Changes one's own password. Every device has to sign in again. */
export const changeOwnPassword = useCase({
  permission: 'change own settings',
  input: changePasswordForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [known] = await tx
        .select({ userId: user.id, email: user.email, hash: account.password })
        .from(people)
        .innerJoin(user, eq(user.id, people.userId))
        .innerJoin(account, and(eq(account.userId, user.id), eq(account.providerId, 'credential')))
        .where(and(eq(people.fleetId, actor.fleetId), eq(people.id, actor.personId)));
      if (!known?.hash) return notFound('account');
      if (!(await verifyPassword({ hash: known.hash, password: input.current })))
        return fail('invalid', 'The current password is another.', { current: 'This is not your current password.' });
      const weak = refuseWeak(input.password, [actor.name, known.email]);
      if (weak) return weak;
      await setPassword(tx, known.userId, input.password);
      await writeAudit(tx, actor, {
        action: 'change password',
        entity: 'person',
        entityId: actor.personId,
        changes: {},
      });
      log.info({ event: 'password changed', personId: actor.personId });
      return ok(null);
    });
  },
});

/** Gives a person a new password, and signs them out everywhere. */
export const resetPassword = useCase({
  permission: 'manage people',
  input: resetPasswordForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [person] = await tx
        .select({ name: people.name, userId: people.userId, email: user.email })
        .from(people)
        .innerJoin(user, eq(user.id, people.userId))
        .where(and(eq(people.fleetId, actor.fleetId), eq(people.id, input.personId)));
      if (!person?.userId) return notFound('person');
      const weak = refuseWeak(input.password, [person.name, person.email]);
      if (weak) return weak;
      await setPassword(tx, person.userId, input.password);
      await writeAudit(tx, actor, {
        action: 'reset password',
        entity: 'person',
        entityId: input.personId,
        changes: {},
      });
      log.info({ event: 'password reset', personId: input.personId, by: actor.personId });
      return ok(null);
    });
  },
});

/**
 * From the terminal, where nobody can sign in any more: gives a supervisor a new password and lets them sign in again.
 *
 * @returns whose it was; null: no supervisor signs in with this address
 */
export async function rescueSupervisor(tx: Tx, email: string, text: string): Promise<string | null> {
  const [person] = await tx
    .select({ id: people.id, fleetId: people.fleetId, name: people.name, userId: user.id })
    .from(people)
    .innerJoin(user, eq(user.id, people.userId))
    .where(and(eq(user.email, email.trim().toLowerCase()), eq(people.role, 'supervisor')));
  if (!person) return null;
  await tx.update(people).set({ active: true }).where(eq(people.id, person.id));
  await setPassword(tx, person.userId, text);
  await writeAudit(
    tx,
    { fleetId: person.fleetId, personId: person.id },
    { action: 'rescue from the terminal', entity: 'person', entityId: person.id, changes: {} },
  );
  return person.name;
}
