import type { ReactNode } from 'react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { type VehicleView, viewVehicle } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { bindingText, STATE_WORDS } from '@/text/due-words';
import { dateText, percentText } from '@/text/format';
import { SubPlaces } from '@/ui/frame/sub-places';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { ButtonLink } from '@/ui/primitives/links';
import { PageHead } from '@/ui/primitives/page';
import { openWorkOrderAction } from '../../work-orders/actions';
import { FitmentNotice, SheetBlocked } from './fitment-notice';

export interface VehicleTabProps {
  readonly view: VehicleView;
  readonly actor: Actor;
}

/** A page of one vehicle: its head, what keeps it from service, and its tabs, over what the tab shows. */
export const vehiclePage = (Tab: (props: VehicleTabProps) => ReactNode) =>
  page(async ({ params }: { params: Promise<{ id: string }> }) => {
    const actor = await requireActor();
    const answered = await viewVehicle(deps(), actor, (await params).id);
    mustShow(answered);
    const view = answered.value;
    const blocked = view.blockers.length > 0;
    const canOpen = view.due.state !== 'no-match' && !view.due.openWorkOrder && may(actor, 'open work orders');
    return (
      <>
        <Head view={view} actor={actor} canOpen={canOpen && !blocked} />
        <FitmentNotice view={view} actor={actor} />
        {blocked && <SheetBlocked view={view} canOpen={canOpen} />}
        <Tabs view={view} />
        <Tab view={view} actor={actor} />
      </>
    );
  });

function Head({ view: { vehicle, due }, actor, canOpen }: VehicleTabProps & { readonly canOpen: boolean }) {
  return (
    <PageHead
      title={`Unit ${vehicle.unitNumber} ${vehicle.name}`}
      actions={
        canOpen && (
          <>
            <PressForm action={openWorkOrderAction} quiet>
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <SubmitButton main>Open a work order</SubmitButton>
            </PressForm>
            <ButtonLink href={`/vehicles/${vehicle.id}/visit`}>Plan a visit</ButtonLink>
          </>
        )
      }
    >
      {COMPONENT_WORDS[due.component]}: {STATE_WORDS[due.state].toLowerCase()}
      {due.lifeUsed !== null &&
        ` · ${percentText(due.lifeUsed)} of ${bindingText(due, actor.unitSystem)} used by the worst of them`}
      {due.due &&
        ` · due ${dateText(due.due.p50)}${due.due.p10 === due.due.p90 ? '' : `, likely ${dateText(due.due.p10)} to ${dateText(due.due.p90)}`}`}
    </PageHead>
  );
}

function Tabs({ view: { vehicle, misfires, orders } }: { view: VehicleView }) {
  const root = `/vehicles/${vehicle.id}`;
  const visits = orders.length + misfires.length;
  return (
    <SubPlaces
      label="Parts of the vehicle"
      places={[
        { href: root, label: 'Overview' },
        { href: `${root}/components`, label: 'Components' },
        { href: `${root}/log`, label: visits > 0 ? `History (${visits})` : 'History' },
        { href: `${root}/details`, label: 'Details' },
      ]}
    />
  );
}
