import { partKey } from '@/core/catalogue/match';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { regapPolicy } from '@/core/policy/apply';
import { optionInForce, type PolicyChoice } from '@/core/policy/policies';
import type { SiteRules } from '@/core/work/site-done';
import type { EngineFamily, SpecSheet } from '@/db/queries/catalogue';
import { gapSpecOf } from '../catalogue/fitment-of';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';

/** What a site of this order is measured by before it counts as done. */
export function siteRulesOf(
  spec: SpecSheet,
  family: EngineFamily,
  choices: readonly PolicyChoice[],
  graph: SupersessionGraph,
): SiteRules {
  const electrode = spec.part.electrode;
  const option = optionInForce('new_gaps', [...choices, ...sheetChoices(spec)]);
  const threads = threadsFor(spec, family.headMaterial, choices);
  return {
    partNumber: spec.part.number,
    accepted: acceptedNumbers(spec.part.number, graph),
    family: graph.family(partKey(spec.part.number)),
    gap: gapSpecOf(spec),
    electrode,
    regap: regapPolicy(option, electrode, spec.regap),
    torqueNm: threads.torqueNm,
    reduction: threads.reduction,
    lubricant: threads.lubricant,
    threadsSay: threads.says,
  };
}

/** The sheet's part under all its numbers, and the redesign that it goes by today, if there is one. */
function acceptedNumbers(number: string, graph: SupersessionGraph): readonly (readonly string[])[] {
  const own = [...graph.sameParts(partKey(number))];
  const end = graph.current(partKey(number));
  const today = end.kind === 'current' && !own.includes(end.part) ? [[...graph.sameParts(end.part)]] : [];
  return [own, ...today];
}
