import type { ReactNode } from 'react';
import { requireActor } from '@/app/actor';
import { roleName } from '@/server/access';
import { deps } from '@/server/deps';
import { countNotices } from '@/server/notices/list-notices';
import { dateText } from '@/text/format';
import { GoTo } from '@/ui/frame/go-to';
import { TopBar } from '@/ui/frame/top-bar';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { Toasts } from '@/ui/primitives/toasts';
import { ModeSwitch } from '@/ui/theme/mode-switch';
import { signOutAction } from '../sign-in/actions';
import { undoAction } from '../undo-action';
import { findAction } from './find-action';
import { everywhere, groupsFor, startOf } from './places';

// Every page here shows one person's view of the database.
export const dynamic = 'force-dynamic';

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const actor = await requireActor();
  const unread = await countNotices(deps(), actor);
  return (
    <div className="frame">
      <TopBar
        groups={groupsFor(actor.role)}
        start={startOf(actor.role)}
        waiting={unread.ok ? unread.value : 0}
        name={actor.name}
        aside={
          <>
            {process.env.ISOBAR_TODAY && (
              <span className="doubtful" data-wide title="The demo scenario stands still on this day">
                demo · {dateText(deps().today())}
              </span>
            )}
            <GoTo places={everywhere(actor.role)} find={findAction} />
          </>
        }
        menu={
          <>
            <span className="soft">{roleName(actor.role)}</span>
            <ModeSwitch />
            <PressForm action={signOutAction} quiet>
              <SubmitButton>Sign out</SubmitButton>
            </PressForm>
          </>
        }
      />
      <main className="frame-main" data-now={deps().today()}>
        {children}
      </main>
      <Toasts action={undoAction} />
      <footer className="frame-foot">
        The manufacturer’s service information, local codes and licensed practice come first.
      </footer>
    </div>
  );
}
