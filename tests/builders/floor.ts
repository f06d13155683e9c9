import { randomUUID } from 'node:crypto';
import type { Entry, Fields, Json } from '../../src/core/work/entry';
import type { FloorJob } from '../../src/core/work/job-record';
import { answerField, countTarget, siteTarget, stepTarget } from '../../src/core/work/targets';
import type { Actor } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import { codesInput, keepCodes } from '../../src/server/work-orders/codes';
import { type EntryResult, recordEntries } from '../../src/server/work-orders/record-entries';
import { viewFloor } from '../../src/server/work-orders/view-job';
import { value } from './workspace';

export const floorOf = async (deps: Deps, actor: Actor, workOrderId: string): Promise<FloorJob> =>
  value(await viewFloor(deps, actor, workOrderId));

export const entry = (target: string, field: string, said: Json, base: Json = null): Entry => ({
  id: randomUUID(),
  target,
  field,
  value: said,
  base,
  at: '2026-11-16T08:30:00Z',
});

/** Fields of one target as a device sends them that has just seen the job. */
export async function enter(
  deps: Deps,
  actor: Actor,
  workOrderId: string,
  target: string,
  fields: Fields,
): Promise<readonly EntryResult[]> {
  const { record } = await floorOf(deps, actor, workOrderId);
  const entries = Object.entries(fields).map(([field, said]) =>
    entry(target, field, said, record[target]?.[field] ?? null),
  );
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
  const entries = job.steps.flatMap((step) => {
    if (step.perSite) return [];
    const at = job.record[stepTarget(step.key)] ?? {};
    const answers = step.asks.flatMap((ask): readonly Entry[] => {
      const field = answerField(ask.key);
      if (ask.kind === 'count') {
        const [side = '', row = ''] = ask.key.split(':');
        const count = job.counts.find(({ key }) => key === row);
        const now = job.record[countTarget(row)]?.[side] ?? null;
        return now === null ? [entry(countTarget(row), side, count?.expected ?? 4)] : [];
      }
      if (ask.kind === 'codes' || ask.kind === 'parts') return [];
      const choice = (ask.accepts ?? ask.choices ?? [])[0];
      const typed = ask.kind === 'wait' ? '2026-11-16T08:00:00Z' : 'written down';
      const said = ask.kind === 'choice' ? choice : typed;
      return [entry(stepTarget(step.key), field, said ?? '', at[field] ?? null)];
    });
    return [...answers, entry(stepTarget(step.key), 'state', over[step.key] ?? 'done', at.state ?? 'open')];
  });
  const results = value(await recordEntries(deps, actor, { workOrderId, entries }));
  return results.flatMap(({ message }) => message ?? []);
}
