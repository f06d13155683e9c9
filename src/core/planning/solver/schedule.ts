import { hasBreak, minutesWithBreak } from '../person-day';
import { type BusyStay, costAt, type Pair, type Slot, type Space, type SpaceJob, type Spans } from './space';

/** What a person's day asks for that can be left aside, to find out whether it is what stands in the way. */
export interface DayRules {
  readonly travel: boolean;
  readonly breaks: boolean;
}
const ALL_RULES: DayRules = { travel: true, breaks: true };

/**
 * A plan that changes: who does what where and when, and what it costs. Nobody and no bay has two jobs at once, nobody is at two
 * depots without the way between them, and everybody has their break.
 */
export class Schedule {
  /** By job; -1: it is not planned. */
  readonly day: Int32Array;
  readonly bay: Int32Array;
  readonly person: Int32Array;
  readonly start: Int32Array;
  private readonly ends: Int32Array;
  private rules = ALL_RULES;
  /** Jobs of a bay or person on a day, in order of start. */
  private readonly ofBay: number[][];
  private readonly ofPerson: number[][];
  /** The longest time that a bay or person has free on a day. */
  private readonly gapOfBay: Int32Array;
  private readonly gapOfPerson: Int32Array;
  /** The longest that any bay of a depot has free on a day. */
  private readonly gapOfDepot: Int32Array;
  cost: number;
  /** What `earliest` found: the start, and the minutes that lie idle before it. */
  private foundStart = 0;
  private foundIdle = 0;

  constructor(private readonly space: Space) {
    const { jobs, days, bays, people } = space;
    const none = (): Int32Array => new Int32Array(jobs.length).fill(-1);
    [this.day, this.bay, this.person, this.start, this.ends] = [none(), none(), none(), none(), none()];
    this.ofBay = Array.from({ length: bays * days }, () => []);
    this.ofPerson = Array.from({ length: people * days }, () => []);
    this.gapOfBay = new Int32Array(bays * days);
    this.gapOfPerson = new Int32Array(people * days);
    this.gapOfDepot = new Int32Array(space.depots * days);
    for (let cell = 0; cell < bays * days; cell += 1) this.measureBay(cell);
    for (let cell = 0; cell < people * days; cell += 1) this.measurePerson(cell);
    this.cost = jobs.reduce((sum, job) => sum + job.costUnplanned, 0);
    for (const [job, { pin }] of jobs.entries()) if (pin) this.put(job, pin);
  }

  isPlanned(job: number): boolean {
    return (this.day[job] ?? -1) >= 0;
  }

  slotOf(job: number): Slot | null {
    if (!this.isPlanned(job)) return null;
    return {
      day: this.day[job] ?? 0,
      bay: this.bay[job] ?? 0,
      person: this.person[job] ?? 0,
      start: this.start[job] ?? 0,
    };
  }

  put(job: number, slot: Slot): void {
    const spaceJob = this.space.jobs[job];
    if (!spaceJob) return;
    const { day, bay, person, start } = slot;
    this.day[job] = day;
    this.bay[job] = bay;
    this.person[job] = person;
    this.start[job] = start;
    this.ends[job] = start + minutesWithBreak(spaceJob.minutes, start, this.space.breaks[person] ?? null);
    const [atBay, atPerson] = [bay * this.space.days + day, person * this.space.days + day];
    this.insert(this.ofBay[atBay] ?? [], job, start);
    this.insert(this.ofPerson[atPerson] ?? [], job, start);
    this.measureBay(atBay);
    this.measurePerson(atPerson);
    this.cost += costAt(this.space, spaceJob, slot) - spaceJob.costUnplanned;
  }

  remove(job: number): void {
    const slot = this.slotOf(job);
    const spaceJob = this.space.jobs[job];
    if (!slot || !spaceJob) return;
    const [atBay, atPerson] = [slot.bay * this.space.days + slot.day, slot.person * this.space.days + slot.day];
    drop(this.ofBay[atBay] ?? [], job);
    drop(this.ofPerson[atPerson] ?? [], job);
    this.day[job] = -1;
    this.measureBay(atBay);
    this.measurePerson(atPerson);
    this.cost += spaceJob.costUnplanned - costAt(this.space, spaceJob, slot);
  }

  private insert(list: number[], job: number, start: number): void {
    let at = list.length;
    while (at > 0 && (this.start[list[at - 1] ?? 0] ?? 0) > start) at -= 1;
    list.splice(at, 0, job);
  }

  private measureBay(cell: number): void {
    const { days, bayOpen, depotOfBay } = this.space;
    this.gapOfBay[cell] = this.longest(bayOpen[Math.floor(cell / days)]?.[cell % days] ?? [], this.ofBay[cell] ?? []);
    const depot = depotOfBay[Math.floor(cell / days)] ?? 0;
    let most = 0;
    for (const bay of this.space.baysOfDepot[depot] ?? [])
      most = Math.max(most, this.gapOfBay[bay * days + (cell % days)] ?? 0);
    this.gapOfDepot[depot * days + (cell % days)] = most;
  }

  private measurePerson(cell: number): void {
    const { days, personOpen } = this.space;
    const open = personOpen[Math.floor(cell / days)]?.[cell % days] ?? [];
    this.gapOfPerson[cell] = this.longest(open, this.ofPerson[cell] ?? []);
  }

  /** The longest free time within spans, between jobs in order of start. */
  private longest(spans: Spans, jobs: readonly number[]): number {
    let most = 0;
    let i = 0;
    for (let s = 0; s < spans.length; s += 2) {
      let free = spans[s] ?? 0;
      const to = spans[s + 1] ?? 0;
      for (; i < jobs.length && (this.start[jobs[i] ?? 0] ?? 0) < to; i += 1) {
        const begins = this.start[jobs[i] ?? 0] ?? 0;
        if (begins - free > most) most = begins - free;
        const ends = this.ends[jobs[i] ?? 0] ?? 0;
        if (ends > free) free = ends;
      }
      if (to - free > most) most = to - free;
    }
    return most;
  }

  jobsOfBay(bay: number, day: number): readonly number[] {
    return this.ofBay[bay * this.space.days + day] ?? [];
  }

  jobsOfPerson(person: number, day: number): readonly number[] {
    return this.ofPerson[person * this.space.days + day] ?? [];
  }

  /**
   * The best slot for a job on a day: as agreed before where that is free, else the one that wastes least; null: none is free.
   *
   * @param isSoonest whichever begins first instead: what it wastes may leave more room for what comes after
   */
  find(job: number, day: number, isSoonest = false): Slot | null {
    const spaceJob = this.space.jobs[job];
    const pairs = spaceJob?.pairs[day];
    if (!spaceJob || !pairs) return null;
    const { minutes, was } = spaceJob;
    // As it was agreed to the minute, where that can still be.
    if (was !== null && was.day === day && this.isFree(job, was)) return was;
    const { days } = this.space;
    if ((this.gapOfDepot[spaceJob.depot * days + day] ?? 0) < minutes) return null;
    let best: Pair | null = null;
    let start = 0;
    let least = Number.POSITIVE_INFINITY;
    for (const pair of pairs) {
      const { bay, person, waste } = pair;
      if ((this.gapOfBay[bay * days + day] ?? 0) < minutes || (this.gapOfPerson[person * days + day] ?? 0) < minutes)
        continue;
      // The same bay and person at another time: nothing was moved that costs.
      const agreed = was !== null && was.day === day && was.bay === bay && was.person === person;
      // What it wastes by what it can do is known before it is tried.
      if (!agreed && !isSoonest && waste * SCARCITY_MIN >= least) continue;
      if (!this.earliest(pair, day, spaceJob)) continue;
      const better = isSoonest ? this.foundStart : this.foundIdle + waste * SCARCITY_MIN;
      const score = agreed ? -1 : better;
      if (score < least) {
        least = score;
        best = pair;
        start = this.foundStart;
      }
    }
    return best && { day, bay: best.bay, person: best.person, start };
  }

  /** What is found with only some of the rules of a person's day. */
  withRules<T>(rules: DayRules, look: () => T): T {
    this.rules = rules;
    const best = look();
    this.rules = ALL_RULES;
    return best;
  }

  /** Whether a job can lie in a slot as the plan is. */
  isFree(job: number, { day, bay, person, start }: Slot): boolean {
    const spaceJob = this.space.jobs[job];
    const pair = spaceJob?.pairs[day]?.find((candidate) => candidate.bay === bay && candidate.person === person);
    if (!spaceJob || !pair) return false;
    const minutes = this.minutesAt(person, spaceJob.minutes, start);
    const ends = start + minutes;
    return (
      pair.spans.some((from, i) => i % 2 === 0 && from <= start && ends <= (pair.spans[i + 1] ?? 0)) &&
      this.freeFrom(start, minutes, bay, person, day, spaceJob.depot) === start &&
      this.leavesBreak(person, day, spaceJob.depot, start, ends)
    );
  }

  private minutesAt(person: number, minutes: number, start: number): number {
    return minutesWithBreak(minutes, start, this.rules.breaks ? (this.space.breaks[person] ?? null) : null);
  }

  private way(from: number, to: number): number {
    const { travel, depots } = this.space;
    return travel && this.rules.travel ? (travel[from * depots + to] ?? 0) : 0;
  }

  private depotOf(job: number): number {
    return this.space.jobs[job]?.depot ?? 0;
  }

  /** Whether a person still has a break with one job more on a day; a day that has none already is not made worse. */
  private leavesBreak(person: number, day: number, depot: number, fromMin: number, toMin: number): boolean {
    const breaks = this.rules.breaks ? this.space.breaks[person] : null;
    if (!breaks) return true;
    const stays = this.staysOf(person, day);
    const keeps = (list: readonly BusyStay[]): boolean =>
      hasBreak(list, breaks, (i) => this.way(list[i]?.depot ?? 0, list[i + 1]?.depot ?? 0));
    const more = [...stays, { fromMin, toMin, depot }].sort((a, b) => a.fromMin - b.fromMin);
    return keeps(more) || !keeps(stays);
  }

  /** All work of a person on a day, in order. */
  private staysOf(person: number, day: number): readonly BusyStay[] {
    const cell = person * this.space.days + day;
    const taken = (this.ofPerson[cell] ?? []).map((job) => ({
      fromMin: this.start[job] ?? 0,
      toMin: this.ends[job] ?? 0,
      depot: this.depotOf(job),
    }));
    const busy = this.space.busy[cell] ?? [];
    return busy.length === 0 ? taken : [...taken, ...busy].sort((a, b) => a.fromMin - b.fromMin);
  }

  /** Looks for the earliest start at which both are free, with the minutes that lie idle before it. */
  private earliest({ bay, person, spans }: Pair, day: number, { minutes, depot }: SpaceJob): boolean {
    for (let s = 0; s < spans.length; s += 2) {
      const from = spans[s] ?? 0;
      const to = spans[s + 1] ?? 0;
      for (let start = from; ; ) {
        const asked = this.minutesAt(person, minutes, start);
        const free = this.freeFrom(start, asked, bay, person, day, depot);
        const fits = free + asked <= to;
        if (free === start && fits && this.leavesBreak(person, day, depot, start, start + asked)) {
          this.foundStart = start;
          this.foundIdle = this.idleBefore(start, from, bay, person, day);
          return true;
        }
        const later = free > start ? free : this.afterBreak(person, day, depot, start);
        if (later <= start || later + minutes > to) break;
        start = later;
      }
    }
    return false;
  }

  /** The earliest minute from a start on at which neither bay nor person has another job, nor the person a way to one. */
  private freeFrom(start: number, minutes: number, bay: number, person: number, day: number, depot: number): number {
    const { days, busy, travel } = this.space;
    const inBay = this.ofBay[bay * days + day] ?? [];
    const cell = person * days + day;
    const atHand = this.ofPerson[cell] ?? [];
    let at = start;
    for (let i = 0; i < inBay.length; i += 1) {
      const other = inBay[i] ?? 0;
      if ((this.start[other] ?? 0) >= at + minutes) break;
      if ((this.ends[other] ?? 0) > at) at = this.ends[other] ?? 0;
    }
    for (let i = 0; i < atHand.length; i += 1) {
      const other = atHand[i] ?? 0;
      const way = travel === null ? 0 : this.way(this.depotOf(other), depot);
      if ((this.start[other] ?? 0) - way < at + minutes && (this.ends[other] ?? 0) + way > at)
        at = (this.ends[other] ?? 0) + way;
    }
    for (const stay of busy[cell] ?? []) {
      const way = this.way(stay.depot, depot);
      if (stay.fromMin - way < at + minutes && stay.toMin + way > at) at = stay.toMin + way;
    }
    return at;
  }

  /** The next start after one that takes somebody their break: behind a break, behind the window, or behind their next job. */
  private afterBreak(person: number, day: number, depot: number, start: number): number {
    const breaks = this.rules.breaks ? this.space.breaks[person] : null;
    if (!breaks) return start;
    const starts = [breaks.fromMin + STEP_MIN];
    for (const { fromMin, toMin, depot: at } of this.staysOf(person, day)) {
      const way = this.way(at, depot);
      starts.push(toMin + way);
      if (fromMin <= start) starts.push(Math.max(toMin + way, breaks.fromMin) + breaks.minutes);
    }
    const later = starts.filter((time) => time > start);
    return later.length > 0 ? Math.min(...later) : start;
  }

  /** Minutes that a bay and a person lie idle before a start, within the time that both are there. */
  private idleBefore(start: number, from: number, bay: number, person: number, day: number): number {
    const { days } = this.space;
    return (
      this.idle(this.ofBay[bay * days + day], start, from) + this.idle(this.ofPerson[person * days + day], start, from)
    );
  }

  private idle(jobs: readonly number[] = [], start: number, from: number): number {
    let free = from;
    for (let i = 0; i < jobs.length; i += 1) {
      const ends = this.ends[jobs[i] ?? 0] ?? 0;
      if (ends <= start && ends > free) free = ends;
    }
    return start - free;
  }
}

/** Starts are told in whole steps. */
const STEP_MIN = 5;

/** Idle minutes that weigh as much as one ability that a job does not need. */
const SCARCITY_MIN = 12;

function drop(list: number[], job: number): void {
  const at = list.indexOf(job);
  if (at >= 0) list.splice(at, 1);
}
