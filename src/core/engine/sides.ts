import type { Bank, BankPlace, EngineModel } from './model';

export const STEERING_SIDES = ['left', 'right'] as const;
/** Side of the vehicle, as its driver sees it, on which the wheel is. */
type SteeringSide = (typeof STEERING_SIDES)[number];

/**
 * What a bank is called by those who say "driver's side". Places are stored as a person in front of the vehicle sees
 * them, so what is left there is right for the driver.
 *
 * @returns null for a single bank, for front and rear, and where nobody has said on which side the wheel is
 */
export function sideWords(place: BankPlace, steering: SteeringSide | null): string | null {
  if ((place !== 'left' && place !== 'right') || steering === null) return null;
  const vehicleSide = place === 'left' ? 'right' : 'left';
  return vehicleSide === steering ? 'driver’s side' : 'passenger’s side';
}

/** The bank that "driver's side", "passenger's side", "front" or "rear" means here. Null: it cannot be told. */
export function bankNamed(model: EngineModel, words: string, steering: SteeringSide | null): Bank | null {
  const plain = words.trim().toLowerCase().replace(/'/g, '’');
  return model.banks.find((bank) => bank.place === plain || sideWords(bank.place, steering) === plain) ?? null;
}
