import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { DRIVING } from '@/core/misfire/driving';
import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewDriverAddress } from '@/server/misfire/driver-address';
import { type CaseInList, withDriving } from '@/server/misfire/may-it-drive';
import { listUnfiledReports, type UnfiledReport } from '@/server/misfire/unfiled-reports';
import { listCases } from '@/server/misfire/view-case';
import { dateText, distanceText, instantText, percentText } from '@/text/format';
import { CASE_STATE_WORDS, causeText, LAMP_WORDS, SYMPTOM_WORDS } from '@/text/misfire-words';
import { DrivingOrder } from '@/ui/misfire/stop-driving';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { dealtWithReportAction, endDriverAddressAction, makeDriverAddressAction } from './actions';

const MAX_SHOWN = 300;
const isOver = ({ misfire }: CaseInList): boolean => misfire.state === 'closed';

export default page(async function MisfiresPage() {
  const actor = await requireActor();
  const [list, address] = await Promise.all([
    listCases(deps(), actor, { limit: MAX_SHOWN }),
    viewDriverAddress(deps(), actor),
  ]);
  mustShow(list);
  mustShow(address);
  const unfiled = may(actor, 'open work orders') ? await listUnfiledReports(deps(), actor) : null;
  // Who must not drive first, what is over last.
  const rank = (row: CaseInList): number => DRIVING.indexOf(row.advice.driving) - (isOver(row) ? 1 : 0);
  const rows = await withDriving(deps(), actor, list.value.items);
  const all = rows.sort((a, b) => rank(b) - rank(a));
  const stopped = all.filter(({ advice }) => advice.driving === 'stop').length;
  const live = all.filter((row) => !isOver(row));
  const open = live.filter(({ misfire }) => misfire.state === 'open').length;
  return (
    <>
      <PageHead
        title="Misfires"
        actions={
          <ButtonLink href="/misfires/report" main>
            Report a misfire
          </ButtonLink>
        }
      >
        {stopped > 0 && (
          <>
            <strong className="wrong">{stopped} must not be driven</strong> ·{' '}
          </>
        )}
        <strong>{open}</strong> being narrowed down · {live.length - open} on a visit, referred or watched ·{' '}
        {all.length - live.length} closed{list.value.next !== null && ', older ones not shown'}
      </PageHead>
      {unfiled?.ok && unfiled.value.length > 0 && <Unfiled reports={unfiled.value} />}
      {all.length === 0 ? (
        <Empty>
          No misfires. A driver reports one by phone, a technician from the codes of a work order; Isobar says which
          test tells most for its minutes.
        </Empty>
      ) : (
        <ListTable
          noun="misfires"
          items={all}
          idOf={({ misfire }) => misfire.id}
          isOver={isOver}
          columns={columnsFor(actor.unitSystem)}
        />
      )}
      {may(actor, 'manage people') && (
        <Section
          title="For drivers without an account"
          aside={
            address.value.madeAt ? `made ${dateText(address.value.madeAt.toISOString().slice(0, 10))}` : 'none yet'
          }
        >
          <p className="soft">
            An address with the short form, for a phone: put it on the dashboards. Whoever has it may report, and sees
            nothing. A new one ends the one before.
          </p>
          <div className="feed-actions">
            <PressForm action={makeDriverAddressAction}>
              <SubmitButton>{address.value.madeAt ? 'Replace the address' : 'Make the address'}</SubmitButton>
            </PressForm>
            {address.value.madeAt && (
              <PressForm action={endDriverAddressAction}>
                <SubmitButton>End it</SubmitButton>
              </PressForm>
            )}
          </div>
        </Section>
      )}
    </>
  );
});

/** What drivers reported and nobody could file: never lost, and dealt with by hand. */
function Unfiled({ reports }: { reports: readonly UnfiledReport[] }) {
  return (
    <Section title="Reports that could not be filed" aside="from the address for drivers">
      <ol className="said-lines">
        {reports.map(({ id, at, driver, unitNumber, report, why }) => {
          const { complaint } = report;
          return (
            <li key={id}>
              <span>
                <strong>Unit “{unitNumber}”</strong>:{' '}
                {[complaint.words, LAMP_WORDS[complaint.lamp]].filter(Boolean).join(', ')}
                {complaint.symptoms.map((symptom) => `, ${SYMPTOM_WORDS[symptom]}`)}.{' '}
                <span className="soft">{why}</span>
              </span>
              <span className="who">
                {driver}, driver · {instantText(at)}
              </span>
              <PressForm action={dealtWithReportAction} quiet>
                <input type="hidden" name="reportId" value={id} />
                <SubmitButton>Dealt with</SubmitButton>
              </PressForm>
            </li>
          );
        })}
      </ol>
    </Section>
  );
}

const columnsFor = (system: UnitSystem): readonly Column<CaseInList>[] => [
  {
    head: 'No.',
    value: ({ misfire }) => misfire.number,
    cell: ({ misfire }) => <TextLink href={`/misfires/${misfire.id}`}>{misfire.number}</TextLink>,
  },
  {
    head: 'Vehicle',
    value: ({ unitNumber, vehicleName }) => `${unitNumber} ${vehicleName}`,
    cell: ({ misfire, unitNumber, vehicleName }) => (
      <TextLink href={`/misfires/${misfire.id}`}>
        <strong>{unitNumber}</strong> {vehicleName}
      </TextLink>
    ),
  },
  { head: 'Depot', value: ({ depot }) => depot },
  { head: 'Since', value: ({ misfire }) => misfire.openedOn, cell: ({ misfire }) => dateText(misfire.openedOn) },
  {
    head: 'Suspected cause',
    value: ({ misfire: { pointsTo } }) => pointsTo && `${causeText(pointsTo)}, ${percentText(pointsTo.probability)}`,
  },
  {
    head: 'Now',
    value: ({ misfire }) => CASE_STATE_WORDS[misfire.state],
    cell: (row) => <Now row={row} system={system} />,
  },
];

function Now({ row, system }: { row: CaseInList; system: UnitSystem }) {
  const { advice, misfire, odometerKm, orderNumber } = row;
  const { state, watchUntilKm } = misfire;
  const left = watchUntilKm !== null && odometerKm !== null ? Math.max(0, watchUntilKm - odometerKm) : null;
  return (
    <>
      <DrivingOrder advice={advice} />
      {CASE_STATE_WORDS[state]}
      {state === 'mending' && orderNumber !== null && (
        <>
          {': '}
          <TextLink href={`/work-orders/${misfire.workOrderId}`}>work order {orderNumber}</TextLink>
        </>
      )}
      {state === 'watching' && left !== null && ` for ${distanceText(left, system)} more`}
    </>
  );
}
