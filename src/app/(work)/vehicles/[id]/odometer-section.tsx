import { Box } from '@chakra-ui/react';
import { kmPerHour } from '@/core/policy/apply';
import type { UnitSystem } from '@/core/units/person-units';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { sureText } from '@/text/due-words';
import { dateText, distanceText, meterText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { DateField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { Empty, Section } from '@/ui/primitives/page';
import { OdometerChart } from '@/ui/vehicle/odometer-chart';
import { recordReadingAction, recordReminderAction, takeBackReminderAction } from '../actions';
import { UndoReading } from './undo-reading';

export function OdometerSection({ view, system, actor }: { view: VehicleView; system: UnitSystem; actor: Actor }) {
  const { readings, due, vehicle, today } = view;
  const points = (state: 'accepted' | 'suspect') =>
    readings.filter((r) => r.state === state).map((r) => [r.readOn, r.odometerKm] as const);
  const projected =
    due.binds === 'distance' && due.limitKm !== null && due.odometerOn !== null && due.odometerKm !== null;
  const last = readings.filter((r) => r.state === 'accepted').at(-1);
  return (
    <Section id="odometer" title="Odometer" aside={due.rate ? sureText(due, system) : 'no use rate yet'}>
      {readings.length === 0 ? (
        <Empty>
          No readings yet. Import odometer.csv: from three readings over two weeks on, this vehicle has its own use
          rate.
        </Empty>
      ) : (
        <>
          <OdometerChart
            accepted={points('accepted')}
            suspect={points('suspect')}
            from={due.odometerOn && due.odometerKm !== null ? [due.odometerOn, due.odometerKm] : null}
            limitKm={projected && due.limitKm !== null ? (due.fittedKm ?? 0) + due.limitKm * due.limitShare : null}
            due={projected && due.due && due.due.p50 > today ? due.due : null}
            unit={system === 'us' ? 'mi' : 'km'}
          />
          <Box color="soft" fontSize="sm">
            Last:{' '}
            {last
              ? `${distanceText(last.odometerKm, system)} on ${dateText(last.readOn)} (${last.source}, read as “${last.asTyped}”); this dash shows ${vehicle.odometerUnit}`
              : 'none accepted'}
            . {due.suspectReadings > 0 && `${due.suspectReadings} suspect, not used (diamond).`}
          </Box>
        </>
      )}
      <HoursLine view={view} system={system} />
      {may(actor, 'record odometer readings') && (
        <details>
          <summary>Record a reading</summary>
          <Box mt="2" maxW="420px">
            <Form action={recordReadingAction}>
              <input type="hidden" name="unitNumber" value={vehicle.unitNumber} />
              <DateField name="on" label="Day" defaultValue={today} />
              <TextField
                name="text"
                label="Reading"
                inputMode="text"
                hint={`in ${vehicle.odometerUnit} unless you write the unit; an hour meter as 4210.5 h`}
              />
              <SubmitButton>Record</SubmitButton>
            </Form>
          </Box>
        </details>
      )}
      {may(actor, 'record odometer readings') && <OwnReminder view={view} />}
      {last && may(actor, 'resolve odometer readings') && <UndoReading view={view} system={system} />}
    </Section>
  );
}

/** The vehicle's own service reminder: when it came on, and that it went out. */
function OwnReminder({ view: { vehicle, today } }: { view: VehicleView }) {
  const { id, reminderOn } = vehicle;
  return (
    <details open={reminderOn !== null}>
      <summary>
        {reminderOn ? `Dash service light on since ${dateText(reminderOn)}` : 'Dash service light is on'}
      </summary>
      <Box mt="2" maxW="420px">
        {reminderOn ? (
          <Form input="takeBackReminderForm" action={takeBackReminderAction}>
            <input type="hidden" name="vehicleId" value={id} />
            <TextField name="reason" label="Why it is not followed" hint="or that it went out" />
            <SubmitButton>Take it back</SubmitButton>
          </Form>
        ) : (
          <Form action={recordReminderAction} input="reminderForm">
            <input type="hidden" name="vehicleId" value={id} />
            <DateField name="on" label="Day" defaultValue={today} />
            <TextField
              name="odometer"
              label="What its dash showed"
              hint={`in ${vehicle.odometerUnit} unless you write it`}
            />
            <SubmitButton>The plugs are asked for</SubmitButton>
          </Form>
        )}
      </Box>
    </details>
  );
}

/** Where the hour meter stands, if there is one, and what its hours count as. */
function HoursLine({ view: { hours, hoursOption }, system }: { view: VehicleView; system: UnitSystem }) {
  const last = hours.filter((row) => row.state === 'accepted').at(-1);
  if (!last) return null;
  const each = kmPerHour(hoursOption);
  const suspects = hours.filter((row) => row.state === 'suspect').length;
  return (
    <Box color="soft" fontSize="sm">
      Hour meter: {meterText(last.hours)} on {dateText(last.readOn)} ({last.source}).{' '}
      {each > 0 ? `An hour counts as at least ${distanceText(each, system)}.` : 'Hours do not count, by policy.'}
      {suspects > 0 && ` ${suspects} suspect, not used.`}
    </Box>
  );
}
