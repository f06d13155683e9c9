import { Box } from '@chakra-ui/react';
import { personUnits } from '@/core/units/person-units';
import { phaseInOrder } from '@/core/work/all-in-order';
import type { FloorStep } from '@/core/work/job-record';
import { stepFaultsIn } from '@/core/work/order-rules';
import type { Phase } from '@/core/work/procedure/step';
import { stepTarget } from '@/core/work/targets';
import type { Floor } from '../sync/use-floor';
import { Press } from './parts';

/** What keeps a step from being ticked; pictures that are not yet sent count. */
export const faultsOf = ({ job, record, photos }: Floor, step: FloorStep): readonly string[] =>
  stepFaultsIn({ ...job, photos: [...job.photos, ...photos] }, record, step.key, Date.now(), personUnits(job.units));

/** One press for the steps of a phase at which nothing is out of order, with what it says. */
export function PhaseInOrder({ floor, phase, onSaid }: { floor: Floor; phase: Phase; onSaid: () => void }) {
  const { job, record, photos } = floor;
  const { steps, fields, says } = phaseInOrder(
    { ...job, photos: [...job.photos, ...photos] },
    record,
    phase,
    personUnits(job.units),
  );
  // A single step with nothing to say has its own press.
  if (steps.length === 0 || fields.length < 2) return null;
  const press = () => {
    floor.edit(null);
    // A gate that is shut, or a figure that cannot be, stops the press where it stands: what was said before it holds.
    for (const { target, field, value } of fields)
      if (field !== 'state' || mayTick(floor, target)) floor.set(target, field, value);
    onSaid();
  };
  return (
    <Box className="in-order">
      <Press wide onPress={press}>
        {steps.length === 1 ? 'In order' : `All ${steps.length} in order`}
      </Press>
      {says.length > 0 && <div className="aside">{says.join(' · ')}</div>}
    </Box>
  );
}

/** By the record as the presses before it left it. */
function mayTick(floor: Floor, target: string): boolean {
  const step = floor.job.steps.find(({ key }) => stepTarget(key) === target);
  return step !== undefined && faultsOf({ ...floor, record: floor.recordNow() }, step).length === 0;
}
