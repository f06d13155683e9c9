import { Box, Grid } from '@chakra-ui/react';
import type { BayId, PersonId, WorkOrderId } from '@/core/shared/kinds';
import { type FormAction, PressForm } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import type { Choice } from '../primitives/field-frame';
import { DateField, SelectField, TextField } from '../primitives/fields';
import { Form } from '../primitives/form';

interface Props {
  readonly action: FormAction;
  readonly unplan: FormAction;
  readonly workOrderId: WorkOrderId;
  readonly bays: readonly Choice[];
  readonly people: readonly Choice[];
  readonly now: {
    readonly day: string;
    readonly start: string;
    readonly minutes: number;
    readonly bayId?: BayId;
    readonly personId?: PersonId;
    readonly version?: number;
  };
  readonly planned: boolean;
  readonly hybrid: boolean;
}

export function PlanForm({ action, unplan, workOrderId, bays, people, now, planned, hybrid }: Props) {
  if (bays.length === 0) return <Box color="soft">This depot has no bay yet. Add one under Settings.</Box>;
  if (people.length === 0)
    return (
      <Box color="soft">No {hybrid ? 'technician qualified for hybrids' : 'technician'} yet. Add one under People.</Box>
    );
  return (
    <>
      <Form action={action} input="planForm">
        <input type="hidden" name="workOrderId" value={workOrderId} />
        <input type="hidden" name="version" value={now.version ?? ''} />
        <Grid templateColumns="repeat(auto-fit, minmax(130px, 1fr))" columnGap="3">
          <DateField name="day" label="Day" defaultValue={now.day} />
          <TextField name="start" label="Start" type="time" defaultValue={now.start} />
          <TextField name="minutes" label="Minutes" inputMode="numeric" defaultValue={String(now.minutes)} />
          <SelectField name="bayId" label="Bay" choices={bays} defaultValue={now.bayId} />
          <SelectField name="personId" label="Person" choices={people} defaultValue={now.personId} />
        </Grid>
        <SubmitButton>{planned ? 'Move' : 'Plan'}</SubmitButton>
      </Form>
      {planned && (
        <Box mt="2">
          <PressForm action={unplan} quiet>
            <input type="hidden" name="workOrderId" value={workOrderId} />
            <SubmitButton>Take off the plan</SubmitButton>
          </PressForm>
        </Box>
      )}
    </>
  );
}
