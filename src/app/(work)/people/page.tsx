import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { ROLES } from '@/core/shared/role';
import { may, roleName } from '@/server/access';
import { deps } from '@/server/deps';
import { listPeople } from '@/server/fleet/people';
import { SubmitButton } from '@/ui/primitives/button';
import { CheckField } from '@/ui/primitives/choice-fields';
import { PasswordField, SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { PageHead, Section } from '@/ui/primitives/page';
import { addPersonAction, changePersonAction, resetPasswordAction } from './actions';

type Person = Extract<Awaited<ReturnType<typeof listPeople>>, { ok: true }>['value'][number];

const CHOICES = ROLES.map((role) => ({ value: role, label: roleName(role) }));

export default page(async function PeoplePage() {
  const actor = await requireActor();
  const people = await listPeople(deps(), actor);
  mustShow(people);
  const manage = may(actor, 'manage people');
  return (
    <>
      <PageHead title="People">
        <strong>{people.value.filter((person) => person.active).length}</strong> can sign in
      </PageHead>
      <Grid templateColumns={{ base: '1fr', xl: manage ? 'minmax(0, 1fr) 340px' : '1fr' }} gap="8">
        <Box>
          <ListTable
            noun="people"
            items={people.value}
            idOf={({ id }) => id}
            isOver={({ active }) => !active}
            columns={manage ? [...COLUMNS, CHANGES] : COLUMNS}
          />
        </Box>
        {manage && (
          <Section title="Add a person">
            <Form action={addPersonAction} input="addPersonForm">
              <TextField name="name" label="Name" />
              <TextField name="email" label="Address to sign in with" inputMode="email" />
              <PasswordField
                name="password"
                label="First password"
                hint="at least 10 characters"
                autoComplete="new-password"
              />
              <SelectField name="role" label="Role" choices={CHOICES} defaultValue="technician" />
              <Box mb="3">
                <CheckField name="hybridQualified" label="qualified for hybrid traction systems" />
              </Box>
              <SubmitButton main>Add</SubmitButton>
            </Form>
          </Section>
        )}
      </Grid>
    </>
  );
});

const COLUMNS: readonly Column<Person>[] = [
  {
    head: 'Name',
    value: ({ name }) => name,
    cell: ({ name, active }) => (
      <>
        <strong>{name}</strong> {!active && '(left)'}
      </>
    ),
  },
  { head: 'Address', value: ({ email }) => email },
  {
    head: 'Role',
    value: ({ role, hybridQualified }) => `${roleName(role)}${hybridQualified ? ', hybrid' : ''}`,
  },
];

const CHANGES: Column<Person> = {
  head: 'Changes',
  cell: (person) => (
    <>
      <Form action={changePersonAction}>
        <input type="hidden" name="personId" value={person.id} />
        <input type="hidden" name="version" value={person.version} />
        <Flex gap="3" align="end" wrap="wrap">
          <Box w="150px" mb="-12px">
            <SelectField name="role" label={`Role of ${person.name}`} choices={CHOICES} defaultValue={person.role} />
          </Box>
          <CheckField name="hybridQualified" label="hybrid-qualified" defaultChecked={person.hybridQualified} />
          <CheckField name="active" label="may sign in" defaultChecked={person.active} />
          <SubmitButton>Save</SubmitButton>
        </Flex>
      </Form>
      <details>
        <summary>New password for {person.name}</summary>
        <Box mt="2" maxW="340px">
          <Form action={resetPasswordAction} input="resetPasswordForm">
            <input type="hidden" name="personId" value={person.id} />
            <PasswordField
              name="password"
              label={`New password of ${person.name}`}
              hint="at least 10 characters"
              autoComplete="new-password"
            />
            <SubmitButton>Set the password</SubmitButton>
          </Form>
        </Box>
      </details>
    </>
  ),
};
