import { randomUUID } from 'node:crypto';
import type { Ask } from '../src/core/work/ask';
import type { Entry, Fields } from '../src/core/work/entry';
import { stageOfField } from '../src/core/work/gate-table';
import type { FloorJob } from '../src/core/work/job-record';
import { hasField } from '../src/core/work/place-fields';
import { answerField, countTarget, readPlaceTarget, readTarget, stepTarget } from '../src/core/work/targets';
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
 * @param when they were said, since when what soaks or cools has waited, and what the dash shows after the road test
 * @param over what is said of some steps instead of done
 */
export function answered(
  job: FloorJob,
  when: { readonly at: string; readonly waitedFrom: string; readonly dash?: number },
  over: Readonly<Record<string, 'done' | 'not_done'>> = {},
): Entry[] {
  return job.steps.flatMap((step) => {
    if (step.perSite) return [];
    const target = stepTarget(step.key);
    const answers = step.asks.flatMap((ask): readonly Entry[] => {
      if (ask.optional || ask.kind === 'codes' || ask.kind === 'parts') return [];
      if (ask.kind === 'count') {
        const [side = '', row = ''] = ask.key.split(':');
        const counted = job.record[countTarget(row)]?.[side] ?? null;
        const expected = job.counts.find(({ key }) => key === row)?.expected ?? 4;
        return counted === null ? said(job, when.at, countTarget(row), { [side]: expected }) : [];
      }
      return said(job, when.at, target, {
        [answerField(ask.key)]: answerTo(ask, when.waitedFrom, when.dash ?? job.dash?.shown ?? 41_322),
      });
    });
    const state = over[step.key] ?? 'done';
    const why = state === 'not_done' ? { [answerField('why')]: 'not today' } : {};
    return [...answers, ...said(job, when.at, target, { ...why, state })];
  });
}

function answerTo({ kind, key, accepts, choices, torqueNm }: Ask, waitedFrom: string, dash: number): string {
  if (kind === 'choice') return (accepts ?? choices ?? [])[0] ?? '';
  if (kind === 'each') return (choices ?? []).join(' ');
  if (kind === 'odometer') return String(key === 'from' ? Math.max(0, dash - 12) : dash);
  if (kind === 'torque') return `${torqueNm ?? 0} N·m`;
  return kind === 'wait' ? waitedFrom : 'written down';
}

/** Steps that come before the first place is worked on, by their keys. */
function stepsBefore({ steps }: FloorJob): ReadonlySet<string> {
  const first = steps.findIndex(({ perSite }) => perSite);
  return new Set(steps.slice(0, Math.max(0, first)).map(({ key }) => key));
}

/** Entries in the order in which gates let them in: safe first, new parts on the bench, then open, then the places, then the rest. */
export function inOrder(job: FloorJob, entries: readonly Entry[]): Entry[] {
  const before = stepsBefore(job);
  const rank = ({ target, field }: Entry): number => {
    const { kind, key } = readTarget(target);
    const place = readPlaceTarget(target);
    if (place && hasField(place.component, field)) return stageOfField(place.component, field) === null ? 1 : 3;
    if (kind !== 'step') return 0;
    if (key === 'safe') return 0;
    return before.has(key) ? 2 : 4;
  };
  return [...entries].sort((a, b) => rank(a) - rank(b));
}

const LATER: readonly string[] = ['parts', 'codes_before'];

/** What opens the gates before the places, but for the new parts: those are read one by one. */
export const opening = (job: FloorJob, when: { readonly at: string; readonly waitedFrom: string }): Entry[] => {
  const before = stepsBefore(job);
  return answered(job, when).filter(({ target }) => {
    const { kind, key } = readTarget(target);
    return (
      kind !== 'step' ||
      (before.has(key) &&
        !LATER.includes(key) &&
        !job.steps.some((one) => one.key === key && job.record[target]?.state === 'done'))
    );
  });
};

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
