import { eq, sql } from 'drizzle-orm';
import type { SpecSheetId } from '@/core/shared/kinds';
import { personUnits } from '@/core/units/person-units';
import type { TargetChange } from '@/core/work/apply-entry';
import type { JobRecord, Json } from '@/core/work/entry';
import { countsIn, type OrderModel, placeIn, quantityIn, stepStateIn } from '@/core/work/order-model';
import type { PlaceField, PlaceQuantity, PlaceRecord } from '@/core/work/place-fields';
import { answerField, REMARKS, readPlaceTarget, readTarget, stepTarget } from '@/core/work/targets';
import type { Tx } from '@/db/client';
import { type AuditEntry, writeAudits } from '@/db/queries/audit';
import type { CountRow } from '@/db/queries/work-entries';
import type { PlaceRow, StepRow } from '@/db/queries/work-orders';
import { taskPlaces, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import { addClearing } from './add-clearing';
import type { FloorState } from './order-state';
import { targetOf } from './place-record';

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
  const audits: AuditEntry[] = [];
  const steps: StepWrite[] = [];
  const counts: CountWrite[] = [];
  for (const change of changes) {
    const { kind, key } = readTarget(change.target);
    if (kind === null) continue;
    if (kind === 'place') await writePlace(tx, writing, record, change);
    else if (kind === 'step') steps.push(...stepWrite(writing, record, key, change));
    else if (kind === 'count') counts.push(...countWrite(writing, record, key));
    else
      await tx
        .update(workOrders)
        .set({ trayFirst: trayFirstOf(change) })
        .where(eq(workOrders.id, order.id));
    const from = shortened(change.from);
    const to = shortened(change.to);
    audits.push({
      action: kind === 'place' ? 'record' : kind,
      entity: 'work-order',
      entityId: order.id,
      changes: changesOf(change.target, kind, key, from, to),
    });
  }
  await writeSteps(tx, steps);
  await writeCounts(tx, counts);
  await writeAudits(tx, actor, audits);
  if (changes.length > 0 && order.state !== 'in_bay')
    await tx.update(workOrders).set({ state: 'in_bay' }).where(eq(workOrders.id, order.id));
}

const trayFirstOf = ({ to }: TargetChange): string | null => (typeof to.trayFirst === 'string' ? to.trayFirst : null);

/** A curve is a hundred figures: that it came is told, the site keeps it. */
const shortened = ({ curve, ...fields }: TargetChange['to']): Readonly<Record<string, Json>> =>
  curve === undefined ? fields : { ...fields, curve: curve === null ? null : 'kept' };

function changesOf(
  target: string,
  kind: string,
  key: string,
  from: Readonly<Record<string, Json>>,
  to: Readonly<Record<string, Json>>,
) {
  if (kind === 'step') return { step: key, state: to.state ?? 'answered', from, to };
  const place = readPlaceTarget(target);
  return place
    ? { [place.component === 'plug' ? 'site' : place.component]: place.id, from, to }
    : { [kind]: key, from, to };
}

async function writePlace(
  tx: Tx,
  { state, model, actor, now }: Writing,
  record: JobRecord,
  { target, to }: TargetChange,
): Promise<void> {
  const row = state.places.find((place) => targetOf(place) === target);
  if (!row) return;
  const at = placeIn(record, target);
  const task = state.tasks.find((task) => task.row.id === row.taskId);
  const done = 'done' in to ? doneOf(at.done, task?.row.specSheetId ?? null, actor, now) : {};
  await tx
    .update(taskPlaces)
    .set({ ...columnsOf(at), ...measuredOf(at, target, model, actor), ...done, version: row.version + 1 })
    .where(eq(taskPlaces.id, row.id));
  if (at.soakedAt) await addClearing(tx, state);
}

const doneOf = (done: boolean, specSheetId: SpecSheetId | null, actor: Actor, now: Date): Partial<PlaceRow> =>
  done
    ? {
        doneAt: now,
        doneBy: actor.personId,
        specSheetId,
        releasedReason: null,
        releasedBy: null,
      }
    : { doneAt: null, doneBy: null };

const orNull = (text: string): string | null => (text === '' ? null : text);

/** A place's record as the columns of its row; quantities aside. */
function columnsOf(at: PlaceRecord): Partial<PlaceRow> {
  const words = Object.keys(at.seen);
  return {
    observedNumber: orNull(at.observedNumber),
    believedNumber: orNull(at.believedNumber),
    tagOut: orNull(at.tagOut),
    tagIn: orNull(at.tagIn),
    grade: at.grade,
    result: at.result,
    removalReason: at.removalReason,
    leftWhy: orNull(at.leftWhy),
    conditions: words.length > 0 ? words : null,
    severities: Object.fromEntries(
      Object.entries(at.seen).filter((pair): pair is [string, 1 | 3] => pair[1] === 1 || pair[1] === 3),
    ),
    wrench: orNull(at.wrench),
    adapter: orNull(at.adapter),
    hole: at.hole,
    dropped: at.dropped,
    pieces: at.pieces,
    start: at.start,
    breakawayFeel: at.breakawayFeel,
    newNumber: orNull(at.newNumber),
    bentFrom: orNull(at.bentFrom),
    newLot: orNull(at.newLot),
    leadsOn: orNull(at.leadsOn),
    compound: at.compound,
    compoundBatch: orNull(at.compoundBatch),
    torqueMethod: at.torqueMethod,
    curve: at.curve,
    soakedAt: at.soakedAt === null ? null : new Date(at.soakedAt),
    remark: orNull(at.remark),
  } satisfies Partial<PlaceRow> & Readonly<Record<Exclude<PlaceField, PlaceQuantity | 'seen' | 'done'>, unknown>>;
}

/** What was measured, in SI and as typed. */
function measuredOf(at: PlaceRecord, target: string, model: OrderModel, actor: Actor): Partial<PlaceRow> {
  const units = personUnits(actor.unitSystem);
  const si = (field: Parameters<typeof quantityIn>[2]) => quantityIn(model, target, field, at[field], units);
  return {
    removedGapMm: si('removedGap'),
    removedGapAsTyped: orNull(at.removedGap),
    breakawayTorqueNm: si('breakawayTorque'),
    breakawayTorqueAsTyped: orNull(at.breakawayTorque),
    primaryOhm: si('primaryOhm'),
    primaryOhmAsTyped: orNull(at.primaryOhm),
    secondaryOhm: si('secondaryOhm'),
    secondaryOhmAsTyped: orNull(at.secondaryOhm),
    ohm: si('ohm'),
    ohmAsTyped: orNull(at.ohm),
    goodForKm: si('goodFor'),
    goodForAsTyped: orNull(at.goodFor),
    newGapMm: si('newGap'),
    newGapAsTyped: orNull(at.newGap),
    wrenchSettingNm: si('wrenchSetting'),
    wrenchSettingAsTyped: orNull(at.wrenchSetting),
    installedTorqueNm: si('installedTorque'),
    installedTorqueAsTyped: orNull(at.installedTorque),
  };
}

/** A step as it is to stand. */
type StepWrite = Pick<StepRow, 'id' | 'answers' | 'state' | 'saidBy' | 'saidAt'>;

function stepWrite(
  { state, actor, now }: Writing,
  record: JobRecord,
  key: string,
  { to }: TargetChange,
): readonly StepWrite[] {
  const row = state.steps.find((step) => step.key === key);
  if (!row) return [];
  const fields = record[stepTarget(key)] ?? {};
  const answers = Object.fromEntries(
    [...(row.asks ?? []).map(({ key: ask }) => ask), ...REMARKS].flatMap((ask) => {
      const answer = fields[answerField(ask)];
      return answer === undefined || answer === null ? [] : [[ask, String(answer)]];
    }),
  );
  const was = stepStateIn(record, key);
  const by = was === 'open' ? { saidBy: null, saidAt: null } : { saidBy: actor.personId, saidAt: now };
  const { id, state: before, saidBy, saidAt } = row;
  const stands = 'state' in to ? { state: was, ...by } : { state: before, saidBy, saidAt };
  return [{ id, answers: { ...row.answers, ...answers }, ...stands }];
}

/** All of them in one statement: a device sends the steps of a whole phase at once. */
async function writeSteps(tx: Tx, steps: readonly StepWrite[]): Promise<void> {
  if (steps.length === 0) return;
  await tx.execute(sql`
    update work_order_steps s set answers = n.answers, state = n.state, said_by = n."saidBy", said_at = n."saidAt"
    from json_to_recordset(${JSON.stringify(steps)}::json)
      as n (id uuid, answers jsonb, state text, "saidBy" uuid, "saidAt" timestamptz)
    where s.id = n.id`);
}

/** A count as it is to stand. */
type CountWrite = Pick<CountRow, 'id' | 'out' | 'back'>;

function countWrite({ state, model }: Writing, record: JobRecord, key: string): readonly CountWrite[] {
  const row = state.counts.find((count) => count.key === key);
  const count = countsIn(model, record).find((known) => known.key === key);
  return row && count ? [{ id: row.id, out: count.out, back: count.back }] : [];
}

async function writeCounts(tx: Tx, counts: readonly CountWrite[]): Promise<void> {
  if (counts.length === 0) return;
  await tx.execute(sql`
    update work_order_counts c set out = n.out, back = n.back
    from json_to_recordset(${JSON.stringify(counts)}::json) as n (id uuid, out integer, back integer)
    where c.id = n.id`);
}
