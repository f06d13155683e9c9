import { beforeAll, describe, expect, it } from 'vitest';
import { visitProcedure } from '../../src/core/work/procedure/generate';
import type { Procedure } from '../../src/core/work/procedure/step';
import { loadFamilies } from '../../src/db/queries/catalogue';
import { listWorkOrderRows, loadWorkOrder } from '../../src/db/queries/work-orders';
import { vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { loadFloorState } from '../../src/server/work-orders/order-state';
import { PLUG_SERVICE } from '../../src/server/work-orders/plan-tasks';
import { procedureInput } from '../../src/server/work-orders/procedure-of';
import { demoWorkspace, TODAY } from '../builders/workspace';

/* The procedure of each demo engine as a page in docs/procedures, for a mechanic to read. A change of the rules changes a
   page: read it, then `npx vitest run --project integration tests/integration/procedures.test.ts -u`. */

const pages = new Map<string, { readonly unit: string; readonly about: string; readonly procedure: Procedure }>();

beforeAll(async () => {
  const { deps, supervisor } = await demoWorkspace();
  const families = await loadFamilies(deps.db, supervisor.fleetId);
  const fleet = (await deps.db.select().from(vehicles)).sort((a, b) => Number(a.unitNumber) - Number(b.unitNumber));
  for (const family of families)
    for (const vehicle of fleet.filter((v) => v.engineFamilyId === family.id)) {
      if (pages.has(family.code)) continue;
      const procedure = await plugServiceOf(deps, supervisor, vehicle.id);
      if (procedure) pages.set(family.code, { unit: vehicle.unitNumber, about: family.name, procedure });
    }
});

/** By the order that is open for it, or by a new one; null: no part can be named. */
async function plugServiceOf(deps: Deps, actor: Actor, vehicleId: string): Promise<Procedure | null> {
  const rows = await listWorkOrderRows(deps.db, actor.fleetId, { vehicleId, open: true });
  const opened = rows[0]
    ? null
    : await openWorkOrder(deps, actor, { vehicleId, tasks: [PLUG_SERVICE], releaseReason: 'to read its steps' });
  const id = rows[0]?.id ?? (opened?.ok ? opened.value.workOrderId : null);
  const order = id && (await loadWorkOrder(deps.db, actor.fleetId, id));
  const state = order && (await loadFloorState(deps.db, order, TODAY));
  return state ? visitProcedure(procedureInput(state, null)) : null;
}

const CODES = [
  'AG-11T',
  'AG-18',
  'AG-13R',
  'TV-22H',
  'TV-46D',
  'TV-28',
  'PW-38',
  'PW-34M',
  'PW-31W',
  'SX-29B',
  'SX-61T',
  'SX-52L',
  'PW-21F',
];

function markdown(code: string): string {
  const page = pages.get(code);
  if (!page) throw new Error(`no vehicle with a firm match has a ${code}`);
  const { steps, counts } = page.procedure;
  return [
    `# ${code}, ${page.about}`,
    '',
    `As generated for unit ${page.unit} of the demo fleet, about ${steps.reduce((sum, step) => sum + step.minutes, 0)} minutes. Demo data: not for real work.`,
    'The manufacturer’s service information comes first.',
    ...steps.flatMap((step, i) => [
      ...(step.phase === steps[i - 1]?.phase ? [] : ['', `## ${step.phase}`]),
      '',
      `${i + 1}. **${step.title}** (${step.minutes} min)`,
      `   ${step.why}`,
      ...(step.caution ? [`   *Caution: ${step.caution}*`] : []),
      ...(step.tools.length > 0 ? [`   Tools: ${step.tools.join('; ')}.`] : []),
      ...(step.consumables.length > 0 ? [`   Uses up: ${step.consumables.join('; ')}`] : []),
      ...(step.asks.length > 0 ? [`   Write down: ${step.asks.map(({ what }) => what).join('; ')}.`] : []),
    ]),
    '',
    '## counted out and in',
    '',
    ...counts.map(({ what, count }) => `- ${count === null ? what : `${count} ${what}`}`),
    '',
  ].join('\n');
}

describe('the procedure of', () => {
  it.each(CODES)('%s is as its page says', async (code) => {
    await expect(markdown(code)).toMatchFileSnapshot(`../../docs/procedures/${code}.md`);
  });
});
