import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { viewCase } from '@/server/misfire/view-case';
import { dateText, distanceText, percentText } from '@/text/format';
import { causeText, stepText } from '@/text/misfire-words';
import { freezesOf, saidText } from '@/text/said-words';
import { SuspicionDrawing } from '@/ui/misfire/suspicion-drawing';
import { Code, Facts, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { PrintButton } from '@/ui/primitives/print-button';
import { SafetyLines } from '../safety-lines';

type Props = { params: Promise<{ id: string }> };

/** All that is known of a misfire, for whoever goes on with it: a referral goes with the vehicle. */
export default page(async function MisfirePaperPage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewCase(deps(), actor, (await params).id);
  mustShow(view);
  const { misfire, unitNumber, vehicleName, family, depot, odometerKm, codes, advice, layout, facts, entries } =
    view.value;
  const { ignition } = facts.engine;
  const referred = entries.findLast(({ entry: { said } }) => said.kind === 'decided' && said.decision === 'refer')
    ?.entry.said;
  const [next] = advice.steps;
  const freezes = freezesOf(entries);
  return (
    <Box maxW="900px">
      <PageHead
        title={`${referred ? 'Referral' : 'Misfire'} ${misfire.number}, unit ${unitNumber} ${vehicleName}`}
        actions={<PrintButton />}
      >
        A suspicion with its evidence, never a verdict. The manufacturer’s service information comes first.
      </PageHead>
      {referred?.kind === 'decided' && (
        <Box fontSize="lg" fontWeight="650" mb="3">
          Asked: {referred.words}
        </Box>
      )}
      <div className="halves">
        <Section title="Vehicle">
          <Facts
            rows={[
              ['Engine', `${family.code}, ${layout.cylinders} cylinders`],
              ['Firing order', layout.model.firingOrder.join(' ')],
              ['Depot', depot],
              ['Odometer', distanceText(odometerKm, actor.unitSystem)],
              ['Since', dateText(misfire.openedOn)],
            ]}
          />
          {codes.map(({ code, says }) => (
            <div key={code}>
              <Code>{code}</Code> {says} {freezes.get(code) && <span className="soft">({freezes.get(code)})</span>}
            </div>
          ))}
        </Section>
        <Section title="Suspected cause">
          <SuspicionDrawing layout={layout} byCylinder={advice.byCylinder} codes={codes} maxH="200px" />
        </Section>
      </div>
      <Section title="Log" aside="in its order">
        <PlainTable heads={['Day', 'Who', 'What']}>
          {entries.map(({ entry, who }) => (
            <tr key={entry.id}>
              <td className="nowrap">{dateText(entry.at.toISOString().slice(0, 10))}</td>
              <td>{entry.driver ?? who ?? 'driver'}</td>
              <td>{saidText(entry.said, ignition, actor.unitSystem)}</td>
            </tr>
          ))}
        </PlainTable>
      </Section>
      <Section title="Suspected now">
        {advice.causes.map((cause) => `${causeText(cause)}: ${percentText(cause.probability)}`).join(' · ')}
        {next && <div>Would be next here: {stepText(next, ignition)}.</div>}
        {advice.contradictions.length > 0 && <div>Cannot all be so: {advice.contradictions.join('; ')}.</div>}
      </Section>
      <SafetyLines hybrid={family.hybrid} />
      <Section title="Found there">
        {['What it was', 'What was done', 'Parts', 'Codes after', 'By whom, on which day'].map((line) => (
          <Box key={line} borderBottom="1px solid" borderColor="line" pt="4" color="soft" fontSize="sm">
            {line}
          </Box>
        ))}
      </Section>
    </Box>
  );
});
