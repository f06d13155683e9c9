import { existsSync } from 'node:fs';
import { planClashes } from '../src/core/planning/plan-check';
import type { PlanProblem } from '../src/core/planning/plan-problem';
import { scheduleOf } from '../src/core/planning/solver/reasons';
import { PlanSearch } from '../src/core/planning/solver/search';
import { type Space, spaceOf } from '../src/core/planning/solver/space';
import { solvePlan } from '../src/server/planning/solve';
import { instance, LARGE, SHAPES, type Shape } from './plan-instances';

/*
 * Plans of ten invented workshops and one large one: how far each lies over the bound that is proven in the same run, and how
 * much less is lost than by the two usual rules. `--small`: two of them, briefly. `--best`: each also long and from many seeds.
 */

const isSmall = process.argv.includes('--small');
const isThorough = process.argv.includes('--best');
if (!existsSync('generated/planner-thread.mjs')) throw new Error('npm run build makes the planner’s thread');

/** Jobs in an order, each as soon as it goes: as a person does it from a list. */
function byRule(space: Space, order: (a: number, b: number) => number): number {
  const schedule = scheduleOf(space, []);
  for (const job of [...space.jobs.keys()].sort(order)) {
    const of = space.jobs[job];
    if (!of || schedule.isPlanned(job)) continue;
    for (let day = 0; day < space.days; day += 1) {
      const slot = schedule.find(job, day);
      if (!slot) continue;
      schedule.put(job, slot);
      break;
    }
  }
  return schedule.cost;
}

/** What another day of waiting adds at first: the most overdue loses the most. */
const pressureOf = ({ jobs }: PlanProblem, job: number): number => {
  const costs = jobs[job]?.costByDay ?? [];
  return (costs[1] ?? 0) - (costs[0] ?? 0);
};
/** The day on which it costs least: its due day as this problem knows it. */
const dueOf = ({ jobs }: PlanProblem, job: number): number => {
  const costs = jobs[job]?.costByDay ?? [];
  return costs.indexOf(Math.min(...costs));
};

function bestKnown(problem: PlanProblem): number {
  const space = spaceOf(problem);
  return Math.min(
    ...[1, 2, 3, 4, 5, 6].map((seed) => {
      const rounds = 600_000;
      const search = new PlanSearch(space, seed, rounds);
      search.run(rounds);
      search.polish();
      return search.bestCost;
    }),
  );
}

const percent = (share: number): string => `${(share * 100).toFixed(2)} %`;
const gaps: number[] = [];
const toBest: number[] = [];

async function measure(shape: Shape, seconds: number): Promise<number> {
  const problem = { ...instance(shape), seconds };
  const from = performance.now();
  let firstSeen = 0;
  const plan = await solvePlan(problem, {
    onNews: ({ cost }) => {
      if (cost !== null && firstSeen === 0) firstSeen = cost;
    },
  });
  const took = (performance.now() - from) / 1000;
  if (planClashes(problem, plan.assignments).length > 0) throw new Error(`${shape.name}: a hard rule is broken`);
  const space = spaceOf(problem);
  const overdue = byRule(space, (a, b) => pressureOf(problem, b) - pressureOf(problem, a));
  const earliest = byRule(space, (a, b) => dueOf(problem, a) - dueOf(problem, b));
  const gap = (plan.cost - plan.lowerBound) / plan.cost;
  const least = plan.lowerBound;
  const avoidable = (rule: number): string => percent((rule - plan.cost) / (rule - least));
  const known = isThorough ? Math.min(plan.cost, bestKnown(problem)) : null;
  if (known !== null) toBest.push((plan.cost - known) / plan.cost);
  process.stdout.write(
    `${shape.name}: ${shape.jobs} jobs, ${shape.bays} bays, ${shape.days} days, ${percent(shape.load)} full: ${percent(gap)} over the proven bound` +
      `${known === null ? '' : `, ${percent((plan.cost - known) / plan.cost)} over the best known`}` +
      ` after ${took.toFixed(1)} s; costs ${percent(1 - plan.cost / overdue)} less than most-overdue-first (${avoidable(overdue)} of what can be avoided),` +
      ` ${percent(1 - plan.cost / earliest)} less than earliest-due-first (${avoidable(earliest)})\n`,
  );
  return gap;
}

const middle = (list: readonly number[]): number => {
  const sorted = [...list].sort((a, b) => a - b);
  return ((sorted[Math.floor((sorted.length - 1) / 2)] ?? 0) + (sorted[Math.ceil((sorted.length - 1) / 2)] ?? 0)) / 2;
};

const shapes = isSmall ? SHAPES.slice(0, 2) : SHAPES;
for (const shape of shapes) gaps.push(await measure(shape, isSmall ? 1 : 10));
process.stdout.write(`Over the bound: median ${percent(middle(gaps))}, worst ${percent(Math.max(...gaps))}\n`);
if (toBest.length > 0)
  process.stdout.write(
    `Over the best known: median ${percent(middle(toBest))}, worst ${percent(Math.max(...toBest))}\n`,
  );
if (!isSmall) {
  await measure(LARGE, 50);
  process.stdout.write(`Peak memory: ${Math.round(process.resourceUsage().maxRSS / 1024)} MB, threads included\n`);
}
