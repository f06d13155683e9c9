import { Box } from '@chakra-ui/react';
import { redirect } from 'next/navigation';
import { currentActor } from '@/app/actor';
import { deps } from '@/server/deps';
import { isFirstRun } from '@/server/fleet/first-run';
import { SubmitButton } from '@/ui/primitives/button';
import { PasswordField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { FrontPage } from '@/ui/primitives/front-page';
import { signInAction } from './actions';

export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  if (await currentActor()) redirect('/');
  if (await isFirstRun(deps())) redirect('/first-run');
  return (
    <FrontPage title="Sign in">
      {process.env.ISOBAR_TODAY && (
        <Box color="caution.ink" mb="3">
          Demo data. The terminal that started Isobar shows the sign-ins.
        </Box>
      )}
      <Form action={signInAction} quiet>
        <TextField name="email" label="Address" type="email" autoComplete="username" inputMode="email" autoFocus />
        <PasswordField name="password" label="Password" autoComplete="current-password" />
        <SubmitButton main>Sign in</SubmitButton>
      </Form>
    </FrontPage>
  );
}
