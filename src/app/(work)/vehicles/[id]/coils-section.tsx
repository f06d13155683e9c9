import { Box, Grid } from '@chakra-ui/react';
import { daysBetween } from '@/core/calendar/plain-date';
import { ageOf, type Stay } from '@/core/components/history';
import { claimOf, type Warranty } from '@/core/components/warranty';
import type { UnitSystem } from '@/core/units/person-units';
import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText, distanceText, NONE } from '@/text/format';
import { REMOVAL_WORDS } from '@/text/removal-words';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { Caution, Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { swapCoilsAction } from '../actions';

/** Coils by tag: where each sits and has sat, and which cylinder keeps losing them. */
export function CoilsSection({ view: { coils, vehicle }, actor }: { view: VehicleView; actor: Actor }) {
  if (coils.now.length === 0) return null;
  const system = actor.unitSystem;
  /** Where a coil has sat; without a tag this place alone is known. */
  const stays = (fitted: VehicleView['coils']['now'][number]['fitted']) =>
    coils.coils.find((coil) => coil.tag === fitted.tag)?.stays ?? [fitted];
  const tagged = coils.now.filter(({ fitted }) => fitted.tag);
  const choices = tagged.map(({ fitted }) => ({
    value: String(fitted.cylinder),
    label: `cylinder ${fitted.cylinder}, ${fitted.tag}`,
  }));
  return (
    <Section id="coils" title="Coils" aside="followed by their tags">
      {coils.repeatFailures.map(({ cylinder, lost }) => (
        <Box key={cylinder} mb="3">
          <Caution>
            Cylinder {cylinder} has used up {lost} coils: look at boot, well, plug gap and wiring before another is
            fitted.
          </Caution>
        </Box>
      ))}
      <PlainTable heads={['Cylinder', 'Tag', 'Part', 'There since', 'Before that']}>
        {coils.now.map(({ fitted, number }) => {
          const before = coils.coils.find((coil) => coil.tag === fitted.tag)?.stays.slice(0, -1) ?? [];
          return (
            <tr key={fitted.id}>
              <CoilCells {...{ fitted, number }} />
              <td>{dateText(fitted.installedOn)}</td>
              <td className="soft">
                {before.map((stay) => `cylinder ${stay.cylinder} from ${dateText(stay.installedOn)}`).join(', ') ||
                  NONE}
              </td>
            </tr>
          );
        })}
      </PlainTable>
      {coils.gone.length > 0 && (
        <details>
          <summary>Coils that came out ({coils.gone.length})</summary>
          <PlainTable heads={['Cylinder', 'Tag', 'Part', 'In', 'Out', 'Age', 'Why', 'Warranty']}>
            {coils.gone.map(({ fitted, number, warranty }) => (
              <tr key={fitted.id}>
                <CoilCells {...{ fitted, number }} />
                <td>{dateText(fitted.installedOn)}</td>
                <td>{dateText(fitted.removedOn)}</td>
                <td className="nowrap">{ageText(stays(fitted), system)}</td>
                <td>{REMOVAL_WORDS[fitted.removalReason ?? 'unknown']}</td>
                <td>{claimText(stays(fitted), warranty)}</td>
              </tr>
            ))}
          </PlainTable>
        </details>
      )}
      {may(actor, 'record work') && tagged.length > 1 && (
        <details>
          <summary>Record that two coils have changed places</summary>
          <Box maxW="640px" mt="2">
            <Form action={swapCoilsAction} input="swapCoilsForm">
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap="4">
                <SelectField name="first" label="Coil of" choices={choices} />
                <SelectField name="second" label="with coil of" choices={choices} defaultValue={choices[1]?.value} />
              </Grid>
              <TextField name="reason" label="Why" />
              <SubmitButton>Record the swap</SubmitButton>
            </Form>
          </Box>
        </details>
      )}
    </Section>
  );
}

/** How far a coil went in all, until it came out. */
function ageText(stays: readonly Stay[], system: UnitSystem): string {
  const [first, last, age] = [stays[0], stays.at(-1), ageOf(stays)];
  if (!first || !last?.removedOn || !age) return NONE;
  const months = Math.round(daysBetween(first.installedOn, last.removedOn) / MONTH_DAYS);
  return `${age.isAbout ? 'about ' : ''}${distanceText(age.km, system)}, ${months} months`;
}
const MONTH_DAYS = 30.44;

function claimText(stays: readonly Stay[], warranty: Warranty | null): string {
  const claim = warranty && claimOf(stays, warranty);
  if (!claim) return NONE;
  if (!claim.isWithin) return 'over';
  const proof = claim.isAbout ? ', with a better reading: the odometer is only about so much' : '';
  return `failed within it: claim ${claim.until ? `until ${dateText(claim.until)}` : 'it'}${proof}`;
}

/** Where a coil sits or sat, its tag and its number. */
function CoilCells({ fitted, number }: Pick<VehicleView['coils']['now'][number], 'fitted' | 'number'>) {
  return (
    <>
      <td className="strong">{fitted.cylinder}</td>
      <td>
        <Code>{fitted.tag ?? 'no tag'}</Code>
      </td>
      <td>
        <Code>{number ?? fitted.believedNumber ?? 'unknown'}</Code>
      </td>
    </>
  );
}
