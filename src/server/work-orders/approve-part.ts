import { and, eq } from 'drizzle-orm';
import { approvePartForm } from '@/contracts/forms/work-orders';
import { compareParts, type HeatCross, standInFault } from '@/core/catalogue/equivalent';
import { partKey } from '@/core/catalogue/match';
import type { GapSpec } from '@/core/gap/check';
import type { PolicyChoice } from '@/core/policy/policies';
import { ok } from '@/core/shared/result';
import { PART_WORDS } from '@/core/work/say-places';
import { writeAudit } from '@/db/queries/audit';
import { type ComponentSheet, loadHeatCrosses, type PartRow } from '@/db/queries/catalogue';
import { parts, workTasks } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { loadFloorState } from './order-state';
import { bendRules } from './task-rules';

/**
 * Lets a part in that the sheet does not name: the same for this engine by another maker, or one that is tried. A part that
 * differs where it matters, or of which nobody can tell, is refused whoever asks.
 */
export const approvePart = useCase({
  permission: 'sign off work orders',
  input: approvePartForm.schema,
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
      const gap = task.rules.component === 'plug' ? task.rules.gap : null;
      const crosses = await loadHeatCrosses(tx, actor.fleetId);
      const fault = part
        ? whyNot(part, task.sheet, gap, { choices: state?.choices ?? [], crosses })
        : `${number} is not in the catalogue. Enter it under Parts first.`;
      if (!part || fault) return fail('invalid', fault ?? '', { number: fault ?? '' });
      const approved = [
        ...task.row.approved.filter((approved) => approved.number !== part.number),
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
function whyNot(
  part: PartRow,
  sheet: ComponentSheet,
  gap: GapSpec | null,
  { choices, crosses }: { readonly choices: readonly PolicyChoice[]; readonly crosses: readonly HeatCross[] },
): string | null {
  if (part.id === sheet.part.id) return 'That is the part of the sheet.';
  if (part.kind !== sheet.component)
    return `${part.number} is no ${PART_WORDS[part.kind as keyof typeof PART_WORDS] ?? part.kind}, it goes nowhere here.`;
  const wanted = gap ? [{ spec: gap, regap: bendRules(sheet, part.electrode ?? 'fine_wire', choices).regap }] : [];
  return standInFault(part.number, compareParts(sheet.part, part, crosses, wanted));
}
