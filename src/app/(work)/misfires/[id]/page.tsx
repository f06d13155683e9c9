import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { type Actor, may } from '@/server/access';
import { deps } from '@/server/deps';
import { type CaseView, viewCase } from '@/server/misfire/view-case';
import { dateText, distanceText, percentText } from '@/text/format';
import { CASE_STATE_WORDS, cylindersText, LAMP_WORDS, SYMPTOM_WORDS } from '@/text/misfire-words';
import { freezesOf } from '@/text/said-words';
import { CauseList } from '@/ui/misfire/cause-list';
import { StopDriving } from '@/ui/misfire/stop-driving';
import { SuspicionDrawing } from '@/ui/misfire/suspicion-drawing';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Code, PageHead, Section } from '@/ui/primitives/page';
import { ChangedSection } from './changed-section';
import { DecisionsSection } from './decisions-section';
import { NextSection } from './next-section';
import { SaidSection } from './said-section';

type Props = { params: Promise<{ id: string }> };

export default page(async function MisfirePage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewCase(deps(), actor, (await params).id);
  mustShow(view);
  const { misfire, unitNumber, vehicleName, advice, layout, story, codes, facts, entries } = view.value;
  const freezes = freezesOf(entries);
  const canSay = misfire.state !== 'closed' && may(actor, 'record work');
  return (
    <>
      <PageHead
        title={`Misfire ${misfire.number}, unit ${unitNumber} ${vehicleName}`}
        actions={
          <>
            {canSay && misfire.state === 'open' && (
              <ButtonLink href={`/misfires/${misfire.id}/vehicle`} main>
                At the vehicle
              </ButtonLink>
            )}
            <ButtonLink href={`/misfires/${misfire.id}/paper`}>On paper</ButtonLink>
            <ButtonLink href={`/vehicles/${misfire.vehicleId}`}>Vehicle</ButtonLink>
          </>
        }
      >
        <HeadLine view={view.value} actor={actor} />
      </PageHead>
      <StopDriving advice={advice} />
      {advice.contradictions.length > 0 && (
        <div className="told" role="alert">
          <strong>Not all of this can be so.</strong>{' '}
          {advice.contradictions
            .map((contradiction) => `${contradiction[0]?.toUpperCase()}${contradiction.slice(1)}.`)
            .join(' ')}
        </div>
      )}
      <div className="misfire">
        <div>
          <Section title="Suspected cause" aside={codes.length > 0 && codes.map(({ code }) => code).join(' ')}>
            <SuspicionDrawing layout={layout} byCylinder={advice.byCylinder} codes={codes} maxH="300px" />
            {codes.map(({ code, says }) => (
              <div key={code}>
                <Code>{code}</Code> {says ?? 'not a code of ignition, mixture or injectors'}
                {freezes.get(code) && <div className="soft small">{freezes.get(code)}</div>}
              </div>
            ))}
          </Section>
          <Section title="Cause" aside="before · now">
            <CauseList advice={advice} ignition={facts.engine.ignition} away={story.away} />
          </Section>
        </div>
        <div className="misfire-next">
          <NextSection view={view.value} canSay={canSay} mayMend={may(actor, 'open work orders')} />
          <DecisionsSection view={view.value} canDecide={may(actor, 'record work')} />
        </div>
        <div>
          <ChangedSection view={view.value} system={actor.unitSystem} />
          <SaidSection view={view.value} canSay={canSay} system={actor.unitSystem} />
        </div>
      </div>
      <p className="soft small">A suspicion with its evidence, never a verdict; the figures behind it are assumed.</p>
    </>
  );
});

/** Engine, since when, how it shows, and where the case stands. */
function HeadLine({ view, actor }: { view: CaseView; actor: Actor }) {
  const { misfire, family, story, depot, orderNumber, odometerKm } = view;
  const { watchUntilKm, state } = misfire;
  return (
    <>
      <strong>{CASE_STATE_WORDS[state]}</strong>
      {misfire.workOrderId && orderNumber !== null && (
        <>
          {': '}
          <TextLink href={`/work-orders/${misfire.workOrderId}`}>work order {orderNumber}</TextLink>
        </>
      )}
      {state === 'watching' && watchUntilKm !== null && ` until ${distanceText(watchUntilKm, actor.unitSystem)}`}
      {state === 'watching' && odometerKm !== null && `, now ${distanceText(odometerKm, actor.unitSystem)}`} ·{' '}
      {family.code} · {depot} · since {dateText(misfire.openedOn)}
      {story.symptoms.length > 0 && ` · ${story.symptoms.map((symptom) => SYMPTOM_WORDS[symptom]).join(', ')}`} ·{' '}
      {LAMP_WORDS[story.lamp]}
      {story.spoken.length > 0 && ` · named in words: ${cylindersText(story.spoken)}`}
      {view.tank.lost !== null && ` · range of a tank ${percentText(view.tank.lost)}`}
    </>
  );
}
