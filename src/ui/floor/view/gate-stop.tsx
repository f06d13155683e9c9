import { Box, Flex } from '@chakra-ui/react';
import { GATE_TABLE } from '@/core/work/gate-table';
import { gatesOf, stopBefore } from '@/core/work/gates';
import type { FloorPlace } from '@/core/work/job-record';
import { stepStateIn } from '@/core/work/order-model';
import type { Floor } from '../sync/use-floor';
import { Press, Stop } from './parts';

/** What has to be done before a part is touched, where something has; null: nothing. */
export const stopAt = ({ job, record }: Pick<Floor, 'job' | 'record'>, { component }: FloorPlace): string | null =>
  stopBefore(job, record, component === 'plug' ? 'out' : 'access');

/** The gate that is shut, and the way to what opens it. */
export function GateStop({
  floor: { job, record },
  why,
  liftHref,
  onSteps,
}: {
  floor: Floor;
  why: string;
  liftHref: string;
  onSteps: () => void;
}) {
  const first = job.steps.findIndex(({ key, perSite }) => !perSite && stepStateIn(record, key) === 'open');
  return (
    <Stop>
      {why}
      <Flex gap="3" wrap="wrap" align="center" mt="2">
        <Press main onPress={onSteps}>
          Go to step {first + 1}
        </Press>
        <a href={liftHref}>A supervisor may lift a gate…</a>
      </Flex>
    </Stop>
  );
}

/** Gates that were lifted stay in sight: whoever works on knows what was not done. */
export function LiftedGates({ floor: { job, record } }: { floor: Floor }) {
  // Drawn with every press: where nothing was lifted no gate is looked at.
  if (job.lifts.length === 0) return null;
  const lifted = gatesOf(job, record).filter(({ state }) => state === 'lifted');
  if (lifted.length === 0) return null;
  return (
    <Box color="caution.ink" fontSize="16px" mb="2">
      {lifted.map(({ gate }) => {
        const lift = job.lifts.find((lift) => lift.gate === gate);
        return (
          <div key={gate}>
            Gate lifted: {GATE_TABLE[gate].says}. {lift?.by}: {lift?.reason}
          </div>
        );
      })}
    </Box>
  );
}
