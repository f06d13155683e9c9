import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { siteName, sitePlace } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { kmPerHour } from '@/core/policy/apply';
import { turnAngle } from '@/core/torque/plan';
import type { UnitSystem } from '@/core/units/person-units';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { type VehicleView, viewVehicle } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { bindingText, heldText, STATE_WORDS, sureText } from '@/text/due-words';
import { dateText, distanceText, gapText, meterText, NONE, percentText, turnText } from '@/text/format';
import { SOURCE_WORDS } from '@/text/order-words';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { DueSum } from '@/ui/due/due-breakdown';
import { WithContents } from '@/ui/frame/contents';
import { ActionForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { OdometerChart } from '@/ui/vehicle/odometer-chart';
import { SpecLines } from '@/ui/work-orders/spec-lines';
import { openWorkOrderAction } from '../../work-orders/actions';
import { recordReadingAction, recordReminderAction, takeBackReminderAction } from '../actions';
import { CoilsSection } from './coils-section';
import { ComponentsSection } from './components-section';
import { FitmentNotice, SheetBlocked } from './fitment-notice';
import { MisfiresSection } from './misfires-section';
import { OrdersSection } from './orders-section';
import { PoliciesSection } from './policies-section';
import { PressureSection } from './pressure-section';
import { UndoReading } from './undo-reading';
import { WhatItIs } from './what-it-is';

type Props = { params: Promise<{ id: string }> };

export default page(async function VehiclePage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewVehicle(deps(), actor, (await params).id);
  mustShow(view);
  const { vehicle, family, layout, due } = view.value;
  const system = actor.unitSystem;
  const blocked = view.value.blockers.length > 0;
  const canOpen = due.state !== 'no-match' && !due.openWorkOrder && may(actor, 'open work orders');
  return (
    <>
      <PageHead
        title={`Unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={
          canOpen &&
          !blocked && (
            <>
              <ActionForm action={openWorkOrderAction} quiet>
                <input type="hidden" name="vehicleId" value={vehicle.id} />
                <SubmitButton main>Open a work order</SubmitButton>
              </ActionForm>
              <ButtonLink href={`/vehicles/${vehicle.id}/visit`}>Plan a visit</ButtonLink>
            </>
          )
        }
      >
        {COMPONENT_WORDS[due.component]}: {STATE_WORDS[due.state].toLowerCase()}
        {due.lifeUsed !== null &&
          ` · ${percentText(due.lifeUsed)} of ${bindingText(due, system)} used by the worst of them`}
        {due.due &&
          ` · due ${dateText(due.due.p50)}${due.due.p10 === due.due.p90 ? '' : `, likely ${dateText(due.due.p10)} to ${dateText(due.due.p90)}`}`}
      </PageHead>
      <FitmentNotice view={view.value} actor={actor} />
      {blocked && <SheetBlocked view={view.value} canOpen={canOpen} />}
      <WithContents
        of={[
          ['pressure', 'Service pressure'],
          due.breakdown.length > 0 && ['date', 'How the date comes about'],
          ['odometer', 'Odometer'],
          view.value.fitment.kind === 'match' && ['spec', 'Spec in force'],
          ['others', 'Components'],
          ['fitted', 'Fitted now'],
          view.value.coils.now.length > 0 && ['coils', 'Coils'],
          ['vehicle', 'What it is'],
          ['policies', 'Policies'],
          ['misfires', 'Misfires'],
          ['orders', 'Work orders'],
        ]}
      >
        <div className="halves">
          <div>
            <PressureSection view={view.value} actor={actor} />
            {due.breakdown.length > 0 && (
              <Section
                id="date"
                title="How the date comes about"
                aside={`${COMPONENT_WORDS[due.component].toLowerCase()}, step by step`}
              >
                <DueSum lines={due.breakdown} system={system} />
                {due.components.slice(1).map(
                  (other) =>
                    other.breakdown.length > 0 && (
                      <details key={other.component}>
                        <summary>{COMPONENT_WORDS[other.component]}</summary>
                        <DueSum lines={other.breakdown} system={system} />
                      </details>
                    ),
                )}
                {due.tested && (
                  <Box color="soft" mt="2">
                    {heldText(due.tested)}
                  </Box>
                )}
              </Section>
            )}
          </div>
          <div>
            <OdometerSection view={view.value} system={system} actor={actor} />
          </div>
        </div>
        <div className="halves">
          <SpecSection view={view.value} system={system} />
          <ComponentsSection view={view.value} actor={actor} />
        </div>
        <FittedSection view={view.value} system={system} />
        <CoilsSection view={view.value} actor={actor} />
        <div className="halves">
          <WhatItIs view={view.value} actor={actor} />
          <Section title="Engine" aside="seen from the front of the vehicle">
            <EngineDrawing
              layout={layout}
              title={`Engine ${family.code}: ${layout.sites.length} plug sites`}
              ignition
            />
          </Section>
        </div>
        <div className="halves">
          <PoliciesSection view={view.value} />
          <MisfiresSection view={view.value} actor={actor} />
        </div>
        <OrdersSection view={view.value} actor={actor} />
      </WithContents>
    </>
  );
});

function OdometerSection({ view, system, actor }: { view: VehicleView; system: UnitSystem; actor: Actor }) {
  const { readings, due, vehicle, today } = view;
  const points = (state: 'accepted' | 'suspect') =>
    readings.filter((r) => r.state === state).map((r) => [r.readOn, r.odometerKm] as const);
  const projected =
    due.binds === 'distance' && due.limitKm !== null && due.odometerOn !== null && due.odometerKm !== null;
  const last = readings.filter((r) => r.state === 'accepted').at(-1);
  return (
    <Section id="odometer" title="Odometer" aside={due.rate ? sureText(due, system) : 'no use rate yet'}>
      {readings.length === 0 ? (
        <Empty>
          No readings yet. Import odometer.csv: from three readings over two weeks on, this vehicle has its own use
          rate.
        </Empty>
      ) : (
        <>
          <OdometerChart
            accepted={points('accepted')}
            suspect={points('suspect')}
            from={due.odometerOn && due.odometerKm !== null ? [due.odometerOn, due.odometerKm] : null}
            limitKm={projected && due.limitKm !== null ? (due.fittedKm ?? 0) + due.limitKm * due.limitShare : null}
            due={projected && due.due && due.due.p50 > today ? due.due : null}
            unit={system === 'us' ? 'mi' : 'km'}
          />
          <Box color="soft" fontSize="sm">
            Last:{' '}
            {last
              ? `${distanceText(last.odometerKm, system)} on ${dateText(last.readOn)} (${last.source}, read as “${last.asTyped}”); this dash shows ${vehicle.odometerUnit}`
              : 'none accepted'}
            . {due.suspectReadings > 0 && `${due.suspectReadings} suspect, not used (diamond).`}
          </Box>
        </>
      )}
      <HoursLine view={view} system={system} />
      {may(actor, 'record odometer readings') && (
        <details>
          <summary>Record a reading</summary>
          <Box mt="2" maxW="420px">
            <ActionForm action={recordReadingAction}>
              <input type="hidden" name="unitNumber" value={vehicle.unitNumber} />
              <TextField name="on" label="Day" type="date" defaultValue={today} />
              <TextField
                name="text"
                label="Reading"
                inputMode="text"
                hint={`in ${vehicle.odometerUnit} unless you write the unit; an hour meter as 4210.5 h`}
              />
              <SubmitButton>Record</SubmitButton>
            </ActionForm>
          </Box>
        </details>
      )}
      {may(actor, 'record odometer readings') && <OwnReminder view={view} />}
      {last && may(actor, 'resolve odometer readings') && <UndoReading view={view} system={system} />}
    </Section>
  );
}

/** The vehicle's own service reminder: when it came on, and that it went out. */
function OwnReminder({ view: { vehicle, today } }: { view: VehicleView }) {
  const { id, reminderOn } = vehicle;
  return (
    <details open={reminderOn !== null}>
      <summary>
        {reminderOn ? `Dash service light on since ${dateText(reminderOn)}` : 'Dash service light is on'}
      </summary>
      <Box mt="2" maxW="420px">
        {reminderOn ? (
          <ActionForm action={takeBackReminderAction}>
            <input type="hidden" name="vehicleId" value={id} />
            <TextField name="reason" label="Why it is not followed" hint="or that it went out" />
            <SubmitButton>Take it back</SubmitButton>
          </ActionForm>
        ) : (
          <ActionForm action={recordReminderAction}>
            <input type="hidden" name="vehicleId" value={id} />
            <TextField name="on" label="Day" type="date" defaultValue={today} />
            <TextField
              name="odometer"
              label="What its dash showed"
              hint={`in ${vehicle.odometerUnit} unless you write it`}
            />
            <SubmitButton>The plugs are asked for</SubmitButton>
          </ActionForm>
        )}
      </Box>
    </details>
  );
}

/** Where the hour meter stands, if there is one, and what its hours count as. */
function HoursLine({ view: { hours, hoursOption }, system }: { view: VehicleView; system: UnitSystem }) {
  const last = hours.filter((row) => row.state === 'accepted').at(-1);
  if (!last) return null;
  const each = kmPerHour(hoursOption);
  const suspects = hours.filter((row) => row.state === 'suspect').length;
  return (
    <Box color="soft" fontSize="sm">
      Hour meter: {meterText(last.hours)} on {dateText(last.readOn)} ({last.source}).{' '}
      {each > 0 ? `An hour counts as at least ${distanceText(each, system)}.` : 'Hours do not count, by policy.'}
      {suspects > 0 && ` ${suspects} suspect, not used.`}
    </Box>
  );
}

function SpecSection({
  view: { fitment, layout, rivals, family, threads, current },
  system,
}: {
  view: VehicleView;
  system: UnitSystem;
}) {
  if (fitment.kind !== 'match') return null;
  const { spec } = fitment;
  const angle = turnAngle(spec.part.seat, 'new');
  return (
    <Section id="spec" title="Spec in force">
      <SpecLines
        spec={spec}
        quantity={layout.sites.length}
        system={system}
        threads={threads}
        current={current}
        angle={spec.angleDeg !== null ? `${spec.angleDeg}°, by the sheet,` : turnText(angle)}
      />
      {rivals.length > 0 && (
        <Box color="soft" fontSize="sm" mt="2">
          Other sources beside it:{' '}
          {rivals.map((rival) => `${rival.sourceDocument} (${SOURCE_WORDS[rival.sourceKind]})`).join('; ')}.{' '}
          <TextLink href={`/engines/${family.id}`}>Compare</TextLink>
        </Box>
      )}
    </Section>
  );
}

function FittedSection({ view: { vehicle, layout, fitted }, system }: { view: VehicleView; system: UnitSystem }) {
  const bySite = new Map(fitted.map((row) => [siteId(row.fitted), row]));
  return (
    <Section
      id="fitted"
      title="Fitted now"
      aside={<a href={`/vehicles/${vehicle.id}/history`}>all that is or was in it, for its next keeper (CSV)</a>}
    >
      <PlainTable heads={['Site', 'Where', 'Part by the record', 'Read off it', 'Since', 'At', 'Gap then', 'History']}>
        {layout.sites.map((site) => {
          const row = bySite.get(siteId(site));
          return (
            <tr key={siteId(site)}>
              <td className="strong">{siteName(layout, site)}</td>
              <td className="soft">{sitePlace(layout, site)}</td>
              <td>
                <Code>{row?.number ?? row?.fitted.believedNumber ?? 'unknown'}</Code>
              </td>
              <td>
                <Code>{row?.fitted.observedNumber ?? NONE}</Code>
              </td>
              <td className="nowrap">
                {row ? certain(dateText(row.fitted.installedOn), row.fitted.installedOnCertainty) : 'assumed from new'}
              </td>
              <td className="nowrap">
                {row ? certain(distanceText(row.fitted.installedKm, system), row.fitted.installedKmCertainty) : NONE}
              </td>
              <td className="nowrap">{gapText(row?.fitted.gapMm ?? null, system)}</td>
              <td>
                {row?.fitted.history ?? 'unknown'}
                {row?.fitted.goodForKm != null && (
                  <div className="soft small">
                    {dateText(row.fitted.checkedOn)}: good for {distanceText(row.fitted.goodForKm, system)} more,{' '}
                    {row.fitted.checkedFrom}
                  </div>
                )}
              </td>
            </tr>
          );
        })}
      </PlainTable>
    </Section>
  );
}

const CERTAIN = {
  exact: (text: string) => text,
  estimated: (text: string) => `about ${text}`,
  assumed: (text: string) => `${text}, assumed`,
};
const certain = (text: string, certainty: keyof typeof CERTAIN): string => CERTAIN[certainty](text);
