import { socketsFor } from '@/core/engine/tools';
import { optionsInForce } from '@/core/policy/policies';
import { visitProcedure } from '@/core/work/procedure/generate';
import type { EarlierRemoval } from '@/core/work/procedure/removal';
import type { PlugWork, Procedure } from '@/core/work/procedure/step';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';
import type { FloorState } from './order-state';

/** The procedure of a visit to one vehicle, by its tasks, their sheets and the policies that concern it. */
export function procedureOf(state: FloorState, earlier: EarlierRemoval | null): Procedure {
  const { vehicle, family, layout, spec, choices, tasks, places } = state;
  return visitProcedure({
    layout,
    access: family.access ?? [],
    fasteners: family.fasteners ?? [],
    hybrid: family.hybrid,
    fuel: vehicle.fuel,
    headMaterial: family.headMaterial,
    tasks: tasks.map(({ row, sheet, rules }) => ({
      action: row.action,
      component: row.component,
      places: places.filter(
        ({ taskId, movedToId, leftWhy }) => taskId === row.id && movedToId === null && leftWhy === null,
      ),
      partNumber: sheet?.part.number ?? null,
      torqueNm: rules.component === 'plug' ? null : rules.torqueNm,
    })),
    plug: plugWork(state),
    weakPoints: family.weakPoints ?? [],
    earlier,
    policies: optionsInForce([...choices, ...(spec ? sheetChoices(spec) : [])]),
    otherWork: state.order.otherWork,
    minutes: family.serviceMinutes,
  });
}

function plugWork({ spec, family, choices }: FloorState): PlugWork | null {
  if (!spec) return null;
  const threads = threadsFor(spec, family.headMaterial, choices);
  return {
    number: spec.part.number,
    seat: spec.part.seat,
    socket: spec.part.hexMm === null ? null : socketsFor(spec.part.hexMm),
    gapMm: { min: spec.gapMinMm, max: spec.gapMaxMm },
    torqueNm: threads.torqueNm,
    threads: { says: threads.says, compound: threads.compound },
  };
}
