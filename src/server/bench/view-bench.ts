import { inOrderOfForce } from '@/core/catalogue/match';
import { withOthersInForce } from '@/core/catalogue/others-in-force';
import { scopeWords } from '@/core/catalogue/scope';
import { regapPolicy } from '@/core/policy/apply';
import { type PolicyChoice, policyInForce } from '@/core/policy/policies';
import type { Mm } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { type EngineFamily, loadFamilies, loadParts, loadSpecs, type SpecSheet } from '@/db/queries/catalogue';
import { loadPolicyChoices } from '@/db/queries/policies';
import { gapSpecOf } from '../catalogue/fitment-of';
import { sheetChoices } from '../policies/sheet-choices';
import { useCase } from '../use-case';
import { listWrenches } from './wrenches';

/** What the bench can take from the catalogue: sheets, engines, lead sets, wrenches and the shop's options. */
export const viewBench = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const [families, specs, parts, choices, wrenches] = await Promise.all([
      loadFamilies(deps.db, actor.fleetId),
      loadSpecs(deps.db, actor.fleetId, deps.today()),
      loadParts(deps.db, actor.fleetId),
      loadPolicyChoices(deps.db, actor.fleetId),
      listWrenches(deps, actor),
    ]);
    const familyById = new Map(families.map((family) => [family.id, family]));
    const shop = choices.filter((choice) => choice.scope === 'shop');
    const sheets = specs.flatMap((spec) => {
      const family = familyById.get(spec.engineFamilyId);
      const others = specs.filter(({ engineFamilyId }) => engineFamilyId === spec.engineFamilyId);
      return family ? benchSheet(withOthersInForce(spec, others), family, shop) : [];
    });
    const engines = families.map((family) => benchEngine(family, specs));
    const leadSets = parts.flatMap((part) =>
      part.lengthsMm ? [{ id: part.id, number: part.number, lengthsMm: part.lengthsMm }] : [],
    );
    return ok({
      sheets: sheets.sort((a, b) => a.label.localeCompare(b.label)),
      engines,
      leadSets,
      wrenches: (wrenches.ok ? wrenches.value : []).map(
        ({ id, name, unit, min, max, step, lengthMm, calibratedOn }) => ({
          id,
          name,
          unit,
          min,
          max,
          step,
          lengthMm,
          calibratedOn,
        }),
      ),
      today: deps.today(),
    });
  },
});

/** A sheet as the bench takes it; none from memory, and none of a part whose thread or seat nobody knows. */
function benchSheet(spec: SpecSheet, family: EngineFamily, shop: readonly PolicyChoice[]) {
  const { part } = spec;
  if (spec.sourceKind === 'memory' || !part.thread || !part.seat) return [];
  const concerning = [...shop, ...sheetChoices(spec)];
  const newGaps = policyInForce('new_gaps', concerning);
  const reverse = policyInForce('reverse_bend', concerning);
  const compound = policyInForce('thread_compound', concerning);
  const because = ({ option, scope, why }: typeof newGaps | typeof compound): string =>
    `${option.name} (${scope === 'default' ? 'default' : why})`;
  return [
    {
      id: spec.id,
      label: [family.code, part.number, scopeShort(spec), spec.sourceDocument].filter(Boolean).join(', '),
      part: part.number,
      electrode: part.electrode,
      thread: part.thread,
      seat: part.seat,
      shell: part.shell,
      head: family.headMaterial,
      gap: gapSpecOf(spec),
      torqueNm: { min: spec.torqueMinNm, max: spec.torqueMaxNm },
      angleDeg: spec.angleDeg,
      regap: regapPolicy(newGaps.option.id, part.electrode, spec.regap),
      regapWhy: because(newGaps),
      reverseOption: reverse.option.id,
      reverseWhy: reverse.option.name,
      compoundOption: compound.option.id,
      compoundWhy: because(compound),
      lubricant: spec.lubricant,
      torqueFor: spec.torqueFor,
    },
  ];
}

/** An engine as the bench takes it, with the gap of the sheet in force. */
function benchEngine(family: EngineFamily, specs: readonly SpecSheet[]) {
  const known = specs.filter((spec) => spec.engineFamilyId === family.id && spec.sourceKind !== 'memory');
  return {
    id: family.id,
    code: family.code,
    name: family.name,
    ignition: family.ignition,
    banks: family.model.banks,
    firingOrder: family.firingOrder,
    distributor: family.distributor,
    leadLengthsMm: family.leadLengthsMm,
    compressionRatio: family.compressionRatio,
    intakeKpa: family.intakeKpa,
    gapMm: middle(inOrderOfForce(known)[0]),
  };
}

const scopeShort = (spec: Parameters<typeof scopeWords>[0]): string => {
  const words = scopeWords(spec);
  return words.startsWith('every') ? '' : words;
};

const middle = (spec: { readonly gapMinMm: Mm; readonly gapMaxMm: Mm } | undefined): number | null =>
  spec ? (spec.gapMinMm + spec.gapMaxMm) / 2 : null;
