import { describe, expect, it } from 'vitest';
import type { PlainDate } from '../calendar/plain-date';
import type { BankPlace } from '../engine/model';
import type { OtherWork } from '../engine/other-work';
import type { Km } from '../shared/kinds';
import { otherWorkDue } from './other-work';

const filter: OtherWork = {
  what: 'air filter',
  kind: 'air_filter',
  everyKm: 40_000 as Km,
  everyMonths: 24,
  minutes: 10,
  behind: null,
};
const belt: OtherWork = {
  ...filter,
  what: 'drive belt',
  kind: 'drive_belt',
  everyKm: null,
  everyMonths: 60,
  behind: 'front',
};
const done = (on: string, km: number) => ({ on: on as PlainDate, km: km as Km });
const dueOf = (lastDone: Record<string, ReturnType<typeof done>>, opened: BankPlace[] = [], odometer = 100_000) =>
  otherWorkDue({
    today: '2026-11-16' as PlainDate,
    odometer: odometer as Km,
    items: [belt, filter],
    lastDone: new Map(Object.entries(lastDone)),
    opened: new Set(opened),
  });

describe('other work of a visit', () => {
  it('counts distance or time, whichever is more', () => {
    const [first] = dueOf({ 'air filter': done('2026-05-16', 60_000) });
    expect(first).toMatchObject({ what: 'air filter', lifeUsed: 1, isTaken: true });
    const [byTime] = dueOf({ 'air filter': done('2024-11-16', 99_000) });
    expect(byTime?.lifeUsed).toBeCloseTo(1, 5);
  });

  it('is left where it is young, out of reach, or of unknown age', () => {
    expect(dueOf({ 'air filter': done('2026-10-16', 99_000) })[0]).toMatchObject({
      what: 'air filter',
      kind: 'air_filter',
      isTaken: false,
    });
    const old = { 'drive belt': done('2020-11-16', 1000) };
    expect(dueOf(old)[0]).toMatchObject({ what: 'drive belt', inReach: false, isTaken: false });
    expect(dueOf(old, ['front'])[0]).toMatchObject({ inReach: true, isTaken: true });
    expect(dueOf({}).map(({ lifeUsed, isTaken }) => [lifeUsed, isTaken])).toEqual([
      [null, false],
      [null, false],
    ]);
  });
});
