import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { VehicleId } from '../shared/kinds';
import type { RemovalReason, Stay } from './history';
import { claimOf } from './warranty';

const stay = (over: Partial<Stay> = {}): Stay => ({
  vehicleId: 'v' as VehicleId,
  component: 'coil',
  cylinder: 3,
  position: 'A',
  tag: 'NC-1',
  installedOn: '2025-01-10',
  installedKm: 80_000,
  installedKmCertainty: 'exact',
  removedOn: '2026-03-01',
  removedKm: 101_000,
  removedKmCertainty: 'exact',
  removalReason: 'failed',
  ...over,
});
const TWO_YEARS = { months: 24, km: 40_000 };

describe('a claim', () => {
  it('is open where a part failed before both limits, until the day of the first', () => {
    expect(claimOf([stay()], TWO_YEARS)).toEqual({
      isWithin: true,
      until: '2027-01-10',
      ageKm: 21_000,
      isAbout: false,
    });
    expect(claimOf([stay({ removedKmCertainty: 'estimated' })], TWO_YEARS)?.isAbout).toBe(true);
    expect(claimOf([stay({ removedKm: 130_000 })], TWO_YEARS)?.isWithin).toBe(false);
    expect(claimOf([stay({ removedOn: '2027-02-01' })], TWO_YEARS)?.isWithin).toBe(false);
  });

  it('counts a part that changed cylinders from its first place', () => {
    const moved = [
      stay({ cylinder: 1, installedKm: 50_000, removedKm: 80_000, removalReason: 'swap' }),
      stay({ installedOn: '2025-09-01' }),
    ];
    expect(claimOf(moved, TWO_YEARS)).toMatchObject({ ageKm: 51_000, isWithin: false, until: '2027-01-10' });
  });

  it('is none where the part is not to blame, sits there still, or nobody knows a limit', () => {
    const blameless: readonly RemovalReason[] = [
      'planned',
      'with_other_work',
      'damaged_by_work',
      'wrong_part',
      'unknown',
    ];
    fc.assert(
      fc.property(fc.constantFrom(...blameless), (removalReason) => {
        expect(claimOf([stay({ removalReason })], TWO_YEARS)).toBeNull();
      }),
    );
    expect(claimOf([stay({ removedOn: null, removedKm: null, removalReason: null })], TWO_YEARS)).toBeNull();
    expect(claimOf([stay()], { months: null, km: null })).toBeNull();
  });
});
