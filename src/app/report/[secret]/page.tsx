import { notFound } from 'next/navigation';
import { DRIVING } from '@/core/misfire/driving';
import { deps } from '@/server/deps';
import { isDriverAddress } from '@/server/misfire/driver-address';
import { ComplaintForm } from '@/ui/misfire/complaint-form';
import { StopDriving } from '@/ui/misfire/stop-driving';
import { FrontPage } from '@/ui/primitives/front-page';
import { reportByAddressAction } from './actions';

type Props = { params: Promise<{ secret: string }>; searchParams: Promise<{ done?: string; driving?: string }> };

/** For a driver without an account: whoever has the address may report, and sees nothing else. */
export default async function DriverReportPage({ params, searchParams }: Props) {
  const [{ secret }, { done, driving }] = await Promise.all([params, searchParams]);
  if (!(await isDriverAddress(deps(), secret))) notFound();
  if (done)
    return (
      <FrontPage title="The workshop has it">
        <StopDriving advice={{ driving: DRIVING.find((level) => level === driving) ?? 'free', reasons: [] }} />
        {driving === 'stop' && <p>Call the workshop now.</p>}
        {done === 'kept' ? (
          <p>
            The workshop has your words, and a supervisor looks at them. The number of the vehicle was not found: if you
            typed it wrong, report again with the right one.
          </p>
        ) : (
          <p>It is misfire {done}. Tell the workshop this number if you call.</p>
        )}
      </FrontPage>
    );
  return (
    <FrontPage title="The engine misfires">
      <ComplaintForm action={reportByAddressAction.bind(null, secret)} asksWho />
    </FrontPage>
  );
}
