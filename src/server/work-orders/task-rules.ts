import { partKey } from '@/core/catalogue/match';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { layoutOf } from '@/core/engine/layout';
import { allowedReversals, regapPolicy } from '@/core/policy/apply';
import { optionInForce, type PolicyChoice } from '@/core/policy/policies';
import type { Ohm } from '@/core/shared/kinds';
import { leadWays } from '@/core/wiring/lead-ways';
import type { PartRules, PlugRules, TaskRules } from '@/core/work/place-done';
import type { TaskComponent } from '@/core/work/task';
import { type ComponentSheet, type EngineFamily, isPlugSheet, type SpecSheet } from '@/db/queries/catalogue';
import type { TaskRow } from '@/db/queries/work-orders';
import { gapSpecOf } from '../catalogue/fitment-of';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';

/** What a place of a task is measured by before it counts as done. Null: a plug without its sheet, by which nothing is done. */
export function rulesOf(
  { component, approved }: Pick<TaskRow, 'component' | 'approved'>,
  sheet: ComponentSheet | null,
  family: EngineFamily,
  choices: readonly PolicyChoice[],
  graph: SupersessionGraph,
): TaskRules | null {
  if (component !== 'plug') return withApproved(partRules(component, sheet, family, graph), approved, graph);
  return sheet && isPlugSheet(sheet) ? withApproved(plugRules(sheet, family, choices, graph), approved, graph) : null;
}

/** What a supervisor let in goes in as well; it is never mixed with the sheet's own part. */
function withApproved<R extends TaskRules>(
  rules: R,
  approved: readonly { readonly number: string }[],
  graph: SupersessionGraph,
): R {
  if (approved.length === 0) return rules;
  const others = approved.map(({ number }) => [...graph.sameParts(partKey(number))]);
  return {
    ...rules,
    accepted: [...rules.accepted, ...others],
    family: [...rules.family, ...rules.accepted.flat(), ...others.flat()],
  };
}

function plugRules(
  spec: SpecSheet,
  family: EngineFamily,
  choices: readonly PolicyChoice[],
  graph: SupersessionGraph,
): PlugRules {
  const electrode = spec.part.electrode;
  const option = optionInForce('new_gaps', [...choices, ...sheetChoices(spec)]);
  const threads = threadsFor(spec, family, choices);
  return {
    component: 'plug',
    ...numbersOf(spec.part.number, graph),
    gap: gapSpecOf(spec),
    electrode,
    regap: regapPolicy(option, electrode, spec.regap),
    // A second change of direction scraps a plug under every option.
    reversals: Math.min(1, allowedReversals(optionInForce('reverse_bend', choices), electrode)),
    torqueNm: threads.torqueNm,
    reduction: threads.reduction,
    lubricant: threads.lubricant,
    head: family.headMaterial,
    threadsSay: threads.says,
  };
}

function partRules(
  component: Exclude<TaskComponent, 'plug'>,
  sheet: ComponentSheet | null,
  { model, leadLengthsMm }: EngineFamily,
  graph: SupersessionGraph,
): PartRules {
  const numbers = sheet ? numbersOf(sheet.part.number, graph) : { partNumber: null, accepted: [], family: [] };
  return {
    component,
    ...numbers,
    torqueNm: range(sheet?.torqueMinNm, sheet?.torqueMaxNm),
    primaryOhm: range<Ohm>(sheet?.primaryMinOhm, sheet?.primaryMaxOhm),
    secondaryOhm: range<Ohm>(sheet?.secondaryMinOhm, sheet?.secondaryMaxOhm),
    ohm: range<Ohm>(sheet?.minOhm, sheet?.maxOhm),
    maxOhmPerMetre: sheet?.maxOhmPerMetre ?? null,
    leads:
      component === 'lead_set' || component === 'cap'
        ? leadWays(layoutOf(model), leadLengthsMm, component === 'cap' ? null : (sheet?.part.lengthsMm ?? null))
        : [],
  };
}

const range = <T extends number>(min: T | null | undefined, max: T | null | undefined) =>
  min == null || max == null ? null : { min, max };

/** The numbers under which a sheet's part may go in. */
const numbersOf = (number: string, graph: SupersessionGraph) => ({
  partNumber: number,
  accepted: acceptedNumbers(number, graph),
  family: graph.family(partKey(number)),
});

/** The sheet's part under all its numbers, and the redesign that it goes by today, if there is one. */
function acceptedNumbers(number: string, graph: SupersessionGraph): readonly (readonly string[])[] {
  const own = [...graph.sameParts(partKey(number))];
  const end = graph.current(partKey(number));
  const today = end.kind === 'current' && !own.includes(end.part) ? [[...graph.sameParts(end.part)]] : [];
  return [own, ...today];
}
