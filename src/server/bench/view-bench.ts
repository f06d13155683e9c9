import { inOrderOfForce } from '@/core/catalogue/match';
import { scopeWords } from '@/core/catalogue/scope';
import { regapPolicy } from '@/core/policy/apply';
import { type PolicyId, policyInForce } from '@/core/policy/policies';
import { ok } from '@/core/shared/result';
import { loadFamilies, loadParts, loadSpecs } from '@/db/queries/catalogue';
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
      if (!family || spec.sourceKind === 'memory' || !spec.part.thread || !spec.part.seat) return [];
      const concerning = [...shop, ...sheetChoices(spec)];
      const electrode = spec.part.electrode;
      const inForce = <P extends PolicyId>(id: P) => policyInForce(id, concerning);
      const [newGaps, reverse, compound] = [inForce('new_gaps'), inForce('reverse_bend'), inForce('thread_compound')];
      return [
        {
          id: spec.id,
          label: [family.code, spec.part.number, scopeShort(spec), spec.sourceDocument].filter(Boolean).join(', '),
          part: spec.part.number,
          electrode,
          thread: spec.part.thread,
          seat: spec.part.seat,
          shell: spec.part.shell,
          head: family.headMaterial,
          gap: gapSpecOf(spec),
          torqueNm: { min: spec.torqueMinNm, max: spec.torqueMaxNm },
          angleDeg: spec.angleDeg,
          regap: regapPolicy(newGaps.option.id, electrode, spec.regap),
          regapWhy: `${newGaps.option.name} (${newGaps.scope === 'default' ? 'default' : newGaps.why})`,
          reverseOption: reverse.option.id,
          reverseWhy: reverse.option.name,
          compoundOption: compound.option.id,
          compoundWhy: `${compound.option.name} (${compound.scope === 'default' ? 'default' : compound.why})`,
          lubricant: spec.lubricant,
          torqueFor: spec.torqueFor,
        },
      ];
    });
    const engines = families.map((family) => ({
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
      gapMm: middle(
        inOrderOfForce(specs.filter((spec) => spec.engineFamilyId === family.id && spec.sourceKind !== 'memory'))[0],
      ),
    }));
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

const scopeShort = (spec: Parameters<typeof scopeWords>[0]): string => {
  const words = scopeWords(spec);
  return words.startsWith('every') ? '' : words;
};

const middle = (spec: { readonly gapMinMm: number; readonly gapMaxMm: number } | undefined): number | null =>
  spec ? (spec.gapMinMm + spec.gapMaxMm) / 2 : null;
