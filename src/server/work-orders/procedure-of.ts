import { layoutOf } from '@/core/engine/layout';
import { socketsFor } from '@/core/engine/tools';
import { optionsInForce } from '@/core/policy/policies';
import type { EarlierRemoval } from '@/core/work/procedure/removal';
import type { PlugWork, ProcedureEngine, ProcedureInput } from '@/core/work/procedure/step';
import type { EngineFamily } from '@/db/queries/catalogue';
import { sheetChoices } from '../policies/sheet-choices';
import { threadsFor } from '../policies/threads';
import type { FloorState } from './order-state';

/** With where it stands: a newer bulletin, or the sheet itself. */
const methodWords = ({ method, sourceDocument, others }: NonNullable<FloorState['spec']>): string =>
  `${method} (${others.find((other) => other.for === 'method')?.document ?? sourceDocument})`;

/** What decides the procedure of a visit to one vehicle: its tasks, their sheets and the policies that concern it. */
export function procedureInput(state: FloorState, earlier: EarlierRemoval | null): ProcedureInput {
  const { vehicle, family, spec, choices, tasks, places, order } = state;
  return {
    ...familyEngine(family),
    options: vehicle.options,
    ways: order.ways,
    fuel: vehicle.fuel,
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
    earlier,
    policies: optionsInForce([...choices, ...(spec ? sheetChoices(spec) : [])]),
    otherWork: order.otherWork,
  };
}

/** A family as its procedures see it, with nothing of one vehicle or order yet. */
export const familyEngine = (family: EngineFamily): ProcedureEngine => ({
  layout: layoutOf(family.model),
  access: family.access ?? [],
  fasteners: family.fasteners ?? [],
  items: family.accessItems,
  notes: [],
  options: [],
  ways: {},
  coolingMinutes: family.coolingMinutes,
  hybrid: family.hybrid,
  fuel: null,
  headMaterial: family.headMaterial,
  weakPoints: family.weakPoints ?? [],
  earlier: null,
  policies: {},
  minutes: family.serviceMinutes,
  correction: 1,
});

function plugWork({ spec, family, choices }: FloorState): PlugWork | null {
  if (!spec) return null;
  const threads = threadsFor(spec, family, choices);
  return {
    number: spec.part.number,
    seat: spec.part.seat,
    socket: spec.part.hexMm === null ? null : socketsFor(spec.part.hexMm),
    gapMm: { min: spec.gapMinMm, max: spec.gapMaxMm },
    torqueNm: threads.torqueNm,
    threads: { says: threads.says, compound: threads.compound },
    method: spec.method && methodWords(spec),
  };
}
