import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { addMonths } from '@/core/calendar/plain-date';
import { CALIBRATION_MONTHS, MIN_SHARE_OF_RANGE } from '@/core/torque/plan';
import { may } from '@/server/access';
import { listKept } from '@/server/bench/keep-result';
import { listWrenches, type WrenchRow } from '@/server/bench/wrenches';
import { deps } from '@/server/deps';
import { dateText, instantText } from '@/text/format';
import { SubPlaces } from '@/ui/frame/sub-places';
import { SubmitButton } from '@/ui/primitives/button';
import { DateField, SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { addWrenchAction, updateWrenchAction } from '../actions';
import { BENCH_PLACES } from '../places';

export default page(async function WrenchesPage() {
  const actor = await requireActor();
  const [wrenches, kept] = await Promise.all([listWrenches(deps(), actor), listKept(deps(), actor)]);
  mustShow(wrenches);
  const manage = may(actor, 'manage wrenches');
  return (
    <>
      <PageHead title="Wrenches and saved results" />
      <SubPlaces label="Bench" places={BENCH_PLACES} />
      <Grid templateColumns={{ base: '1fr', xl: manage ? 'minmax(0, 1fr) 320px' : '1fr' }} columnGap="8">
        <Section title="Torque wrenches" aside="usable from 20 % of their range, calibrated within 12 months">
          {wrenches.value.length === 0 && <Empty>No wrench in the register yet.</Empty>}
          {wrenches.value.length > 0 && (
            <ListTable
              noun="wrenches"
              items={wrenches.value}
              idOf={({ id }) => id}
              columns={columnsFor(deps().today(), manage)}
            />
          )}
        </Section>
        {manage && <AddWrench />}
      </Grid>
      <Section title="Saved results">
        {kept.ok && kept.value.length === 0 && <Empty>Results saved from the bench are listed here.</Empty>}
        {kept.ok &&
          kept.value.map(({ kept: row, who, orderNumber }) => (
            <Box key={row.id} py="1" borderBottom="1px solid" borderColor="hair">
              {row.summary}{' '}
              <Box as="span" color="soft" fontSize="sm">
                {who}, {instantText(row.keptAt)}
                {row.workOrderId && (
                  <>
                    , on work order <TextLink href={`/work-orders/${row.workOrderId}`}>{orderNumber}</TextLink>
                  </>
                )}
              </Box>
            </Box>
          ))}
      </Section>
    </>
  );
});

const columnsFor = (today: string, manage: boolean): readonly Column<WrenchRow>[] => [
  { head: 'Wrench', value: ({ name }) => name, cell: ({ name }) => <strong>{name}</strong> },
  {
    head: 'Usable',
    value: ({ min, max }) => Math.max(min, max * MIN_SHARE_OF_RANGE),
    cell: ({ min, max, unit }) => `${Number(Math.max(min, max * MIN_SHARE_OF_RANGE).toPrecision(4))} to ${max} ${unit}`,
  },
  { head: 'Step', value: ({ step }) => step, cell: ({ step, unit }) => `${step} ${unit}` },
  { head: 'Length', value: ({ lengthMm }) => lengthMm, cell: ({ lengthMm }) => `${lengthMm} mm` },
  {
    head: 'Calibrated',
    value: ({ calibratedOn }) => calibratedOn,
    cell: (wrench) => <Calibrated {...{ wrench, today }} />,
  },
  ...(manage ? [{ head: 'Changes', cell: (wrench: WrenchRow) => <ChangeWrench wrench={wrench} /> }] : []),
];

function Calibrated({ wrench: { calibratedOn }, today }: { wrench: WrenchRow; today: string }) {
  const until = addMonths(calibratedOn, CALIBRATION_MONTHS);
  return (
    <>
      {dateText(calibratedOn)}
      <Box color={until < today ? 'wrong.ink' : 'soft'} fontSize="sm" fontWeight={until < today ? '650' : '400'}>
        {until < today ? `overdue since ${dateText(until)}` : `good until ${dateText(until)}`}
      </Box>
    </>
  );
}

const ChangeWrench = ({ wrench }: { wrench: WrenchRow }) => (
  <Form action={updateWrenchAction} quiet input="calibrationForm">
    <input type="hidden" name="wrenchId" value={wrench.id} />
    <Box display="flex" flexWrap="wrap" gap="2" alignItems="end">
      <Box w="180px" mb="-12px">
        <DateField name="calibratedOn" label={`New calibration of ${wrench.name.split(',')[0]}`} />
      </Box>
      <SubmitButton>Save</SubmitButton>
      <SubmitButton name="retire" value="yes">
        Retire
      </SubmitButton>
    </Box>
  </Form>
);

function AddWrench() {
  return (
    <Section title="Add a wrench">
      <Form action={addWrenchAction} input="wrenchForm">
        <TextField name="name" label="Name on its handle" placeholder="T5, 5 to 25 N·m" />
        <SelectField
          name="unit"
          label="Unit of its scale"
          choices={['N·m', 'lbf·ft', 'lbf·in'].map((value) => ({ value, label: value }))}
        />
        <Grid templateColumns="1fr 1fr 1fr" columnGap="3">
          <TextField name="min" label="Least" inputMode="decimal" />
          <TextField name="max" label="Greatest" inputMode="decimal" />
          <TextField name="step" label="Step" inputMode="decimal" />
        </Grid>
        <Grid templateColumns="1fr 1fr" columnGap="3">
          <TextField name="lengthMm" label="Length, mm" inputMode="numeric" />
          <DateField name="calibratedOn" label="Calibrated" />
        </Grid>
        <SubmitButton main>Add it</SubmitButton>
      </Form>
    </Section>
  );
}
