import { JOBS, type JobData, type JobName } from '@/contracts/jobs';
import { noteNews } from '@/db/queries/notices';
import { fleets } from '@/db/schema';
import type { Deps } from '@/server/deps';
import { backTestFleet } from '@/server/due/back-test';
import { ensureDueStatus } from '@/server/due/ensure-due-status';
import { refreshFamilies } from '@/server/due/refresh-families';
import { applyInBackground, checkInBackground } from '@/server/imports/apply-import';
import { loadReadingsFile } from '@/server/odometer/load-readings-file';
import { planInBackground } from '@/server/planning/proposals';
import { tidy } from '@/server/tidy';

/* What a worker does for each job: it reads what it is told and calls the use-case's own work, which is one transaction. Done
   twice, each gives the same. */

type Handlers = { readonly [N in JobName]: (deps: Deps, data: JobData<N>) => Promise<void> };

const HANDLERS: Handlers = {
  'refresh-families': (deps, { fleetId, familyIds }) =>
    deps.db.transaction((tx) => refreshFamilies(tx, fleetId, deps.today(), familyIds)),
  async 'due-run'(deps, { fleetId }) {
    await ensureDueStatus(deps.db, fleetId, deps.today());
    await deps.jobs.send(deps.db, 'notices', { fleetId });
  },
  async notices(deps, { fleetId }) {
    await noteNews(deps.db, fleetId, deps.today(), deps.now());
  },
  'load-readings': loadReadingsFile,
  'check-import': (deps, { fleetId, importId }) => checkInBackground(deps, fleetId, importId),
  'apply-import': applyInBackground,
  'plan-fleet': (deps, { fleetId, proposalId }) => planInBackground(deps, fleetId, proposalId),
  'due-runs': (deps) => forEveryFleet(deps, 'due-run'),
  'back-test': (deps, { fleetId }) => deps.db.transaction((tx) => backTestFleet(tx, fleetId, deps.today())),
  'back-tests': (deps) => forEveryFleet(deps, 'back-test'),
  tidy: (deps) => tidy(deps.db, deps.now()),
};

async function forEveryFleet(deps: Deps, job: 'due-run' | 'back-test'): Promise<void> {
  for (const { id } of await deps.db.select({ id: fleets.id }).from(fleets))
    await deps.jobs.send(deps.db, job, { fleetId: id });
}

/** @throws what keeps it from being done: the queue tries again */
export async function handle(deps: Deps, name: JobName, raw: unknown): Promise<void> {
  const data = JOBS[name].parse(raw);
  await (HANDLERS[name] as (deps: Deps, data: unknown) => Promise<void>)(deps, data);
}

/** The clock of the scheduled ones: minute, hour, day, month, weekday. */
export const SCHEDULE: readonly (readonly [JobName, string])[] = [
  ['due-runs', '5 * * * *'],
  ['back-tests', '40 2 * * *'],
  ['tidy', '20 3 * * *'],
];
