import { sayDay } from '@/core/calendar/day-names';
import { named } from '@/core/planning/plan-problem';
import type { WHAT_IF_KINDS, WhatIfChange } from '@/core/planning/what-if';

export type ChangeKind = (typeof WHAT_IF_KINDS)[number];

export const CHANGE_KIND_WORDS: Readonly<Record<ChangeKind, string>> = {
  bay_more: 'a bay more for a day',
  person_away: 'a person away',
  bay_closed: 'a bay closed',
  vehicle_away: 'a vehicle away',
  parts_late: 'parts that come late',
};

const spanWords = (from: string, to: string): string =>
  from === to ? `on ${sayDay(from)}` : `from ${sayDay(from)} to ${sayDay(to)}`;

type Named = readonly { readonly id: string; readonly name?: string }[];
interface Known {
  readonly bays: Named;
  readonly people: Named;
  readonly jobs: Named;
}

/** "J. Holm away on Tue 17 Nov" */
export function changeWords(change: WhatIfChange, { bays, people, jobs }: Known): string {
  const nameIn = (list: Named, id: string): string => {
    const item = list.find((each) => each.id === id);
    return item ? named(item) : 'somebody or something that is gone';
  };
  switch (change.kind) {
    case 'bay_more':
      return `a bay more at ${change.depot} on ${sayDay(change.day)}`;
    case 'bay_closed':
      return `${nameIn(bays, change.bay)} closed ${spanWords(change.from, change.to)}`;
    case 'person_away':
      return `${nameIn(people, change.person)} away ${spanWords(change.from, change.to)}`;
    case 'vehicle_away':
      return `${nameIn(jobs, change.job)} away ${spanWords(change.from, change.to)}`;
    case 'parts_late':
      return `parts of ${nameIn(jobs, change.job)} not before ${sayDay(change.until)}`;
  }
}
