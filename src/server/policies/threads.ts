import { type CompoundAdvice, compoundAdvice } from '@/core/policy/apply';
import { type InForce, type PolicyChoice, policyInForce } from '@/core/policy/policies';
import type { Range } from '@/core/torque/plan';
import type { EngineFamily, SpecSheet } from '@/db/queries/catalogue';
import { sheetChoices } from './sheet-choices';

interface Threads extends CompoundAdvice {
  readonly inForce: InForce<'thread_compound'>;
  /** What the wrench is to reach at the plug: the dry range, lowered where compound is on the threads. */
  readonly torqueNm: Range;
}

/** What goes on the threads here, by the option in force, and the torque that follows from it. */
export function threadsFor(
  spec: SpecSheet,
  { headMaterial, compoundPlace }: Pick<EngineFamily, 'headMaterial' | 'compoundPlace'>,
  choices: readonly PolicyChoice[],
): Threads {
  const inForce = policyInForce('thread_compound', [...choices, ...sheetChoices(spec)]);
  const advice = compoundAdvice(inForce.option.id, spec.part.shell, headMaterial, spec, compoundPlace ?? undefined);
  const factor = 1 - advice.reduction;
  return {
    ...advice,
    inForce,
    torqueNm: { min: spec.torqueMinNm * factor, max: spec.torqueMaxNm * factor },
  };
}
