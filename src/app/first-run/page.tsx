import { Box } from '@chakra-ui/react';
import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { deps } from '@/server/deps';
import { isFirstRun } from '@/server/fleet/first-run';
import { SubmitButton } from '@/ui/primitives/button';
import { PasswordField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { FrontPage } from '@/ui/primitives/front-page';
import { firstRunAction } from '../sign-in/actions';

export default async function FirstRunPage() {
  await connection();
  if (!(await isFirstRun(deps()))) redirect('/sign-in');
  return (
    <FrontPage title="This workspace is empty">
      <Box color="soft" mb="4">
        Make its first supervisor. Everyone else is added under People, and vehicles come in under Import.
      </Box>
      <Form action={firstRunAction} quiet input="firstRunForm">
        <TextField name="fleetName" label="Name of the fleet" autoFocus />
        <TextField name="name" label="Your name" autoComplete="name" />
        <TextField
          name="email"
          label="Address to sign in with"
          type="email"
          autoComplete="username"
          inputMode="email"
        />
        <PasswordField name="password" label="Password" hint="at least 10 characters" autoComplete="new-password" />
        <SubmitButton main>Make the workspace</SubmitButton>
      </Form>
    </FrontPage>
  );
}
