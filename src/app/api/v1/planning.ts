import type { z } from 'zod';
import type { absence, bay, person } from '@/contracts/http/planning';
import type { WeekHours } from '@/core/planning/presence';
import type { listBays } from '@/server/fleet/bays';
import type { listPeople } from '@/server/fleet/people';
import type { AbsenceView } from '@/server/planning/absences';

/* What planning plans with, in the shapes of the HTTP interface. */

type Item<F extends (...args: never[]) => Promise<unknown>> =
  Extract<Awaited<ReturnType<F>>, { ok: true }> extends { value: readonly (infer V)[] } ? V : never;

const toWeek = (week: WeekHours | null) =>
  week &&
  Object.fromEntries(
    Object.entries(week).map(([day, { fromMin, toMin }]) => [day, { from_min: fromMin, to_min: toMin }]),
  );

export const toBay = ({ id, depot, name, can, ownHours }: Item<typeof listBays>): z.output<typeof bay> => ({
  id,
  depot,
  name,
  can,
  hours: toWeek(ownHours),
});

export const toPerson = (
  { id, name, role, hybridQualified, skills, depotIds, hours, active }: Item<typeof listPeople>,
  depotNames: ReadonlyMap<string, string>,
): z.output<typeof person> => ({
  id,
  name,
  role,
  skills: [...(hybridQualified ? ['hybrid'] : []), ...skills],
  depots: depotIds.flatMap((depot) => depotNames.get(depot) ?? []),
  hours: toWeek(hours),
  active,
});

export const toAbsence = (row: AbsenceView): z.output<typeof absence> => ({
  id: row.id,
  of: row.of,
  of_id: row.ofId,
  name: row.name,
  what: row.what,
  from: row.fromDay,
  to: row.toDay,
  from_min: row.fromMin,
  to_min: row.toMin,
  rule: row.rule,
});
