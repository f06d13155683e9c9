import { randomBytes } from 'node:crypto';
import { and, count, eq, gte, isNull } from 'drizzle-orm';
import { driverReportForm } from '@/contracts/forms/misfire';
import { drivingOf } from '@/core/misfire/driving';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { driverAddresses, misfireEntries, people } from '@/db/schema';
import { drivingText } from '@/text/misfire-words';
import type { Actor } from '../access';
import { hashToken } from '../auth/find-actor';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';
import { log } from '../log';
import { invalidInput, useCase } from '../use-case';
import { type Reported, report } from './open-case';
import { keepUnfiled } from './unfiled-reports';

/* An address at which drivers report without an account: whoever has it may report, so it can be replaced. */

/** Makes the address, and ends the one before. It can be seen in this answer alone: its hash is what is kept. */
export const makeDriverAddress = useCase({
  permission: 'manage people',
  async run(deps, actor): Promise<Outcome<{ secret: string }>> {
    return deps.db.transaction(async (tx) => {
      const secret = randomBytes(18).toString('base64url');
      const values = { secretSha256: hashToken(secret), madeBy: actor.personId, createdAt: deps.now() };
      const [row] = await tx
        .insert(driverAddresses)
        .values({ fleetId: actor.fleetId, ...values })
        .onConflictDoUpdate({ target: driverAddresses.fleetId, set: values })
        .returning({ id: driverAddresses.id });
      await writeAudit(tx, actor, {
        action: 'make address for drivers',
        entity: 'misfire-case',
        entityId: row?.id ?? '',
        changes: {},
      });
      return ok({ secret });
    });
  },
});

/** Ends the address for drivers. */
export const endDriverAddress = useCase({
  permission: 'manage people',
  async run(deps, actor): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [gone] = await tx.delete(driverAddresses).where(eq(driverAddresses.fleetId, actor.fleetId)).returning();
      if (!gone) return notFound('address for drivers');
      await writeAudit(tx, actor, {
        action: 'end address for drivers',
        entity: 'misfire-case',
        entityId: gone.id,
        changes: {},
      });
      return ok(null);
    });
  },
});

/** When the address for drivers was made; null: there is none. */
export const viewDriverAddress = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<{ madeAt: Date | null }>> {
    const [row] = await deps.db.select().from(driverAddresses).where(eq(driverAddresses.fleetId, actor.fleetId));
    return ok({ madeAt: row?.createdAt ?? null });
  },
});

/** As a reader of the fleet, in the name of whoever made the address. */
async function readerOf({ db }: Deps, secret: string): Promise<Actor | null> {
  const [row] = await db
    .select({ personId: people.id, fleetId: people.fleetId, name: people.name, unitSystem: people.unitSystem })
    .from(driverAddresses)
    .innerJoin(people, eq(people.id, driverAddresses.madeBy))
    .where(and(eq(driverAddresses.secretSha256, hashToken(secret)), eq(people.active, true)));
  return row ? { ...row, role: 'viewer' } : null;
}

/** Whether an address is one of ours. */
export const isDriverAddress = async (deps: Deps, secret: string): Promise<boolean> =>
  (await readerOf(deps, secret)) !== null;

/** Whoever found the address cannot fill the record with it. */
const MAX_AN_HOUR = 30;
const HOUR_MS = 3_600_000;

/** What became of a report; without a number it could not be filed, and is kept for a supervisor. */
type ReportTaken = Pick<Reported, 'driving'> & { readonly number: number | null };

/**
 * What a driver reports by the address, without an account. What cannot be filed is kept and shown to a supervisor: it is never
 * lost, and whoever must not drive on is told so.
 */
export async function reportByAddress(deps: Deps, secret: unknown, raw: unknown): Promise<Outcome<ReportTaken>> {
  const reader = typeof secret === 'string' ? await readerOf(deps, secret) : null;
  if (!reader) return notFound('address');
  const input = driverReportForm.schema.safeParse(raw);
  if (!input.success) return invalidInput(input.error);
  const [sent] = await deps.db
    .select({ n: count() })
    .from(misfireEntries)
    .where(
      and(
        eq(misfireEntries.fleetId, reader.fleetId),
        isNull(misfireEntries.saidBy),
        gte(misfireEntries.at, new Date(deps.now().getTime() - HOUR_MS)),
      ),
    );
  const told = input.data.complaint;
  const driving = drivingOf({ ...told, counts: [], found: [], testsDone: [] });
  if ((sent?.n ?? 0) >= MAX_AN_HOUR)
    return fail(
      'conflict',
      [drivingText(driving), 'Too many reports came in by this address within the hour. Call the workshop.']
        .filter(Boolean)
        .join(' '),
    );
  const filed = await report(deps, reader, null, input.data).catch((error: unknown) => {
    log.error({ err: error }, 'a driver’s report could not be filed');
    return null;
  });
  if (filed?.ok) return filed;
  await keepUnfiled(deps, reader.fleetId, input.data, filed?.error.message ?? 'It could not be filed.');
  return ok({ number: null, driving });
}
