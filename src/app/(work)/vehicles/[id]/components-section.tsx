import { Box, Grid } from '@chakra-ui/react';
import { SAID_REASONS } from '@/core/components/history';
import type { DueItem } from '@/core/due/due-item';
import type { Companion } from '@/core/due/other-components';
import { COMPONENTS, quantityOf } from '@/core/engine/quantities';
import type { UnitSystem } from '@/core/units/person-units';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { STATE_WORDS } from '@/text/due-words';
import { dateText, distanceText, hoursText, NONE, percentText, spanText } from '@/text/format';
import { removalChoices } from '@/text/removal-words';
import { SubmitButton } from '@/ui/primitives/button';
import { DateField, SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { recordChangeAction } from '../actions';

const ADVICE: Readonly<Record<Companion['advice'], string>> = {
  now: 'Change it with the plugs',
  look: 'Look at it while it is open',
  later: 'Leave it',
};

/** Every component with its own clock, and what speaks for doing the others with the plugs. */
export function ComponentsSection({ view, actor }: { view: VehicleView; actor: Actor }) {
  const { due, companions } = view;
  const [first] = companions;
  return (
    <Section
      id="others"
      title="Components"
      aside={
        first && first.savedMinutes > 0
          ? `each has its own clock; opening once spares about ${hoursText(first.savedMinutes)}`
          : 'each has its own clock'
      }
    >
      <PlainTable heads={['What', 'Since', 'Used', 'State', 'With the plugs']} numeric={[3]}>
        {due.components.map((item) => (
          <ComponentRow
            key={item.component}
            item={item}
            companion={companions.find(({ component }) => component === item.component)}
            system={actor.unitSystem}
          />
        ))}
      </PlainTable>
      {may(actor, 'record work') && <RecordChange view={view} />}
    </Section>
  );
}

function ComponentRow({
  item,
  companion,
  system,
}: {
  item: DueItem;
  companion: Companion | undefined;
  system: UnitSystem;
}) {
  const isAssumed = item.certainty === 'assumed';
  return (
    <tr>
      <td>
        {COMPONENT_WORDS[item.component]}
        {item.partNumber && (
          <>
            <br />
            <TextLink href={`/parts?number=${encodeURIComponent(item.partNumber)}`}>
              <Code>{item.partNumber}</Code>
            </TextLink>
          </>
        )}
      </td>
      <td>{isAssumed ? 'not known' : fittedText(item, system)}</td>
      <td className="nowrap">{isAssumed || item.lifeUsed === null ? NONE : percentText(item.lifeUsed)}</td>
      <td>
        {item.state === 'no-date' && item.component !== 'plug' ? 'On failure' : STATE_WORDS[item.state]}
        <Box color="soft" fontSize="sm">
          {item.state === 'no-match' && item.fitmentWhy}
          {item.due && !isAssumed && dateText(item.due.p50)}
          {item.due &&
            !isAssumed &&
            item.due.p10 !== item.due.p90 &&
            `, likely ${spanText(item.due.p10, item.due.p90)}`}
        </Box>
      </td>
      <td>
        {companion && (
          <Box as="span" fontWeight={companion.advice === 'now' ? '650' : undefined}>
            {ADVICE[companion.advice]}
            {companion.advice === 'now' && `: ${percentText(companion.lifeUsed)} used by then`}
          </Box>
        )}
      </td>
    </tr>
  );
}

function fittedText({ certainty, fittedOn, fittedKm }: DueItem, system: UnitSystem): string {
  if (fittedOn === null) return NONE;
  return `${certainty === 'estimated' ? 'about ' : ''}${dateText(fittedOn)}, ${distanceText(fittedKm, system)}`;
}

/** Coils, leads, boots and the like, changed outside a plug service. */
function RecordChange({ view: { vehicle, layout, today } }: { view: VehicleView }) {
  const choices = COMPONENTS.filter((component) => component !== 'plug' && quantityOf(layout, component) > 0);
  return (
    <details>
      <summary>Record that some were changed</summary>
      <Box mt="2" maxW="640px">
        <Form action={recordChangeAction} input="recordChangeForm">
          <input type="hidden" name="vehicleId" value={vehicle.id} />
          <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap="4">
            <SelectField
              name="component"
              label="What"
              choices={choices.map((value) => ({ value, label: COMPONENT_WORDS[value] }))}
            />
            <TextField name="sites" label="At which cylinders" hint="empty: all; else 1 3 5 or bank 2" />
            <DateField name="on" label="Day" defaultValue={today} />
            <TextField name="odometer" label="Odometer then" hint={`in ${vehicle.odometerUnit} unless you write it`} />
            <SelectField
              name="certainty"
              label="How sure"
              choices={[
                { value: 'exact', label: 'exact' },
                { value: 'estimated', label: 'about' },
              ]}
            />
            <SelectField
              name="removalReason"
              label="Why the old ones came out"
              choices={[{ value: '', label: 'choose' }, ...removalChoices(SAID_REASONS)]}
            />
            <TextField name="partNumber" label="Part number" mono hint="empty: not known" />
            <TextField name="tag" label="Tag or serial" mono hint="of one coil" />
          </Grid>
          <SubmitButton>Record the change</SubmitButton>
        </Form>
      </Box>
    </details>
  );
}
