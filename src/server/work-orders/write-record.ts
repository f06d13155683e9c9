import { eq } from 'drizzle-orm';
import { siteId } from '@/core/engine/model';
import { personUnits } from '@/core/units/person-units';
import type { TargetChange } from '@/core/work/apply-entry';
import type { JobRecord, Json } from '@/core/work/entry';
import { countsIn, type OrderModel, quantityIn, siteIn, stepStateIn } from '@/core/work/order-model';
import type { SiteRecord } from '@/core/work/site-fields';
import { answerField, readTarget, stepTarget } from '@/core/work/targets';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import type { SiteRow } from '@/db/queries/work-orders';
import { workOrderCounts, workOrderSites, workOrderSteps, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import { addClearing } from './add-clearing';
import type { FloorState } from './order-state';

/** Who writes, when, and what stood before. */
interface Writing {
  readonly state: FloorState;
  readonly model: OrderModel;
  readonly actor: Actor;
  readonly now: Date;
}

/** Writes what a record became: every changed row once, with one line of audit for each. */
export async function writeRecord(
  tx: Tx,
  writing: Writing,
  record: JobRecord,
  changes: readonly TargetChange[],
): Promise<void> {
  const { state, actor } = writing;
  const { order } = state;
  for (const change of changes) {
    const { kind, key } = readTarget(change.target);
    if (kind === null) continue;
    if (kind === 'site') await writeSite(tx, writing, record, key, change);
    else if (kind === 'step') await writeStep(tx, writing, record, key, change);
    else if (kind === 'count') await writeCount(tx, writing, record, key);
    else
      await tx
        .update(workOrders)
        .set({ trayFirst: trayFirstOf(change) })
        .where(eq(workOrders.id, order.id));
    const from = shortened(change.from);
    const to = shortened(change.to);
    await writeAudit(tx, actor, {
      action: kind === 'site' ? 'record' : kind,
      entity: 'work-order',
      entityId: order.id,
      changes: kind === 'step' ? { step: key, state: to.state ?? 'answered', from, to } : { [kind]: key, from, to },
    });
  }
  if (changes.length > 0 && order.state !== 'in_bay')
    await tx.update(workOrders).set({ state: 'in_bay' }).where(eq(workOrders.id, order.id));
}

const trayFirstOf = ({ to }: TargetChange): string | null => (typeof to.trayFirst === 'string' ? to.trayFirst : null);

/** A curve is a hundred figures: that it came is told, the site keeps it. */
const shortened = ({ curve, ...fields }: TargetChange['to']): Readonly<Record<string, Json>> =>
  curve === undefined ? fields : { ...fields, curve: curve === null ? null : 'kept' };

async function writeSite(
  tx: Tx,
  { state, model, actor, now }: Writing,
  record: JobRecord,
  key: string,
  { to }: TargetChange,
): Promise<void> {
  const row = state.sites.find((site) => siteId(site) === key);
  if (!row) return;
  const at = siteIn(record, key);
  const done = 'done' in to ? doneOf(at.done, state, actor, now) : {};
  await tx
    .update(workOrderSites)
    .set({ ...columnsOf(at), ...measuredOf(at, key, model, actor), ...done, version: row.version + 1 })
    .where(eq(workOrderSites.id, row.id));
  if (at.soakedAt) await addClearing(tx, state);
}

const doneOf = (done: boolean, { order }: FloorState, actor: Actor, now: Date): Partial<SiteRow> =>
  done
    ? {
        doneAt: now,
        doneBy: actor.personId,
        specSheetId: order.specSheetId,
        releasedReason: null,
        releasedBy: null,
      }
    : { doneAt: null, doneBy: null };

const orNull = (text: string): string | null => (text === '' ? null : text);

/** A site's record as the columns of its row; quantities aside. */
function columnsOf(at: SiteRecord): Partial<SiteRow> {
  const words = Object.keys(at.seen);
  return {
    observedNumber: orNull(at.observedNumber),
    believedNumber: orNull(at.believedNumber),
    conditions: words.length > 0 ? words : null,
    severities: Object.fromEntries(
      Object.entries(at.seen).filter((pair): pair is [string, 1 | 3] => pair[1] === 1 || pair[1] === 3),
    ),
    breakawayFeel: at.breakawayFeel,
    newNumber: orNull(at.newNumber),
    newLot: orNull(at.newLot),
    compound: orNull(at.compound),
    compoundBatch: orNull(at.compoundBatch),
    torqueMethod: at.torqueMethod,
    curve: at.curve,
    soakedAt: at.soakedAt === null ? null : new Date(at.soakedAt),
    remark: orNull(at.remark),
  };
}

/** What was measured, in SI and as typed. */
function measuredOf(at: SiteRecord, key: string, model: OrderModel, actor: Actor): Partial<SiteRow> {
  const units = personUnits(actor.unitSystem);
  const si = (field: Parameters<typeof quantityIn>[2]) => quantityIn(model, key, field, at[field], units);
  return {
    removedGapMm: si('removedGap'),
    removedGapAsTyped: orNull(at.removedGap),
    breakawayTorqueNm: si('breakawayTorque'),
    breakawayTorqueAsTyped: orNull(at.breakawayTorque),
    newGapMm: si('newGap'),
    newGapAsTyped: orNull(at.newGap),
    wrenchSettingNm: si('wrenchSetting'),
    wrenchSettingAsTyped: orNull(at.wrenchSetting),
    installedTorqueNm: si('installedTorque'),
    installedTorqueAsTyped: orNull(at.installedTorque),
  };
}

async function writeStep(
  tx: Tx,
  { state, actor, now }: Writing,
  record: JobRecord,
  key: string,
  { to }: TargetChange,
): Promise<void> {
  const row = state.steps.find((step) => step.key === key);
  if (!row) return;
  const fields = record[stepTarget(key)] ?? {};
  const answers = Object.fromEntries(
    (row.asks ?? []).flatMap((ask) => {
      const said = fields[answerField(ask.key)];
      return said === undefined || said === null ? [] : [[ask.key, String(said)]];
    }),
  );
  const said = stepStateIn(record, key);
  const by = said === 'open' ? { saidBy: null, saidAt: null } : { saidBy: actor.personId, saidAt: now };
  await tx
    .update(workOrderSteps)
    .set({ answers: { ...row.answers, ...answers }, ...('state' in to ? { state: said, ...by } : {}) })
    .where(eq(workOrderSteps.id, row.id));
}

async function writeCount(tx: Tx, { state, model }: Writing, record: JobRecord, key: string): Promise<void> {
  const row = state.counts.find((count) => count.key === key);
  const count = countsIn(model, record).find((known) => known.key === key);
  if (!row || !count) return;
  await tx.update(workOrderCounts).set({ out: count.out, back: count.back }).where(eq(workOrderCounts.id, row.id));
}
