import type { SuspectPart } from './misfire-case';

/** How far a part usually lasts where neither a sheet nor the fleet's own record says, km. Assumed. */
export const USUAL_LIFE_KM: Readonly<Record<SuspectPart, number>> = {
  coil: 200_000,
  lead: 120_000,
  plug: 100_000,
  injector: 250_000,
};
