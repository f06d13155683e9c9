import { z } from 'zod';
import { layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import { ok } from '@/core/shared/result';
import { TASK_COMPONENTS } from '@/core/work/task';
import { whyNoMatch } from '../due/refresh-due';
import { notFound } from '../failure';
import { useCase } from '../use-case';
import { fitmentFor, fitmentOf, type VehicleFitment } from './fitment-of';

/** What goes in of every other part that this engine has. */
function othersOf(fitment: VehicleFitment) {
  const layout = layoutOf(fitment.family.model);
  return TASK_COMPONENTS.filter((component) => component !== 'plug' && quantityOf(layout, component) > 0).map(
    (component) => ({ component, quantity: quantityOf(layout, component), ...fitmentFor(fitment, component) }),
  );
}

/** What goes into one vehicle, with the question in words where one is open. */
export const viewFitment = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, vehicleId) {
    const fitment = await fitmentOf(deps.db, actor.fleetId, deps.today(), vehicleId);
    return fitment
      ? ok({ ...fitment, question: whyNoMatch(fitment.fitment), components: othersOf(fitment) })
      : notFound('vehicle');
  },
});
