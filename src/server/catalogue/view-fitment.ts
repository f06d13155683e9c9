import { ok } from '@/core/shared/result';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { whyNoMatch } from '../due/refresh-due';
import { notFound } from '../failure';
import { fitmentOf } from './fitment-of';

/** What goes into one vehicle, with the question in words where one is open. */
export async function viewFitment(deps: Deps, actor: Actor, vehicleId: string) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const found = await fitmentOf(deps.db, actor.fleetId, deps.today(), vehicleId);
  return found ? ok({ ...found, question: whyNoMatch(found.fitment) }) : notFound('vehicle');
}
