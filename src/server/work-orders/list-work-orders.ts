import { z } from 'zod';
import type { PersonId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { ORDER_STATES } from '@/core/work/order-state';
import { countWorkOrders, listWorkOrderRows, ORDER_SORTS } from '@/db/queries/work-orders';
import { useCase } from '../use-case';

const SORTS = Object.keys(ORDER_SORTS) as [keyof typeof ORDER_SORTS];

/** A parameter that is wrong falls back rather than losing the page: it only filters what is shown. */
export const orderFilter = z.object({
  /** `open`: all that go on. */
  state: z
    .enum(['open', ...ORDER_STATES])
    .optional()
    .catch(undefined),
  depot: z.string().max(120).optional().catch(undefined),
  person: z
    .uuid()
    .transform((id): PersonId => id)
    .optional()
    .catch(undefined),
  search: z.string().max(60).optional().catch(undefined),
  /** First and last day: closed on, else planned for, else opened on. */
  from: z.iso.date().optional().catch(undefined),
  to: z.iso.date().optional().catch(undefined),
  sort: z.enum(SORTS).default('latest').catch('latest'),
});

/** Work orders that fit a filter, in its order, a page at a time. */
export const findWorkOrders = useCase({
  permission: 'read the fleet',
  input: orderFilter.extend({ page: z.object({ from: z.number().int().min(0), limit: z.number().int().min(1) }) }),
  async run({ db }, actor, { state, depot, person, search, from, to, sort, page }) {
    const only = {
      ...(state === 'open' ? { open: true } : state && { state }),
      ...(depot && { depot }),
      ...(person && { personId: person }),
      ...(search && { search }),
      ...(from && { firstDay: from }),
      ...(to && { lastDay: to }),
    };
    const [items, found, open] = await Promise.all([
      listWorkOrderRows(db, actor.fleetId, { ...only, ...page, sort }),
      countWorkOrders(db, actor.fleetId, only),
      countWorkOrders(db, actor.fleetId, { open: true }),
    ]);
    return ok({ items, found, open });
  },
});

/** Work orders, the latest first, a page at a time. */
export const listWorkOrders = useCase({
  permission: 'read the fleet',
  input: z
    .object({
      open: z.boolean().optional(),
      unit: z.string().max(60).optional(),
      limit: z.number().int().min(1).max(1000).default(100),
      /** The number of the last order of the page before. */
      cursor: z.number().int().optional(),
    })
    .prefault({}),
  async run(deps, actor, { open, unit, limit, cursor: below }) {
    const rows = await listWorkOrderRows(deps.db, actor.fleetId, { open, unit, below, limit: limit + 1 });
    const items = rows.slice(0, limit);
    return ok({ items, nextCursor: rows.length > limit ? (items.at(-1)?.number ?? null) : null });
  },
});
