import { costAt, type Pair, type Slot, type Space, type Spans } from './space';

/** A plan that changes: who does what where and when, and what it costs. Nobody and no bay has two jobs at once. */
export class Schedule {
  /** By job; -1: it is not planned. */
  readonly day: Int32Array;
  readonly bay: Int32Array;
  readonly person: Int32Array;
  readonly start: Int32Array;
  /** Jobs of a bay or person on a day, in order of start. */
  private readonly ofBay: number[][];
  private readonly ofPerson: number[][];
  /** The longest time that a bay or person has free on a day. */
  private readonly gapOfBay: Int32Array;
  private readonly gapOfPerson: Int32Array;
  /** The longest that any bay of a depot has free on a day. */
  private readonly gapOfDepot: Int32Array;
  private readonly minutes: Int32Array;
  cost: number;
  /** What `earliest` found: the start, and the minutes that lie idle before it. */
  private foundStart = 0;
  private foundIdle = 0;

  constructor(private readonly space: Space) {
    const { jobs, days, bays, people } = space;
    const none = (): Int32Array => new Int32Array(jobs.length).fill(-1);
    [this.day, this.bay, this.person, this.start] = [none(), none(), none(), none()];
    this.minutes = Int32Array.from(jobs, (job) => job.minutes);
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
    const of = this.space.jobs[job];
    if (!of) return;
    const { day, bay, person, start } = slot;
    this.day[job] = day;
    this.bay[job] = bay;
    this.person[job] = person;
    this.start[job] = start;
    const [atBay, atPerson] = [bay * this.space.days + day, person * this.space.days + day];
    this.insert(this.ofBay[atBay] ?? [], job, start);
    this.insert(this.ofPerson[atPerson] ?? [], job, start);
    this.measureBay(atBay);
    this.measurePerson(atPerson);
    this.cost += costAt(this.space, of, slot) - of.costUnplanned;
  }

  remove(job: number): void {
    const slot = this.slotOf(job);
    const of = this.space.jobs[job];
    if (!slot || !of) return;
    const [atBay, atPerson] = [slot.bay * this.space.days + slot.day, slot.person * this.space.days + slot.day];
    drop(this.ofBay[atBay] ?? [], job);
    drop(this.ofPerson[atPerson] ?? [], job);
    this.day[job] = -1;
    this.measureBay(atBay);
    this.measurePerson(atPerson);
    this.cost += of.costUnplanned - costAt(this.space, of, slot);
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
        const ends = begins + (this.minutes[jobs[i] ?? 0] ?? 0);
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
    const of = this.space.jobs[job];
    const pairs = of?.pairs[day];
    if (!of || !pairs) return null;
    const { minutes, was } = of;
    // As it was agreed to the minute, where that can still be.
    if (was !== null && was.day === day && this.isFree(job, was)) return was;
    const { days } = this.space;
    if ((this.gapOfDepot[of.depot * days + day] ?? 0) < minutes) return null;
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
      if (!this.earliest(pair, day, minutes)) continue;
      const found = isSoonest ? this.foundStart : this.foundIdle + waste * SCARCITY_MIN;
      const score = agreed ? -1 : found;
      if (score < least) {
        least = score;
        best = pair;
        start = this.foundStart;
      }
    }
    return best && { day, bay: best.bay, person: best.person, start };
  }

  /** Whether a job can lie in a slot as the plan is. */
  isFree(job: number, { day, bay, person, start }: Slot): boolean {
    const of = this.space.jobs[job];
    const pair = of?.pairs[day]?.find((one) => one.bay === bay && one.person === person);
    if (!of || !pair) return false;
    const ends = start + of.minutes;
    const clashes = (other: number): boolean => {
      const begins = this.start[other] ?? 0;
      return begins < ends && start < begins + (this.minutes[other] ?? 0);
    };
    return (
      pair.spans.some((from, i) => i % 2 === 0 && from <= start && ends <= (pair.spans[i + 1] ?? 0)) &&
      !this.jobsOfBay(bay, day).some(clashes) &&
      !this.jobsOfPerson(person, day).some(clashes)
    );
  }

  /** Looks for the earliest start at which both are free, with the minutes that lie idle before it. */
  private earliest({ bay, person, spans }: Pair, day: number, minutes: number): boolean {
    const { days } = this.space;
    const inBay = this.ofBay[bay * days + day] ?? [];
    const atHand = this.ofPerson[person * days + day] ?? [];
    for (let s = 0; s < spans.length; s += 2) {
      const from = spans[s] ?? 0;
      const to = spans[s + 1] ?? 0;
      let start = from;
      let [i, j] = [0, 0];
      let [endOfBay, endOfPerson] = [from, from];
      for (let moved = true; moved; ) {
        moved = false;
        for (; i < inBay.length; i += 1) {
          const other = inBay[i] ?? 0;
          const begins = this.start[other] ?? 0;
          if (begins >= start + minutes) break;
          endOfBay = begins + (this.minutes[other] ?? 0);
          if (endOfBay > start) {
            start = endOfBay;
            moved = true;
          }
        }
        for (; j < atHand.length; j += 1) {
          const other = atHand[j] ?? 0;
          const begins = this.start[other] ?? 0;
          if (begins >= start + minutes) break;
          endOfPerson = begins + (this.minutes[other] ?? 0);
          if (endOfPerson > start) {
            start = endOfPerson;
            moved = true;
          }
        }
      }
      if (start + minutes > to) continue;
      this.foundStart = start;
      this.foundIdle = start - Math.max(from, endOfBay) + start - Math.max(from, endOfPerson);
      return true;
    }
    return false;
  }
}

/** Idle minutes that weigh as much as one ability that a job does not need. */
const SCARCITY_MIN = 12;

function drop(list: number[], job: number): void {
  const at = list.indexOf(job);
  if (at >= 0) list.splice(at, 1);
}
