'use client';

import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { BREAKAWAY_FEELS, TORQUE_METHODS } from '@/core/reading/vocabulary';
import { ActionForm, type FormAction, SubmitButton, useFormState } from '../primitives/action-form';
import { Chips, TextField } from '../primitives/fields';
import { QuantityField } from './quantity-field';

interface Recorded {
  readonly cylinder: number;
  readonly position: string;
  readonly version: number;
  readonly done: boolean;
  readonly observedNumber: string | null;
  readonly believedNumber: string | null;
  readonly removedGapAsTyped: string | null;
  readonly conditions: readonly string[] | null;
  readonly breakawayFeel: string | null;
  readonly breakawayTorqueAsTyped: string | null;
  readonly newNumber: string | null;
  readonly newGapAsTyped: string | null;
  readonly newLot: string | null;
  readonly compound: string | null;
  readonly compoundBatch: string | null;
  readonly torqueMethod: string | null;
  readonly wrenchSettingAsTyped: string | null;
  readonly installedTorqueAsTyped: string | null;
  readonly remark: string | null;
}

interface Props {
  readonly action: FormAction;
  readonly workOrderId: string;
  readonly site: Recorded;
  readonly siteName: string;
  readonly expected: string | null;
  readonly partNumber: string;
  readonly gapHint: string;
  readonly torqueHint: string;
  readonly fittedGap: string;
  readonly typedIn: { readonly gap: 'mm' | 'in'; readonly torque: 'N·m' | 'lbf·ft' };
  readonly regions: readonly { readonly region: string; readonly conditions: readonly string[] }[];
  readonly next: { readonly href: string; readonly name: string | null };
}

const FEELS: Readonly<Record<(typeof BREAKAWAY_FEELS)[number], string>> = {
  loose: 'loose',
  normal: 'normal',
  tight: 'tight',
  seized: 'seized',
  unknown: 'not noticed',
};
const METHODS: Readonly<Record<(typeof TORQUE_METHODS)[number], string>> = {
  wrench: 'torque wrench',
  angle: 'turn angle',
  feel: 'by feel',
};

/** One site: the old plug out and read, the new one in and tightened. One button says what it does and where it goes. */
export function SiteForm({
  action,
  workOrderId,
  site,
  siteName,
  expected,
  partNumber,
  gapHint,
  torqueHint,
  fittedGap,
  typedIn,
  regions,
  next,
}: Props) {
  return (
    <ActionForm action={action}>
      {Object.entries({
        workOrderId,
        cylinder: site.cylinder,
        position: site.position,
        version: site.version,
        next: next.href,
      }).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <Box as="h2" fontWeight="650" mb="2">
        Old plug
      </Box>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
        <TextField
          name="observedNumber"
          label="Number read off it"
          hint={expected ? `record says ${expected}` : 'the record names none'}
          defaultValue={site.observedNumber ?? ''}
          large
          mono
        />
        <QuantityField
          kind="gap"
          name="removedGap"
          label="Old gap"
          hint={fittedGap}
          typedIn={typedIn.gap}
          defaultValue={site.removedGapAsTyped ?? ''}
        />
      </Grid>
      <Chips
        name="breakawayFeel"
        legend="How it came loose"
        choices={BREAKAWAY_FEELS.map((value) => ({ value, label: FEELS[value] }))}
        chosen={site.breakawayFeel ? [site.breakawayFeel] : []}
      />
      <Box as="details" mb="3">
        <Box as="summary" color="soft" cursor="pointer" minH="40px">
          What you see{site.conditions?.length ? `: ${site.conditions.join(', ')}` : ''}, breakaway torque, what someone
          says it is
        </Box>
        {regions.map(({ region, conditions }) => (
          <Chips
            key={region}
            many
            name="conditions"
            legend={region}
            choices={conditions.map((value) => ({ value, label: value }))}
            chosen={site.conditions ?? []}
          />
        ))}
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
          <QuantityField
            kind="breakaway"
            name="breakawayTorque"
            label="Breakaway torque, if measured"
            typedIn={typedIn.torque}
            defaultValue={site.breakawayTorqueAsTyped ?? ''}
          />
          <TextField
            name="believedNumber"
            label="What someone says it is"
            defaultValue={site.believedNumber ?? ''}
            large
            mono
          />
        </Grid>
      </Box>
      <Box as="h2" fontWeight="650" mb="2">
        New plug
      </Box>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
        <TextField
          name="newNumber"
          label="Number read off it"
          hint={`this engine takes ${partNumber}`}
          defaultValue={site.newNumber ?? ''}
          large
          mono
        />
        <QuantityField
          kind="gap"
          name="newGap"
          label="New gap"
          hint={gapHint}
          typedIn={typedIn.gap}
          defaultValue={site.newGapAsTyped ?? ''}
        />
      </Grid>
      <LotAndCompound site={site} />
      <Chips
        name="torqueMethod"
        legend="Tightened with"
        choices={TORQUE_METHODS.map((value) => ({ value, label: METHODS[value] }))}
        chosen={[site.torqueMethod ?? 'wrench']}
      />
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
        <QuantityField
          kind="torque"
          name="installedTorque"
          label="Installed torque"
          hint={torqueHint}
          typedIn={typedIn.torque}
          defaultValue={site.installedTorqueAsTyped ?? ''}
        />
        <QuantityField
          kind="torque"
          name="wrenchSetting"
          label="Wrench setting, if another"
          typedIn={typedIn.torque}
          defaultValue={site.wrenchSettingAsTyped ?? ''}
        />
      </Grid>
      <TextField name="remark" label="Remark" defaultValue={site.remark ?? ''} />
      <Flex gap="3" wrap="wrap" mt="2">
        <SubmitButton main large name="intent" value="done">
          {site.done ? `Save site ${siteName}` : `Site ${siteName} done`}
          {next.name ? `, next: ${next.name}` : ', to the work order'}
        </SubmitButton>
        <SubmitButton large name="intent" value="keep">
          Keep, not done yet
        </SubmitButton>
      </Flex>
    </ActionForm>
  );
}

/** The same for most sites of one engine, so it is carried on from the last; shut unless there is something to change. */
function LotAndCompound({ site }: { site: Recorded }) {
  const { fields } = useFormState();
  const said = [
    site.newLot ? `lot ${site.newLot}` : 'lot not noted',
    site.compound ? `${site.compound}${site.compoundBatch ? `, batch ${site.compoundBatch}` : ''}` : 'threads dry',
  ];
  return (
    <chakra.details mb="3" open={fields.compound ? true : undefined}>
      <Box as="summary" color="soft" cursor="pointer" minH="40px">
        Lot and compound: {said.join('; ')}
      </Box>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr 1fr' }} columnGap="4">
        <TextField name="newLot" label="Lot on its box" defaultValue={site.newLot ?? ''} large mono />
        <TextField name="compound" label="Compound on the threads" defaultValue={site.compound ?? ''} large />
        <TextField name="compoundBatch" label="Batch of the tube" defaultValue={site.compoundBatch ?? ''} large mono />
      </Grid>
    </chakra.details>
  );
}
