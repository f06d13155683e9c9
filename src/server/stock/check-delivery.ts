import { and, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import type { z } from 'zod';
import { deliveryForm } from '@/contracts/forms/parts';
import { inOrderOfForce, partKey } from '@/core/catalogue/match';
import { scopeText } from '@/core/catalogue/scope';
import { mixing } from '@/core/catalogue/supersession';
import { groupBy } from '@/core/shared/group-by';
import type { Day, FleetId, Mm, PartId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import {
  checkDelivery,
  EARLY_SHARE_OF_INTERVAL,
  type LotHistory,
  type Ordered,
  type ReceivingVerdict,
} from '@/core/stock/receiving';
import { personUnits } from '@/core/units/person-units';
import { readNumber } from '@/core/units/read-number';
import { readQuantity } from '@/core/units/read-quantity';
import { keptMm } from '@/core/units/round';
import type { Querier, Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadSpecs, type PartRow } from '@/db/queries/catalogue';
import { bannedSellers, deliveries, dueStatus, fittedComponents, parts, specSheets } from '@/db/schema';
import type { Actor } from '../access';
import { gapSpecOf, loadGraph } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';

type DeliveryInput = z.output<typeof deliveryForm.schema>;

/** Judges a delivery against its order and sample, keeps it, and puts on the shelf only what is accepted. */
export const receiveDelivery = useCase({
  permission: 'receive parts',
  input: deliveryForm.schema,
  async run(
    deps,
    actor,
    input,
  ): Promise<Outcome<{ readonly verdict: ReceivingVerdict['verdict']; readonly message: string }>> {
    return deps.db.transaction(async (tx) => {
      const { graph, byKey } = await loadGraph(tx, actor.fleetId);
      const part = byKey.get(partKey(input.orderedNumber));
      if (!part)
        return fail('invalid', `${input.orderedNumber} is not in the catalogue, so there is nothing to compare with.`, {
          orderedNumber: 'Enter the part first, or check the number.',
        });
      const read = readFields(input, actor);
      if (!read.ok) return fail('invalid', 'Something here cannot be right. See the marked fields.', read.faults);
      const twice = input.again ? null : await receivedBefore(tx, actor.fleetId, part, input, deps.today());
      if (twice) return fail('conflict', twice, { again: twice });
      const gaps = await gapsOf(tx, actor.fleetId, deps.today(), part);
      const same = mixing(graph, partKey(input.deliveredNumber), part.numberKey) === 'same-part';
      const judged = checkDelivery(
        {
          number: part.number,
          quantity: input.orderedQuantity,
          approvedSources: part.approvedSources ?? [],
          referencePrices: await pricesOf(tx, part),
          gaps,
          sellerBanned: await banOf(tx, actor.fleetId, input.source),
          lotHistory: await lotHistory(tx, actor.fleetId, part.id, input.lot),
        },
        { ...input, ...read, number: input.deliveredNumber, lot: input.lot || null, samePart: same },
      );
      const deliveryId = await keepDelivery(deps, tx, actor, { input, part, read, judged });
      const shelf = byKey.get(partKey(input.deliveredNumber)) ?? part;
      if (judged.verdict === 'accepted') await putOnShelf(tx, shelf.id, input.quantity - judged.setAside);
      await writeAudit(tx, actor, {
        action: 'receive',
        entity: 'delivery',
        entityId: deliveryId,
        changes: {
          part: part.number,
          delivered: input.deliveredNumber,
          verdict: judged.verdict,
          reasons: judged.reasons,
        },
      });
      return ok({ verdict: judged.verdict, message: verdictText(judged) });
    });
  },
});

/** Writes a delivery down as it was judged. @returns its id */
async function keepDelivery(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  of: {
    readonly input: DeliveryInput;
    readonly part: PartRow;
    readonly read: Extract<Fields, { ok: true }>;
    readonly judged: ReceivingVerdict;
  },
): Promise<string> {
  const { input, part, read, judged } = of;
  const [row] = await tx
    .insert(deliveries)
    .values({
      fleetId: actor.fleetId,
      receivedOn: deps.today(),
      orderReference: input.orderReference || null,
      partId: part.id,
      orderedQuantity: input.orderedQuantity,
      deliveredNumber: input.deliveredNumber,
      quantity: input.quantity,
      setAside: judged.setAside,
      source: input.source,
      price: read.price,
      lot: input.lot || null,
      gapsMm: [...read.gapsMm],
      gapsAsTyped: input.gaps || null,
      differsFromSample: [...input.differsFromSample],
      verdict: judged.verdict,
      reasons: [...judged.reasons],
      suspicion: judged.suspicion,
      checkedBy: actor.personId,
    })
    .returning({ id: deliveries.id });
  if (!row) throw new Error('the delivery was not written');
  return row.id;
}

/** The gap of each engine that takes a part, by the sheet in force there. */
async function gapsOf(q: Querier, fleetId: FleetId, today: string, part: PartRow): Promise<Ordered['gaps']> {
  const { electrode } = part;
  if (electrode === null) return [];
  const named = (await loadSpecs(q, fleetId, today)).filter((s) => s.partId === part.id && s.sourceKind !== 'memory');
  return [...groupBy(named, scopeText).values()].flatMap((sheets) => {
    const [sheet] = inOrderOfForce(sheets);
    return sheet ? [{ ...gapSpecOf(sheet), electrode }] : [];
  });
}

/** Whether the same order, lot and part were received before, in words; null: they were not. */
async function receivedBefore(q: Querier, fleetId: FleetId, part: PartRow, input: DeliveryInput, today: Day) {
  const rows = await q
    .select({ on: deliveries.receivedOn, quantity: deliveries.quantity, delivered: deliveries.deliveredNumber })
    .from(deliveries)
    .where(
      and(
        eq(deliveries.fleetId, fleetId),
        eq(deliveries.partId, part.id),
        sql`lower(coalesce(${deliveries.orderReference}, '')) = lower(${input.orderReference})`,
        sql`lower(coalesce(${deliveries.lot}, '')) = lower(${input.lot})`,
        // Without an order and a lot only the same day tells.
        input.orderReference === '' && input.lot === '' ? eq(deliveries.receivedOn, today) : undefined,
      ),
    )
    .orderBy(desc(deliveries.createdAt));
  const before = rows.find(({ delivered }) => partKey(delivered) === partKey(input.deliveredNumber));
  if (!before) return null;
  const delivery = [input.orderReference && `order ${input.orderReference}`, input.lot && `lot ${input.lot}`].filter(
    Boolean,
  );
  return `${before.quantity} × ${input.deliveredNumber}${delivery.length > 0 ? ` of ${delivery.join(', ')}` : ''} were received on ${before.on} already. Is this another box? Then tick it and check it again; else leave it.`;
}

export async function putOnShelf(tx: Querier, partId: PartId, quantity: number): Promise<void> {
  await tx
    .update(parts)
    .set({ onHand: sql`coalesce(${parts.onHand}, 0) + ${quantity}`, version: sql`${parts.version} + 1` })
    .where(eq(parts.id, partId));
}

function verdictText({ verdict, reasons, setAside }: ReceivingVerdict): string {
  const why = reasons.map((reason) => reason.message).join(' ');
  const shelf =
    setAside === 0 ? 'Accepted and put on the shelf.' : `Accepted; ${setAside} set aside, the others put on the shelf.`;
  if (verdict === 'accepted') return reasons.length === 0 ? shelf : `${shelf} Note: ${why}`;
  return verdict === 'quarantined' ? `Quarantined, not on the shelf. ${why}` : `Back to the supplier. ${why}`;
}

/** Why nothing is taken from a seller; null: it is not banned. */
async function banOf(q: Querier, fleetId: FleetId, seller: string): Promise<string | null> {
  const [ban] = await q
    .select({ reason: bannedSellers.reason })
    .from(bannedSellers)
    .where(
      and(
        eq(bannedSellers.fleetId, fleetId),
        sql`lower(${bannedSellers.name}) = lower(${seller})`,
        isNull(bannedSellers.liftedOn),
      ),
    );
  return ban?.reason ?? null;
}

/** What became of the plugs of one lot. Those without an interval by distance are not counted as early. */
export async function lotHistory(q: Querier, fleetId: FleetId, partId: PartId, lot: string): Promise<LotHistory> {
  if (lot === '') return { fitted: 0, early: 0 };
  const ran = sql`${fittedComponents.removedKm} - ${fittedComponents.installedKm}`;
  const early = and(
    isNotNull(fittedComponents.removedOn),
    sql`${ran} < ${EARLY_SHARE_OF_INTERVAL} * coalesce(${specSheets.intervalKm}, ${dueStatus.limitKm})`,
  );
  const [row] = await q
    .select({ fitted: sql<number>`count(*)::int`, early: sql<number>`count(*) filter (where ${early})::int` })
    .from(fittedComponents)
    .leftJoin(specSheets, eq(specSheets.id, fittedComponents.specSheetId))
    .leftJoin(
      dueStatus,
      and(eq(dueStatus.vehicleId, fittedComponents.vehicleId), eq(dueStatus.component, fittedComponents.component)),
    )
    .where(
      and(
        eq(fittedComponents.fleetId, fleetId),
        eq(fittedComponents.partId, partId),
        sql`lower(${fittedComponents.lot}) = lower(${lot})`,
      ),
    );
  return row ?? { fitted: 0, early: 0 };
}

/** The part's own price and what earlier accepted deliveries cost. */
async function pricesOf(q: Querier, part: PartRow): Promise<readonly number[]> {
  const rows = await q
    .select({ price: deliveries.price })
    .from(deliveries)
    .where(and(eq(deliveries.partId, part.id), eq(deliveries.verdict, 'accepted')));
  return [part.price, ...rows.map((row) => row.price)].filter((price) => price !== null);
}

type Fields =
  | { readonly ok: true; readonly price: number | null; readonly gapsMm: readonly number[] }
  | { readonly ok: false; readonly faults: Readonly<Record<string, string>> };

function readFields({ price, gaps }: DeliveryInput, actor: Actor): Fields {
  const faults: Record<string, string> = {};
  const [amount = null] = price === '' ? [] : readNumber(price);
  if (price !== '' && amount === null) faults.price = `“${price}” is not an amount.`;
  const gapsMm: Mm[] = [];
  for (const text of splitGaps(gaps)) {
    const reading = readQuantity({ kind: 'gap', text, personUnit: personUnits(actor.unitSystem).gap });
    if (reading.verdict === 'ok') gapsMm.push(keptMm(reading.valueSi));
    else faults.gaps ??= reading.message;
  }
  return Object.keys(faults).length > 0 ? { ok: false, faults } : { ok: true, price: amount, gapsMm };
}

/** "1.05 1.06; 1,04 mm": separated by spaces, semicolons or new lines; a unit belongs to the number before it. */
const splitGaps = (text: string): readonly string[] => text.match(/[\d.,]+\s*(?:mm|in\b|thou|["″])?/gi) ?? [];
