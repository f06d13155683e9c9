import { describe, expect, it } from 'vitest';
import { loadOf } from './board';
import { placingOf } from './board-week';
import type { JobFacts, ProposalResult } from './plan-proposal';
import {
  agreedSlotsOf,
  planFigures,
  proposedJobs,
  proposedSlotsOf,
  waitsInAll,
  weekOfProposal,
  weeksOf,
} from './proposal-view';

const DAYS = ['2027-03-05', '2027-03-08'];
const cost = (waiting: number) => ({ waiting, thrownAway: 2, downtime: 10, total: waiting + 12 });
const slot = (day: string, startMin = 480) => ({ day, bay: 'B1', person: 'P1', startMin });
const job = (id: string, over: Partial<JobFacts> = {}): JobFacts => ({
  id,
  vehicleId: id,
  unitNumber: id,
  name: 'van',
  depot: 'N',
  workOrderId: null,
  number: null,
  components: ['plug'],
  minutes: 60,
  weekCost: 70,
  likely: { fromMin: 50, toMin: 75 },
  costs: { byDay: [cost(0), cost(30)], weekly: [70, 80], unplanned: cost(300) },
  coolFromMin: null,
  short: [],
  booked: null,
  ...over,
});
const why = { code: 'cheapest_day' as const, message: 'Fri 5 Mar is the cheapest day.' };
const result: ProposalResult = {
  days: DAYS,
  jobs: [
    job('1', { booked: { ...slot('2027-03-08'), isPinned: false } }),
    job('2', { booked: { ...slot('2027-03-05', 600), isPinned: true } }),
    job('3'),
    job('4'),
    job('5', { booked: { ...slot('2027-03-08', 700), isPinned: false } }),
  ],
  plan: {
    assignments: [
      { job: '1', ...slot('2027-03-05'), cost: 12, why },
      { job: '2', ...slot('2027-03-05', 600), cost: 12, why },
      { job: '3', ...slot('2027-03-08'), cost: 42, why },
    ],
    unplanned: [
      { job: '4', reason: 'no_capacity', message: 'No hour is left.' },
      { job: '5', reason: 'parts', message: 'Its parts come later.' },
    ],
    cost: 66,
    lowerBound: 60,
    isProven: false,
  },
  bays: [
    { id: 'B1', name: 'N Bay 1', depot: 'N', can: [], open: DAYS.map((day) => ({ day, fromMin: 480, toMin: 960 })) },
  ],
  people: [{ id: 'P1', name: 'J. Holm', depots: ['N'], skills: [], shift: [] }],
};

describe('a proposal beside what is agreed', () => {
  it('says of each job what becomes of it and why', () => {
    expect(proposedJobs(result).map(({ facts, change, why: words }) => [facts.id, change, words])).toEqual([
      ['1', 'moved', why.message],
      ['2', 'stays', why.message],
      ['3', 'new', why.message],
      ['4', 'left out', 'No hour is left.'],
      ['5', 'taken off', 'Its parts come later.'],
    ]);
  });

  it('comes to figures that add up, of both plans', () => {
    const proposed = planFigures(result, proposedSlotsOf(result), '2027-03-05');
    expect(proposed).toEqual({
      planned: 3,
      leftOut: 2,
      minutes: 180,
      waits: new Map([
        ['1', 0],
        ['2', 0],
        ['3', 3],
      ]),
      waiting: 630,
      thrownAway: 10,
      downtime: 50,
      total: 690,
    });
    const agreed = planFigures(result, agreedSlotsOf(result.jobs), '2027-03-05');
    expect(agreed).toMatchObject({ planned: 3, leftOut: 2, waiting: 660 });
    const none = planFigures(result, new Map(), '2027-03-05');
    expect(none.planned).toBe(0);
    // Only what both do is compared.
    expect(waitsInAll([agreed, proposed]).jobs).toBe(2);
    expect(waitsInAll([proposed, proposed])).toEqual({ jobs: 3, days: [1, 1] });
    expect(waitsInAll([proposed, none])).toEqual({ jobs: 0, days: [null, null] });
  });

  it('is a board for each of its weeks', () => {
    expect(weeksOf(result)).toEqual(['2027-03-01', '2027-03-08']);
    const depot = { id: 'N', name: 'N', timeZone: 'Etc/UTC' };
    const shown = { depot, today: '2027-03-05', currency: 'EUR' };
    const first = weekOfProposal(result, { ...shown, monday: '2027-03-01' });
    expect(first.problem.days).toEqual(['2027-03-05']);
    expect([...placingOf(first.jobs).keys()]).toEqual(['1', '2']);
    expect(first.jobs[0]?.weekly).toEqual([70]);
    expect(first.problem.bays[0]?.name).toBe('Bay 1');
    const second = weekOfProposal(result, { ...shown, monday: '2027-03-08' });
    expect([...placingOf(second.jobs).keys()]).toEqual(['3']);
    expect(second.jobs[0]?.weekly).toEqual([80]);
    const [bay] = second.problem.bays;
    expect(bay && loadOf(second.problem, placingOf(second.jobs), '2027-03-08', bay)).toEqual({ taken: 60, open: 480 });
  });
});
