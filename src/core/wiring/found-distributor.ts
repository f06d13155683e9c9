import type { PlainDate } from '../calendar/plain-date';
import type { Distributor, EngineModel } from '../engine/model';
import { err, ok, type Result } from '../shared/result';
import { checkIndexing, type Tower } from './firing-map';

/** A distributor that does not stand as its family's does: set back turned, so that each lead sits some towers on. */
export interface FoundDistributor extends Distributor {
  /** How it was proven: "rotor at tower 4 with cylinder 1 at its mark". */
  readonly proof: string;
  readonly by: string;
  readonly on: PlainDate;
}

/** An engine as it is in one vehicle. */
export const asFound = <M extends EngineModel>(model: M, reading: FoundDistributor | null): M =>
  reading && model.ignition === 'distributor'
    ? { ...model, distributor: { rotation: reading.rotation, towerOfCylinder1: reading.towerOfCylinder1 } }
    : model;

/** Towers with the cylinder that their lead runs to, as a person writes them: "5=1 6=5". */
export const tracedFromText = (text: string): readonly Tower[] =>
  [...text.matchAll(/(\d{1,2})[=:](\d{1,2})/g)].map((match) => ({
    tower: Number(match[1]),
    cylinder: Number(match[2]),
  }));

/**
 * How the distributor of a vehicle stands, from leads that were traced by hand.
 *
 * @param model as its family has it
 * @returns null: as its family's; or in words why the leads prove nothing
 */
export function foundDistributor(model: EngineModel, traced: readonly Tower[]): Result<Distributor | null, string> {
  const { distributor, firingOrder } = model;
  if (!distributor) return err('This engine has no distributor.');
  if (traced.length < 2) return err('Trace a second lead: one alone cannot tell. Write tower=cylinder, as 5=1 6=5.');
  const checked = checkIndexing(firingOrder, distributor, traced);
  if (checked.kind === 'contradiction')
    return err(
      'These leads agree with no turn of the cap: two of them are swapped, or one was traced wrongly. Trace them again before anything is kept.',
    );
  return ok(checked.kind === 'as-recorded' ? null : { ...distributor, towerOfCylinder1: checked.towerOfCylinder1 });
}
