import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { EngineModel } from '../engine/model';
import { towerMap } from './firing-map';
import { asFound, foundDistributor, tracedFromText } from './found-distributor';

const model = {
  ignition: 'distributor',
  firingOrder: [1, 5, 3, 6, 2, 4],
  distributor: { rotation: 'clockwise', towerOfCylinder1: 1 },
} as unknown as EngineModel;

describe('a distributor found turned', () => {
  it('is told from two leads, whichever way it was turned', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.nat(5), fc.nat(5), (tower, a, b) => {
        fc.pre(a !== b);
        const real = towerMap(model.firingOrder, { rotation: 'clockwise', towerOfCylinder1: tower });
        const traced = [real[a], real[b]].flatMap((one) => one ?? []);
        const found = foundDistributor(model, traced);
        expect(found).toEqual({
          ok: true,
          value: tower === 1 ? null : { rotation: 'clockwise', towerOfCylinder1: tower },
        });
      }),
    );
  });

  it('is not kept from one lead, or from leads that agree with no turn', () => {
    expect(foundDistributor(model, tracedFromText('5=1'))).toMatchObject({ ok: false });
    expect(foundDistributor(model, tracedFromText('5=1 6=3'))).toMatchObject({
      ok: false,
      error: expect.stringContaining('swapped'),
    });
    expect(foundDistributor({ ...model, distributor: null }, tracedFromText('5=1 6=5'))).toMatchObject({ ok: false });
  });

  it('moves every lead of this vehicle, and touches no engine without one', () => {
    const found = {
      rotation: 'clockwise',
      towerOfCylinder1: 3,
      proof: 'rotor at tower 3',
      by: 'T. Okoro',
      on: '2026-11-16',
    } as const;
    expect(asFound(model, found).distributor).toEqual({ rotation: 'clockwise', towerOfCylinder1: 3 });
    expect(asFound({ ...model, ignition: 'coil_on_plug', distributor: null }, found).distributor).toBeNull();
    expect(asFound(model, null)).toBe(model);
  });
});
