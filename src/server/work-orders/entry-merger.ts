import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { partKey } from '@/core/catalogue/match';
import { siteId } from '@/core/engine/layout';
import { ALL_CONDITIONS, BREAKAWAY_FEELS, TORQUE_METHODS } from '@/core/inspection/vocabulary';
import { CURVE_FAULTS, CURVE_VERDICTS } from '@/core/torque/curve';
import type { KeptCurve } from '@/core/torque/kept-curve';
import { type Entry, type Json, mergeEntry, sameJson } from '@/core/work/entry';
import { answerField, readTarget } from '@/core/work/entry-fields';
import {
  readSiteQuantity,
  SITE_QUANTITIES,
  type SiteQuantity,
  type SiteTexts,
  siteFaults,
} from '@/core/work/site-done';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import type { CountRow } from '@/db/queries/work-entries';
import type { SiteRow, StepRow } from '@/db/queries/work-orders';
import { workOrderCounts, workOrderSites, workOrderSteps, workOrders } from '@/db/schema';
import type { Actor } from '../access';
import { personUnits } from '../units';
import { addClearing } from './add-clearing';
import { type FloorState, siteFields, stepFaults, stepFields } from './order-state';

/** What became of one entry. */
export interface EntryOutcome {
  readonly outcome: 'kept' | 'same' | 'differs' | 'refused';
  readonly message?: string;
}
const refuse = (message: string): EntryOutcome => ({ outcome: 'refused', message });

type SitePatch = Partial<SiteRow>;

const text = z.string().trim().max(60);
const SITE_VALUES: Readonly<Record<string, z.ZodType>> = {
  observedNumber: text,
  believedNumber: text,
  removedGap: text,
  seen: z.partialRecord(
    z.enum(ALL_CONDITIONS as [string, ...string[]]),
    z.union([z.literal(1), z.literal(2), z.literal(3)]),
  ),
  breakawayFeel: z.enum(BREAKAWAY_FEELS).nullable(),
  breakawayTorque: text,
  newNumber: text,
  newGap: text,
  newLot: text,
  compound: text,
  compoundBatch: text,
  torqueMethod: z.enum(TORQUE_METHODS).nullable(),
  wrenchSetting: text,
  installedTorque: text,
  curve: z
    .object({
      points: z.array(z.tuple([z.number(), z.number()])).max(200),
      verdict: z.enum(CURVE_VERDICTS),
      fault: z.enum(CURVE_FAULTS).nullable(),
      peakNm: z.number(),
      contactDeg: z.number().nullable(),
      source: z.string().max(60),
    })
    .nullable(),
  soakedAt: z.iso.datetime({ offset: true }).nullable(),
  remark: z.string().trim().max(500),
  done: z.boolean(),
};

const STEP_ANSWER = z.string('Write it down in words.').trim().max(300, 'At most 300 characters.');
const STEP_STATE = z.enum(['open', 'done', 'not_done'], 'A step is open, done or not done.');

/** The rows of an order while entries are laid into them; written once at the end. */
export class EntryMerger {
  private readonly sites: Map<string, SiteRow>;
  private readonly steps: Map<string, StepRow>;
  private readonly counts: Map<string, CountRow>;
  private trayFirst: string | null;
  private readonly touched = new Map<string, Record<string, { from: Json; to: Json }>>();

  constructor(
    private readonly state: FloorState,
    private readonly actor: Actor,
    private readonly now: Date,
  ) {
    this.sites = new Map(state.sites.map((row) => [siteId(row), row]));
    this.steps = new Map(state.steps.map((row) => [row.key, row]));
    this.counts = new Map(state.counts.map((row) => [row.key, row]));
    this.trayFirst = state.order.trayFirst;
  }

  take(entry: Entry): EntryOutcome {
    const { kind, key } = readTarget(entry.target);
    switch (kind) {
      case 'site':
        return this.takeSite(key, entry);
      case 'step':
        return this.takeStep(key, entry);
      case 'count':
        return this.takeCount(key, entry);
      case 'order':
        return this.takeOrder(entry);
      default:
        return refuse(`There is no “${entry.target}” on this order.`);
    }
  }

  private takeSite(key: string, entry: Entry): EntryOutcome {
    const before = this.sites.get(key);
    const shape = Object.hasOwn(SITE_VALUES, entry.field) ? SITE_VALUES[entry.field] : undefined;
    if (!before || !shape) return refuse(`There is no ${entry.field} at a site ${key} of this engine.`);
    const read = shape.safeParse(entry.value);
    if (!read.success) return refuse(read.error.issues[0]?.message ?? 'This cannot be kept here.');
    const current = siteFields(before)[entry.field] ?? null;
    const merged = this.mergeSite(before, current, { ...entry, value: read.data as Json });
    if (merged.kind === 'same') return { outcome: 'same' };
    if (merged.kind === 'differs') return { outcome: 'differs' };
    if (entry.field === 'done') return this.finishSite(key, before, merged.value === true, entry);
    const patch = this.sitePatch(entry.field, merged.value);
    if (typeof patch === 'string') return refuse(patch);
    const after = { ...before, ...patch };
    this.sites.set(key, after);
    this.touch(entry, current, merged.value);
    const faults = before.doneAt ? Object.values(this.faultsOf(after)) : [];
    if (faults.length === 0) return { outcome: 'kept' };
    this.sites.set(key, { ...after, doneAt: null, doneBy: null });
    return { outcome: 'kept', message: `Site ${key} is open again. ${faults.join(' ')}` };
  }

  /** The same quantity in other words is the same. */
  private mergeSite(before: SiteRow, current: Json, entry: Entry) {
    const isQuantity = entry.field in SITE_QUANTITIES;
    if (isQuantity && typeof current === 'string' && typeof entry.value === 'string' && current !== '') {
      const units = personUnits(this.actor);
      const [a, b] = [current, entry.value].map((t) => readSiteQuantity(entry.field as SiteQuantity, t, units));
      if (a?.ok && b?.ok && a.value === b.value && entry.value !== '') return { kind: 'same' as const };
    }
    // A site that somebody took back is not done again by an entry from before.
    if (entry.field === 'done') return mergeEntry(before.doneAt !== null, entry);
    return mergeEntry(current, entry);
  }

  private sitePatch(field: string, value: Json): SitePatch | string {
    if (field in SITE_QUANTITIES) {
      const name = field as SiteQuantity;
      const read = readSiteQuantity(name, String(value), personUnits(this.actor));
      if (!read.ok) return read.message;
      const unit = SITE_QUANTITIES[name].kind === 'gap' ? 'Mm' : 'Nm';
      return { [`${name}${unit}`]: read.value, [`${name}AsTyped`]: value === '' ? null : value };
    }
    if (field === 'seen') {
      const seen = value as Record<string, 1 | 2 | 3>;
      const words = Object.keys(seen);
      return {
        conditions: words.length > 0 ? words : null,
        severities: Object.fromEntries(
          Object.entries(seen).filter((pair): pair is [string, 1 | 3] => pair[1] === 1 || pair[1] === 3),
        ),
      };
    }
    if (field === 'soakedAt') return { soakedAt: value === null ? null : new Date(String(value)) };
    if (field === 'curve') return { curve: value as unknown as KeptCurve };
    return { [field]: value === '' ? null : value };
  }

  private finishSite(key: string, before: SiteRow, done: boolean, entry: Entry): EntryOutcome {
    if (done) {
      const faults = Object.values(this.faultsOf(before));
      if (faults.length > 0) return refuse(`Site ${key} cannot be done yet. ${faults.join(' ')}`);
    }
    this.sites.set(key, {
      ...before,
      ...(done
        ? {
            doneAt: this.now,
            doneBy: this.actor.personId,
            specSheetId: this.state.order.specSheetId,
            releasedReason: null,
            releasedBy: null,
          }
        : { doneAt: null, doneBy: null }),
    });
    this.touch(entry, !done, done);
    return { outcome: 'kept' };
  }

  private faultsOf(site: SiteRow) {
    const others = [...this.sites.values()].filter((s) => s.id !== site.id && s.doneAt && s.newNumber);
    const fitted = others.map((s) => partKey(s.newNumber ?? ''));
    return siteFaults(siteFields(site) as unknown as SiteTexts, site, this.state.rules, fitted);
  }

  private takeStep(key: string, entry: Entry): EntryOutcome {
    const before = this.steps.get(key);
    if (!before || before.perSite) return refuse(`There is no step ${key} to answer on this order.`);
    const ask = before.asks?.find((a) => answerField(a.key) === entry.field);
    if (entry.field !== 'state' && !ask) return refuse(`The step “${before.title}” does not ask for that.`);
    const read = (ask ? STEP_ANSWER : STEP_STATE).safeParse(entry.value);
    if (!read.success) return refuse(read.error.issues[0]?.message ?? 'This cannot be kept here.');
    const current = stepFields(before)[entry.field] ?? (ask ? null : 'open');
    const merged = mergeEntry(current, { ...entry, value: read.data });
    if (merged.kind !== 'kept') return { outcome: merged.kind };
    if (ask) this.steps.set(key, { ...before, answers: { ...before.answers, [ask.key]: String(merged.value) } });
    else {
      const said = STEP_STATE.safeParse(merged.value);
      if (!said.success) return refuse('A step is open, done or not done.');
      const faults = said.data === 'done' ? stepFaults(before, this.asItStands(), Date.parse(entry.at)) : [];
      if (faults.length > 0) return refuse(faults.join(' '));
      const open = said.data === 'open';
      this.steps.set(key, {
        ...before,
        state: said.data,
        saidBy: open ? null : this.actor.personId,
        saidAt: open ? null : this.now,
      });
    }
    this.touch(entry, current, merged.value);
    return { outcome: 'kept' };
  }

  private takeCount(key: string, entry: Entry): EntryOutcome {
    const before = this.counts.get(key);
    const side = entry.field === 'out' || entry.field === 'back' ? entry.field : null;
    const count = z.number().int().min(0).max(200).nullable().safeParse(entry.value);
    if (!before || !side) return refuse(`Nothing called ${key} is counted on this order.`);
    if (!count.success) return refuse('A count is a whole number from 0 to 200.');
    const merged = mergeEntry(before[side], { ...entry, value: count.data });
    if (merged.kind !== 'kept') return { outcome: merged.kind };
    this.counts.set(key, { ...before, [side]: count.data });
    this.touch(entry, before[side], count.data);
    return { outcome: 'kept' };
  }

  private takeOrder(entry: Entry): EntryOutcome {
    if (entry.field !== 'trayFirst') return refuse('There is no such field on this order.');
    const first = entry.value === null ? null : String(entry.value);
    if (first !== null && !this.sites.has(first)) return refuse(`This engine has no site ${first.slice(0, 8)}.`);
    const merged = mergeEntry(this.trayFirst, entry);
    if (merged.kind !== 'kept') return { outcome: merged.kind };
    this.touch(entry, this.trayFirst, first);
    this.trayFirst = first;
    return { outcome: 'kept' };
  }

  private asItStands(): FloorState {
    return {
      ...this.state,
      sites: [...this.sites.values()],
      steps: [...this.steps.values()],
      counts: [...this.counts.values()],
    };
  }

  private touch({ target, field }: Entry, from: Json, to: Json): void {
    if (sameJson(from, to)) return;
    const fields = this.touched.get(target) ?? {};
    // A curve is a hundred figures: that it came is told, the site keeps it.
    const short = (json: Json): Json => (field === 'curve' && json !== null ? 'kept' : json);
    this.touched.set(target, { ...fields, [field]: { from: fields[field]?.from ?? short(from), to: short(to) } });
  }

  /** Every touched row once, with one line of audit for each. */
  async write(tx: Tx): Promise<void> {
    const { order } = this.state;
    for (const [target, fields] of this.touched) {
      const { kind, key } = readTarget(target);
      if (kind === 'site') await this.writeSite(tx, key);
      if (kind === 'step') await this.writeStep(tx, key);
      const count = kind === 'count' ? this.counts.get(key) : undefined;
      if (count)
        await tx
          .update(workOrderCounts)
          .set({ out: count.out, back: count.back })
          .where(eq(workOrderCounts.id, count.id));
      if (kind === 'order')
        await tx.update(workOrders).set({ trayFirst: this.trayFirst }).where(eq(workOrders.id, order.id));
      const from = Object.fromEntries(Object.entries(fields).map(([field, change]) => [field, change.from]));
      const to = Object.fromEntries(Object.entries(fields).map(([field, change]) => [field, change.to]));
      await writeAudit(tx, this.actor, {
        action: kind === 'site' ? 'record' : kind,
        entity: 'work-order',
        entityId: order.id,
        changes:
          kind === 'step' ? { step: key, state: fields.state?.to ?? 'answered', from, to } : { [kind]: key, from, to },
      });
    }
    if (this.touched.size > 0 && order.state !== 'in_bay')
      await tx.update(workOrders).set({ state: 'in_bay' }).where(eq(workOrders.id, order.id));
  }

  private async writeSite(tx: Tx, key: string): Promise<void> {
    const site = this.sites.get(key);
    if (!site) return;
    const { id, fleetId, workOrderId, cylinder, position, version, ...rest } = site;
    await tx
      .update(workOrderSites)
      .set({ ...rest, version: version + 1 })
      .where(eq(workOrderSites.id, id));
    if (site.soakedAt) await addClearing(tx, this.state);
  }

  private async writeStep(tx: Tx, key: string): Promise<void> {
    const step = this.steps.get(key);
    if (!step) return;
    const { state, answers, saidBy, saidAt } = step;
    await tx.update(workOrderSteps).set({ state, answers, saidBy, saidAt }).where(eq(workOrderSteps.id, step.id));
  }
}
