import { randomUUID } from 'node:crypto';
import type { Said } from '../src/core/misfire/case-entry';
import type { Symptom } from '../src/core/misfire/misfire-case';
import type { WorkOrderId } from '../src/core/shared/kinds';
import { loadWorkOrder } from '../src/db/queries/work-orders';
import type { Actor } from '../src/server/access';
import type { Deps } from '../src/server/deps';
import { decideCase, mendCase } from '../src/server/misfire/decide';
import { reportMisfire } from '../src/server/misfire/open-case';
import { sayOfCase } from '../src/server/misfire/say';
import { recordReadings } from '../src/server/odometer/record-readings';
import { must } from './must';
import { finishVisit, type PastStory } from './past';

/* Misfires of the scenario: one in the middle of its swap test, one that is not ignition, and of the past one that was a boot
   behind a coil that failed twice, and one that was a connector after last week's visit. */

type People = ReadonlyMap<string, Actor>;

const BOOT_DAY = '2026-09-07';
const BOOT_VISIT = '2026-09-09';
const CONNECTOR_DAY = '2026-11-12';

const on = (deps: Deps, day: string, time: string): Deps => ({
  ...deps,
  today: () => day,
  now: () => new Date(`${day}T${time}:00Z`),
});

interface Report {
  readonly unitNumber: string;
  readonly words: string;
  readonly symptoms: Symptom[];
  readonly codes: string;
  readonly cylinders?: number[];
}

/** What the dash showed. */
async function read(then: Deps, actor: Actor, unitNumber: string, text: string): Promise<void> {
  must(unitNumber, await recordReadings(then, actor, { readings: [{ unitNumber, on: then.today(), text }] }));
}

async function report(then: Deps, actor: Actor, { unitNumber, codes, ...told }: Report): Promise<string> {
  const complaint = { lamp: 'on' as const, cylinders: [], ...told };
  return must(unitNumber, await reportMisfire(then, actor, { unitNumber, codes, complaint })).caseId;
}

async function say(then: Deps, actor: Actor, caseId: string, ...said: readonly Said[]): Promise<void> {
  const at = then.now().toISOString();
  const entries = said.map((one) => ({ id: randomUUID(), at, said: one as never }));
  must(caseId, await sayOfCase(then, actor, { caseId, entries }));
}

/** A coil of the meal-round van sits in another cylinder, and nobody has driven it yet. */
async function playSwap(deps: Deps, supervisor: Actor, people: People): Promise<void> {
  const worker = people.get('M. Vane') ?? supervisor;
  const caseId = await report(deps, supervisor, {
    unitNumber: '104',
    words: 'shakes uphill with a full load, since yesterday',
    symptoms: ['load'],
    codes: 'P0302',
  });
  await say(
    deps,
    worker,
    caseId,
    {
      kind: 'counts',
      counts: [
        { cylinder: 1, misfires: 2 },
        { cylinder: 2, misfires: 143 },
        { cylinder: 3, misfires: 4 },
        { cylinder: 4, misfires: 1 },
      ],
    },
    { kind: 'tank', moment: 'usual', km: 520, from: 1, to: 0.25 },
    { kind: 'tank', moment: 'now', km: 300, from: 1, to: 0.5 },
    { kind: 'test', test: { test: 'look', component: null, cylinder: 2, outcome: 'not_found' } },
    { kind: 'swapped', moved: ['coil'], from: 2, to: 3 },
  );
}

/** The injector of the mobile library: coil and plug are cleared, and it is referred. */
async function playInjector(deps: Deps, supervisor: Actor, people: People): Promise<void> {
  const worker = people.get('A. Corrie') ?? supervisor;
  const caseId = await report(deps, supervisor, {
    unitNumber: '152',
    words: 'rough at the lights, smooth on the road; somebody said it is 5',
    symptoms: ['idle'],
    codes: 'P0304 P0204',
    cylinders: [5],
  });
  await say(
    deps,
    worker,
    caseId,
    { kind: 'test', test: { test: 'swap', moved: ['coil'], from: 4, to: 3, outcome: 'stayed' } },
    { kind: 'test', test: { test: 'look', component: 'plug', cylinder: 4, outcome: 'not_found' } },
    { kind: 'test', test: { test: 'compression', component: null, cylinder: 4, outcome: 'normal' } },
    { kind: 'test', test: { test: 'resistance', component: 'injector', cylinder: 4, outcome: 'high' } },
  );
  must(
    'refer',
    await decideCase(deps, worker, {
      caseId,
      decision: 'refer',
      words: 'injector shop: injector 4 measures too high; flow and leak test asked',
      cause: { cause: 'injector', cylinders: [4] },
    }),
  );
}

/** The third coil of cylinder 5 would have failed too: the boot had a track. */
async function playBoot(deps: Deps, supervisor: Actor, people: People): Promise<void> {
  const worker = people.get('A. Corrie') ?? supervisor;
  const monday = on(deps, BOOT_DAY, '09:20');
  await read(monday, supervisor, '36', '83430 km');
  const caseId = await report(monday, supervisor, {
    unitNumber: '36',
    words: 'shakes uphill in the rain, again',
    symptoms: ['load', 'wet'],
    codes: 'P0305',
  });
  await say(
    monday,
    worker,
    caseId,
    { kind: 'swapped', moved: ['coil'], from: 5, to: 3 },
    { kind: 'test', test: { test: 'swap', moved: ['coil'], from: 5, to: 3, outcome: 'stayed' } },
    { kind: 'put_back', moved: ['coil'], from: 5, to: 3 },
    { kind: 'found', cylinder: 5, word: 'boot_tracked' },
    { kind: 'test', test: { test: 'look', component: 'lead', cylinder: 5, outcome: 'found' } },
  );
  const wednesday = on(deps, BOOT_VISIT, '10:00');
  const { workOrderId } = must(
    'boot',
    await mendCase(wednesday, supervisor, { caseId, cause: { cause: 'boot', cylinders: [5] } }),
  );
  const order = await loadWorkOrder(deps.db, supervisor.fleetId, workOrderId);
  await finishVisit(wednesday, supervisor, people, '36', (order?.id ?? '') as WorkOrderId);
  const november = on(deps, '2026-11-05', '15:00');
  await read(november, supervisor, '36', '84819 km');
  must(
    'close',
    await decideCase(november, worker, {
      caseId,
      decision: 'close',
      words: 'boot 5, with a burnt track: none in 1,300 km since',
    }),
  );
}

/** The connector of 2 was not pressed on after the plugs of last week. */
async function playConnector(deps: Deps, supervisor: Actor, people: People): Promise<void> {
  const worker = people.get('J. Holm') ?? supervisor;
  const then = on(deps, CONNECTOR_DAY, '13:40');
  await read(then, supervisor, '112', '135310 km');
  const caseId = await report(then, supervisor, {
    unitNumber: '112',
    words: 'stumbles since it came back from the workshop',
    symptoms: ['always'],
    codes: 'P0302',
  });
  await say(
    then,
    worker,
    caseId,
    { kind: 'found', cylinder: 2, word: 'connector_loose' },
    { kind: 'test', test: { test: 'look', component: null, cylinder: 2, outcome: 'found' } },
    { kind: 'test', test: { test: 'clear_and_drive', component: null, cylinder: null, outcome: 'cured' } },
  );
  must(
    'watch',
    await decideCase(then, worker, { caseId, decision: 'watch', words: 'connector 2 pressed on until it clicked' }),
  );
}

/** Those of the weeks before, in their order, among the visits of the past. */
export const pastMisfires = (deps: Deps, supervisor: Actor, people: People): readonly PastStory[] => [
  { on: BOOT_VISIT, play: () => playBoot(deps, supervisor, people) },
  { on: CONNECTOR_DAY, play: () => playConnector(deps, supervisor, people) },
];

/** Those of today. */
export async function playMisfires(deps: Deps, supervisor: Actor, people: People): Promise<void> {
  const today = on(deps, deps.today(), '08:40');
  await playSwap(today, supervisor, people);
  await playInjector(today, supervisor, people);
}
