import { describe, expect, it } from 'vitest';
import type { PlainDate } from '../calendar/plain-date';
import type { Km } from '../shared/kinds';
import { type SeizingFacts, seizingRisk } from './seizing-risk';

const old: SeizingFacts = {
  today: '2026-11-16' as PlainDate,
  fittedOn: '2016-04-28' as PlainDate,
  fittedKm: 0 as Km,
  odometerKm: 205_000 as Km,
  head: 'aluminium',
  shell: 'bare',
  isKnownFor: false,
};

describe('the risk that plugs are seized', () => {
  it('has its reasons: never out, long in, bare steel in aluminium', () => {
    expect(seizingRisk(old)).toEqual({ years: 10, km: 205_000, shell: 'bare', isKnownFor: false });
    expect(seizingRisk({ ...old, shell: null })?.shell).toBe('unknown');
    expect(seizingRisk({ ...old, odometerKm: null })).toMatchObject({ years: 10, km: null });
  });

  it.each([
    ['a plated shell', { shell: 'plated' }],
    ['an iron head', { head: 'iron' }],
    ['plugs that have been out', { fittedKm: 60_000 }],
    ['a vehicle of which nothing is known', { fittedOn: null, fittedKm: null }],
    ['a young one', { fittedOn: '2022-01-01', odometerKm: 70_000 }],
  ])('is none of %s', (_, over) => {
    expect(seizingRisk({ ...old, ...over } as SeizingFacts)).toBeNull();
  });

  it('comes at half the age or distance where the engine is known for it', () => {
    const young = { ...old, fittedOn: '2022-01-01' as PlainDate, odometerKm: 70_000 as Km };
    expect(seizingRisk({ ...young, isKnownFor: true })).toMatchObject({ years: 4, isKnownFor: true });
  });
});
