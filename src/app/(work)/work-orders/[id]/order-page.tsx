import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { isLive } from '@/core/work/order-state';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewWorkOrder, type WorkOrderView } from '@/server/work-orders/view-work-order';
import { dateText } from '@/text/format';
import { ORDER_STATES } from '@/text/order-words';
import { SubPlaces } from '@/ui/frame/sub-places';
import { ButtonLink } from '@/ui/primitives/links';
import { Caution, PageHead } from '@/ui/primitives/page';
import { StoppedBanner } from '@/ui/work-orders/stopped-banner';
import { endWaitAction } from '../actions';
import { SheetChanged, Stops } from './stops';

interface Props {
  readonly view: WorkOrderView;
  readonly actor: Actor;
  /** Open: the work goes on. */
  readonly live: boolean;
}

/** A page of one work order: its head, what stops it, and its tabs, over what the tab shows. */
export const orderPage = (Tab: (props: Props) => ReactNode) =>
  page(async ({ params }: { params: Promise<{ id: string }> }) => {
    const actor = await requireActor();
    const answered = await viewWorkOrder(deps(), actor, (await params).id);
    mustShow(answered);
    const view = answered.value;
    const live = isLive(view.order);
    return (
      <>
        <Head view={view} works={live && may(actor, 'record work')} />
        <StoppedBanner
          stops={view.stops}
          workOrderId={view.order.id}
          goOn={may(actor, 'record work') ? endWaitAction : null}
        />
        {live && <Stops view={view} />}
        {live && <SheetChanged view={view} actor={actor} />}
        <Tabs view={view} />
        <Tab view={view} actor={actor} live={live} />
      </>
    );
  });

function Tabs({ view: { order, steps, findings } }: { view: WorkOrderView }) {
  const left = steps.filter(({ perSite, state }) => !perSite && state === 'open').length;
  const undecided = findings.filter(({ verdict, past }) => verdict === null && !past).length;
  const root = `/work-orders/${order.id}`;
  return (
    <SubPlaces
      label="Parts of the work order"
      places={[
        { href: root, label: 'Overview' },
        { href: `${root}/procedure`, label: 'Procedure', note: left > 0 && isLive(order) ? `${left} left` : null },
        { href: `${root}/findings`, label: 'Findings', note: undecided > 0 ? `${undecided} to decide` : null },
        { href: `${root}/record`, label: 'Record' },
      ]}
    />
  );
}

/** How far it is: "3 of 6 cylinders done" where plugs alone are done, places otherwise. */
export function doneText({ tasks }: WorkOrderView, named: boolean): string {
  const places = tasks.flatMap((task) => task.places).filter(({ state }) => state !== 'moved');
  const what = tasks.every(({ row }) => row.component === 'plug') ? 'cylinders ' : 'places ';
  return `${places.filter(({ state }) => state !== 'open').length} of ${places.length} ${named ? what : ''}done`;
}

/** What it is, what can be done with it, and what may hurt. */
function Head({ view, works }: { view: WorkOrderView; works: boolean }) {
  const { order, row, vehicle, family, before } = view;
  return (
    <>
      <PageHead
        title={`Work order ${order.number}: unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={
          <>
            <ButtonLink href={`/work-orders/${order.id}/tray`}>Tray</ButtonLink>
            <ButtonLink href={`/work-orders/${order.id}/codes`}>Codes</ButtonLink>
            <ButtonLink href={`/work-orders/${order.id}/paper`}>Paper</ButtonLink>
            {works && (
              <ButtonLink main href={`/work-orders/${order.id}/floor`}>
                At the vehicle
              </ButtonLink>
            )}
          </>
        }
      >
        {family.code}, {family.name} · {view.stops.length > 0 ? 'Stopped' : ORDER_STATES[order.state]} ·{' '}
        {doneText(view, true)}
        {row.startsAt &&
          ` · ${dateText(row.startsAt)} ${row.startsAt.slice(11)}, ${row.depot} ${row.bay}, ${row.person}`}
      </PageHead>
      <Caution>
        {family.hybrid
          ? 'Hybrid: qualified people only. The engine can start by itself; isolate the traction system first. '
          : 'Cold engine, ignition off, eye protection with air or solvent. '}
        The manufacturer’s service information comes first.
        {family.weakPoints?.length
          ? ` Known on ${family.code}: ${family.weakPoints.map(({ says }) => says).join('; ')}.`
          : ''}
      </Caution>
      {isLive(order) && before?.note && (
        <Box mt="2" color="soft">
          Left by work order {before.number}, {dateText(before.on)}: {before.note}
        </Box>
      )}
    </>
  );
}
