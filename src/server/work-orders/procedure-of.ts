import { layoutOf } from '@/core/engine/layout';
import { socketsFor } from '@/core/engine/tools';
import { optionsInForce, type PolicyChoice } from '@/core/policy/policies';
import { plugServiceProcedure } from '@/core/work/procedure/generate';
import type { EarlierRemoval } from '@/core/work/procedure/removal';
import type { Procedure } from '@/core/work/procedure/step';
import type { EngineFamily, SpecSheet } from '@/db/queries/catalogue';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';

/** The plug service of one vehicle's engine, by the sheet and the policies that concern it. */
export function procedureOf(
  vehicle: { readonly fuel: string | null },
  family: EngineFamily,
  spec: SpecSheet,
  choices: readonly PolicyChoice[],
  earlier: EarlierRemoval | null,
): Procedure {
  const concerning = [...choices, ...sheetChoices(spec)];
  const threads = threadsFor(spec, family.headMaterial, choices);
  return plugServiceProcedure({
    layout: layoutOf(family.model),
    access: family.access ?? [],
    fasteners: family.fasteners ?? [],
    hybrid: family.hybrid,
    fuel: vehicle.fuel,
    headMaterial: family.headMaterial,
    plug: {
      number: spec.part.number,
      seat: spec.part.seat,
      socket: spec.part.hexMm === null ? null : socketsFor(spec.part.hexMm),
      gapMm: { min: spec.gapMinMm, max: spec.gapMaxMm },
    },
    torqueNm: threads.torqueNm,
    threads: { says: threads.says, compound: threads.compound },
    weakPoints: family.weakPoints ?? [],
    earlier,
    policies: optionsInForce(concerning),
    minutes: family.serviceMinutes,
  });
}
