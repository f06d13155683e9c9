import type { PlainDate } from '../calendar/plain-date';
import type { Mm, Nm } from '../shared/kinds';
import { sayTorques } from '../units/say';
import { fromSi } from '../units/unit';
import { type Range, setWrench, type Wrench, type WrenchCheck } from './plan';

/* The wrench in hand at the vehicle: one of the shop's, chosen for this torque, checked, and set with what is on it. */

export interface ShopWrench extends Wrench {
  /** What stands on its handle. */
  readonly name: string;
}

interface CheckedWrench extends WrenchCheck {
  readonly wrench: ShopWrench;
}

/** Wrenches are most exact near here in their range. Source: general trade guidance. */
const BEST_SHARE = 0.6;

/** Every wrench for a torque: those that may be used first, and of those the one that is most exact there. */
export function wrenchesFor(
  wrenches: readonly ShopWrench[],
  rangeNm: Range,
  adapterMm: Mm | null,
  on: PlainDate,
): readonly CheckedWrench[] {
  const middle = (rangeNm.min + rangeNm.max) / 2;
  const off = ({ unit, max }: Wrench): number => Math.abs(fromSi(middle, unit) / max - BEST_SHARE);
  return wrenches
    .map((wrench) => ({ wrench, ...setWrench(rangeNm, wrench, adapterMm, on) }))
    .sort((a, b) => Number(b.ok) - Number(a.ok) || off(a.wrench) - off(b.wrench));
}

/** How long an adapter is, as typed: "60", "60 mm". Null: none, or not one that a hand holds. */
export function readAdapterMm(text: string): Mm | null {
  const match = /^\s*(\d{1,3})(?:[.,]\d+)?\s*(?:mm)?\s*$/.exec(text);
  const mm = match ? Number(match[1]) : 0;
  return mm >= 5 && mm <= 500 ? mm : null;
}

/** Half of the last figure that a wrench shows is no fault. */
const TORQUE_STEP_NM = 0.05;

/** Whether a torque is within the range, as finely as a wrench shows it, N·m. */
export const isTorqueInRange = (nm: Nm, { min, max }: Range): boolean =>
  nm >= min - TORQUE_STEP_NM && nm <= max + TORQUE_STEP_NM;

interface InHand {
  /** Name of the wrench; empty: nobody said which. */
  readonly wrench: string;
  /** As typed. */
  readonly adapter: string;
  /** Typed beside the torque, N·m; null: nothing. */
  readonly settingNm: Nm | null;
  readonly remark: string;
}

/** What is wrong with the wrench in hand, by the field that mends it; a reason in the remark lets it stand. */
export function wrenchFaults(
  wrenches: readonly ShopWrench[],
  rangeNm: Range,
  { wrench: name, adapter, settingNm, remark }: InHand,
  on: PlainDate,
): Readonly<Partial<Record<'wrench' | 'adapter' | 'wrenchSetting', string>>> {
  const adapterMm = readAdapterMm(adapter);
  if (adapter.trim() !== '' && adapterMm === null)
    return { adapter: `“${adapter}” is no length of an adapter. Write it like 60 mm, square drive to fastener.` };
  const wrench = wrenches.find((wrench) => wrench.name === name);
  if (adapterMm !== null && !wrench)
    return { wrench: 'The adapter changes the setting by the length of the wrench: choose which wrench it is on.' };
  if (remark.trim() !== '') return {};
  const check = wrench && setWrench(rangeNm, wrench, adapterMm, on);
  if (check && !check.ok)
    return { wrench: `${name}: ${check.says.join(' ')} Take another, or give the reason in the remark.` };
  const ratio = check?.ratio ?? 1;
  const wanted = { min: rangeNm.min * ratio, max: rangeNm.max * ratio };
  if (settingNm === null || isTorqueInRange(settingNm, wanted)) return {};
  const what = adapterMm === null ? 'the wrench is set to' : `with an adapter of ${adapterMm} mm the wrench is set to`;
  return {
    wrenchSetting: `Here ${what} ${sayTorques(wanted)}. Set it so and tighten again, or give the reason in the remark.`,
  };
}
