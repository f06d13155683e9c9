import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { photoInput } from '@/contracts/order-entry';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { floorPhotos } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';

export const MAX_PHOTO_BYTES = 1_500_000;

const SIGNATURES: readonly (readonly ['image/jpeg' | 'image/png' | 'image/webp', string])[] = [
  ['image/jpeg', 'ffd8ff'],
  ['image/png', '89504e47'],
  ['image/webp', '52494646'],
];

/** Keeps a picture with an order. The same id again is the same picture. */
export const keepPhoto = useCase({
  permission: 'record work',
  input: photoInput.extend({ bytes: z.instanceof(Buffer) }),
  async run(deps, actor, { bytes, ...input }): Promise<Outcome<{ readonly id: string }>> {
    const mime = SIGNATURES.find(([, start]) => bytes.toString('hex', 0, 4).startsWith(start))?.[0];
    if (!mime) return fail('invalid', 'This is no JPEG, PNG or WebP picture.');
    if (bytes.length > MAX_PHOTO_BYTES)
      return fail('invalid', `A picture may have ${MAX_PHOTO_BYTES / 1e6} MB. Make it smaller and send it again.`);
    return deps.db.transaction(async (tx) => {
      await lockOpenOrder(tx, actor, input.workOrderId);
      const added = await tx
        .insert(floorPhotos)
        .values({
          id: input.id,
          fleetId: actor.fleetId,
          workOrderId: input.workOrderId,
          target: input.target,
          mime,
          bytes,
          takenBy: actor.personId,
          takenAt: new Date(input.at),
        })
        .onConflictDoNothing()
        .returning({ id: floorPhotos.id });
      if (added.length > 0)
        await writeAudit(tx, actor, {
          action: 'photo',
          entity: 'work-order',
          entityId: input.workOrderId,
          changes: { photo: input.target },
        });
      return ok({ id: input.id });
    });
  },
});

export const viewPhoto = useCase({
  permission: 'read the fleet',
  input: photoInput.pick({ id: true, workOrderId: true }),
  async run(deps, actor, { id, workOrderId }): Promise<Outcome<{ readonly mime: string; readonly bytes: Buffer }>> {
    const [row] = await deps.db
      .select({ mime: floorPhotos.mime, bytes: floorPhotos.bytes })
      .from(floorPhotos)
      .where(
        and(eq(floorPhotos.fleetId, actor.fleetId), eq(floorPhotos.workOrderId, workOrderId), eq(floorPhotos.id, id)),
      );
    return row ? ok(row) : notFound('picture');
  },
});
