import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { timeOf } from '@/core/calendar/zone';
import { siteId } from '@/core/engine/model';
import { standsAt } from '@/core/engine/places';
import { pickWords } from '@/core/stock/pick';
import { planTorque } from '@/core/torque/plan';
import type { UnitSystem } from '@/core/units/person-units';
import { minutesToCold, USUAL_COOLING_MIN, USUAL_OUTSIDE_C } from '@/core/work/cooling';
import { isLive } from '@/core/work/order-state';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { listPeople } from '@/server/fleet/people';
import { viewWorkOrder, type WorkOrderView, whereAndWho } from '@/server/work-orders/view-work-order';
import { dateText, gapText, instantText, turnText } from '@/text/format';
import { minutesText } from '@/text/minutes-words';
import { ORDER_STATES } from '@/text/order-words';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { WithContents } from '@/ui/frame/contents';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Caution, PageHead, Section } from '@/ui/primitives/page';
import { PlanForm } from '@/ui/work-orders/plan-form';
import { SpecLines } from '@/ui/work-orders/spec-lines';
import { StepList } from '@/ui/work-orders/step-list';
import { StoppedBanner } from '@/ui/work-orders/stopped-banner';
import { endWaitAction, planAction, unplanAction } from '../actions';
import { CloseSection } from './close-section';
import { FindingsSection } from './findings-section';
import { GatesSection } from './gates-section';
import { HistorySection } from './history-section';
import { PartLines } from './part-lines';
import { PartTable } from './part-table';
import { SiteTable } from './site-table';
import { StandsOpen } from './stands-open';
import { SheetChanged, Stops } from './stops';
import { TasksSection } from './tasks-section';
import { WaySection } from './way-section';

type Props = { params: Promise<{ id: string }> };

export default page(async function WorkOrderPage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewWorkOrder(deps(), actor, (await params).id);
  mustShow(view);
  const people = await listPeople(deps(), actor);
  const live = isLive(view.value.order);
  const plans = live && may(actor, 'plan work orders');
  return (
    <>
      <Head view={view.value} works={live && may(actor, 'record work')} />
      <StoppedBanner
        stops={view.value.stops}
        workOrderId={view.value.order.id}
        goOn={may(actor, 'record work') ? endWaitAction : null}
      />
      {live && <Stops view={view.value} />}
      {live && <SheetChanged view={view.value} actor={actor} />}
      <WithContents
        of={[
          ['tasks', 'Tasks'],
          ['parts', 'Parts and spec'],
          view.value.way.parts.length + view.value.way.choices.length > 0 && ['way', 'Access'],
          ['gates', 'Gates'],
          ['findings', 'Findings'],
          (!live || may(actor, 'record work')) && ['close', live ? 'Close' : 'How it ended'],
          plans && ['plan', 'Day, bay and person'],
          ['steps', 'Steps'],
          ['record', 'Record by site'],
          view.value.kept.length > 0 && ['bench', 'From the bench'],
          ['history', 'What happened'],
        ]}
      >
        <TasksSection view={view.value} actor={actor} live={live} />
        <div className="halves">
          <WhatGoesIn view={view.value} system={actor.unitSystem} live={live} />
          <Sites view={view.value} live={live} />
        </div>
        <WaySection view={view.value} actor={actor} live={live} />
        <GatesSection view={view.value} actor={actor} live={live} />
        <FindingsSection view={view.value} actor={actor} people={people.ok ? people.value.flatMap(toChoice) : []} />
        <div className="halves">
          <CloseSection view={view.value} actor={actor} live={live} />
          {plans && <PlanSection view={view.value} actor={actor} />}
          {live && <StandsOpen view={view.value} />}
        </div>
        <Section id="steps" title="Steps" aside={minutesText(view.value.order, view.value.learned)}>
          <StepList steps={view.value.steps} sitesText={doneText(view.value, false)} />
        </Section>
        <SiteTable view={view.value} actor={actor} />
        <PartTable view={view.value} actor={actor} />
        <FromTheBench view={view.value} />
        <HistorySection view={view.value} />
      </WithContents>
    </>
  );
});

/** How far it is: "3 of 6 sites done" where plugs alone are done, places otherwise. */
function doneText({ tasks }: WorkOrderView, named: boolean): string {
  const places = tasks.flatMap((task) => task.places).filter(({ state }) => state !== 'moved');
  const what = tasks.every(({ row }) => row.component === 'plug') ? 'sites ' : 'places ';
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

interface PartProps {
  readonly view: WorkOrderView;
  readonly live: boolean;
}

function WhatGoesIn({ view, live, system }: PartProps & { readonly system: UnitSystem }) {
  const { vehicle, plug, tasks, family } = view;
  const others = tasks.filter(({ row, sheet }) => row.component !== 'plug' && sheet);
  const released = [...new Set(tasks.flatMap(({ row }) => row.releaseReason ?? []))];
  return (
    <Section
      id="parts"
      title="Parts and spec"
      aside={<TextLink href={`/vehicles/${vehicle.id}`}>the vehicle</TextLink>}
    >
      {plug && (
        <SpecLines
          spec={plug.spec}
          quantity={plug.replaced}
          system={system}
          angle={angleOf(plug.spec, family.headMaterial)}
          threads={plug.threads}
          current={plug.current}
        />
      )}
      {live && plug?.pick && (
        <Box mt="2" color={plug.pick.kind === 'short' ? 'wrong.ink' : undefined}>
          <strong>On the shelf.</strong> {pickWords(plug.pick)}
        </Box>
      )}
      {others.map(({ row, sheet, rules, places }) => (
        <PartLines key={row.id} task={row} sheet={sheet} rules={rules} places={places} />
      ))}
      {!plug && others.length === 0 && (
        <Box color="soft">Nothing goes in by a sheet: it is looked at and measured.</Box>
      )}
      {released.map((reason) => (
        <Box key={reason} color="caution.ink" mt="2">
          Released despite its sheet: {reason}
        </Box>
      ))}
    </Section>
  );
}

/** The engine with what is done at each plug site: its own, and that of the parts above it. */
function Sites({ view: { order, tasks, sites, layout, vehicle }, live }: PartProps) {
  const gaps = new Map(sites.map((site) => [siteId(site), site.doneAt ? site.newGapMm : null]));
  const marks = Object.fromEntries(
    layout.sites.flatMap((site) => {
      const states = tasks
        .flatMap(({ places }) => places)
        .filter(({ place, state }) => state !== 'moved' && standsAt(layout, place.component, place, site))
        .map(({ state }) => state);
      if (states.length === 0) return [];
      const gap = gaps.get(siteId(site)) ?? null;
      return [
        [
          siteId(site),
          {
            state: states.includes('open') ? ('todo' as const) : ('done' as const),
            lines: gap === null ? [] : ['new gap', gapText(gap, 'metric').split(' · ')[0] ?? ''],
            href: live ? `/work-orders/${order.id}/floor#sites-${siteId(site)}` : undefined,
          },
        ] as const,
      ];
    }),
  );
  return (
    <Section title="Sites">
      <EngineDrawing
        layout={layout}
        marks={marks}
        title={`Engine of unit ${vehicle.unitNumber}, seen from the front of the vehicle`}
      />
    </Section>
  );
}

function FromTheBench({ view: { kept } }: { view: WorkOrderView }) {
  if (kept.length === 0) return null;
  return (
    <Section id="bench" title="From the bench">
      {kept.map(({ kept: result, who }) => (
        <div key={result.id}>
          {result.summary}{' '}
          <span className="soft small">
            {who}, {instantText(result.keptAt)}
          </span>
        </div>
      ))}
    </Section>
  );
}

/** Whether the engine will be cold when its plugs come out, if it is driven in at the start of the booking. */
function ColdBy({ view: { steps, family }, startMin }: { view: WorkOrderView; startMin: number }) {
  const first = steps.findIndex(({ perSite }) => perSite);
  if (!steps.some(({ kind, asks }) => kind === 'cold' && asks?.some(({ key }) => key === 'shut'))) return null;
  const before = steps.slice(0, first).reduce((sum, { minutes }) => sum + (minutes ?? 0), 0);
  const cools = minutesToCold(USUAL_OUTSIDE_C, family.coolingMinutes ?? USUAL_COOLING_MIN);
  const late = cools - before;
  return (
    <Box mt="3" color={late > 0 ? 'caution.ink' : 'soft'}>
      Its plugs come out at about {timeOf(startMin + before)} and want a cold engine. Shut off at {timeOf(startMin)} it
      is cold at about {timeOf(startMin + cools)} (estimate, {USUAL_OUTSIDE_C} °C outside)
      {late > 0 && `: have it in and off by ${timeOf(Math.max(0, startMin - late))}, or the evening before`}.
    </Box>
  );
}

/** Who can see to a follow-up. */
const toChoice = ({ id, name, active }: { id: string; name: string; active: boolean }) =>
  active ? [{ value: id, label: name }] : [];

function angleOf(
  { part: { thread, seat }, torqueMinNm, torqueMaxNm }: PlugView['spec'],
  head: WorkOrderView['family']['headMaterial'],
): string {
  const { angleDeg } = planTorque({
    specNm: { min: torqueMinNm, max: torqueMaxNm },
    thread,
    seat,
    gasket: 'new',
    head,
    lubricant: 'dry',
    on: '2000-01-01',
  });
  return turnText(angleDeg);
}

type PlugView = NonNullable<WorkOrderView['plug']>;

async function PlanSection({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const { order, row, booking, family } = view;
  const choices = await whereAndWho(deps(), actor, { depotId: row.depotId, hybrid: family.hybrid });
  if (!choices.ok) return null;
  return (
    <Section id="plan" title="Day, bay and person">
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
      <Box color="soft" mt="2">
        {minutesText(order, view.learned)}
      </Box>
      {booking && <ColdBy view={view} startMin={booking.startMin} />}
    </Section>
  );
}
