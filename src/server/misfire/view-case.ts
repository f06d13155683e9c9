import { and, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { codeCylinders, sayCode } from '@/core/engine/fault-code';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { allPlaces } from '@/core/engine/places';
import { type Advice, adviceOn } from '@/core/misfire/advice';
import { type Story, storyOf } from '@/core/misfire/case-entry';
import { CASE_STATES, type CaseState, mayMisfire } from '@/core/misfire/case-state';
import { VISIT_KM } from '@/core/misfire/likelihoods';
import { rangeChange, rangePerTank } from '@/core/misfire/tank';
import type { Km, VehicleId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { isLive } from '@/core/work/order-state';
import { PART_WORDS } from '@/core/work/say-places';
import type { Querier } from '@/db/client';
import { type CaseEntryRow, type CaseListRow, loadCaseEntries, loadCases } from '@/db/queries/misfire';
import { listWorkOrderRows, loadPlaces, loadTasks } from '@/db/queries/work-orders';
import { fittedComponents, workOrders } from '@/db/schema';
import { REMOVAL_WORDS } from '@/text/removal-words';
import { ACTION_WORDS, partsText } from '@/text/task-words';
import { fitmentOf } from '../catalogue/fitment-of';
import { notFound } from '../failure';
import { portsOf } from '../ports/ports';
import { useCase } from '../use-case';
import { type CaseFacts, caseWith, factsOf } from './case-facts';
import { entriesOf } from './keep-entries';
import { FREE } from './may-it-drive';

/** Something that changed on the vehicle, as far as anybody knows. */
interface Changed {
  /** Km since then; null: nobody knows. */
  readonly kmAgo: Km | null;
  readonly on: string | null;
  readonly words: string;
  /** Within 500 km: the first suspect. */
  readonly isRecent: boolean;
  readonly workOrderId: string | null;
}

const MAX_CHANGES = 8;

/** A case with all that its pages show. */
export const viewCase = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, caseId) {
    const { db } = deps;
    const [row] = await loadCases(db, actor.fleetId, { id: caseId });
    const fitment = row && (await fitmentOf(db, actor.fleetId, deps.today(), row.misfire.vehicleId));
    if (!row || !fitment) return notFound('misfire');
    const entries = await loadCaseEntries(db, caseId);
    const story = storyOf(entriesOf(entries));
    const facts = await factsOf(deps, actor, fitment, story.away);
    const layout = layoutOf(fitment.family.model);
    const orders = await listWorkOrderRows(db, actor.fleetId, { vehicleId: row.misfire.vehicleId });
    const { codeReader } = await portsOf(db, actor.fleetId);
    return ok({
      ...row,
      family: fitment.family,
      layout,
      entries,
      facts,
      story,
      advice: adviceFor(row.misfire.state, facts, story),
      codes: codesSaid(layout, story.codes),
      changed: await changesOf(db, layout, row, entries),
      tank: tankOf(story),
      openOrder: orders.find(isLive) ?? null,
      hasCodeReader: codeReader !== null,
    });
  },
});

export type CaseView = Extract<Awaited<ReturnType<typeof viewCase>>, { ok: true }>['value'];

/** What is to be made of a case by its record and its entries. */
function adviceFor(state: CaseState, facts: CaseFacts, story: Story): Advice {
  const advice = adviceOn(caseWith(facts, story), story.underway && { test: 'swap', ...story.underway });
  // A case that is over proposes nothing, and one that is watched only that.
  if (state === 'closed') return { ...advice, ...FREE, steps: [], underway: null };
  return mayMisfire(state) ? advice : { ...advice, ...FREE, steps: [] };
}

/** Each code in words, with the cylinders that it names. */
const codesSaid = (layout: Layout, codes: readonly string[]) =>
  codes.map((code) => ({ code, says: sayCode(layout, code), cylinders: codeCylinders(layout, code) }));

/** The range of a tank, each drive brought to a whole tank. */
const tankOf = ({ tank: { usual, now, after } }: Story) => ({
  usualKm: usual && rangePerTank(usual),
  nowKm: now && rangePerTank(now),
  afterKm: after && rangePerTank(after),
  lost: rangeChange(usual, now),
  regained: rangeChange(now, after),
});

/** What changed last, the newest first: visits, parts, swaps, and what somebody says. */
async function changesOf(
  q: Querier,
  layout: Layout,
  { misfire, odometerKm }: CaseListRow,
  entries: readonly CaseEntryRow[],
): Promise<readonly Changed[]> {
  const { vehicleId } = misfire;
  const ago = (km: Km | null): Km | null => (odometerKm === null || km === null ? null : Math.max(0, odometerKm - km));
  const onRecord = [
    ...(await visitsOf(q, layout, vehicleId)),
    // What was swapped to find it is no suspect.
    ...(await partChangesOf(q, vehicleId)).filter(
      ({ isSwap, on }) => !(isSwap && on !== null && on >= misfire.openedOn),
    ),
  ];
  const changes = [
    ...onRecord.map(({ km, on, words, workOrderId }) => ({ on, words, workOrderId, kmAgo: ago(km) })),
    ...entries.flatMap(({ entry: { said } }) =>
      said.kind === 'changed' ? [{ kmAgo: said.km, on: null, words: said.words, workOrderId: null }] : [],
    ),
  ];
  return changes
    .map((change) => ({ ...change, isRecent: change.kmAgo !== null && change.kmAgo <= VISIT_KM }))
    .sort((a, b) => (a.kmAgo ?? Number.POSITIVE_INFINITY) - (b.kmAgo ?? Number.POSITIVE_INFINITY))
    .slice(0, MAX_CHANGES);
}

async function visitsOf(q: Querier, layout: Layout, vehicleId: VehicleId) {
  const orders = await q
    .select({ id: workOrders.id, number: workOrders.number, on: workOrders.closedOn, km: workOrders.closedKm })
    .from(workOrders)
    .where(and(eq(workOrders.vehicleId, vehicleId), eq(workOrders.state, 'closed')))
    .orderBy(desc(workOrders.closedOn))
    .limit(MAX_CHANGES);
  return Promise.all(
    orders.map(async ({ id, number, on, km }) => {
      const places = await loadPlaces(q, id);
      const tasks = (await loadTasks(q, id)).map(({ id: taskId, action, component }) => {
        const replaced = places.filter((place) => place.taskId === taskId && place.doneAt !== null);
        const all = replaced.length === allPlaces(layout, component).length;
        const where = all ? '' : ` ${replaced.map(({ cylinder }) => cylinder).join(' ')}`;
        return `${ACTION_WORDS[action].toLowerCase()} ${partsText(component, replaced.length)}${where}`;
      });
      return { km, on, words: `visit ${number}: ${tasks.join(', ') || 'nothing on ignition'}`, workOrderId: id };
    }),
  );
}

/** Parts that came in outside a visit, and those that changed places. */
async function partChangesOf(q: Querier, vehicleId: VehicleId) {
  const stays = await q
    .select()
    .from(fittedComponents)
    .where(eq(fittedComponents.vehicleId, vehicleId))
    .orderBy(desc(fittedComponents.installedKm));
  const ended = stays.filter(
    ({ removedOn, removedByWorkOrderId }) => removedOn !== null && removedByWorkOrderId === null,
  );
  return ended.slice(0, MAX_CHANGES).map(({ component, cylinder, removedOn, removedKm, removalReason, lot }) => ({
    km: removedKm,
    on: removedOn,
    words: [
      `${PART_WORDS[component as keyof typeof PART_WORDS] ?? component.replace('_', ' ')}${cylinder > 0 ? ` ${cylinder}` : ''}`,
      removalReason === 'swap' ? 'changed places' : `out: ${REMOVAL_WORDS[removalReason ?? 'unknown'].toLowerCase()}`,
      lot && `lot ${lot}`,
    ]
      .filter(Boolean)
      .join(', '),
    workOrderId: null,
    isSwap: removalReason === 'swap',
  }));
}

/** Misfires of the fleet, the newest first, a page at a time. */
export const listCases = useCase({
  permission: 'read the fleet',
  input: z.object({
    unit: z.string().max(60).optional(),
    vehicleId: z.uuid().optional(),
    states: z.array(z.enum(CASE_STATES)).optional(),
    /** The last number of the page before. */
    before: z.number().int().optional(),
    limit: z.number().int().min(1).max(1000),
  }),
  async run(deps, actor, { limit, ...filter }) {
    const rows = await loadCases(deps.db, actor.fleetId, filter, limit + 1);
    const items = rows.slice(0, limit);
    return ok({ items, next: rows.length > limit ? (items.at(-1)?.misfire.number ?? null) : null });
  },
});
