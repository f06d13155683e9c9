import fc from 'fast-check';
import { type ModelWithoutIgnition, standardCoils } from './coils';
import { type EngineModel, IGNITIONS, POSITIONS } from './model';

/** An engine with the coils that its ignition usually has. */
export const engine = (
  model: ModelWithoutIgnition & Partial<Pick<EngineModel, 'coils' | 'distributor'>>,
): EngineModel => ({
  ...model,
  coils: model.coils ?? standardCoils(model),
  distributor:
    model.distributor ?? (model.ignition === 'distributor' ? { rotation: 'clockwise', towerOfCylinder1: 1 } : null),
});

/** Four in a row, a coil on each plug. */
export const inline4 = engine({
  arrangement: 'inline',
  mounting: 'transverse',
  ignition: 'coil_on_plug',
  plugsPerCylinder: 1,
  banks: [{ place: 'only', cylinders: [1, 2, 3, 4] }],
  firingOrder: [1, 3, 4, 2],
});

/** Six in a V across the vehicle, a coil on each plug. */
export const transverseV6 = engine({
  arrangement: 'v',
  mounting: 'transverse',
  ignition: 'coil_on_plug',
  plugsPerCylinder: 1,
  banks: [
    { place: 'rear', cylinders: [1, 3, 5] },
    { place: 'front', cylinders: [2, 4, 6] },
  ],
  firingOrder: [1, 2, 3, 4, 5, 6],
});

/** Any consistent engine: every arrangement, mounting, ignition, firing order and direction of rotation. */
export const anyEngine: fc.Arbitrary<EngineModel> = fc
  .record({
    perBank: fc.integer({ min: 1, max: 8 }),
    arrangement: fc.constantFrom('inline' as const, 'v' as const, 'flat' as const),
    mounting: fc.constantFrom('longitudinal' as const, 'transverse' as const),
    ignition: fc.constantFrom(...IGNITIONS),
    plugs: fc.constantFrom(1 as const, 2 as const),
    rotation: fc.constantFrom('clockwise' as const, 'counterclockwise' as const),
    tower: fc.nat(),
    inARow: fc.boolean(),
    keys: fc.array(fc.nat(), { minLength: 16, maxLength: 16 }),
  })
  .map(({ perBank, arrangement, mounting, ignition, plugs, rotation, tower, inARow, keys }) => {
    const banks = arrangement === 'inline' ? 1 : 2;
    const numbers = Array.from({ length: perBank * banks }, (_, i) => i + 1);
    const pair = mounting === 'transverse' ? (['rear', 'front'] as const) : (['left', 'right'] as const);
    const places = banks === 1 ? (['only'] as const) : pair;
    const odd = numbers.length % 2 === 1;
    const cylindersOfBank = (b: number): number[] => numbers.filter((n) => (n - 1) % banks === b);
    // All A of a bank before all B: neighbours in the row are never on one cylinder.
    const holes = places.map((_, b) =>
      POSITIONS.flatMap((position) => cylindersOfBank(b).map((cylinder) => ({ cylinder, position }))),
    );
    return engine({
      arrangement,
      mounting,
      ignition: odd && ignition === 'waste_spark' ? 'coil_on_plug' : ignition,
      plugsPerCylinder: plugs,
      banks: places.map((place, b) => ({ place, cylinders: cylindersOfBank(b) })),
      holes: plugs === 2 && inARow ? holes : null,
      firingOrder: [...numbers].sort((a, b) => (keys[a - 1] ?? 0) - (keys[b - 1] ?? 0) || a - b),
      ...(ignition === 'distributor'
        ? { distributor: { rotation, towerOfCylinder1: (tower % numbers.length) + 1 } }
        : {}),
    });
  });
