import { compareParts, sayDifferences } from '@/core/catalogue/equivalent';
import { partKey } from '@/core/catalogue/match';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { layoutOf } from '@/core/engine/layout';
import type { Electrode } from '@/core/gap/check';
import { allowedReversals, regapPolicy } from '@/core/policy/apply';
import { optionInForce, type PolicyChoice } from '@/core/policy/policies';
import type { Ohm } from '@/core/shared/kinds';
import { leadWays } from '@/core/wiring/lead-ways';
import type { BendRules, PartRules, PlugRules, TaskRules } from '@/core/work/place-done';
import type { TaskComponent } from '@/core/work/task';
import {
  type ComponentSheet,
  type EngineFamily,
  isPlugSheet,
  type PartRow,
  type SpecSheet,
} from '@/db/queries/catalogue';
import type { TaskRow } from '@/db/queries/work-orders';
import { gapSpecOf } from '../catalogue/fitment-of';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';

/** What the numbers of an order are judged by. */
interface NumberFacts {
  readonly graph: SupersessionGraph;
  /** Parts that may be taken for the sheet's: look-alikes, older designs, those approved, by key. */
  readonly parts: ReadonlyMap<string, PartRow>;
}

/** What a place of a task is measured by before it counts as done. Null: a plug without its sheet, by which nothing is done. */
export function rulesOf(
  { component, approved }: Pick<TaskRow, 'component' | 'approved'>,
  sheet: ComponentSheet | null,
  family: EngineFamily,
  choices: readonly PolicyChoice[],
  facts: NumberFacts,
): TaskRules | null {
  if (component !== 'plug') return withApproved(partRules(component, sheet, family, facts), approved, facts);
  if (!sheet || !isPlugSheet(sheet)) return null;
  const rules = withApproved(plugRules(sheet, family, choices, facts), approved, facts);
  const bendsOf = approved.flatMap(({ number }) => {
    const electrode = facts.parts.get(partKey(number))?.electrode;
    if (!electrode || electrode === sheet.part.electrode) return [];
    const bends = bendRules(sheet, electrode, choices);
    return [...facts.graph.sameParts(partKey(number))].map((key) => [key, bends] as const);
  });
  return { ...rules, bendsOf: Object.fromEntries(bendsOf) };
}

/** What a supervisor let in goes in as well; it is never mixed with the sheet's own part. */
function withApproved<R extends TaskRules>(
  rules: R,
  approved: readonly { readonly number: string }[],
  { graph }: NumberFacts,
): R {
  if (approved.length === 0) return rules;
  const others = approved.map(({ number }) => [...graph.sameParts(partKey(number))]);
  return {
    ...rules,
    accepted: [...rules.accepted, ...others],
    family: [...rules.family, ...rules.accepted.flat(), ...others.flat()],
  };
}

/** How the ground electrode of a new plug may be bent under a sheet and the shop's options. */
export function bendRules(spec: ComponentSheet, electrode: Electrode, choices: readonly PolicyChoice[]): BendRules {
  const option = optionInForce('new_gaps', [...choices, ...sheetChoices(spec)]);
  return {
    electrode,
    regap: regapPolicy(option, electrode, spec.regap),
    // A second change of direction scraps a plug under every option.
    reversals: Math.min(1, allowedReversals(optionInForce('reverse_bend', choices), electrode)),
  };
}

function plugRules(
  spec: SpecSheet,
  family: EngineFamily,
  choices: readonly PolicyChoice[],
  facts: NumberFacts,
): PlugRules {
  const threads = threadsFor(spec, family, choices);
  return {
    component: 'plug',
    ...numbersOf(spec.part, facts),
    gap: gapSpecOf(spec),
    ...bendRules(spec, spec.part.electrode, choices),
    bendsOf: {},
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
  facts: NumberFacts,
): PartRules {
  const numbers = sheet ? numbersOf(sheet.part, facts) : { partNumber: null, accepted: [], family: [], differs: {} };
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

/** The numbers under which a sheet's part may go in, and how others that may be taken for it differ. */
function numbersOf(part: PartRow, { graph, parts }: NumberFacts) {
  const accepted = acceptedNumbers(part.number, graph);
  const family = graph.family(part.numberKey);
  const goesIn = new Set(accepted.flat());
  const others = [...parts.values()].filter(({ kind, numberKey }) => kind === part.kind && !goesIn.has(numberKey));
  const differs = others.flatMap((other) => {
    const says = sayDifferences(compareParts(part, other, []));
    return says === null ? [] : [[other.numberKey, says] as const];
  });
  return { partNumber: part.number, accepted, family, differs: Object.fromEntries(differs) };
}

/** The sheet's part under all its numbers, and the redesign that it goes by today, if there is one. */
function acceptedNumbers(number: string, graph: SupersessionGraph): readonly (readonly string[])[] {
  const same = [...graph.sameParts(partKey(number))];
  const end = graph.current(partKey(number));
  const today = end.kind === 'current' && !same.includes(end.part) ? [[...graph.sameParts(end.part)]] : [];
  return [same, ...today];
}
