import { LAMPS } from '@/core/misfire/case-entry';
import { SYMPTOMS } from '@/core/misfire/misfire-case';
import { LAMP_WORDS, SYMPTOM_WORDS } from '@/text/misfire-words';
import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { Chips } from '../primitives/choice-fields';
import { TextField } from '../primitives/fields';
import { Form } from '../primitives/form';
import { Caution } from '../primitives/page';

const LAMP_CHOICES = LAMPS.map((value) => ({ value, label: LAMP_WORDS[value].replace('engine lamp ', '') }));
const SYMPTOM_CHOICES = SYMPTOMS.map((value) => ({ value, label: SYMPTOM_WORDS[value] }));

/** What a driver can say of a misfire in a minute, on a phone. */
export function ComplaintForm({
  action,
  unit = '',
  codes = '',
  asksWho = false,
  asksCodes = false,
}: {
  action: FormAction;
  unit?: string;
  codes?: string;
  /** Somebody without an account says who they are. */
  asksWho?: boolean;
  asksCodes?: boolean;
}) {
  return (
    <Form action={action} input={asksWho ? 'driverReportForm' : 'reportForm'}>
      <TextField
        name="unitNumber"
        label="Number of the vehicle"
        hint="as it stands on it"
        defaultValue={unit}
        autoFocus={unit === ''}
      />
      <Chips name="lamp" legend="The engine lamp is" choices={LAMP_CHOICES} chosen={[]} />
      <Caution>Flashing: stop where it is safe, and do not drive on. Each misfire burns in the catalyst.</Caution>
      <Chips name="symptoms" legend="It shakes or stumbles" choices={SYMPTOM_CHOICES} chosen={[]} many />
      <TextField name="words" label="In your words" hint="since when, where, what else you noticed" />
      {asksCodes && (
        <>
          <TextField name="cylinders" label="Cylinders that somebody names" hint="as 3 4, or leave it empty" />
          <TextField
            name="codes"
            label="Fault codes"
            hint="typed, or pasted from another program; or leave it empty"
            defaultValue={codes}
            mono
          />
        </>
      )}
      {asksWho && <TextField name="driver" label="Who are you?" autoComplete="name" />}
      <SubmitButton main large>
        Report it
      </SubmitButton>
    </Form>
  );
}
