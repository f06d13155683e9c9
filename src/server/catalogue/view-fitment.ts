import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { whyNoMatch } from '../due/refresh-due';
import { notFound } from '../failure';
import { useCase } from '../use-case';
import { fitmentOf } from './fitment-of';

/** What goes into one vehicle, with the question in words where one is open. */
export const viewFitment = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, vehicleId) {
    const found = await fitmentOf(deps.db, actor.fleetId, deps.today(), vehicleId);
    return found ? ok({ ...found, question: whyNoMatch(found.fitment) }) : notFound('vehicle');
  },
});
