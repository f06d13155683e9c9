import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { timeOf } from '@/core/calendar/zone';
import { may } from '@/server/access';
import { listTokens } from '@/server/auth/access-tokens';
import { deps } from '@/server/deps';
import { listBays, listDepots, listWays } from '@/server/fleet/bays';
import { instantText } from '@/text/format';
import { DAY_WORDS } from '@/text/planning-words';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { Chips } from '@/ui/primitives/choice-fields';
import { PasswordField, SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import {
  addBayAction,
  changeBayAction,
  changeDepotAction,
  changePasswordAction,
  makeTokenAction,
  removeBayAction,
  revokeTokenAction,
  settingsAction,
} from '../people/actions';

export default async function SettingsPage() {
  const actor = await requireActor();
  const [bays, depots, ways, tokens] = await Promise.all([
    listBays(deps(), actor),
    listDepots(deps(), actor),
    listWays(deps(), actor),
    listTokens(deps(), actor),
  ]);
  if (!bays.ok || !depots.ok || !ways.ok || !tokens.ok) return <Empty>Settings cannot be shown to you.</Empty>;
  return (
    <>
      <PageHead title="Settings">
        <TextLink href="/settings/jobs">Background work</TextLink>
      </PageHead>
      <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} columnGap="8">
        <Section title="Your units" aside="gap and torque always show both">
          <Form action={settingsAction}>
            <Chips
              name="unitSystem"
              legend="A number that you type without a unit is read in these"
              choices={[
                { value: 'metric', label: 'Metric: mm, N·m, km' },
                { value: 'us', label: 'US customary: in, lbf·ft, mi' },
              ]}
              chosen={[actor.unitSystem]}
            />
            <SubmitButton main>Save</SubmitButton>
          </Form>
        </Section>
        <Section title="Your password" aside="every device has to sign in again">
          <Box maxW="420px">
            <Form action={changePasswordAction} input="changePasswordForm">
              <PasswordField name="current" label="Current password" autoComplete="current-password" />
              <PasswordField
                name="password"
                label="New password"
                hint="at least 10 characters"
                autoComplete="new-password"
              />
              <SubmitButton>Change the password</SubmitButton>
            </Form>
          </Box>
        </Section>
        <Section title="Depots" aside="working days, hours, deliveries and ways between them">
          {depots.value.map((depot) => (
            <DepotHours
              key={depot.id}
              depot={depot}
              ways={ways.value.filter(({ from }) => from === depot.id)}
              manage={may(actor, 'manage bays')}
            />
          ))}
          {depots.value.length === 0 && <Box color="soft">Depots are created when you import vehicles.</Box>}
        </Section>
        <Section title="Bays">
          {bays.value.map((bay) => (
            <BayLine key={bay.id} bay={bay} manage={may(actor, 'manage bays')} />
          ))}
          {depots.value.length === 0 && (
            <Box color="soft">Depots are created when you import vehicles. Then add their bays here.</Box>
          )}
          {may(actor, 'manage bays') && depots.value.length > 0 && (
            <Box mt="3" maxW="420px">
              <Form action={addBayAction} input="bayForm">
                <SelectField
                  name="depotId"
                  label="Depot"
                  choices={depots.value.map((depot) => ({ value: depot.id, label: depot.name }))}
                />
                <TextField name="name" label="Name of the bay" placeholder="Bay 1" />
                <SubmitButton>Add the bay</SubmitButton>
              </Form>
            </Box>
          )}
        </Section>
        {may(actor, 'make access tokens') && (
          <Section
            title="Tokens for other programs"
            aside={<TextLink href="/api/v1/openapi.json">description of the HTTP interface</TextLink>}
          >
            {tokens.value.map((token) => (
              <Flex key={token.id} gap="3" align="center" py="1">
                <Box>
                  <Code>{token.name}</Code>, since {instantText(token.createdAt)}
                </Box>
                <PressForm action={revokeTokenAction}>
                  <input type="hidden" name="tokenId" value={token.id} />
                  <SubmitButton>Revoke</SubmitButton>
                </PressForm>
              </Flex>
            ))}
            <Box mt="3" maxW="420px">
              <Form action={makeTokenAction} input="tokenForm">
                <TextField name="name" label="What it is for" />
                <SubmitButton>Make a token</SubmitButton>
              </Form>
            </Box>
          </Section>
        )}
      </Grid>
    </>
  );
}

type Depot = Extract<Awaited<ReturnType<typeof listDepots>>, { ok: true }>['value'][number];

type Bay = Extract<Awaited<ReturnType<typeof listBays>>, { ok: true }>['value'][number];

function BayLine({ bay, manage }: { bay: Bay; manage: boolean }) {
  const named = `${bay.depot} ${bay.name}`;
  if (!manage) return <div>{named}</div>;
  return (
    <details>
      <summary>{named}</summary>
      <div className="form-line">
        <Form action={changeBayAction}>
          <input type="hidden" name="bayId" value={bay.id} />
          <TextField name="name" label={`New name of ${named}`} defaultValue={bay.name} />
          <SubmitButton>Rename</SubmitButton>
        </Form>
        <PressForm action={removeBayAction} quiet>
          <input type="hidden" name="bayId" value={bay.id} />
          <SubmitButton>Remove {named}</SubmitButton>
        </PressForm>
      </div>
    </details>
  );
}

type Way = Extract<Awaited<ReturnType<typeof listWays>>, { ok: true }>['value'][number];

function DepotHours({ depot, ways, manage }: { depot: Depot; ways: readonly Way[]; manage: boolean }) {
  const { id, name, timeZone, hours, deliveryDays, deliveryFromMin } = depot;
  const days = hours.workingDays.map((day) => DAY_WORDS[day - 1]).join(' ');
  return (
    <details>
      <summary>
        {name}: {days}, {timeOf(hours.fromMin)} to {timeOf(hours.toMin)}, {timeZone}
      </summary>
      {manage && (
        <Box mt="2" mb="4" maxW="420px">
          <Form action={changeDepotAction} input="depotForm">
            <input type="hidden" name="depotId" value={id} />
            <Chips
              many
              name="workingDays"
              legend={`Working days of ${name}`}
              choices={DAY_WORDS.map((label, i) => ({ value: String(i + 1), label }))}
              chosen={hours.workingDays.map(String)}
            />
            <Grid templateColumns="1fr 1fr" columnGap="3">
              <TextField name="opens" label="Opens" type="time" defaultValue={timeOf(hours.fromMin)} />
              <TextField name="closes" label="Closes" type="time" defaultValue={timeOf(hours.toMin)} />
            </Grid>
            <Chips
              many
              name="deliveryDays"
              legend={`Days on which parts come to ${name}; none: any working day`}
              choices={DAY_WORDS.map((label, i) => ({ value: String(i + 1), label }))}
              chosen={deliveryDays.map(String)}
            />
            <TextField
              name="deliveryFrom"
              label="Parts are there from"
              hint="such as 10:30; empty: the opening"
              defaultValue={deliveryFromMin === null ? '' : timeOf(deliveryFromMin)}
            />
            {ways.map((way) => (
              <TextField
                key={way.to}
                name={`ways.${way.to}`}
                label={`Way to ${way.name}`}
                hint="minutes on the worst day"
                inputMode="numeric"
                defaultValue={String(way.minutes)}
              />
            ))}
            <TextField name="timeZone" label="Time zone" hint="such as Europe/Lisbon" defaultValue={timeZone} />
            <SubmitButton>Save {name}</SubmitButton>
          </Form>
        </Box>
      )}
    </details>
  );
}
