import { z } from 'zod';
import { partKey } from '@/core/catalogue/match';
import { ok } from '@/core/shared/result';
import { findByText } from '@/db/queries/find';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';

const findInput = z.string().trim().min(1).max(60);

export interface Found {
  readonly kind: 'vehicle' | 'work order' | 'part' | 'engine';
  readonly href: string;
  readonly label: string;
}

const PAGES: Readonly<Record<Found['kind'], string>> = {
  vehicle: '/vehicles',
  'work order': '/work-orders',
  part: '/parts',
  engine: '/engines',
};

/** Vehicles, work orders, parts and engines whose number or name holds a text; what begins with it comes first. */
export const find = useCase({
  permission: 'read the fleet',
  input: findInput,
  async run(deps, actor, text): Promise<Outcome<readonly Found[]>> {
    const rows = await findByText(deps.db, actor.fleetId, text, partKey(text));
    return ok(rows.map(({ kind, id, label }) => ({ kind, label, href: `${PAGES[kind]}/${id}` })));
  },
});
