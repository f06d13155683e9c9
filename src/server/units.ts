import type { UnitName } from '@/core/units/unit';
import type { Actor } from './access';

/** What a person's unit system makes of a number without a unit. */
export function personUnits({ unitSystem }: Pick<Actor, 'unitSystem'>): {
  gap: UnitName;
  torque: UnitName;
  distance: UnitName;
} {
  return unitSystem === 'us'
    ? { gap: 'in', torque: 'lbf·ft', distance: 'mi' }
    : { gap: 'mm', torque: 'N·m', distance: 'km' };
}
