import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { requireActor } from '@/app/actor';
import { may, roleName } from '@/server/access';
import { deps } from '@/server/deps';
import { countNotices } from '@/server/notices/list-notices';
import { dateText } from '@/text/format';
import { ActionForm } from '@/ui/primitives/action-form';
import { GoTo } from '@/ui/primitives/go-to';
import { TextLink } from '@/ui/primitives/links';
import { SubmitLink } from '@/ui/primitives/submit-link';
import { type Place, TopBar } from '@/ui/primitives/top-bar';
import { ModeSwitch } from '@/ui/theme/mode-switch';
import { signOutAction } from '../sign-in/actions';
import { BENCH_PLACES } from './bench/places';
import { ENGINE_PLACES } from './engines/places';
import { findAction } from './find-action';
import { ODOMETER_PLACES } from './odometer/places';
import { PART_PLACES } from './parts/places';
import { PRESSURE_PLACES } from './pressure/places';
import { ORDER_PLACES } from './work-orders/places';

// Every page here shows one person's view of the database.
export const dynamic = 'force-dynamic';

/** Every place of the main bar with those within it. */
const everywhere = (main: readonly Place[]): readonly Place[] => [
  ...main,
  { href: '/notices', label: 'Notices' },
  { href: '/due/print', label: 'Due list on paper' },
  ...[PRESSURE_PLACES, ODOMETER_PLACES, ORDER_PLACES, ENGINE_PLACES, PART_PLACES, BENCH_PLACES].flatMap((inner) =>
    inner.filter(({ href }) => !main.some((place) => place.href === href)),
  ),
];

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const actor = await requireActor();
  const unread = await countNotices(deps(), actor);
  const waiting = unread.ok ? unread.value : 0;
  const places: Place[] = [
    { href: '/pressure', label: 'Pressure' },
    { href: '/due', label: 'Due' },
    { href: '/odometer', label: 'Odometer' },
    { href: '/work-orders', label: 'Work orders' },
    { href: '/plan', label: 'Plan' },
    { href: '/engines', label: 'Engines' },
    { href: '/parts', label: 'Parts' },
    { href: '/bench', label: 'Bench' },
    ...(may(actor, 'import data') ? [{ href: '/import', label: 'Import' }] : []),
    { href: '/people', label: 'People' },
    { href: '/settings', label: 'Settings' },
  ];
  return (
    <Box minH="100vh" display="flex" flexDirection="column">
      <TopBar places={places}>
        {process.env.ISOBAR_TODAY && (
          <Box as="span" color="caution.ink" data-aside title="The demo scenario stands still on this day">
            demo · {dateText(deps().today())}
          </Box>
        )}
        <Box data-aside>
          <GoTo places={everywhere(places)} find={findAction} />
        </Box>
        <TextLink href="/notices">{waiting > 0 ? `Notices ${waiting}` : 'Notices'}</TextLink>
        <Box as="span" title={roleName(actor.role)}>
          {actor.name}
        </Box>
        <ModeSwitch />
        <ActionForm action={signOutAction} quiet>
          <SubmitLink>Sign out</SubmitLink>
        </ActionForm>
      </TopBar>
      <Box as="main" flex="1" px={{ base: '3', md: '6' }} py="5" maxW="1400px" w="100%" mx="auto">
        {children}
      </Box>
      <Box as="footer" px={{ base: '3', md: '6' }} py="3" color="soft" fontSize="sm" maxW="1400px" w="100%" mx="auto">
        The manufacturer’s service information, local codes and licensed practice come first.
      </Box>
    </Box>
  );
}
