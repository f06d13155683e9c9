import { Box, Grid, Table } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { siteId, siteName, sitePlace } from '@/core/engine/layout';
import { sideWords } from '@/core/engine/sides';
import { scopeWords } from '@/core/fitment/scope';
import { readVin, yearContradiction } from '@/core/fitment/vin';
import { turnAngle } from '@/core/torque/plan';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { QUESTIONS } from '@/server/due/refresh-status';
import { type VehicleView, viewVehicle } from '@/server/fleet/view-vehicle';
import { AnswerField } from '@/ui/catalogue/answer-field';
import { BLOCKER_WORDS, SCOPE_WORDS } from '@/ui/catalogue/words';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { DueSum } from '@/ui/due/due-sum';
import { bindingText, STATE_WORDS, sureText } from '@/ui/due/due-words';
import { dateText, distanceText, gapText, instantText, NONE, percentText, type UnitSystem } from '@/ui/format/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { TextLink } from '@/ui/primitives/links';
import { Caution, Code, Empty, Facts, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { OdometerChart } from '@/ui/vehicle/odometer-chart';
import { ORDER_STATES, SOURCE_WORDS } from '@/ui/work-orders/order-words';
import { SpecLines } from '@/ui/work-orders/spec-lines';
import { openWorkOrderAction } from '../../work-orders/actions';
import { answerFitmentAction, swapCoilsAction } from '../actions';

type Props = { params: Promise<{ id: string }> };

export default async function VehiclePage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewVehicle(deps(), actor, (await params).id);
  if (!view.ok) return <Empty>{view.error.message}</Empty>;
  const { vehicle, depot, family, layout, due } = view.value;
  const system = actor.unitSystem;
  const held = view.value.blockers.length > 0;
  const canOpen = due.state !== 'no-match' && !due.openWorkOrder && may(actor, 'open work orders');
  return (
    <>
      <PageHead
        title={`Unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={
          canOpen &&
          !held && (
            <ActionForm action={openWorkOrderAction} quiet>
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <SubmitButton main>Open a work order</SubmitButton>
            </ActionForm>
          )
        }
      >
        {STATE_WORDS[due.state]}
        {due.lifeUsed !== null &&
          ` · ${percentText(due.lifeUsed)} of ${bindingText(due, system)} used by the worst site`}
        {due.due && ` · due ${dateText(due.due.p50)}, likely ${dateText(due.due.p10)} to ${dateText(due.due.p90)}`}
      </PageHead>
      <Fitment view={view.value} actor={actor} />
      {held && <Held view={view.value} canOpen={canOpen} />}
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Box minW="0">
          <Section title="What it is">
            <Facts
              rows={[
                ['Vehicle', [vehicle.make, vehicle.model, vehicle.modelYear].filter(Boolean).join(' ') || NONE],
                ['VIN', <Vin key="vin" vin={vehicle.vin} modelYear={vehicle.modelYear} />],
                ['Built', vehicle.builtOn === null ? 'day not recorded' : dateText(vehicle.builtOn)],
                ['Fuel', vehicle.fuel ?? 'not recorded'],
                ['Kept at', `${depot}, ${vehicle.dutyGroup}`],
                ['In service', `since ${dateText(vehicle.inServiceOn)}${vehicle.severeDuty ? ', severe duty' : ''}`],
                [
                  'Engine',
                  <Box key="engine">
                    <TextLink href={`/engines/${family.id}`}>{family.code}</TextLink>, {family.name}
                  </Box>,
                ],
                ['Variant', vehicle.variant ?? (family.variants.length > 0 ? 'not known' : 'has none')],
                ['Firing order', layout.model.firingOrder.join(' ')],
                ...sideRows(view.value),
              ]}
            />
            <Answers view={view.value} />
          </Section>
          <Section title="Engine" aside="seen from the front of the vehicle">
            <EngineDrawing
              layout={layout}
              title={`Engine ${family.code}: ${layout.sites.length} plug sites`}
              ignition
            />
          </Section>
        </Box>
        <Box minW="0">
          <OdometerSection view={view.value} system={system} />
          {due.sum.length > 0 && (
            <Section title="How the date comes about" aside="to check with a pencil">
              <DueSum lines={due.sum} system={system} />
            </Section>
          )}
          <SpecSection view={view.value} system={system} />
        </Box>
      </Grid>
      <FittedSection view={view.value} system={system} />
      <CoilsSection view={view.value} actor={actor} />
      <PoliciesSection view={view.value} />
      <OrdersSection view={view.value} />
    </>
  );
}

function Fitment({ view: { vehicle, family, fitment }, actor }: { view: VehicleView; actor: Actor }) {
  if (fitment.kind === 'match') return null;
  const hidden = (
    <>
      <input type="hidden" name="vehicleId" value={vehicle.id} />
      <input type="hidden" name="version" value={vehicle.version} />
    </>
  );
  if (fitment.kind === 'no-spec')
    return (
      <Box bg="wrong.bg" color="wrong.ink" p="4" rounded="sm" mb="5">
        <strong>No spec: do not fit.</strong>{' '}
        {fitment.reason === 'only-memory'
          ? 'The only sheet is from memory.'
          : `There is no spec sheet for ${family.code} that covers this vehicle.`}{' '}
        Import one with its source.
      </Box>
    );
  return (
    <Box bg="sheet" border="1px solid" borderColor="line" p="4" rounded="sm" mb="5" maxW="640px">
      <Box fontWeight="650">No firm match yet: {QUESTIONS[fitment.key]}</Box>
      <Box as="ul" pl="4" my="2" color="soft">
        {[...fitment.candidates]
          .sort((a, b) => scopeWords(a).localeCompare(scopeWords(b)))
          .map((spec) => (
            <li key={spec.id}>
              {scopeWords(spec)}: <Code>{spec.part.number}</Code>, gap {gapText(spec.gapMinMm, actor.unitSystem)} and up
              ({SOURCE_WORDS[spec.sourceKind]})
            </li>
          ))}
      </Box>
      {may(actor, 'answer fitment questions') && (
        <ActionForm action={answerFitmentAction}>
          {hidden}
          {fitment.key === 'sheet' ? (
            <SelectField
              name="settledSheetId"
              label="The sheet that holds for this vehicle"
              choices={fitment.candidates.map((spec) => ({
                value: spec.id,
                label: `${spec.part.number}, ${scopeWords(spec)}, ${spec.sourceDocument}`,
              }))}
            />
          ) : (
            <AnswerField question={fitment.key} choices={fitment.choices} />
          )}
          <SubmitButton main>Settle it</SubmitButton>
        </ActionForm>
      )}
    </Box>
  );
}

/** Coils by tag: where each sits and has sat, and which cylinder keeps losing them. */
function CoilsSection({ view: { coils, vehicle }, actor }: { view: VehicleView; actor: Actor }) {
  if (coils.now.length === 0) return null;
  const tagged = coils.now.filter(({ fitted }) => fitted.tag);
  const choices = tagged.map(({ fitted }) => ({
    value: String(fitted.cylinder),
    label: `cylinder ${fitted.cylinder}, ${fitted.tag}`,
  }));
  return (
    <Section title="Coils" aside="followed by their tags">
      {coils.eaters.map(({ cylinder, lost }) => (
        <Box key={cylinder} mb="3">
          <Caution>
            Cylinder {cylinder} has used up {lost} coils: look at boot, well, plug gap and wiring before another is
            fitted.
          </Caution>
        </Box>
      ))}
      <PlainTable heads={['Cylinder', 'Tag', 'Part', 'There since', 'Before that']}>
        {coils.now.map(({ fitted, number }) => {
          const before = coils.coils.find((coil) => coil.tag === fitted.tag)?.stays.slice(0, -1) ?? [];
          return (
            <Table.Row key={fitted.id}>
              <Table.Cell fontWeight="650">{fitted.cylinder}</Table.Cell>
              <Table.Cell>
                <Code>{fitted.tag ?? 'no tag'}</Code>
              </Table.Cell>
              <Table.Cell>
                <Code>{number ?? fitted.believedNumber ?? 'unknown'}</Code>
              </Table.Cell>
              <Table.Cell>{dateText(fitted.installedOn)}</Table.Cell>
              <Table.Cell color="soft">
                {before.map((stay) => `cylinder ${stay.cylinder} from ${dateText(stay.from)}`).join(', ') || NONE}
              </Table.Cell>
            </Table.Row>
          );
        })}
      </PlainTable>
      {may(actor, 'record work') && tagged.length > 1 && (
        <details>
          <summary>Record that two coils have changed places</summary>
          <Box maxW="640px" mt="2">
            <ActionForm action={swapCoilsAction}>
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap="4">
                <SelectField name="first" label="Coil of" choices={choices} />
                <SelectField name="second" label="with coil of" choices={choices} defaultValue={choices[1]?.value} />
              </Grid>
              <TextField name="reason" label="Why" />
              <SubmitButton>Record the swap</SubmitButton>
            </ActionForm>
          </Box>
        </details>
      )}
    </Section>
  );
}

/** The sheet in force releases no work by itself. */
function Held({ view: { vehicle, blockers }, canOpen }: { view: VehicleView; canOpen: boolean }) {
  return (
    <Box bg="caution.bg" color="caution.ink" p="4" rounded="sm" mb="5" maxW="640px">
      <strong>The spec sheet in force is held back.</strong>
      <Box as="ul" pl="4" my="1">
        {blockers.map((blocker) => (
          <li key={blocker}>{BLOCKER_WORDS[blocker]}.</li>
        ))}
      </Box>
      {canOpen && (
        <Box color="ink" mt="2">
          <ActionForm action={openWorkOrderAction}>
            <input type="hidden" name="vehicleId" value={vehicle.id} />
            <TextField name="releaseReason" label="Why it may be worked by all the same" />
            <SubmitButton main>Open a work order with this reason</SubmitButton>
          </ActionForm>
        </Box>
      )}
    </Box>
  );
}

function Vin({ vin, modelYear }: { vin: string | null; modelYear: number | null }) {
  if (vin === null) return 'not recorded';
  const doubt = modelYear === null ? null : yearContradiction(vin, modelYear);
  const { checkDigitOk, reasons } = readVin(vin);
  return (
    <>
      <Code>{vin}</Code>{' '}
      <Box as="span" color={doubt ? 'wrong.ink' : 'soft'} fontSize="sm">
        {doubt ?? (checkDigitOk ? 'check digit agrees' : reasons[0])}
      </Box>
    </>
  );
}

/** What people call the banks, where the steering side is known. */
function sideRows({ layout, vehicle }: VehicleView): readonly (readonly [string, string])[] {
  const named = layout.model.banks.flatMap((bank) => {
    const words = sideWords(bank.place, vehicle.steering);
    return words ? [`${bank.place} in the drawing is the ${words}: cylinders ${bank.cylinders.join(' ')}`] : [];
  });
  return named.length > 0 ? [['Sides', named.join('; ')]] : [];
}

function Answers({ view: { answers } }: { view: VehicleView }) {
  if (answers.length === 0) return null;
  return (
    <Box color="soft" fontSize="sm" mt="2">
      {answers.map((entry) => {
        const { to } = entry.changes as { to?: Record<string, unknown> };
        return (
          <Box key={entry.at.toISOString()}>
            {Object.entries(to ?? {})
              .map(([key, value]) => `${key.replace(/([A-Z])/g, ' $1').toLowerCase()}: ${value}`)
              .join(', ')}
            , said by {entry.who} on {instantText(entry.at)}
          </Box>
        );
      })}
    </Box>
  );
}

function PoliciesSection({ view: { policies } }: { view: VehicleView }) {
  const chosen = policies.filter(({ scope }) => scope !== 'default');
  return (
    <Section
      title="Shop policies in force here"
      aside={<TextLink href="/policies">all schools and their reasons</TextLink>}
    >
      <Facts
        rows={chosen.map(({ policy, school, scope, why }) => [
          policy.name,
          <Box key={policy.id}>
            <strong>{school.name}</strong>, {SCOPE_WORDS[scope]}: {why}{' '}
            <Box as="span" color="soft">
              {school.changes}
            </Box>
          </Box>,
        ])}
      />
      <Box color="soft" fontSize="sm" mt="1">
        By default:{' '}
        {policies
          .filter(({ scope }) => scope === 'default')
          .map(({ policy, school }) => `${policy.name.toLowerCase()} ${school.name.toLowerCase()}`)
          .join('; ')}
        .
      </Box>
    </Section>
  );
}

function OdometerSection({
  view: { readings, due, vehicle, fitted, today },
  system,
}: {
  view: VehicleView;
  system: UnitSystem;
}) {
  const points = (state: 'accepted' | 'suspect') =>
    readings.filter((r) => r.state === state).map((r) => [r.readOn, r.odometerKm] as const);
  const fittedKm = fitted.length === 0 ? 0 : Math.min(...fitted.map(({ fitted: f }) => f.installedKm));
  const projected =
    due.binds === 'distance' && due.limitKm !== null && due.odometerOn !== null && due.odometerKm !== null;
  const last = readings.filter((r) => r.state === 'accepted').at(-1);
  return (
    <Section title="Odometer" aside={due.rate ? sureText(due, system) : 'no use rate yet'}>
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
            limitKm={projected && due.limitKm !== null ? fittedKm + due.limitKm * due.limitShare : null}
            due={projected && due.due && due.due.p50 > today ? due.due : null}
            unit={system === 'us' ? 'mi' : 'km'}
          />
          <Box color="soft" fontSize="sm">
            Last:{' '}
            {last
              ? `${last.asTyped} on ${dateText(last.readOn)} (${last.source}); this dash shows ${vehicle.odometerUnit}`
              : 'none accepted'}
            . {due.suspectReadings > 0 && `${due.suspectReadings} suspect, not used (diamond).`}
          </Box>
        </>
      )}
    </Section>
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
  const angle = turnAngle(spec.part.seat ?? 'gasket', 'new');
  return (
    <Section title="Spec in force">
      <SpecLines
        spec={spec}
        quantity={layout.sites.length}
        system={system}
        threads={threads}
        current={current}
        angle={
          spec.angleDeg !== null
            ? `${spec.angleDeg}°, by the sheet,`
            : angle.min === angle.max
              ? `${angle.min}°`
              : `${angle.min} to ${angle.max}°`
        }
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

function FittedSection({ view: { layout, fitted }, system }: { view: VehicleView; system: UnitSystem }) {
  const bySite = new Map(fitted.map((row) => [siteId(row.fitted), row]));
  return (
    <Section title="Fitted now" aside="each site has its own clock">
      <PlainTable heads={['Site', 'Where', 'Part by the record', 'Read off it', 'Since', 'At', 'Gap then', 'History']}>
        {layout.sites.map((site) => {
          const row = bySite.get(siteId(site));
          return (
            <Table.Row key={siteId(site)}>
              <Table.Cell fontWeight="650">{siteName(layout, site)}</Table.Cell>
              <Table.Cell color="soft">{sitePlace(layout, site)}</Table.Cell>
              <Table.Cell>
                <Code>{row?.number ?? row?.fitted.believedNumber ?? 'unknown'}</Code>
              </Table.Cell>
              <Table.Cell>
                <Code>{row?.fitted.observedNumber ?? NONE}</Code>
              </Table.Cell>
              <Table.Cell whiteSpace="nowrap">
                {row ? certain(dateText(row.fitted.installedOn), row.fitted.installedOnCertainty) : 'assumed from new'}
              </Table.Cell>
              <Table.Cell whiteSpace="nowrap">
                {row ? certain(distanceText(row.fitted.installedKm, system), row.fitted.installedKmCertainty) : NONE}
              </Table.Cell>
              <Table.Cell whiteSpace="nowrap">{gapText(row?.fitted.gapMm ?? null, system)}</Table.Cell>
              <Table.Cell>{row?.fitted.history ?? 'unknown'}</Table.Cell>
            </Table.Row>
          );
        })}
      </PlainTable>
    </Section>
  );
}

const certain = (text: string, certainty: 'exact' | 'estimated' | 'assumed'): string =>
  certainty === 'exact' ? text : certainty === 'estimated' ? `about ${text}` : `${text}, assumed`;

function OrdersSection({ view: { orders } }: { view: VehicleView }) {
  return (
    <Section title="Work orders">
      {orders.length === 0 ? (
        <Empty>None yet.</Empty>
      ) : (
        orders.map((order) => (
          <Box key={order.id}>
            <TextLink href={`/work-orders/${order.id}`}>{order.number}</TextLink> · {ORDER_STATES[order.state]} · opened{' '}
            {dateText(order.openedOn)}
            {order.startsAt && ` · planned ${dateText(order.startsAt)}`}
            {order.closedOn && ` · closed ${dateText(order.closedOn)}`}
          </Box>
        ))
      )}
    </Section>
  );
}
