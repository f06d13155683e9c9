import { Box } from '@chakra-ui/react';
import { towerMap } from '@/core/wiring/firing-map';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { recordDistributorAction } from '../actions';

/** Which lead sits in which tower in this vehicle, and a form for one that was found turned. Nothing without a distributor. */
export function DistributorSection({
  view: { vehicle, layout },
  mayRecord,
}: {
  view: VehicleView;
  mayRecord: boolean;
}) {
  const { distributor, firingOrder } = layout.model;
  if (!distributor) return null;
  const seenDistributor = vehicle.distributor;
  const towers = towerMap(firingOrder, distributor).map(({ cylinder }) => cylinder);
  return (
    <Box mt="2">
      Cap, clockwise from tower 1: leads of cylinders <strong>{towers.join(' ')}</strong>; the rotor turns{' '}
      {distributor.rotation}.
      {seenDistributor && (
        <Box color="caution.ink">
          Not as its family’s: cylinder 1 is at tower {seenDistributor.towerOfCylinder1} here. Proven by{' '}
          {seenDistributor.by}, {dateText(seenDistributor.on)}: {seenDistributor.proof}.
        </Box>
      )}
      {mayRecord && (
        <details>
          <summary>The distributor was found turned</summary>
          <Box mt="2" maxW="420px">
            <Form action={recordDistributorAction} input="distributorForm">
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <input type="hidden" name="version" value={vehicle.version} />
              <TextField name="traced" label="Two leads traced by hand" hint="tower=cylinder: 5=1 6=5" />
              <TextField
                name="proof"
                label="How it was proven"
                hint="such as: rotor at tower 4 with cylinder 1 at its mark"
              />
              <SubmitButton>Keep it for this vehicle</SubmitButton>
            </Form>
          </Box>
        </details>
      )}
    </Box>
  );
}
