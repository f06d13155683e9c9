import { replaceTasks, visitMinutes } from '@/core/work/procedure/generate';
import { learntMinutes, type TimeRatio } from '@/core/work/procedure/learned';
import { hardestAccess } from '@/core/work/procedure/visit';
import type { TaskComponent } from '@/core/work/task';
import type { EngineFamily } from '@/db/queries/catalogue';
import { corrected } from './learned-of';
import { familyEngine } from './procedure-of';

/** A family with the bay time of its visits: computed once for each set of components, since a fleet has many of each. */
export function engineTimes(family: EngineFamily, ratios: readonly TimeRatio[] = []) {
  const engine = familyEngine(family);
  const known = new Map<string, number>();
  const minutesOf = (components: readonly TaskComponent[]): number => {
    const key = [...components].sort().join(' ');
    const before = known.get(key);
    if (before !== undefined) return before;
    const tasks = replaceTasks(engine, components);
    const minutes = visitMinutes(corrected(engine, tasks, ratios), tasks);
    known.set(key, minutes);
    return minutes;
  };
  /** Within which four of five visits of so many minutes end. */
  const likely = (components: readonly TaskComponent[], minutes: number) => {
    const tasks = replaceTasks(engine, components);
    const { factor, low, high } = learntMinutes(ratios, hardestAccess({ ...engine, tasks }));
    return { fromMin: Math.round((minutes * low) / factor), toMin: Math.round((minutes * high) / factor) };
  };
  return { layout: engine.layout, minutesOf, likely };
}
