import { addDays, type PlainDate, weekdayOf } from '@/core/calendar/plain-date';
import type { PlanBay } from '@/core/planning/plan-problem';
import type { JobFacts } from '@/core/planning/plan-proposal';
import { borrowedBay, type WhatIfChange } from '@/core/planning/what-if';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { bays } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { Refused } from '../failure';
import { listDepots } from '../fleet/bays';
import { addAbsence } from './absences';

/** A borrowed bay is given back for good after its day. */
const FOR_GOOD_DAYS = 3650;

interface Assumed {
  readonly changes: readonly WhatIfChange[];
  /** Of the what-if: it is the reason of each absence. */
  readonly name: string;
  readonly jobs: readonly JobFacts[];
  readonly bays: readonly PlanBay[];
}

/**
 * Writes down what a what-if took for granted, as it is adopted: who and what is away, and bays that are borrowed. That parts
 * come late is no more than a reason to wait.
 *
 * @returns the ids of borrowed bays, by what the plan calls them
 * @throws Refused where somebody may not write it, or what it is about is gone
 */
export async function makeSo(deps: Deps, actor: Actor, tx: Tx, assumed: Assumed): Promise<ReadonlyMap<string, string>> {
  const borrowed = new Map<string, string>();
  for (const change of assumed.changes) {
    if (change.kind === 'bay_more') {
      const id = await borrow(deps, actor, tx, change, assumed);
      borrowed.set(borrowedBay(change.depot, change.day), id);
    }
    const away = awayBy(change, assumed.jobs);
    if (!away) continue;
    const kept = await addAbsence(deps, actor, { ...away, what: assumed.name || 'assumed by a plan' });
    if (!kept.ok) throw new Refused(kept.error);
  }
  return borrowed;
}

function awayBy(change: WhatIfChange, jobs: readonly JobFacts[]) {
  if (change.kind === 'person_away')
    return { of: 'person' as const, ofId: change.person, from: change.from, to: change.to };
  if (change.kind === 'bay_closed') return { of: 'bay' as const, ofId: change.bay, from: change.from, to: change.to };
  if (change.kind !== 'vehicle_away') return null;
  const ofId = jobs.find(({ id }) => id === change.job)?.vehicleId ?? '';
  return { of: 'vehicle' as const, ofId, from: change.from, to: change.to };
}

/** A bay that is there on one day alone. */
async function borrow(
  deps: Deps,
  actor: Actor,
  tx: Tx,
  { depot: depotName, day }: { readonly depot: string; readonly day: PlainDate },
  { bays: planned, name }: Assumed,
): Promise<string> {
  const depots = await listDepots(deps, actor);
  const depot = depots.ok ? depots.value.find((depot) => depot.name === depotName) : undefined;
  if (!depot) throw new Refused({ kind: 'not-found', message: `There is no depot ${depotName} any more.` });
  const window = planned.find(({ id }) => id === borrowedBay(depotName, day))?.open[0];
  const hours = { [weekdayOf(day)]: { fromMin: window?.fromMin ?? 480, toMin: window?.toMin ?? 960 } };
  const [bay] = await tx
    .insert(bays)
    .values({ fleetId: actor.fleetId, depotId: depot.id, name: `Borrowed ${day}`, hours })
    .onConflictDoNothing()
    .returning();
  if (!bay) throw new Refused({ kind: 'conflict', message: `${depotName} has a borrowed bay on ${day} already.` });
  await writeAudit(tx, actor, {
    action: 'create',
    entity: 'bay',
    entityId: bay.id,
    changes: { depot: depotName, name: bay.name, day, why: name },
  });
  const gone = { of: 'bay' as const, ofId: bay.id, what: `borrowed for ${day}` };
  const spans = [
    { from: addDays(day, 1), to: addDays(day, FOR_GOOD_DAYS) },
    ...(deps.today() < day ? [{ from: deps.today(), to: addDays(day, -1) }] : []),
  ];
  for (const span of spans) {
    const kept = await addAbsence(deps, actor, { ...gone, ...span });
    if (!kept.ok) throw new Refused(kept.error);
  }
  return bay.id;
}
