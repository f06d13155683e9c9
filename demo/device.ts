import { randomUUID } from 'node:crypto';
import type { Entry, Fields } from '../src/core/work/entry';
import type { FloorJob } from '../src/core/work/job-record';
import { answerField, countTarget, stepTarget } from '../src/core/work/targets';
import type { Actor } from '../src/server/access';
import type { Deps } from '../src/server/deps';
import { recordEntries } from '../src/server/work-orders/record-entries';
import { must } from './must';

/* What a device at the vehicle sends of a job that it has just seen. */

/** So many entries it sends at a time. */
const AT_ONCE = 200;

/** Fields of one target. @param at when they were said, ISO 8601 */
export const said = (job: FloorJob, at: string, target: string, fields: Fields): Entry[] =>
  Object.entries(fields).map(([field, value]) => ({
    id: randomUUID(),
    target,
    field,
    value,
    base: job.record[target]?.[field] ?? null,
    at,
  }));

/**
 * Every step answered with what lets it be ticked, counts included.
 *
 * @param when they were said, and since when what soaks or cools has waited
 * @param over what is said of some steps instead of done
 */
export function answered(
  job: FloorJob,
  when: { readonly at: string; readonly waitedFrom: string },
  over: Readonly<Record<string, 'done' | 'not_done'>> = {},
): Entry[] {
  return job.steps.flatMap((step) => {
    if (step.perSite) return [];
    const target = stepTarget(step.key);
    const answers = step.asks.flatMap((ask): readonly Entry[] => {
      if (ask.kind === 'codes' || ask.kind === 'parts') return [];
      if (ask.kind === 'count') {
        const [side = '', row = ''] = ask.key.split(':');
        const counted = job.record[countTarget(row)]?.[side] ?? null;
        const expected = job.counts.find(({ key }) => key === row)?.expected ?? 4;
        return counted === null ? said(job, when.at, countTarget(row), { [side]: expected }) : [];
      }
      const typed = ask.kind === 'wait' ? when.waitedFrom : 'written down';
      const answer = ask.kind === 'choice' ? (ask.accepts ?? ask.choices ?? [])[0] : typed;
      return said(job, when.at, target, { [answerField(ask.key)]: answer ?? '' });
    });
    return [...answers, ...said(job, when.at, target, { state: over[step.key] ?? 'done' })];
  });
}

/** Sends entries in portions; all of them are kept, or the demo is not loaded. */
export async function send(
  deps: Deps,
  worker: Actor,
  what: string,
  workOrderId: string,
  entries: readonly Entry[],
): Promise<void> {
  for (let at = 0; at < entries.length; at += AT_ONCE) {
    const some = entries.slice(at, at + AT_ONCE);
    for (const { message } of must(what, await recordEntries(deps, worker, { workOrderId, entries: some })))
      if (message) throw new Error(`demo: ${what}: ${message}`);
  }
}
