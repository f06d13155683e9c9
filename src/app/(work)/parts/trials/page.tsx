import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { MIN_SITE_KM, type Service, type TrialComparison } from '@/core/stock/trial';
import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listTrials } from '@/server/stock/trials';
import { dateText, distanceText, NONE, percentText, wearText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { endTrialAction, startTrialAction } from './actions';

type Trial = Extract<Awaited<ReturnType<typeof listTrials>>, { ok: true }>['value'][number];

export default page(async function TrialsPage() {
  const actor = await requireActor();
  const list = await listTrials(deps(), actor);
  mustShow(list);
  const manage = may(actor, 'run trials');
  return (
    <>
      <PageHead title="Trials">Another part tried on some vehicles, held against the usual one on the others</PageHead>
      <Grid templateColumns={{ base: '1fr', lg: manage ? 'minmax(0, 1fr) 360px' : '1fr' }} columnGap="8">
        <Box minW="0">
          {list.value.length === 0 && (
            <Empty>No trial yet. A trial names a part, the usual one, and a day of review.</Empty>
          )}
          {list.value.map((row) => (
            <OneTrial key={row.trial.id} row={row} system={actor.unitSystem} manage={manage} today={deps().today()} />
          ))}
        </Box>
        {manage && (
          <Section title="Start a trial">
            <Form action={startTrialAction} input="startTrialForm">
              <TextField name="number" label="Number on trial" mono />
              <TextField name="controlNumber" label="Usual number" mono />
              <TextField name="why" label="Why it is tried" />
              <TextField name="reviewOn" label="Look at it on" placeholder="2027-05-31" />
              <SubmitButton main>Start</SubmitButton>
            </Form>
          </Section>
        )}
      </Grid>
    </>
  );
});

function OneTrial({
  row: { trial, part, control, who, onTrial, usual, comparison },
  system,
  manage,
  today,
}: {
  row: Trial;
  system: UnitSystem;
  manage: boolean;
  today: string;
}) {
  const due = trial.endedOn === null && trial.reviewOn <= today;
  return (
    <Section
      title={
        <>
          <Code>{part.number}</Code> {part.maker}, against <Code>{control.number}</Code> {control.maker}
        </>
      }
      aside={
        trial.endedOn ? `ended ${dateText(trial.endedOn)}` : `review ${dateText(trial.reviewOn)}${due ? ', due' : ''}`
      }
    >
      <Box mb="2">
        {trial.why}{' '}
        <Box as="span" color="soft">
          started {dateText(trial.startedOn)} by {who}
        </Box>
      </Box>
      <PlainTable
        heads={['', 'Plugs', 'Vehicles', 'Run by all of them', 'Out early', 'Gap growth']}
        numeric={[2, 3, 4, 5, 6]}
      >
        <ServiceRow
          label={<TextLink href={`/parts/${part.id}`}>{part.number}</TextLink>}
          service={onTrial}
          growth={comparison.trialGrowth}
          system={system}
        />
        <ServiceRow
          label={<TextLink href={`/parts/${control.id}`}>{control.number}</TextLink>}
          service={usual}
          growth={comparison.controlGrowth}
          system={system}
        />
      </PlainTable>
      <Box fontWeight="650">{trial.outcome ? `Outcome: ${trial.outcome}` : verdictText(comparison, system)}</Box>
      {manage && trial.endedOn === null && (
        <details>
          <summary>End this trial</summary>
          <Box mt="2" maxW="460px">
            <Form action={endTrialAction} input="endTrialForm">
              <input type="hidden" name="trialId" value={trial.id} />
              <input type="hidden" name="version" value={trial.version} />
              <TextField name="outcome" label="What came of it" />
              <SubmitButton>End</SubmitButton>
            </Form>
          </Box>
        </details>
      )}
    </Section>
  );
}

function ServiceRow({
  label,
  service,
  growth,
  system,
}: {
  label: React.ReactNode;
  service: Service;
  growth: number | null;
  system: UnitSystem;
}) {
  return (
    <tr>
      <td>{label}</td>
      <td>{service.sites}</td>
      <td>{service.vehicles}</td>
      <td>{distanceText(service.siteKm, system)}</td>
      <td>{service.early}</td>
      <td>{growth === null ? NONE : wearText(growth, system)}</td>
    </tr>
  );
}

function verdictText({ verdict, chance }: TrialComparison, system: UnitSystem): string {
  const odds =
    chance === null
      ? ''
      : ` If the two were alike, a split so uneven would come about in ${percentText(chance)} of cases.`;
  switch (verdict) {
    case 'too-little':
      return `Too little to tell yet: a verdict wants ${distanceText(MIN_SITE_KM, system)} run by its plugs.${odds}`;
    case 'no-difference':
      return `No difference seen so far.${odds}`;
    case 'worse':
      return `The part on trial comes out early more often.${odds}`;
    case 'better':
      return `The part on trial comes out early less often.${odds}`;
  }
}
