import { type Random, seeded } from '../../stats/seeded';
import { Schedule } from './schedule';
import { costAt, type Slot, type Space } from './space';

/*
 * Ruin and recreate: a part of the plan is taken out, jobs near each other by depot and day, and put back greedily in one of
 * several orders, now and then passing over the best place. What is worse is accepted less and less often.
 * Source: Schrimpf et al. 2000; Christiaens and Vanden Berghe 2020.
 */

/** Share of places that are passed over. */
const BLINK = 0.02;
/** Share of rounds that place each job as soon as it goes, whoever does it. */
const SOONEST = 0.15;
/** Share of rounds that take out jobs of depots with the same people too. */
const AROUND = 0.2;
const MIN_RUIN = 2;
const MAX_RUIN = 10;
/** Unplanned jobs that are tried again in one round. */
const MAX_TRIED = 8;
/** Temperature at the beginning and at the end, as shares of what a job costs on average. */
const HOT = 0.05;
const COOL = 0.0004;

/**
 * What is cheaper by less, as a share of the cost of the plan, is not taken for better. The same share ends the search by the
 * bound: which plan comes out does not hang on when the proof comes.
 */
export const WORTH_A_CHANGE = 5e-6;

/** A plan as the search keeps it: a slot for each job, null where it is not planned. */
export type Slots = readonly (Slot | null)[];

export class PlanSearch {
  private schedule: Schedule;
  private readonly random: Random;
  /** Jobs that may move. */
  private readonly free: readonly number[];
  private readonly ofDepot: readonly (readonly number[])[];
  /** With those of depots that share people. */
  private readonly aroundDepot: readonly (readonly number[])[];
  private readonly scale: number;
  private done = 0;
  private bestSlots: Slots;
  bestCost: number;

  /**
   * @param rounds how many there will be in all: the search cools by it
   * @param start a plan to begin with; what of it cannot be is left out
   */
  constructor(
    private readonly space: Space,
    seed: number,
    private readonly rounds: number,
    start: Slots | null = null,
  ) {
    this.random = seeded(seed);
    this.schedule = new Schedule(space);
    const { jobs, depots } = space;
    this.free = [...jobs.keys()].filter((job) => jobs[job]?.pin === null && (jobs[job]?.order.length ?? 0) > 0);
    this.ofDepot = Array.from({ length: depots }, (_, depot) => this.free.filter((job) => jobs[job]?.depot === depot));
    this.aroundDepot = space.sharing.map((near) => near.flatMap((depot) => this.ofDepot[depot] ?? []));
    const spread = this.free.reduce((sum, job) => {
      const spaceJob = jobs[job];
      return spaceJob ? sum + spaceJob.costUnplanned - (spaceJob.cost[spaceJob.order[0] ?? 0] ?? 0) : sum;
    }, 0);
    this.scale = this.free.length > 0 ? spread / this.free.length : 1;
    for (const [job, slot] of (start ?? []).entries()) if (slot) this.restore(job, slot);
    this.recreate(
      [...this.free].filter((job) => !this.schedule.isPlanned(job)),
      'gain',
    );
    this.bestCost = this.schedule.cost;
    this.bestSlots = this.slots();
  }

  get best(): Slots {
    return this.bestSlots;
  }

  get isOver(): boolean {
    return this.done >= this.rounds || this.free.length === 0;
  }

  /** So many rounds more. @returns whether a better plan was found */
  run(rounds: number): boolean {
    const before = this.bestCost;
    for (let i = 0; i < rounds && !this.isOver; i += 1) this.round();
    return this.bestCost < before;
  }

  /** How far the search has come, from 0 to 1. */
  get share(): number {
    return this.rounds > 0 && this.free.length > 0 ? this.done / this.rounds : 1;
  }

  /** Puts each job of the best plan where it costs least, without passing over anything, until nothing gets better. */
  polish(): void {
    const { free } = this;
    // Anew, so that it does not hang on the rounds before.
    this.schedule = new Schedule(this.space);
    const { schedule } = this;
    for (const job of free) {
      const slot = this.bestSlots[job];
      if (slot) schedule.put(job, slot);
    }
    this.bestCost = schedule.cost;
    for (let better = true; better; ) {
      better = false;
      for (const job of free) {
        const before = schedule.cost;
        const slot = schedule.slotOf(job);
        schedule.remove(job);
        const next = this.cheapest(job, 0);
        if (next) schedule.put(job, next);
        if (schedule.cost < before - 1e-6) better = true;
        else {
          schedule.remove(job);
          if (slot) schedule.put(job, slot);
          schedule.cost = before;
        }
      }
    }
    this.keepIfBest();
  }

  private slots(): Slots {
    return [...this.space.jobs.keys()].map((job) => this.schedule.slotOf(job));
  }

  /** Puts a job back where it was agreed, where that can still be. */
  private restore(job: number, slot: Slot): void {
    if (!this.schedule.isPlanned(job) && this.schedule.isFree(job, slot)) this.schedule.put(job, slot);
  }

  private pick<T>(list: readonly T[]): T | undefined {
    return list[Math.floor(this.random() * list.length)];
  }

  private round(): void {
    const { schedule, random } = this;
    const before = schedule.cost;
    const seed = this.pick(this.free);
    this.done += 1;
    if (seed === undefined) return;
    const out = this.ruin(seed);
    const old = out.map((job) => schedule.slotOf(job));
    for (const job of out) schedule.remove(job);
    const order = this.pick(ORDERS) ?? 'random';
    this.recreate(out, order);
    const heat = HOT * (COOL / HOT) ** (this.done / this.rounds) * this.scale;
    if (schedule.cost >= before - heat * Math.log(random()) && schedule.cost > before + 1e-9) {
      for (const job of out) schedule.remove(job);
      for (const [i, job] of out.entries()) {
        const slot = old[i];
        if (slot) schedule.put(job, slot);
      }
      // Sums of small differences drift: what was there is there again.
      schedule.cost = before;
      return;
    }
    this.keepIfBest();
  }

  private keepIfBest(): void {
    const { cost } = this.schedule;
    if (cost >= this.bestCost - WORTH_A_CHANGE * Math.abs(this.bestCost) - 1e-9) return;
    this.bestCost = cost;
    this.bestSlots = this.slots();
  }

  /** What is taken out round a job: neighbours by depot and day, and some that have no place yet. */
  private ruin(seed: number): readonly number[] {
    const { schedule, random } = this;
    const spaceJob = this.space.jobs[seed];
    if (!spaceJob) return [];
    const kin = (random() < AROUND ? this.aroundDepot : this.ofDepot)[spaceJob.depot] ?? [];
    const at = schedule.isPlanned(seed)
      ? (schedule.day[seed] ?? 0)
      : (spaceJob.order[Math.floor(random() ** 2 * spaceJob.order.length)] ?? 0);
    const size = MIN_RUIN + Math.floor(random() * (Math.min(MAX_RUIN, kin.length) - MIN_RUIN + 1));
    const reach = 0.5 + random() * 3;
    const near: { job: number; far: number }[] = [];
    const waiting: number[] = [];
    for (const job of kin) {
      if (job === seed) continue;
      if (!schedule.isPlanned(job)) waiting.push(job);
      else near.push({ job, far: Math.abs((schedule.day[job] ?? 0) - at) + random() * reach });
    }
    near.sort((a, b) => a.far - b.far);
    const out = [seed, ...near.slice(0, size).map(({ job }) => job)];
    for (let i = 0; i < MAX_TRIED && waiting.length > 0; i += 1) {
      const k = Math.floor(random() * waiting.length);
      out.push(waiting[k] ?? 0);
      waiting[k] = waiting.at(-1) ?? 0;
      waiting.pop();
    }
    return out;
  }

  /** Puts jobs where they cost least, one after the other. */
  private recreate(jobs: readonly number[], order: Order): void {
    const { schedule, random } = this;
    const weighed = jobs.map((job) => ({ job, weight: this.weight(job, order) * (0.8 + 0.4 * random()) }));
    weighed.sort((a, b) => b.weight - a.weight || a.job - b.job);
    const isSoonest = random() < SOONEST;
    for (const { job } of weighed) {
      const slot = this.cheapest(job, BLINK, isSoonest);
      if (slot) schedule.put(job, slot);
    }
  }

  private weight(job: number, order: Order): number {
    const spaceJob = this.space.jobs[job];
    if (!spaceJob) return 0;
    const [first = 0, second = first] = spaceJob.order;
    const gain = spaceJob.costUnplanned - (spaceJob.cost[first] ?? 0);
    switch (order) {
      case 'random':
        return this.random();
      case 'long':
        return spaceJob.minutes;
      case 'gain':
        return gain;
      case 'gain_a_minute':
        return gain / spaceJob.minutes;
      case 'few':
        return 1 / spaceJob.order.length;
      case 'steep':
        return (spaceJob.cost[second] ?? 0) - (spaceJob.cost[first] ?? 0);
    }
  }

  private cheapest(job: number, blink: number, isSoonest = false): Slot | null {
    const { schedule, random } = this;
    const spaceJob = this.space.jobs[job];
    if (!spaceJob) return null;
    let best: Slot | null = null;
    let least = spaceJob.costUnplanned;
    for (const day of spaceJob.order) {
      if ((spaceJob.cost[day] ?? 0) >= least) break;
      if (blink > 0 && random() < blink) continue;
      const slot = schedule.find(job, day, isSoonest);
      if (!slot) continue;
      const cost = costAt(this.space, spaceJob, slot);
      if (cost < least) {
        least = cost;
        best = slot;
      }
    }
    return best;
  }
}

const ORDERS = ['random', 'long', 'gain', 'gain_a_minute', 'few', 'steep', 'gain_a_minute', 'long'] as const;
type Order = (typeof ORDERS)[number];
