import { Box, Flex, Grid } from '@chakra-ui/react';
import { siteName } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import type { WorkOrderId } from '@/core/shared/kinds';
import { isLive } from '@/core/work/order-state';
import { type Actor, may } from '@/server/access';
import type { FindingView } from '@/server/findings/findings-of';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { CAUSE_WORDS } from '@/text/cause-words';
import { CONFIDENCE_WORDS, findingEvidence, findingPlaces, URGENCY_WORDS, VERDICT_WORDS } from '@/text/finding-words';
import { dateText, instantText } from '@/text/format';
import { taskText } from '@/text/task-words';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import type { Choice } from '@/ui/primitives/field-frame';
import { DateField, SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Section } from '@/ui/primitives/page';
import { addTaskAction, followUpAction, openForTaskAction, verdictAction } from '../actions';

/** What the removed parts say together: suspicions with their evidence, and what people made of them. */
export function FindingsSection({
  view,
  actor,
  people,
}: {
  view: WorkOrderView;
  actor: Actor;
  people: readonly Choice[];
}) {
  const { findings, order, followUps } = view;
  const speaks = may(actor, 'record work') && order.state !== 'cancelled';
  return (
    <Section
      id="findings"
      title="Findings"
      aside={findings.length > 0 ? 'suspicions with evidence, never verdicts' : undefined}
    >
      {findings.length === 0 && (
        <Box color="soft">
          Nothing yet. Record at each site what you see on the removed plug: what differs, and where, points to the
          cause.
        </Box>
      )}
      {findings.map((finding) => (
        <One key={finding.key} finding={finding} view={view} actor={actor} speaks={speaks} people={people} />
      ))}
      {followUps.length > 0 && (
        <Box mt="3">
          <strong>Follow-ups</strong>
          {followUps.map(({ followUp, owner }) => (
            <Box key={followUp.id} color={followUp.doneAt ? 'soft' : undefined}>
              {followUp.what}: {owner}
              {followUp.dueOn && `, by ${dateText(followUp.dueOn)}`}
              {followUp.dueKmAsTyped && `, at ${followUp.dueKmAsTyped}`}
              {followUp.doneAt && `. Done: ${followUp.outcome}`}
            </Box>
          ))}
          <TextLink href="/work-orders/follow-ups">All follow-ups</TextLink>
        </Box>
      )}
      {speaks && (
        <Box as="details" id="follow-ups" mt="3" data-no-print>
          <summary>Add a follow-up: a recheck by day or distance</summary>
          <FollowUp
            workOrderId={order.id}
            findingKey=""
            what="Look again: boots, connectors, codes, idle"
            people={people}
            me={actor.personId}
          />
        </Box>
      )}
    </Section>
  );
}

interface OneProps {
  readonly finding: FindingView;
  readonly view: WorkOrderView;
  readonly actor: Actor;
  readonly speaks: boolean;
  readonly people: readonly Choice[];
}

function One({ finding, view: { layout, order }, actor, speaks, people }: OneProps) {
  const { cause, sites, against, confidence, urgency, next, verdict, past } = finding;
  const loud = urgency === 'stop' && verdict?.verdict.verdict !== 'rejected' && !past;
  const seen = findingEvidence(layout, finding);
  const mayJudge = speaks && !past && (urgency !== 'stop' || may(actor, 'decide on findings that stop work'));
  return (
    <Box
      py="3"
      borderBottom="1px solid"
      borderColor="hair"
      {...(loud && { bg: 'wrong.bg', color: 'wrong.ink', px: '3', rounded: 'sm' })}
      role={loud ? 'alert' : undefined}
    >
      <Flex justify="space-between" gap="3" wrap="wrap">
        <Box fontWeight="650" textDecoration={verdict?.verdict.verdict === 'rejected' ? 'line-through' : undefined}>
          {CAUSE_WORDS[cause]}
        </Box>
        <Box fontWeight={loud ? '650' : undefined} color={loud ? undefined : 'soft'}>
          {URGENCY_WORDS[urgency]} · {CONFIDENCE_WORDS[confidence]}
        </Box>
      </Flex>
      <Box>
        {findingPlaces(layout, finding)}
        {seen && `: ${seen}`}
      </Box>
      {cause === 'healthy' && finding.looked < finding.of && (
        <Box color="soft">
          {finding.looked} of {finding.of} were looked at; of the others nothing is said.
        </Box>
      )}
      {against.length > 0 && (
        <Box color={loud ? undefined : 'soft'}>
          Against it: {against.map((e) => `${siteName(layout, e)} ${e.words}`).join('; ')}
        </Box>
      )}
      {next.length > 0 && (
        <Box as="ul" pl="5" fontSize="sm" color={loud ? undefined : 'soft'}>
          {next.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </Box>
      )}
      {past && <Box color="caution.ink">The record has been changed since: this no longer shows.</Box>}
      {verdict && (
        <Box mt="1">
          {VERDICT_WORDS[verdict.verdict.verdict]} by {verdict.who}, {instantText(verdict.verdict.saidAt)}
          {verdict.verdict.insteadText && `: it is ${verdict.verdict.insteadText}`}
          {verdict.verdict.reason && `. ${verdict.verdict.reason}`}
        </Box>
      )}
      {verdict?.verdict.verdict === 'confirmed' && may(actor, 'open work orders') && (
        <Answers finding={finding} order={order} />
      )}
      {urgency === 'stop' && speaks && !mayJudge && !past && (
        <Box mt="1">A supervisor has to decide. Do not go on with the work.</Box>
      )}
      {mayJudge && cause !== 'healthy' && (
        <details data-no-print open={urgency === 'stop' && !verdict}>
          <summary>{verdict ? 'Say otherwise, or add a follow-up' : 'Confirm, correct or reject'}</summary>
          <Judge workOrderId={order.id} findingKey={finding.key} />
          <FollowUp
            workOrderId={order.id}
            findingKey={finding.key}
            what={`${[CAUSE_WORDS[cause], sites.map(siteId).join(' ')].filter(Boolean).join(', ')}: ${next[0] ?? ''}`}
            people={people}
            me={actor.personId}
          />
        </details>
      )}
    </Box>
  );
}

/** What a confirmed finding asks for: put on this order while it is open, or a visit of its own. */
function Answers({ finding: { answers, key, cause }, order }: { finding: FindingView; order: WorkOrderView['order'] }) {
  const live = isLive(order);
  return answers.map(({ action, component, places }) => (
    <Box key={component} mt="2" data-no-print>
      <PressForm action={live ? addTaskAction : openForTaskAction} quiet>
        <input type="hidden" name="workOrderId" value={order.id} />
        <input type="hidden" name="vehicleId" value={order.vehicleId} />
        <input type="hidden" name="action" value={action} />
        <input type="hidden" name="component" value={component} />
        <input type="hidden" name="places" value={places === 'all' ? 'all' : places.join(' ')} />
        <input type="hidden" name="why" value="finding" />
        <input type="hidden" name="note" value={CAUSE_WORDS[cause]} />
        <input type="hidden" name="findingKey" value={key} />
        <SubmitButton>
          {live ? 'Add task' : 'Open a visit'}: {taskText(action, component, places.length).toLowerCase()}
          {places === 'all' ? '' : ` ${places.map((place) => place.replace(/A$/, '')).join(', ')}`}
        </SubmitButton>
      </PressForm>
    </Box>
  ));
}

function Judge({ workOrderId, findingKey }: { workOrderId: WorkOrderId; findingKey: string }) {
  return (
    <Box mt="2" maxW="720px">
      <Form action={verdictAction} input="verdictForm">
        <input type="hidden" name="workOrderId" value={workOrderId} />
        <input type="hidden" name="findingKey" value={findingKey} />
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
          <TextField name="reason" label="Why" hint="needed to reject" />
          <TextField name="insteadText" label="What it is instead" hint="to correct" />
        </Grid>
        <Flex gap="2" wrap="wrap">
          <SubmitButton name="verdict" value="confirmed">
            Confirm
          </SubmitButton>
          <SubmitButton name="verdict" value="corrected">
            Correct
          </SubmitButton>
          <SubmitButton name="verdict" value="rejected">
            Reject
          </SubmitButton>
        </Flex>
      </Form>
    </Box>
  );
}

function FollowUp({
  workOrderId,
  findingKey,
  what,
  people,
  me,
}: {
  workOrderId: WorkOrderId;
  findingKey: string;
  what: string;
  people: readonly Choice[];
  me: string;
}) {
  return (
    <Box mt="4" maxW="720px">
      <Form action={followUpAction} input="followUpForm">
        <input type="hidden" name="workOrderId" value={workOrderId} />
        <input type="hidden" name="findingKey" value={findingKey} />
        <TextField name="what" label="Follow-up" defaultValue={what.slice(0, 300)} />
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr 1fr' }} columnGap="4">
          <SelectField
            name="ownerId"
            label="Who sees to it"
            choices={people}
            defaultValue={people.some(({ value }) => value === me) ? me : undefined}
          />
          <DateField name="dueOn" label="By" />
          <TextField name="dueAt" label="Or at odometer" inputMode="decimal" />
        </Grid>
        <SubmitButton>Add the follow-up</SubmitButton>
      </Form>
    </Box>
  );
}
