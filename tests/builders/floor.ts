import { randomUUID } from 'node:crypto';
import { answered, inOrder, opening, said } from '../../demo/device';
import { codesInput } from '../../src/contracts/order-entry';
import type { Entry, Fields, Json } from '../../src/core/work/entry';
import { stageOfField } from '../../src/core/work/gate-table';
import type { FloorJob } from '../../src/core/work/job-record';
import { hasField } from '../../src/core/work/place-fields';
import { readPlaceTarget, siteTarget } from '../../src/core/work/targets';
import type { Actor } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import { keepCodes } from '../../src/server/work-orders/codes';
import { liftGate } from '../../src/server/work-orders/lift-gate';
import { type EntryResult, recordEntries } from '../../src/server/work-orders/record-entries';
import { viewFloor } from '../../src/server/work-orders/view-job';
import { value } from './workspace';

/** When all of it is said. */
const AT = '2026-11-16T08:30:00Z';

export const floorOf = async (deps: Deps, actor: Actor, workOrderId: string): Promise<FloorJob> =>
  value(await viewFloor(deps, actor, workOrderId));

export const entry = (target: string, field: string, saying: Json, base: Json = null): Entry => ({
  id: randomUUID(),
  target,
  field,
  value: saying,
  base,
  at: AT,
});

/** Opens the gates before the places: every step answered, the new parts let by, since tests fit them one by one. */
export async function openGates(deps: Deps, actor: Actor, workOrderId: string): Promise<void> {
  const job = await floorOf(deps, actor, workOrderId);
  const isLifted = job.lifts.some(({ gate }) => gate === 'parts');
  if (!job.live || isLifted) return;
  const supervisor: Actor = { ...actor, role: 'supervisor' };
  value(await liftGate(deps, supervisor, { workOrderId, gate: 'parts', reason: 'fitted one by one' }));
  const entries = opening(job, { at: AT, waitedFrom: AT });
  if (entries.length > 0) value(await recordEntries(deps, actor, { workOrderId, entries }));
}

/** What the press that says torqued says with it. */
const BY_HAND: Fields = { hole: 'sound', start: 'by hand' };

/** Fields of one target as a device sends them that has just seen the job. A place finds its gates open. */
export async function enter(
  deps: Deps,
  actor: Actor,
  workOrderId: string,
  target: string,
  fields: Fields,
): Promise<readonly EntryResult[]> {
  const place = readPlaceTarget(target);
  const isGated = ([field]: readonly [string, Json]): boolean =>
    place !== null && hasField(place.component, field) && stageOfField(place.component, field) !== null;
  if (Object.entries(fields).some(isGated)) await openGates(deps, actor, workOrderId);
  const all = place?.component === 'plug' && fields.done === true ? { ...BY_HAND, ...fields } : fields;
  const entries = said(await floorOf(deps, actor, workOrderId), AT, target, all);
  return value(await recordEntries(deps, actor, { workOrderId, entries }));
}

/** One site from its fields to done. What was refused, in words; null: it is done. */
export async function doSite(
  deps: Deps,
  actor: Actor,
  workOrderId: string,
  site: string,
  fields: Fields,
): Promise<string | null> {
  const results = await enter(deps, actor, workOrderId, siteTarget(site), { ...fields, done: true });
  return results.flatMap(({ message }) => message ?? []).join(' ') || null;
}

/** Answers every step with what lets it be ticked, counts included. What was refused, in words. */
export async function doSteps(
  deps: Deps,
  actor: Actor,
  workOrderId: string,
  over: Readonly<Record<string, 'done' | 'not_done'>> = {},
): Promise<readonly string[]> {
  for (const moment of ['before', 'after'] as const)
    value(await keepCodes(deps, actor, codesInput.parse({ workOrderId, moment, typed: 'none' })));
  const job = await floorOf(deps, actor, workOrderId);
  const entries = answered(job, { at: AT, waitedFrom: '2026-11-16T08:00:00Z' }, over);
  const sent = { workOrderId, entries: inOrder(job, entries) };
  return value(await recordEntries(deps, actor, sent)).flatMap(({ message }) => message ?? []);
}
