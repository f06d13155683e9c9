import { replaceTasks, visitMinutes } from '@/core/work/procedure/generate';
import type { TimeRatio } from '@/core/work/procedure/learned';
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
  return { layout: engine.layout, minutesOf };
}
