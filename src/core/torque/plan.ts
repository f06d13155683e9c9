import { addMonths, type PlainDate } from '../calendar/plain-date';
import type { Mm, Nm } from '../shared/kinds';
import { DEFAULT_TOLERANCE } from '../units/read-range';
import { roundToStep } from '../units/round';
import { sayTorque, sayTorques } from '../units/say';
import { fromSi, toSi, type UnitName } from '../units/unit';

export const THREADS = ['M8', 'M10', 'M12', 'M14', 'M18'] as const;
export type Thread = (typeof THREADS)[number];
export const SEATS = ['gasket', 'conical'] as const;
export type Seat = (typeof SEATS)[number];
export const HEADS = ['aluminium', 'iron'] as const;
export type Head = (typeof HEADS)[number];
export const GASKETS = ['new', 'used'] as const;
export const LUBRICANTS = ['dry', 'anti_seize'] as const;

export type TorqueUnit = Extract<UnitName, 'N·m' | 'lbf·ft' | 'lbf·in'>;

export interface Range {
  readonly min: number;
  readonly max: number;
}

export interface Wrench extends Range {
  /** Unit of min, max and step. */
  readonly unit: TorqueUnit;
  readonly step: number;
  /** Handle's pull to square drive, mm. */
  readonly lengthMm: Mm;
  readonly calibratedOn: PlainDate;
}

export interface TorqueInput {
  /** N·m, for clean dry threads. */
  readonly specNm: Range;
  readonly thread: Thread;
  readonly seat: Seat;
  readonly gasket: (typeof GASKETS)[number];
  readonly head: Head;
  readonly lubricant: (typeof LUBRICANTS)[number];
  /** Share by which anti-seize lowers the torque; by default 0.30. */
  readonly reduction?: number;
  readonly wrench?: Wrench;
  /** Crowfoot or other offset: square drive to fastener, mm; 0° in line with the wrench. */
  readonly adapter?: { readonly lengthMm: Mm; readonly angleDeg: number };
  readonly on: PlainDate;
}

type TorqueWarningCode =
  | 'spec_outside_band'
  | 'reduction_outside_range'
  | 'adapter_without_wrench'
  | 'adapter_impossible'
  | 'wrench_too_small'
  | 'wrench_too_large'
  | 'wrench_not_calibrated'
  | 'step_misses_range';

interface TorqueWarning {
  readonly code: TorqueWarningCode;
  readonly message: string;
}

export interface TorquePlan {
  /** At the plug, after the lubricant correction, N·m, not rounded. */
  readonly targetNm: Nm;
  readonly setting: { readonly value: number; readonly unit: TorqueUnit } | null;
  readonly wrenchOk: boolean;
  /** From finger-tight contact, degrees: the way where no wrench fits. */
  readonly angleDeg: Range;
  readonly pullN: number | null;
  readonly warnings: readonly TorqueWarning[];
}

/** Default anti-seize correction and the range a policy may choose from. Source: T = K·F·d, Shigley's Mechanical Engineering Design. */
export const ANTI_SEIZE_REDUCTION = 0.3;
const REDUCTION_RANGE: Range = { min: 0.1, max: 0.4 };
/** A wrench is usable from this share of its range. Source: ISO 6789. */
export const MIN_SHARE_OF_RANGE = 0.2;
export const CALIBRATION_MONTHS = 12;
/** A spec this far outside the usual band is doubted. */
const BAND_TOLERANCE = 0.25;

/** Usual install torque, N·m, clean dry threads. Source: general trade guidance; the spec sheet wins. */
function usualTorque(thread: Thread, seat: Seat, head: Head): Range {
  const iron = head === 'iron';
  switch (thread) {
    case 'M8':
      return { min: 8, max: 10 };
    case 'M10':
      return { min: 10, max: 12 };
    case 'M12':
      return { min: 15, max: 20 };
    case 'M14':
      if (seat === 'gasket') return iron ? { min: 25, max: 35 } : { min: 20, max: 30 };
      return iron ? { min: 15, max: 25 } : { min: 10, max: 20 };
    case 'M18':
      return iron ? { min: 20, max: 30 } : { min: 15, max: 25 };
  }
}

/** Turn from finger-tight contact, degrees. Source: trade guidance; the spec sheet wins. */
export function turnAngle(seat: Seat, gasket: 'new' | 'used'): Range {
  if (seat === 'conical') return { min: 22.5, max: 22.5 };
  return gasket === 'new' ? { min: 180, max: 240 } : { min: 30, max: 45 };
}

/**
 * From the dry spec to the figure to set on this wrench: lubricant, adapter, unit and step, and the check of the wrench.
 *
 * @returns never throws for a doubtful figure: it says so in `warnings`; `setting` is null without a wrench
 */
export function planTorque(input: TorqueInput): TorquePlan {
  const factor = input.lubricant === 'anti_seize' ? 1 - (input.reduction ?? ANTI_SEIZE_REDUCTION) : 1;
  const targetNm = ((input.specNm.min + input.specNm.max) / 2) * factor;
  const warnings = [...specWarnings(input), ...reductionWarnings(input)];
  const angleDeg = turnAngle(input.seat, input.gasket);
  if (!input.wrench) {
    const lost: TorqueWarning[] = input.adapter
      ? [
          {
            code: 'adapter_without_wrench',
            message: 'The adapter changes the setting by the length of the wrench: choose a wrench.',
          },
        ]
      : [];
    return { targetNm, setting: null, wrenchOk: false, angleDeg, pullN: null, warnings: [...warnings, ...lost] };
  }
  return withWrench(input, input.wrench, targetNm, factor, angleDeg, warnings);
}

/** A single figure is a spec with the shop's default tolerance. */
const withDefaultTolerance = ({ min, max }: Range): Range =>
  min === max ? { min: min * (1 - DEFAULT_TOLERANCE), max: max * (1 + DEFAULT_TOLERANCE) } : { min, max };

/**
 * The figure to set on a wrench of the shop so that the fastener gets its torque, and the check of the wrench.
 *
 * @param rangeNm at the fastener, lubricant allowed for, N·m
 * @param adapterMm of a crowfoot in line with the wrench, square drive to fastener, mm; null: none
 */
export const setWrench = (rangeNm: Range, wrench: Wrench, adapterMm: Mm | null, on: PlainDate): WrenchCheck => {
  const adapter = adapterMm === null ? undefined : { lengthMm: adapterMm, angleDeg: 0 };
  const plan = withWrench({ specNm: rangeNm, adapter, on }, wrench, (rangeNm.min + rangeNm.max) / 2, 1, NO_ANGLE, []);
  const { setting, wrenchOk: ok, warnings } = plan;
  return { ok, setting, says: warnings.map(({ message }) => message), ratio: adapterRatio(wrench, adapter) };
};

export interface WrenchCheck extends Pick<TorquePlan, 'setting'> {
  readonly ok: boolean;
  /** What speaks against it, in words. */
  readonly says: readonly string[];
  /** What is set over what the fastener gets. */
  readonly ratio: number;
}
const NO_ANGLE: Range = { min: 0, max: 0 };

function withWrench(
  input: Pick<TorqueInput, 'specNm' | 'adapter' | 'on'>,
  wrench: Wrench,
  targetNm: Nm,
  factor: number,
  angleDeg: Range,
  before: readonly TorqueWarning[],
): TorquePlan {
  const ratio = adapterRatio(wrench, input.adapter);
  if (!(ratio > 0 && Number.isFinite(ratio))) {
    const fault: TorqueWarning = {
      code: 'adapter_impossible',
      message: 'With this adapter the wrench turns the fastener the wrong way or not at all. Choose another angle.',
    };
    return { targetNm, setting: null, wrenchOk: false, angleDeg, pullN: null, warnings: [...before, fault] };
  }
  const exact = fromSi(targetNm * ratio, wrench.unit);
  const value = roundToStep(exact, wrench.step);
  const faults = [...rangeWarnings(wrench, value), ...calibrationWarnings(wrench, input.on)];
  const atPlug = toSi(value, wrench.unit) / ratio;
  const { min, max } = withDefaultTolerance(input.specNm);
  const missed: TorqueWarning[] =
    atPlug < min * factor - 1e-9 || atPlug > max * factor + 1e-9
      ? [
          {
            code: 'step_misses_range',
            message: `No step of this wrench gives a torque within the range: ${value} ${wrench.unit} gives ${sayTorque(atPlug)}. Use a finer wrench.`,
          },
        ]
      : [];
  return {
    targetNm,
    setting: { value, unit: wrench.unit },
    wrenchOk: faults.length === 0 && missed.length === 0,
    angleDeg,
    pullN: toSi(value, wrench.unit) / (wrench.lengthMm / 1000),
    warnings: [...before, ...faults, ...missed],
  };
}

/** T_set / T = L / (L + E·cos θ). A straight extension is no adapter: it changes nothing. */
function adapterRatio({ lengthMm }: Wrench, adapter: TorqueInput['adapter']): number {
  if (!adapter) return 1;
  return lengthMm / (lengthMm + adapter.lengthMm * Math.cos((adapter.angleDeg * Math.PI) / 180));
}

function rangeWarnings(wrench: Wrench, value: number): readonly TorqueWarning[] {
  const least = Math.max(wrench.min, wrench.max * MIN_SHARE_OF_RANGE);
  const range = `${Number(least.toPrecision(4))} to ${wrench.max} ${wrench.unit}`;
  if (value > wrench.max)
    return [
      { code: 'wrench_too_small', message: `${value} ${wrench.unit} is over this wrench: it is usable from ${range}.` },
    ];
  if (value < least)
    return [
      {
        code: 'wrench_too_large',
        message: `${value} ${wrench.unit} is too low for this wrench: it is usable from ${range}. Take a smaller one, or turn by angle.`,
      },
    ];
  return [];
}

function calibrationWarnings({ calibratedOn }: Wrench, on: PlainDate): readonly TorqueWarning[] {
  if (addMonths(calibratedOn, CALIBRATION_MONTHS) >= on) return [];
  return [
    {
      code: 'wrench_not_calibrated',
      message: `Last calibrated on ${calibratedOn}, over ${CALIBRATION_MONTHS} months ago. Take another wrench, or turn by angle.`,
    },
  ];
}

function reductionWarnings({ lubricant, reduction }: TorqueInput): readonly TorqueWarning[] {
  // 0: the torque is given for greased threads already.
  if (lubricant === 'dry' || reduction === undefined || reduction === 0) return [];
  if (reduction >= REDUCTION_RANGE.min && reduction <= REDUCTION_RANGE.max) return [];
  return [
    {
      code: 'reduction_outside_range',
      message: `A correction of ${Math.round(reduction * 100)} % is outside the usual 10 to 40 %.`,
    },
  ];
}

function specWarnings({ specNm, thread, seat, head }: TorqueInput): readonly TorqueWarning[] {
  const message = doubtOfTorque(specNm, thread, seat, head);
  return message ? [{ code: 'spec_outside_band', message }] : [];
}

/** Says why a torque spec is doubted, and names the unit slip that would explain it. Null when it is usual. */
export function doubtOfTorque(specNm: Range, thread: Thread, seat: Seat, head: Head): string | null {
  const band = usualTorque(thread, seat, head);
  const within = (nm: Range): boolean =>
    nm.min >= band.min * (1 - BAND_TOLERANCE) && nm.max <= band.max * (1 + BAND_TOLERANCE);
  if (within(specNm)) return null;
  const warning = `${sayTorques(specNm)} is far from the usual ${sayTorques(band)} for ${thread}, ${seat} seat, ${head} head.`;
  const slip = SLIPS.find(({ from, to }) =>
    within({ min: toSi(fromSi(specNm.min, from), to), max: toSi(fromSi(specNm.max, from), to) }),
  );
  if (!slip) return `${warning} Check it against its source.`;
  return `${warning} The same figure fits as ${slip.to}: was ${slip.to} read as ${slip.from}?`;
}

const TORQUE_UNITS: readonly TorqueUnit[] = ['N·m', 'lbf·ft', 'lbf·in'];
const SLIPS = TORQUE_UNITS.flatMap((from) => TORQUE_UNITS.filter((to) => to !== from).map((to) => ({ from, to })));
