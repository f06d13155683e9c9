import type { SuspectPart } from './misfire-case';

/** How far a part usually lasts where neither a sheet nor the fleet's own record says, km. Assumed. */
export const USUAL_LIFE_KM: Readonly<Record<SuspectPart, number>> = {
  coil: 200_000,
  lead: 120_000,
  plug: 100_000,
  boot: 120_000,
  injector: 250_000,
  cap: 120_000,
  rotor: 100_000,
  coil_lead: 120_000,
  connector: 400_000,
};
