import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { absenceFault } from '@/core/planning/absence';
import { weekOf, weekText } from '@/core/planning/presence';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listBays, listDepots } from '@/server/fleet/bays';
import { listUnits } from '@/server/fleet/list-units';
import { listPeople } from '@/server/fleet/people';
import { type AbsenceView, absenceOf, listAbsences } from '@/server/planning/absences';
import { absenceWords, DAY_WORDS } from '@/text/planning-words';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { Chips } from '@/ui/primitives/choice-fields';
import { DateField, SelectField, TextField } from '@/ui/primitives/fields';
import { FileField } from '@/ui/primitives/file-field';
import { Form } from '@/ui/primitives/form';
import { ButtonLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { changeBayAction } from '../../people/actions';
import { addAbsenceAction, changePresenceAction, readCalendarAction, removeAbsenceAction } from './actions';

type Value<T> = Extract<T, { ok: true }> extends { value: infer V } ? V : never;
type Bay = Value<Awaited<ReturnType<typeof listBays>>>[number];
type Depot = Value<Awaited<ReturnType<typeof listDepots>>>[number];
type Person = Value<Awaited<ReturnType<typeof listPeople>>>[number];
type Unit = Value<Awaited<ReturnType<typeof listUnits>>>[number];

/** What the planner plans with: bays with what they take, people with what they can, and when any of it is away. */
export default page(async function ResourcesPage() {
  const actor = await requireActor();
  const [bays, depots, people, units, away] = await Promise.all([
    listBays(deps(), actor),
    listDepots(deps(), actor),
    listPeople(deps(), actor),
    listUnits(deps(), actor),
    listAbsences(deps(), actor),
  ]);
  mustShow(bays);
  mustShow(depots);
  mustShow(people);
  mustShow(units);
  mustShow(away);
  const manage = may(actor, 'manage bays');
  const technicians = people.value.filter(({ role, active }) => role === 'technician' && active);
  return (
    <>
      <PageHead
        title="Bays, people and absences"
        actions={
          <ButtonLink href="/plan/resources/csv" download>
            Absences as CSV
          </ButtonLink>
        }
      >
        <strong>{bays.value.length}</strong> bays · <strong>{technicians.length}</strong> technicians ·{' '}
        <strong>{away.value.length}</strong> absences to come
      </PageHead>
      <Grid templateColumns={{ base: '1fr', xl: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Box minW="0">
          <Section title="Bays" aside="any vehicle of their depot, in its hours, unless said otherwise">
            {bays.value.length === 0 && <Empty>No bays yet. Add them under Settings, once the depots are here.</Empty>}
            {bays.value.map((bay) => (
              <BayLine key={bay.id} bay={bay} manage={manage} />
            ))}
          </Section>
          <Section title="People" aside="at every depot, in its hours, unless said otherwise">
            {technicians.length === 0 && <Empty>No technicians yet. A supervisor adds them under People.</Empty>}
            {technicians.map((person) => (
              <PersonLine key={person.id} person={person} depots={depots.value} manage={may(actor, 'manage people')} />
            ))}
          </Section>
        </Box>
        <Section title="Absences" aside="holidays, closures, routes: once or every week">
          {manage && <NewAbsence depots={depots.value} bays={bays.value} people={technicians} units={units.value} />}
          {away.value.length === 0 && <Box color="soft">Nobody is away.</Box>}
          {away.value.map((row) => (
            <AwayLine key={row.id} row={row} manage={manage} />
          ))}
        </Section>
      </Grid>
    </>
  );
});

function BayLine({ bay, manage }: { bay: Bay; manage: boolean }) {
  const hours = bay.ownHours ? weekText(bay.ownHours) : weekText(weekOf(bay.hours));
  const line = (
    <>
      <strong>
        {bay.depot} {bay.name}
      </strong>
      {bay.can.length > 0 && `: ${bay.can.join(', ')}`} <span className="soft small">{hours}</span>
    </>
  );
  if (!manage) return <Box py="1">{line}</Box>;
  return (
    <details>
      <summary>{line}</summary>
      <Box mt="2" mb="4" maxW="460px">
        <Form action={changeBayAction}>
          <input type="hidden" name="bayId" value={bay.id} />
          <TextField name="name" label="Name of the bay" defaultValue={bay.name} />
          <TextField
            name="can"
            label="Takes besides any vehicle"
            hint="such as hybrid, lift"
            defaultValue={bay.can.join(', ')}
          />
          <TextField
            name="hours"
            label="Its own hours"
            hint="empty: those of the depot"
            placeholder="Mon Tue Wed Thu 08:00-16:00, Fri 08:00-12:00"
            defaultValue={bay.ownHours ? weekText(bay.ownHours) : ''}
          />
          <SubmitButton>Save the bay</SubmitButton>
        </Form>
      </Box>
    </details>
  );
}

function PersonLine({ person, depots, manage }: { person: Person; depots: readonly Depot[]; manage: boolean }) {
  const names = depots.filter(({ id }) => person.depotIds.includes(id)).map(({ name }) => name);
  const skills = [...(person.hybridQualified ? ['hybrid'] : []), ...person.skills];
  const line = (
    <>
      <strong>{person.name}</strong>
      {skills.length > 0 && `: ${skills.join(', ')}`}{' '}
      <span className="soft small">
        {names.length > 0 ? names.join(', ') : 'every depot'}
        {person.hours && `; ${weekText(person.hours)}`}
      </span>
    </>
  );
  if (!manage) return <Box py="1">{line}</Box>;
  return (
    <details>
      <summary>{line}</summary>
      <Box mt="2" mb="4" maxW="460px">
        <Form action={changePresenceAction}>
          <input type="hidden" name="personId" value={person.id} />
          <input type="hidden" name="version" value={person.version} />
          <Chips
            many
            name="depotIds"
            legend={`Depots of ${person.name}; none: every one`}
            choices={depots.map(({ id, name }) => ({ value: id, label: name }))}
            chosen={[...person.depotIds]}
          />
          <TextField
            name="skills"
            label="Trained on"
            hint="besides hybrid, which stands under People"
            defaultValue={person.skills.join(', ')}
          />
          <TextField
            name="hours"
            label="Their own shifts"
            hint="empty: the hours of the depot"
            placeholder="Mon Tue Wed Thu Fri 07:00-15:00"
            defaultValue={person.hours ? weekText(person.hours) : ''}
          />
          <SubmitButton>Save {person.name}</SubmitButton>
        </Form>
      </Box>
    </details>
  );
}

function AwayLine({ row, manage }: { row: AbsenceView; manage: boolean }) {
  return (
    <Box py="1" borderBottom="1px solid" borderColor="hair" display="flex" gap="3" alignItems="baseline">
      <Box flex="1">
        <strong>{row.name}</strong>: {row.what}
        <Box color="soft" fontSize="sm">
          {absenceWords(absenceOf(row))}
          {row.uid !== null && ' · from a calendar'}
          {absenceFault(absenceOf(row)) && ' · its rule cannot be followed: it counts once. Remove it.'}
        </Box>
      </Box>
      {manage && (
        <PressForm action={removeAbsenceAction} quiet>
          <input type="hidden" name="absenceId" value={row.id} />
          <SubmitButton>Remove</SubmitButton>
        </PressForm>
      )}
    </Box>
  );
}

function NewAbsence({
  depots,
  bays,
  people,
  units,
}: {
  depots: readonly Depot[];
  bays: readonly Bay[];
  people: readonly Person[];
  units: readonly Unit[];
}) {
  const choices = [
    { value: '', label: 'choose' },
    ...people.map(({ id, name }) => ({ value: `person ${id}`, label: name })),
    ...bays.map(({ id, depot, name }) => ({ value: `bay ${id}`, label: `${depot} ${name}` })),
    ...depots.map(({ id, name }) => ({ value: `depot ${id}`, label: `${name}, all of it` })),
    ...units.map(({ id, unitNumber, name }) => ({ value: `vehicle ${id}`, label: `unit ${unitNumber} ${name}` })),
  ];
  return (
    <Box mb="4" maxW="460px">
      <details>
        <summary>Add an absence</summary>
        <Box mt="2">
          <Form action={addAbsenceAction} input="absenceForm">
            <SelectField name="who" label="Who or what" choices={choices} />
            <TextField name="what" label="Why" hint="such as holiday, school run, lift inspection" />
            <Grid templateColumns="1fr 1fr" columnGap="3">
              <DateField name="from" label="First day" />
              <DateField name="to" label="Last day" hint="empty: the same" />
              <TextField name="fromTime" label="From" type="time" hint="empty: all day" />
              <TextField name="toTime" label="To" type="time" />
            </Grid>
            <Chips
              many
              name="weekdays"
              legend="Repeats every week on; none: once"
              choices={DAY_WORDS.map((label) => ({ value: label.slice(0, 2).toUpperCase(), label }))}
              chosen={[]}
            />
            <DateField name="until" label="Repeats until" hint="empty: without an end" />
            <details>
              <summary>Advanced</summary>
              <TextField
                name="rule"
                label="Repeats by a rule instead"
                hint="RRULE of RFC 5545"
                placeholder="FREQ=MONTHLY;BYDAY=1MO"
              />
            </details>
            <SubmitButton>Save the absence</SubmitButton>
          </Form>
        </Box>
      </details>
      <details>
        <summary>Read absences from a calendar file</summary>
        <Box mt="2">
          <Form action={readCalendarAction}>
            <SelectField name="who" label="Whose calendar" choices={choices} />
            <FileField
              name="calendar"
              label="Drop a calendar file here, or press to choose it"
              hint="iCalendar (.ics)"
              accept=".ics,text/calendar"
            />
            <SubmitButton>Read the calendar</SubmitButton>
          </Form>
        </Box>
      </details>
    </Box>
  );
}
