import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyProblem } from './any-problem.fixture';
import {
  type Bar,
  barOf,
  costOfPlacing,
  judgeMove,
  loadOf,
  type Placing,
  pressureLeft,
  slotOf,
  troublesOf,
} from './board';
import { planClashes } from './plan-check';
import type { PlanJob, PlanProblem } from './plan-problem';
import { placeIn } from './solver/place-in';
import { planAtOnce } from './solver/plan';

const MON = '2027-03-01';
const TUE = '2027-03-02';
const hours = [MON, TUE].map((day) => ({ day, fromMin: 480, toMin: 960 }));
const job = (id: string, over: Partial<PlanJob> = {}): PlanJob => ({
  id,
  name: `unit ${id}`,
  depot: 'N',
  minutes: 60,
  needsSkills: [],
  needsBay: [],
  allowed: null,
  kitFrom: null,
  coolFromMin: null,
  costByDay: [10, 25],
  costUnplanned: 100,
  pin: null,
  was: null,
  ...over,
});
const problem = (jobs: readonly PlanJob[]): PlanProblem => ({
  days: [MON, TUE],
  bays: [{ id: 'B1', name: 'Bay 1', depot: 'N', can: [], open: hours }],
  people: [
    { id: 'P1', name: 'M. Vane', depots: ['N'], skills: ['hybrid'], shift: hours },
    { id: 'P2', name: 'J. Holm', depots: ['N'], skills: [], shift: hours.slice(0, 1) },
  ],
  jobs,
  moveCost: 0,
  seconds: 1,
  seed: 1,
});
const at = (day: string, startMin: number, person = 'P1') => ({ day, bay: 'B1', person, startMin });

describe('a move before it is made', () => {
  it('says what it costs, and what it breaks in words', () => {
    const two = problem([job('1'), job('2', { coolFromMin: 600, kitFrom: TUE, needsSkills: ['hybrid'] })]);
    const placing: Placing = new Map([['1', at(MON, 480)]]);
    expect(judgeMove(two, placing, { job: '1', to: at(TUE, 480) }, MON)).toEqual({ difference: 15, breaks: [] });
    expect(judgeMove(two, placing, { job: '1', to: null }, MON)).toEqual({ difference: 90, breaks: [] });
    expect(judgeMove(two, placing, { job: '2', to: at(MON, 510, 'P2') }, MON)).toEqual({
      difference: -90,
      breaks: [
        'J. Holm is not trained for hybrid',
        'its parts are there from Tue 2 Mar',
        'its engine is too hot before 10:00',
        'Bay 1 has unit 1 from 08:00 to 09:00',
      ],
    });
    expect(judgeMove(two, placing, { job: '1', to: at(MON, 930) }, TUE).breaks).toEqual([
      'this day has passed',
      'Bay 1 is not open all that time',
      'M. Vane is not there all that time',
    ]);
    expect(judgeMove(two, placing, { job: 'gone', to: null }, MON).breaks).toHaveLength(1);
  });

  it('does not touch what is pinned or begun', () => {
    const pinned = problem([job('1', { pin: at(MON, 480) })]);
    const placing: Placing = new Map([['1', at(MON, 480)]]);
    for (const to of [null, at(MON, 600)])
      expect(judgeMove(pinned, placing, { job: '1', to }, MON).breaks[0]).toMatch(/pinned/);
  });

  it('is exactly what the plan costs more, and allowed only where no hard rule breaks', () => {
    fc.assert(
      fc.property(anyProblem({ jobs: 6, days: 3 }), fc.nat(), fc.nat(), fc.nat(), fc.nat(), (any, j, d, b, p) => {
        fc.pre(any.jobs.length > 0 && any.bays.length > 0 && any.people.length > 0);
        const placing: Placing = new Map(planAtOnce(any, 100).assignments.map((one) => [one.job, one]));
        const pick = <T>(list: readonly T[], n: number): T => list[n % list.length] as T;
        const id = pick(any.jobs, j).id;
        const landing = { day: pick(any.days, d), startMin: 400 + (p % 60) * 10, bay: pick(any.bays, b).id };
        const to = slotOf(any, placing, id, landing, any.days[0] ?? '');
        expect(to).not.toBeNull();
        if (!to) return;
        const { difference, breaks } = judgeMove(any, placing, { job: id, to }, any.days[0] ?? '');
        const after = new Map(placing).set(id, to);
        expect(costOfPlacing(any, after) - costOfPlacing(any, placing)).toBeCloseTo(difference, 9);
        const clashes = planClashes(
          any,
          [...after].map(([job, slot]) => ({ ...slot, job })),
        );
        expect(breaks.length === 0).toBe(clashes.length === 0);
      }),
    );
  });

  it('finds another person where the first cannot, and says so of the first where nobody can', () => {
    const two = problem([job('1'), job('2')]);
    const placing: Placing = new Map([['1', { ...at(MON, 480), bay: 'other' }]]);
    expect(slotOf(two, placing, '2', { day: MON, startMin: 480, bay: 'B1' }, MON)).toEqual(at(MON, 480, 'P2'));
    expect(slotOf(two, new Map(), '2', { day: MON, startMin: 480, person: 'P1' }, MON)).toEqual(at(MON, 480));
    expect(slotOf(two, placing, '2', { day: TUE, startMin: 900, bay: 'B1' }, MON)?.person).toBe('P1');
  });
});

describe('a place for what waits', () => {
  it('breaks no hard rule, saves what it says, and is missing only with a reason', () => {
    fc.assert(
      fc.property(anyProblem({ jobs: 6, days: 3 }), (any) => {
        const { assignments } = planAtOnce({ ...any, jobs: any.jobs.slice(0, 3) }, 100);
        const was = new Map(assignments.map((one) => [one.job, one]));
        const half = { ...any, jobs: any.jobs.map((one) => ({ ...one, was: was.get(one.id) ?? null })) };
        const placed = assignments.map(({ job: id, day, bay, person, startMin }) => ({
          job: id,
          day,
          bay,
          person,
          startMin,
        }));
        const { waiting: places, planned } = placeIn(half);
        expect([...planned.keys()].sort()).toEqual([...was.keys()].sort());
        for (const why of planned.values()) expect(why.length).toBeGreaterThan(5);
        expect([...places.keys()].sort()).toEqual(
          any.jobs
            .map(({ id }) => id)
            .filter((id) => !was.has(id))
            .sort(),
        );
        for (const [id, place] of places) {
          if (!place.slot) {
            expect(place.message.length).toBeGreaterThan(5);
            continue;
          }
          expect(planClashes(half, [...placed, { ...place.slot, job: id }])).toEqual([]);
          expect(place.saves).toBeGreaterThan(0);
        }
      }),
    );
  });
});

describe('hours and pressure', () => {
  it('counts what bays and people have taken, and what still waits after each day', () => {
    const two = problem([job('1'), job('2', { minutes: 90 })]);
    const placing: Placing = new Map([
      ['1', at(MON, 480)],
      ['2', at(TUE, 480)],
    ]);
    const [bay] = two.bays;
    const [vane, holm] = two.people;
    if (!bay || !vane || !holm) throw new Error('no bay');
    expect(loadOf(two, placing, MON, bay)).toEqual({ taken: 60, open: 480 });
    expect(loadOf(two, placing, TUE, vane)).toEqual({ taken: 90, open: 480 });
    expect(loadOf(two, placing, TUE, holm)).toEqual({ taken: 0, open: 0 });
    const weekly = [
      { id: '1', weekly: [30, 31] },
      { id: '2', weekly: [5, 7] },
    ];
    expect(pressureLeft(two, weekly, placing)).toEqual([35, 5, 0]);
    expect(pressureLeft(two, weekly, new Map())).toEqual([35, 35, 38]);
  });
});

describe('work as it really goes', () => {
  const booked = { startMin: 480, minutes: 60 };
  const NOT = { startedMin: null, finishedMin: null };
  it('makes bars begin and end as it did', () => {
    expect(barOf(booked, NOT, null)).toEqual({ fromMin: 480, toMin: 540 });
    // Not begun at half past eight: it ends half an hour later than agreed.
    expect(barOf(booked, NOT, 510)).toEqual({ fromMin: 510, toMin: 570 });
    expect(barOf(booked, { startedMin: 490, finishedMin: null }, 500)).toEqual({ fromMin: 490, toMin: 550 });
    expect(barOf(booked, { startedMin: 490, finishedMin: null }, 600)).toEqual({ fromMin: 490, toMin: 600 });
    expect(barOf(booked, { startedMin: 490, finishedMin: 530 }, 600)).toEqual({ fromMin: 490, toMin: 530 });
  });

  const bar = (id: string, startMin: number, over: Partial<Bar> = {}): Bar => ({
    ...at(MON, startMin),
    job: id,
    name: `unit ${id}`,
    fromMin: startMin,
    toMin: startMin + 60,
    isBegun: false,
    isFinished: false,
    ...over,
  });
  it('says at once what cannot be any more', () => {
    const two = problem([job('1'), job('2')]);
    expect(troublesOf(two, [bar('1', 480), bar('2', 540)])).toEqual([]);
    expect(troublesOf(two, [bar('1', 480, { toMin: 590, isBegun: true }), bar('2', 540)])).toEqual([
      { job: '2', message: 'unit 2: its bay has unit 1 until 09:50' },
    ]);
    expect(troublesOf(two, [bar('1', 900, { toMin: 990, isBegun: true })]).map(({ message }) => message)).toEqual([
      'unit 1: Bay 1 is not there all the time until 16:30',
      'unit 1: M. Vane is not there all the time until 16:30',
    ]);
    expect(troublesOf(two, [bar('1', 480, { person: 'P2', day: TUE })]).map(({ message }) => message)).toEqual([
      'unit 1: J. Holm is not there all that time',
    ]);
    expect(troublesOf(two, [bar('1', 480, { person: 'P2', day: TUE, isFinished: true })])).toEqual([]);
  });
});
