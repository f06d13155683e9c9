import type { Bank, Distributor, Ignition } from '@/core/engine/model';
import type { Electrode, GapSpec, RegapPolicy } from '@/core/gap/check';
import type { SheetLubricant, Shell, TorqueCondition } from '@/core/policy/apply';
import type { PolicyOptions } from '@/core/policy/policies';
import type { Mm } from '@/core/shared/kinds';
import type { Head, Range, Seat, Thread, TorqueUnit } from '@/core/torque/plan';
import type { UnitSystem } from '@/core/units/person-units';

/** What the bench takes from the catalogue; everything can be typed instead. */
interface BenchSheet {
  readonly id: string;
  readonly label: string;
  readonly part: string;
  readonly electrode: Electrode;
  readonly thread: Thread;
  readonly seat: Seat;
  readonly shell: Shell | null;
  readonly head: Head;
  readonly gap: GapSpec;
  readonly torqueNm: Range;
  readonly angleDeg: number | null;
  readonly regap: RegapPolicy;
  readonly regapWhy: string;
  readonly reverseOption: PolicyOptions['reverse_bend'];
  readonly reverseWhy: string;
  readonly compoundOption: PolicyOptions['thread_compound'];
  readonly compoundWhy: string;
  readonly lubricant: SheetLubricant | null;
  readonly torqueFor: TorqueCondition | null;
}

export interface BenchEngine {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly ignition: Ignition;
  readonly banks: readonly Bank[];
  readonly firingOrder: readonly number[];
  readonly distributor: Distributor | null;
  readonly leadLengthsMm: readonly number[] | null;
  readonly compressionRatio: number | null;
  readonly intakeKpa: number | null;
  readonly gapMm: Mm | null;
}

interface BenchWrench {
  readonly id: string;
  readonly name: string;
  readonly unit: TorqueUnit;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly lengthMm: Mm;
  readonly calibratedOn: string;
}

export interface BenchData {
  readonly sheets: readonly BenchSheet[];
  readonly engines: readonly BenchEngine[];
  readonly leadSets: readonly { readonly id: string; readonly number: string; readonly lengthsMm: readonly number[] }[];
  readonly wrenches: readonly BenchWrench[];
  readonly today: string;
}

export interface ToolProps {
  readonly data: BenchData;
  readonly system: UnitSystem;
}

/** A result in words, and what was typed to get it: what can be kept. */
export interface Kept {
  readonly input: Readonly<Record<string, string>>;
  readonly summary: string | null;
}
