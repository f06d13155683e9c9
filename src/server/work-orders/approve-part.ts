import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { partKey } from '@/core/catalogue/match';
import { ok } from '@/core/shared/result';
import { PART_WORDS } from '@/core/work/say-places';
import { writeAudit } from '@/db/queries/audit';
import type { ComponentSheet, PartRow } from '@/db/queries/catalogue';
import { parts, workTasks } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { reasonText } from '../reason';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { loadFloorState } from './order-state';

const approveInput = z.object({
  workOrderId: z.uuid(),
  taskId: z.uuid(),
  number: z.string().trim().min(1, 'Give the number of the part.').max(60),
  as: z.enum(['equivalent', 'trial']),
  reason: reasonText(200),
});

/**
 * Lets a part in that the sheet does not name: the same for this engine by another maker, or one that is tried. A plug that does
 * not screw into the head, or suppress, as the sheet's does is refused whoever asks.
 */
export const approvePart = useCase({
  permission: 'sign off work orders',
  input: approveInput,
  async run(deps, actor, { workOrderId, taskId, number, as, reason }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx): Promise<Outcome<null>> => {
      const order = await lockOpenOrder(tx, actor, workOrderId);
      const state = await loadFloorState(tx, order, deps.today());
      const task = state?.tasks.find(({ row }) => row.id === taskId);
      if (!task?.sheet) return notFound('task');
      const [part] = await tx
        .select()
        .from(parts)
        .where(and(eq(parts.fleetId, actor.fleetId), eq(parts.numberKey, partKey(number))));
      const fault = part ? whyNot(part, task.sheet) : `${number} is not in the catalogue. Enter it under Parts first.`;
      if (!part || fault) return fail('invalid', fault ?? '', { number: fault ?? '' });
      const approved = [
        ...task.row.approved.filter((one) => one.number !== part.number),
        { number: part.number, as, reason, by: actor.name, on: deps.today() },
      ];
      await tx.update(workTasks).set({ approved }).where(eq(workTasks.id, taskId));
      await writeAudit(tx, actor, {
        action: 'approve part',
        entity: 'work-order',
        entityId: order.id,
        changes: { part: part.number, instead: task.sheet.part.number, as, reason },
      });
      return ok(null);
    });
  },
});

/** Why it cannot go in where the sheet's part goes; null: it can. */
function whyNot(part: PartRow, { component, part: own }: ComponentSheet): string | null {
  if (part.id === own.id) return 'That is the part of the sheet.';
  if (part.kind !== component)
    return `${part.number} is no ${PART_WORDS[part.kind as keyof typeof PART_WORDS] ?? part.kind}, it goes nowhere here.`;
  if (component !== 'plug') return null;
  const differs = [
    part.thread !== own.thread && `thread ${part.thread ?? 'unknown'} instead of ${own.thread}`,
    part.seat !== own.seat && `${part.seat ?? 'unknown'} seat instead of ${own.seat}`,
    part.reachMm !== own.reachMm && `reach ${part.reachMm ?? 'unknown'} mm instead of ${own.reachMm} mm`,
    part.resistor !== own.resistor && `${part.resistor ? 'a' : 'no'} resistor`,
  ].filter((one) => one !== false);
  return differs.length > 0 ? `${part.number} does not fit here: ${differs.join(', ')}.` : null;
}
