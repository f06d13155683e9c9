import { Box, Grid } from '@chakra-ui/react';
import { SAID_REASONS } from '@/core/components/history';
import type { Companion } from '@/core/due/other-components';
import { COMPONENTS, quantityOf } from '@/core/engine/quantities';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { dateText, distanceText, hoursText, NONE, percentText, spanText } from '@/text/format';
import { removalChoices } from '@/text/removal-words';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { TextLink } from '@/ui/primitives/links';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { recordChangeAction } from '../actions';

const ADVICE: Readonly<Record<Companion['advice'], string>> = {
  now: 'Change it with the plugs',
  look: 'Look at it while it is open',
  later: 'Leave it',
};

/** The other components, each with its own clock, and what speaks for doing them with the plugs. */
export function OtherComponentsSection({ view, actor }: { view: VehicleView; actor: Actor }) {
  const { companions } = view;
  const [first] = companions;
  const system = actor.unitSystem;
  return (
    <Section
      id="others"
      title="Other components"
      aside={
        first && first.savedMinutes > 0
          ? `opening once, with the plugs, spares about ${hoursText(first.savedMinutes)}`
          : 'each has its own clock'
      }
    >
      {!first && <Box color="soft">No sheet gives the others an interval.</Box>}
      {first && (
        <PlainTable heads={['What', 'Since', 'Used', 'Due by itself', 'With the plugs']} numeric={[3]}>
          {companions.map((row) => (
            <tr key={`${row.component} ${row.partNumber}`}>
              <td className="nowrap">
                {COMPONENT_WORDS[row.component]}
                <br />
                <TextLink href={`/parts?number=${encodeURIComponent(row.partNumber)}`}>
                  <Code>{row.partNumber}</Code>
                </TextLink>{' '}
                × {row.quantity}
              </td>
              <td>
                {row.certainty === 'assumed'
                  ? 'not known'
                  : `${row.certainty === 'estimated' ? 'about ' : ''}${dateText(row.installed.on)}, ${distanceText(row.installed.km, system)}`}
              </td>
              <td className="nowrap">{row.certainty === 'assumed' ? NONE : percentText(row.lifeNow)}</td>
              <td>
                {row.certainty === 'assumed' || !row.due ? (
                  NONE
                ) : (
                  <>
                    {dateText(row.due.p50)}
                    <Box color="soft" fontSize="sm">
                      likely {spanText(row.due.p10, row.due.p90)}
                    </Box>
                  </>
                )}
              </td>
              <td>
                <Box as="span" fontWeight={row.advice === 'now' ? '650' : undefined}>
                  {ADVICE[row.advice]}
                  {row.advice === 'now' && `: ${percentText(row.lifeUsed)} used by then`}
                </Box>
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
      {may(actor, 'record work') && <RecordChange view={view} />}
    </Section>
  );
}

/** Coils, leads, boots and the like, changed outside a plug service. */
function RecordChange({ view: { vehicle, layout, today } }: { view: VehicleView }) {
  const choices = COMPONENTS.filter((component) => component !== 'plug' && quantityOf(layout, component) > 0);
  return (
    <details>
      <summary>Record that some were changed</summary>
      <Box mt="2" maxW="640px">
        <ActionForm action={recordChangeAction}>
          <input type="hidden" name="vehicleId" value={vehicle.id} />
          <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap="4">
            <SelectField
              name="component"
              label="What"
              choices={choices.map((value) => ({ value, label: COMPONENT_WORDS[value] }))}
            />
            <TextField name="sites" label="At which sites" hint="empty: all; else 1 3 5 or bank 2" />
            <TextField name="on" label="Day" type="date" defaultValue={today} />
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
        </ActionForm>
      </Box>
    </details>
  );
}
