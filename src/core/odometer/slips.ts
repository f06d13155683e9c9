import { KM_PER_MILE } from '../units/unit';

/* What a figure read off a dash may have been: in the digits and the unit of the dash. */

/** A figure as it stood on the dash. */
export interface Shown {
  readonly value: number;
  readonly unit: 'km' | 'mi';
  /** What meters before this one had shown, km. */
  readonly offsetKm?: number;
}

const factor = (unit: Shown['unit']): number => (unit === 'mi' ? KM_PER_MILE : 1);
/** What a figure says of the vehicle's life, km. */
export const kmOf = ({ value, unit, offsetKm = 0 }: Shown): number => value * factor(unit) + offsetKm;
/** Half a unit of a dash, km: less than its last digit tells, however the figure was rounded when it was kept. */
export const halfUnitKm = ({ unit }: Pick<Shown, 'unit'>): number => factor(unit) / 2;
/** The figure that a dash shows for so much of a life. */
export const shownFor = (km: number, unit: Shown['unit'], offsetKm: number): Shown => ({
  value: (km - offsetKm) / factor(unit),
  unit,
  offsetKm,
});

interface Slip {
  readonly km: number;
  /** How unlikely this slip is beside others, as a logarithm. */
  readonly rare: number;
}

/** Digits that are taken for each other on a worn dash or in a hand. */
const ALIKE: readonly string[] = ['17', '38', '08', '56', '69', '49', '35', '27'];
const lookAlike = (a: string, b: string): boolean =>
  ALIKE.some((pair) => pair.includes(a) && pair.includes(b) && a !== b);

/** Slips of the hand, the commonest first. */
const RARE = { tenths: 0, swapped: 0, doubled: 0, dropped: 0.5, added: 1.5, alike: 1, misread: 2.5 };

/** Every figure that is one slip away from the shown one, and not the same. */
export function digitSlips(shown: Shown): readonly Slip[] {
  const text = String(Math.round(shown.value));
  const slips = new Map<string, number>();
  const add = (digits: string, rare: number): void => {
    if (digits === '' || Number(digits) === Number(text)) return;
    slips.set(digits, Math.min(rare, slips.get(digits) ?? Number.POSITIVE_INFINITY));
  };
  for (let i = 0; i < text.length; i++) {
    const [here, next] = [text.charAt(i), text.charAt(i + 1)];
    const without = text.slice(0, i) + text.slice(i + 1);
    if (i === text.length - 1) add(without, RARE.tenths);
    add(without, here === next ? RARE.doubled : RARE.added);
    if (next !== '') add(text.slice(0, i) + next + here + text.slice(i + 2), RARE.swapped);
    for (let digit = 0; digit <= 9; digit++) {
      const other = String(digit);
      add(text.slice(0, i) + other + text.slice(i + 1), lookAlike(here, other) ? RARE.alike : RARE.misread);
    }
  }
  for (let i = 0; i <= text.length; i++)
    for (let digit = 0; digit <= 9; digit++) add(text.slice(0, i) + String(digit) + text.slice(i), RARE.dropped);
  return [...slips].map(([digits, rare]) => ({ km: kmOf({ ...shown, value: Number(digits) }), rare }));
}

/** A meter is near its end, or at its beginning, within this share of what it can show. */
const ROLLOVER_SHARE = 0.1;
const FEWEST_DIGITS = 5;

/** Past all nines the meter begins anew. @returns km; null: the last reading was not near the end */
export function rolledOver(shown: Shown, lastKm: number): number | null {
  const { value, unit, offsetKm = 0 } = shown;
  const last = shownFor(lastKm, unit, offsetKm).value;
  const capacity = 10 ** Math.max(FEWEST_DIGITS, String(Math.floor(last)).length);
  const near = last >= capacity * (1 - ROLLOVER_SHARE) && value <= capacity * ROLLOVER_SHARE;
  return near ? kmOf({ ...shown, value: value + capacity }) : null;
}
