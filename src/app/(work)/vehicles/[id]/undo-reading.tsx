import { Box, Flex } from '@chakra-ui/react';
import type { UnitSystem } from '@/core/units/person-units';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText, distanceText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { resolveAction } from '../../odometer/actions';

/** So many of the last readings are offered. */
const OFFERED = 15;

/** A reading that was accepted and is wrong: what it made suspect is judged again. */
export function UndoReading({ view: { readings, vehicle }, system }: { view: VehicleView; system: UnitSystem }) {
  const accepted = readings.filter((row) => row.state === 'accepted').slice(-OFFERED);
  return (
    <details>
      <summary>Withdraw or correct a reading</summary>
      <Box mt="2" maxW="420px">
        <Form action={resolveAction} input="resolveReadingsForm">
          <SelectField
            name="item"
            label="Which reading"
            choices={accepted.toReversed().map((row) => ({
              value: `${row.vehicleId}|${row.readOn}|${row.odometerKm}`,
              label: `${dateText(row.readOn)}: ${distanceText(row.odometerKm, system)}, read as “${row.asTyped}”`,
            }))}
          />
          <TextField
            name="corrected"
            label="What it was"
            hint={`to correct; in ${vehicle.odometerUnit} unless you write the unit`}
          />
          <TextField name="reason" label="Why" hint="needed" />
          <Flex gap="2">
            <SubmitButton name="how" value="correct">
              Correct
            </SubmitButton>
            <SubmitButton name="how" value="reject">
              Withdraw
            </SubmitButton>
          </Flex>
        </Form>
      </Box>
    </details>
  );
}
