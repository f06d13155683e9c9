import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/plain-date';
import { pressureOf } from '../reliability/pressure';
import { ASSUMED_LIFE } from '../reliability/weibull';
import { UNPLANNED_DAYS, type VisitMoney, visitCosts } from './day-costs';

const TODAY = '2026-11-16';
const days = Array.from({ length: 15 }, (_, i) => addDays(TODAY, i));
const visit = (lifeUsed: number, over: Partial<VisitMoney> = {}): VisitMoney => ({
  components: [
    {
      what: 'plug',
      pressure: { lifeUsed, weeklyLife: 0.02, failureCost: 900, wearCostPerPercent: 0.5, model: ASSUMED_LIFE },
      partsCost: 80,
    },
  ],
  troublePerWeek: 0,
  minutes: 90,
  coolMinutes: 60,
  hourCost: 20,
  leavesIn: null,
  ...over,
});

describe('what a visit costs by the day', () => {
  it('counts an open misfire from the first day, and a life that is only assumed up to its limit', () => {
    const quiet = visitCosts(visit(1), days, TODAY);
    const loud = visitCosts(visit(1, { troublePerWeek: 35 }), days, TODAY);
    expect((loud.byDay[14]?.waiting ?? 0) - (quiet.byDay[14]?.waiting ?? 0)).toBeCloseTo(70, 6);
    expect((loud.weekly[0] ?? 0) - (quiet.weekly[0] ?? 0)).toBeCloseTo(35, 6);
    const [known] = visit(1).components;
    if (!known) throw new Error('no component');
    const assumed = { ...known, pressure: { ...known.pressure, mostLife: 1 } };
    const { weekly } = visitCosts(visit(1, { components: [assumed] }), days, TODAY);
    for (const each of weekly) expect(each).toBeCloseTo(weekly[0] ?? 0, 9);
  });

  it('waits a week for what a week costs, and stands as long whenever it comes', () => {
    const { byDay } = visitCosts(visit(1.1), days, TODAY);
    const weekly = visit(1.1).components.reduce((sum, { pressure }) => sum + pressureOf(pressure).total, 0);
    expect(byDay[0]).toMatchObject({ waiting: 0, thrownAway: 0, downtime: 50, total: 50 });
    expect(byDay[7]?.waiting).toBeGreaterThan(weekly);
    expect(byDay[7]?.waiting).toBeLessThan(weekly * 1.5);
  });

  it('throws away the life that is left before the limit', () => {
    const { byDay } = visitCosts(visit(0.9), days, TODAY);
    expect(byDay[0]?.thrownAway).toBeCloseTo(8, 9);
    expect(byDay[7]?.thrownAway).toBeCloseTo(80 * 0.08, 9);
  });

  it('adds up, only ever waits longer and throws less away, and is dearer left out than on its last day while it presses', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1.6, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (life, weekly) => {
          const money = visit(life);
          const own = {
            ...money,
            components: money.components.map((c) => ({ ...c, pressure: { ...c.pressure, weeklyLife: weekly } })),
          };
          const { byDay, unplanned } = visitCosts(own, days, TODAY);
          for (const [i, one] of [...byDay, unplanned].entries()) {
            expect(one.total).toBeCloseTo(one.waiting + one.thrownAway + one.downtime, 9);
            const before = i > 0 ? byDay[i - 1] : undefined;
            if (!before) continue;
            expect(one.waiting).toBeGreaterThanOrEqual(before.waiting - 1e-9);
            expect(one.thrownAway).toBeLessThanOrEqual(before.thrownAway + 1e-9);
          }
          const last = byDay.at(-1);
          const gained = (last?.thrownAway ?? 0) - unplanned.thrownAway;
          expect(unplanned.total).toBeGreaterThanOrEqual((last?.total ?? 0) - gained - 1e-9);
        },
      ),
    );
  });

  it('of a vehicle that leaves soon is only its waiting until then, and new parts for it are mostly thrown away', () => {
    const stays = visitCosts(visit(1.1), days, TODAY);
    const leaves = visitCosts(visit(1.1, { leavesIn: 21 }), days, TODAY);
    // Three weeks use 6 % of a new set.
    expect(leaves.byDay[0]?.thrownAway).toBeCloseTo(80 * 0.94, 9);
    expect(leaves.unplanned).toMatchObject({ thrownAway: 0, downtime: 0 });
    expect(leaves.unplanned.waiting).toBeGreaterThan(stays.byDay[14]?.waiting ?? 0);
    expect(leaves.unplanned.waiting).toBeLessThan(stays.unplanned.waiting);
    // One that stays for years uses what it gets.
    expect(visitCosts(visit(1.1, { leavesIn: 2000 }), days, TODAY)).toEqual(stays);
  });

  it('costs a day that has passed as today', () => {
    expect(visitCosts(visit(1.2), ['2026-11-10', TODAY], TODAY).byDay[0]).toMatchObject({ waiting: 0 });
    expect(UNPLANNED_DAYS).toBe(28);
  });
});
