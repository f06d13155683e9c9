import { Grid } from '@chakra-ui/react';
import type { Layout } from '@/core/engine/layout';
import { allPlaces } from '@/core/engine/places';
import { TASK_ACTIONS, TASK_COMPONENTS, TASK_WHYS, type TaskWhy } from '@/core/work/task';
import { ACTION_WORDS, partsText, WHY_WORDS } from '@/text/task-words';
import { SelectField, TextField } from '../primitives/fields';

/** What is done to which part of this engine, where and why. */
export function TaskFields({ layout, why, note }: { layout: Layout; why: TaskWhy; note?: string }) {
  const components = TASK_COMPONENTS.filter((component) => allPlaces(layout, component).length > 0);
  return (
    <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
      <SelectField
        name="action"
        label="What is done"
        choices={TASK_ACTIONS.map((value) => ({ value, label: ACTION_WORDS[value] }))}
      />
      <SelectField
        name="component"
        label="To what"
        choices={components.map((value) => ({ value, label: partsText(value, allPlaces(layout, value).length) }))}
      />
      <TextField name="places" label="Where" hint="all, front bank, or cylinders as 2 3 5" defaultValue="all" />
      <SelectField
        name="why"
        label="Why"
        choices={TASK_WHYS.map((value) => ({ value, label: WHY_WORDS[value] }))}
        defaultValue={why}
      />
      <TextField name="note" label="In words" hint="what was reported or found" defaultValue={note} />
      <TextField name="releaseReason" label="Reason to release" hint="only for a sheet that nobody checked" />
    </Grid>
  );
}
