import { Box } from '@chakra-ui/react';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { dateText, moneyText, NONE } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { DateField, SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Facts, Section } from '@/ui/primitives/page';
import { WeekCost } from '@/ui/primitives/week-cost';
import { blockAction, deferAction, takeBackAction } from '../../pressure/actions';

/** The parts of the service pressure in money a week, and what was done about the date. */
export function PressureSection({ view, actor }: { view: VehicleView; actor: Actor }) {
  const { due, currency, vehicle } = view;
  const { pressureParts: parts } = due;
  const several = perComponent(view).length > 0;
  const leaves = vehicle.retiresOn !== null && due.due !== null && vehicle.retiresOn <= due.due.p50;
  return (
    <Section
      id="pressure"
      title="Service pressure"
      aside={
        due.pressure === null ? (
          'not known'
        ) : (
          <>
            <WeekCost unit={vehicle.unitNumber} amount={due.pressure} currency={currency} /> a week if it waits
          </>
        )
      }
    >
      {parts ? (
        <Facts
          rows={[
            ...perComponent(view),
            [
              several ? `Chance of a failure, ${COMPONENT_WORDS[due.component].toLowerCase()}` : 'Chance of a failure',
              `${(parts.chance * 100).toFixed(2)} % in the next 7 days, assumed`,
            ],
            ['Its cost', `${moneyText(due.failureCost, currency)}, on the road`],
            ['That is', `${moneyText(parts.failure, currency)} a week`],
            ['Wear past the limit', parts.wear > 0 ? `${moneyText(parts.wear, currency)} a week` : NONE],
            ...troubles(view),
          ]}
        />
      ) : (
        <Box color="soft">This needs a firm match, a reading and an interval.</Box>
      )}
      <Box color="soft" fontSize="sm" mt="1">
        Failures are assumed Weibull in life used, shape {ASSUMED_LIFE.shape}, scale {ASSUMED_LIFE.scale}; costs under{' '}
        <TextLink href="/pressure/costs">Costs</TextLink>.
      </Box>
      {vehicle.retiresOn && (
        <Box mt="2" color={leaves ? 'caution.ink' : undefined}>
          Leaves the fleet on {dateText(vehicle.retiresOn)}
          {leaves && ', before its next due date: no set is bought for it unless someone says so'}.
        </Box>
      )}
      <Holds view={view} mayDefer={may(actor, 'defer work')} />
    </Section>
  );
}

/** What each component adds, where more than one does. */
function perComponent({ due: { components }, currency }: VehicleView): readonly (readonly [string, string])[] {
  const known = components.filter(({ pressureParts }) => pressureParts !== null);
  if (known.length < 2) return [];
  return known.map(({ component, pressureParts }) => [
    COMPONENT_WORDS[component],
    `${moneyText(pressureParts?.total ?? 0, currency)} a week`,
  ]);
}

/** What an open misfire and findings add. */
function troubles({ due: { week }, currency }: VehicleView): readonly (readonly [string, string])[] {
  const added = [
    ['Its open misfire', week.misfire],
    ['Findings that are followed up', week.findings],
  ] as const;
  return added.flatMap(([name, amount]) =>
    amount > 0 ? [[name, `${moneyText(amount, currency)} a week, assumed`] as const] : [],
  );
}

/** What keeps the work from being asked for, and the ways to say so. */
function Holds({ view: { deferrals, vehicle, due }, mayDefer }: { view: VehicleView; mayDefer: boolean }) {
  const open = deferrals.find(({ deferral }) => deferral.endedAt === null)?.deferral;
  return (
    <>
      {deferrals.slice(0, 3).map(({ deferral, components, who }) => (
        <Box key={deferral.id} mt="2" color={deferral.endedAt ? 'soft' : undefined}>
          {components.map((component) => COMPONENT_WORDS[component].toLowerCase()).join(', ')}: {deferralText(deferral)}{' '}
          ({who})
        </Box>
      ))}
      {mayDefer && open && (
        <PressForm action={takeBackAction}>
          <input type="hidden" name="vehicleId" value={vehicle.id} />
          <SubmitButton>{open.fault ? 'The other fault is mended' : 'Take the deferral back'}</SubmitButton>
        </PressForm>
      )}
      {mayDefer && !open && due.pressureParts && (
        <>
          <details>
            <summary>Defer</summary>
            <Box mt="2" maxW="420px">
              <Form action={deferAction} input="deferForm">
                <input type="hidden" name="ids" value={vehicle.id} />
                <SelectField
                  name="component"
                  label="Of which component"
                  choices={[
                    { value: '', label: 'all of it' },
                    ...due.components.map(({ component }) => ({ value: component, label: COMPONENT_WORDS[component] })),
                  ]}
                />
                <DateField name="until" label="Until" />
                <TextField name="reason" label="Why" />
                <SubmitButton>Defer</SubmitButton>
              </Form>
            </Box>
          </details>
          <details>
            <summary>Other fault</summary>
            <Box mt="2" maxW="420px">
              <Form action={blockAction} input="blockForm">
                <input type="hidden" name="vehicleId" value={vehicle.id} />
                <TextField name="fault" label="Which fault" hint="exhaust leak, lean code, oil in the wells" />
                <DateField name="until" label="Expected to be mended by" hint="empty: nobody can say" />
                <TextField name="reason" label="Note" />
                <SubmitButton>Block this work</SubmitButton>
              </Form>
            </Box>
          </details>
        </>
      )}
    </>
  );
}

function deferralText({ endedAt, until, fault, reason }: VehicleView['deferrals'][number]['deferral']): string {
  if (fault === null) return `${endedAt ? 'Was deferred' : 'Deferred'} to ${dateText(until)}: ${reason}`;
  const day = until === null ? 'no day given' : `expected by ${dateText(until)}`;
  return `${endedAt ? 'Waited' : 'Waits'} for another fault: ${fault}, ${day}${reason ? `; ${reason}` : ''}`;
}
