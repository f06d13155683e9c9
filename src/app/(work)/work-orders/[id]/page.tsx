import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { timeOf } from '@/core/calendar/zone';
import { siteId } from '@/core/engine/model';
import { pickWords } from '@/core/stock/pick';
import { planTorque } from '@/core/torque/plan';
import { isLive } from '@/core/work/order-state';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { listPeople } from '@/server/fleet/people';
import { viewWorkOrder, type WorkOrderView, whereAndWho } from '@/server/work-orders/view-work-order';
import { workOrderActionWords } from '@/text/audit-words';
import { dateText, gapText, hoursText, instantText, NONE, turnText } from '@/text/format';
import { ORDER_STATES } from '@/text/order-words';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Caution, PageHead, Section } from '@/ui/primitives/page';
import { PlanForm } from '@/ui/work-orders/plan-form';
import { SpecLines } from '@/ui/work-orders/spec-lines';
import { StepList } from '@/ui/work-orders/step-list';
import { planAction, unplanAction } from '../actions';
import { CloseSection } from './close-section';
import { FindingsSection } from './findings-section';
import { SiteTable } from './site-table';
import { StandsOpen } from './stands-open';
import { SheetChanged, Stops } from './stops';

type Props = { params: Promise<{ id: string }> };

export default page(async function WorkOrderPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  mustShow(view);
  const { order, row, vehicle, family, spec, layout, sites, steps } = view.value;
  const people = await listPeople(deps(), actor);
  const live = isLive(order);
  const todo = sites.filter((site) => site.doneAt === null);
  const marks = Object.fromEntries(
    sites.map((site) => [
      siteId(site),
      {
        state: site.doneAt ? ('done' as const) : ('todo' as const),
        lines: site.doneAt ? [gapText(site.newGapMm, 'metric').split(' · ')[0] ?? ''] : [],
        href: `/work-orders/${id}/floor#sites-${siteId(site)}`,
      },
    ]),
  );
  return (
    <>
      <PageHead
        title={`Work order ${order.number}: unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={
          <>
            <ButtonLink href={`/work-orders/${id}/tray`}>Tray</ButtonLink>
            <ButtonLink href={`/work-orders/${id}/codes`}>Codes</ButtonLink>
            <ButtonLink href={`/work-orders/${id}/paper`}>Paper</ButtonLink>
            {live && may(actor, 'record work') && (
              <ButtonLink main href={`/work-orders/${id}/floor`}>
                At the vehicle
              </ButtonLink>
            )}
          </>
        }
      >
        {family.code}, {family.name} · {ORDER_STATES[order.state]} · {sites.length - todo.length} of {sites.length}{' '}
        sites done
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
      {live && view.value.before?.note && (
        <Box mt="2" color="soft">
          Left by work order {view.value.before.number}, {dateText(view.value.before.on)}: {view.value.before.note}
        </Box>
      )}
      {live && <Stops view={view.value} />}
      {live && <SheetChanged view={view.value} actor={actor} />}
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 5fr) minmax(0, 7fr)' }} gap="8" mt="5">
        <Box minW="0">
          <Section title="What goes in" aside={<TextLink href={`/vehicles/${vehicle.id}`}>the vehicle</TextLink>}>
            <SpecLines
              spec={spec}
              quantity={sites.length}
              system={actor.unitSystem}
              angle={angleOf(view.value)}
              threads={view.value.threads}
              current={view.value.current}
            />
            {live && view.value.pick && (
              <Box mt="2" color={view.value.pick.kind === 'short' ? 'wrong.ink' : undefined}>
                <strong>On the shelf.</strong> {pickWords(view.value.pick)}
              </Box>
            )}
            {order.releaseReason && (
              <Box color="caution.ink" mt="2">
                Released despite its sheet: {order.releaseReason}
              </Box>
            )}
          </Section>
          <Section title="Sites">
            <EngineDrawing
              layout={layout}
              marks={
                live
                  ? marks
                  : Object.fromEntries(Object.entries(marks).map(([key, mark]) => [key, { ...mark, href: undefined }]))
              }
              title={`Engine of unit ${vehicle.unitNumber}, seen from the front of the vehicle`}
            />
          </Section>
          {live && <StandsOpen view={view.value} live={may(actor, 'record work')} />}
          {live && may(actor, 'plan work orders') && <PlanSection view={view.value} actor={actor} />}
        </Box>
        <Box minW="0">
          <Section title="Steps" aside={`about ${hoursText(order.minutes)}`}>
            <StepList steps={steps} sitesText={`${sites.length - todo.length} of ${sites.length} done`} />
          </Section>
          <CloseSection view={view.value} actor={actor} live={live} />
        </Box>
      </Grid>
      <FindingsSection view={view.value} actor={actor} people={people.ok ? people.value.flatMap(toChoice) : []} />
      <SiteTable view={view.value} actor={actor} />
      {view.value.kept.length > 0 && (
        <Section title="From the bench">
          {view.value.kept.map(({ kept, who }) => (
            <Box key={kept.id}>
              {kept.summary}{' '}
              <Box as="span" color="soft" fontSize="sm">
                {who}, {instantText(kept.keptAt)}
              </Box>
            </Box>
          ))}
        </Section>
      )}
      <Section title="What happened" aside="nothing here can be changed afterwards">
        <Box as="ul" listStyleType="none" fontSize="sm" color="soft">
          {view.value.history.map((entry) => (
            <li key={`${entry.at.toISOString()}${entry.action}${JSON.stringify(entry.changes).slice(0, 40)}`}>
              {instantText(entry.at)}: {entry.who} {workOrderActionWords(entry.action)}
              {historyDetail(entry.changes)}
            </li>
          ))}
        </Box>
      </Section>
    </>
  );
});

/** Who can see to a follow-up. */
const toChoice = ({ id, name, active }: { id: string; name: string; active: boolean }) =>
  active ? [{ value: id, label: name }] : [];

function historyDetail(changes: unknown): string {
  if (typeof changes !== 'object' || changes === null) return '';
  const at = changes as Readonly<Record<string, unknown>>;
  const told = [
    at.site && at.reason ? `${at.site}: ${at.reason}` : at.site,
    at.count,
    at.photo,
    at.moment && `${at.moment}: ${at.what}`,
    at.step && `${at.step}: ${at.state}`,
    at.day && `${at.day} ${at.start}`,
    at.odometer,
    at.finding,
    at.what,
    at.reason,
  ].find(Boolean);
  return told ? ` ${String(told).replace('not_done', 'not done')}` : '';
}

function angleOf({ spec, family }: WorkOrderView): string {
  const { thread, seat } = spec.part;
  if (!thread || !seat) return NONE;
  const { angleDeg } = planTorque({
    specNm: { min: spec.torqueMinNm, max: spec.torqueMaxNm },
    thread,
    seat,
    gasket: 'new',
    head: family.headMaterial,
    lubricant: 'dry',
    on: '2000-01-01',
  });
  return turnText(angleDeg);
}

async function PlanSection({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const { order, row, booking, family } = view;
  const choices = await whereAndWho(deps(), actor, { depotId: row.depotId, hybrid: family.hybrid });
  if (!choices.ok) return null;
  return (
    <Section title="Day, bay and person">
      <PlanForm
        action={planAction}
        unplan={unplanAction}
        workOrderId={order.id}
        bays={choices.value.bays.map((bay) => ({ value: bay.id, label: `${row.depot} ${bay.name}` }))}
        people={choices.value.people.map((person) => ({ value: person.id, label: person.name }))}
        now={{
          day: booking?.day ?? deps().today(),
          start: booking ? timeOf(booking.startMin) : choices.value.opens,
          minutes: booking?.minutes ?? order.minutes,
          bayId: booking?.bayId,
          personId: booking?.personId,
          version: booking?.version,
        }}
        planned={booking !== null}
        hybrid={family.hybrid}
      />
    </Section>
  );
}
