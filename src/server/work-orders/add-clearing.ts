import { and, eq, sql } from 'drizzle-orm';
import type { Tx } from '@/db/client';
import { workOrderSteps } from '@/db/schema';
import type { FloorState } from './order-state';

/** How long vapour is let out before anything sparks. Source: general trade guidance; the can says more. */
const AIRING_MINUTES = 10;

/** Penetrant in a well wants one more step, with the plugs out: no cylinder is cranked full of fluid. */
export async function addClearing(tx: Tx, { order, steps }: FloorState): Promise<void> {
  const at = steps.find(({ kind }) => kind === 'sites');
  if (!at || steps.some(({ kind }) => kind === 'clear')) return;
  const [there] = await tx
    .select({ id: workOrderSteps.id })
    .from(workOrderSteps)
    .where(and(eq(workOrderSteps.workOrderId, order.id), eq(workOrderSteps.key, 'clear')));
  if (there) return;
  await tx
    .update(workOrderSteps)
    .set({ place: sql`${workOrderSteps.place} + 1` })
    .where(and(eq(workOrderSteps.workOrderId, order.id), sql`${workOrderSteps.place} >= ${at.place}`));
  await tx.insert(workOrderSteps).values({
    fleetId: order.fleetId,
    workOrderId: order.id,
    place: at.place,
    key: 'clear',
    kind: 'clear',
    phase: 'plugs',
    title: 'Clear the cylinders of fluid: suck out, blow out, turn the engine over with the plugs out',
    caution:
      'Fluid does not give: a cylinder full of it bends its rod when the engine is cranked with the plugs in. Eye protection, no spark near vapour, let it air.',
    why: 'Penetrant was used. It is cleared before the plugs go in.',
    tools: ['suction pipe', 'compressed air, low pressure'],
    consumables: ['cloth over the open holes'],
    asks: [
      { key: 'cleared', what: 'cleared by, and what came out', kind: 'text' },
      { key: 'aired', what: 'airing', kind: 'wait', minutes: AIRING_MINUTES },
      {
        key: 'vapour',
        what: 'penetrant, cleaner and rags',
        kind: 'choice',
        choices: ['shut and away, nothing flammable open', 'something still open'],
        accepts: ['shut and away, nothing flammable open'],
      },
    ],
    minutes: AIRING_MINUTES + 5,
  });
}
