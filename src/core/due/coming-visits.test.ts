import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, type PlainDate } from '../calendar/plain-date';
import { anyEngine } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { allPlaces } from '../engine/places';
import { plainEngine } from '../work/procedure/engine.fixture';
import { replaceTasks, visitMinutes } from '../work/procedure/generate';
import type { ProcedureEngine } from '../work/procedure/step';
import { TASK_COMPONENTS, type TaskComponent } from '../work/task';
import { comingVisits } from './coming-visits';
import { WINDOW_DAYS } from './vehicle-due';

const TODAY = '2026-11-16';
const firm = (day: PlainDate) => ({ p10: day, p50: day, p90: day });
const at = (component: TaskComponent, days: number) => ({ component, due: firm(addDays(TODAY, days)) });

const anyCase = fc
  .record({ model: anyEngine, minutes: fc.integer({ min: 60, max: 400 }) })
  .map(({ model, minutes }) => plainEngine(layoutOf(model), { minutes }));
const visitsOf = (engine: ProcedureEngine, components: Parameters<typeof comingVisits>[1]) =>
  comingVisits((wanted) => visitMinutes(engine, replaceTasks(engine, wanted)), components);

describe('coming visits', () => {
  it('take all plugs by themselves in the minutes of the plug service', () => {
    fc.assert(
      fc.property(anyCase, (engine) => {
        const [visit, ...rest] = visitsOf(engine, [at('plug', 30)]);
        expect(rest).toEqual([]);
        expect(visit?.due.p50).toBe('2026-12-16');
        // Each of some twenty steps is whole minutes.
        expect(Math.abs((visit?.minutes ?? 0) - engine.minutes)).toBeLessThanOrEqual(20);
      }),
    );
  });

  it('do together what falls due within the window of the first, in less time than apart', () => {
    fc.assert(
      fc.property(
        anyCase,
        fc.constantFrom(...TASK_COMPONENTS),
        fc.integer({ min: 0, max: 300 }),
        (engine, other, gap) => {
          fc.pre(other !== 'plug' && allPlaces(engine.layout, other).length > 0);
          const both = visitsOf(engine, [at(other, 10 + gap), at('plug', 10)]);
          const apart = [at('plug', 10), at(other, 10)].flatMap((one) => visitsOf(engine, [one]));
          const sum = (visits: typeof both): number => visits.reduce((total, { minutes }) => total + minutes, 0);
          expect(both).toHaveLength(gap <= WINDOW_DAYS ? 1 : 2);
          if (gap <= WINDOW_DAYS) expect(sum(both)).toBeLessThan(sum(apart));
          else expect(sum(both)).toBeCloseTo(sum(apart), 6);
        },
      ),
    );
  });
});
