import { notFound } from 'next/navigation';
import { deps } from '@/server/deps';
import { isDriverAddress } from '@/server/misfire/driver-address';
import { ComplaintForm } from '@/ui/misfire/complaint-form';
import { FrontPage } from '@/ui/primitives/front-page';
import { reportByAddressAction } from './actions';

export const metadata = { title: 'Report a misfire' };

type Props = { params: Promise<{ secret: string }>; searchParams: Promise<{ done?: string; stop?: string }> };

/** For a driver without an account: whoever has the address may report, and sees nothing else. */
export default async function DriverReportPage({ params, searchParams }: Props) {
  const [{ secret }, { done, stop }] = await Promise.all([params, searchParams]);
  if (!(await isDriverAddress(deps(), secret))) notFound();
  if (done)
    return (
      <FrontPage title="The workshop has it">
        {stop && (
          <p className="stop-driving" role="alert">
            Do not drive on. Call the workshop: a flashing lamp means that the catalyst is being ruined.
          </p>
        )}
        <p>It is misfire {done}. Tell the workshop this number if you call.</p>
      </FrontPage>
    );
  return (
    <FrontPage title="The engine misfires">
      <ComplaintForm action={reportByAddressAction.bind(null, secret)} asksWho />
    </FrontPage>
  );
}
