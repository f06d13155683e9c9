import type { UnitName } from './unit';

const UNIT_SYSTEMS = ['metric', 'us'] as const;
export type UnitSystem = (typeof UNIT_SYSTEMS)[number];

/** The units in which a bare figure is read, and figures are shown first. */
export interface PersonUnits {
  readonly gap: UnitName;
  readonly torque: UnitName;
  readonly distance: UnitName;
  readonly resistance: UnitName;
}

/** What a person's unit system makes of a number without a unit. */
export const personUnits = (system: UnitSystem): PersonUnits =>
  system === 'us'
    ? { gap: 'in', torque: 'lbf·ft', distance: 'mi', resistance: 'Ω' }
    : { gap: 'mm', torque: 'N·m', distance: 'km', resistance: 'Ω' };
