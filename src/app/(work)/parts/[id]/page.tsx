import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { scopeWords } from '@/core/catalogue/scope';
import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import { type PartView, viewPart } from '@/server/catalogue/view-part';
import { deps } from '@/server/deps';
import { partFields } from '@/server/exports/catalogue-csv';
import { kindOf } from '@/server/imports/kinds';
import { COMPONENT_WORDS, ELECTRODE_WORDS, MIXING_WORDS, resistorWords } from '@/text/catalogue-words';
import { dateText, distanceText, gapText, NONE } from '@/text/format';
import { EntryForm } from '@/ui/catalogue/entry-form';
import { HistoryGraph } from '@/ui/parts/history-graph';
import { NumberSays } from '@/ui/parts/number-says';
import { PartInHand } from '@/ui/parts/part-in-hand';
import { TextLink } from '@/ui/primitives/links';
import { Code, Facts, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { enterRowAction } from '../../engines/actions';

type Props = { params: Promise<{ id: string }> };

export default page(async function PartPage({ params }: Props) {
  const actor = await requireActor();
  const answered = await viewPart(deps(), actor, (await params).id);
  mustShow(answered);
  const view = answered.value;
  const { part } = view;
  return (
    <>
      <PageHead title={part.number} mono>
        {COMPONENT_WORDS[part.kind]} by {part.maker}
        {part.name && `, ${part.name}`}
      </PageHead>
      <PartInHand view={view} />
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Section title="What decides fit">
          <Attributes view={view} system={actor.unitSystem} />
          {view.number && (
            <Box mt="3">
              <strong>What its number says</strong>
              <NumberSays number={view.number} system={actor.unitSystem} />
            </Box>
          )}
        </Section>
        <Section title="History of its number">
          <History view={view} />
        </Section>
      </Grid>
      <Equivalents view={view} />
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Named view={view} />
        <FittedNow view={view} />
      </Grid>
      {may(actor, 'enter catalogue data') && (
        <>
          <details>
            <summary>Change this part</summary>
            <Box mt="3">
              <EntryForm
                kind="parts"
                columns={kindOf('parts').columns.filter((column) => column.key !== 'number')}
                values={partFields(part)}
                hidden={{ number: part.number, back: `/parts/${part.id}` }}
                action={enterRowAction}
                save="Save the part"
              />
            </Box>
          </details>
          <details>
            <summary>Record that another number takes its place</summary>
            <Box mt="3">
              <EntryForm
                kind="supersessions"
                columns={kindOf('supersessions').columns.filter((column) => column.key !== 'old_number')}
                values={{ supersession: 'renumbered' }}
                hidden={{ old_number: part.number, back: `/parts/${part.id}` }}
                action={enterRowAction}
                save="Save the supersession"
              />
            </Box>
          </details>
        </>
      )}
    </>
  );
});

function Attributes({ view: { part, stock }, system }: { view: PartView; system: UnitSystem }) {
  const mm = (value: number | null): string => (value === null ? 'not recorded' : `${value} mm`);
  const plug = part.kind === 'plug';
  return (
    <Facts
      rows={[
        ...(plug
          ? ([
              [
                'Thread',
                `${part.thread ?? NONE}${part.pitchMm === null ? ', pitch not recorded' : ` × ${part.pitchMm} mm`}`,
              ],
              ['Reach', mm(part.reachMm)],
              ['Seat', part.seat ?? 'not recorded'],
              ['Projection', mm(part.projectionMm)],
              ['Hexagon', mm(part.hexMm)],
              ['Electrode', part.electrode ? ELECTRODE_WORDS[part.electrode] : 'not recorded'],
              ['Resistor', resistorWords(part.resistor) ?? 'not recorded'],
              ['Heat range', part.heatRange === null ? 'not recorded' : `${part.heatRange}, ${part.maker}’s own scale`],
              ['Shell', part.shell ?? 'not recorded'],
              ['Gap as sold', gapText(part.preGapMm, system)],
            ] as const)
          : []),
        ['Terminal', part.terminal ?? 'not recorded'],
        ...(part.lengthsMm ? [['Lengths in the box', `${part.lengthsMm.join(', ')} mm`] as const] : []),
        [
          'Bought',
          `${part.packSize ?? NONE} a box, ${part.price?.toFixed(2) ?? NONE} each, ${part.leadDays ?? NONE} days`,
        ],
        ['Approved sources', part.approvedSources?.join(', ') ?? 'none named'],
        [
          'Warranty',
          [
            part.warrantyMonths === null ? null : `${part.warrantyMonths} months`,
            part.warrantyKm === null ? null : distanceText(part.warrantyKm, system),
          ]
            .filter(Boolean)
            .join(' or ') || 'none known',
        ],
        ['On hand', part.onHand ?? 'not counted'],
        ...(stock && stock.layers.length > 0 ? [['Use first', stockText(stock)] as const] : []),
        ...(part.note ? [['Note', part.note] as const] : []),
      ]}
    />
  );
}

/** The oldest goes out first. */
function stockText({ layers, undatedQuantity }: NonNullable<PartView['stock']>): string {
  const dated = layers.map(
    ({ quantity, receivedOn, lot }) => `${quantity} of ${dateText(receivedOn)}${lot ? `, lot ${lot}` : ''}`,
  );
  return [...(undatedQuantity > 0 ? [`${undatedQuantity} from before any delivery on record`] : []), ...dated].join(
    '; then ',
  );
}

function History({ view: { part, history, edges, mixes } }: { view: PartView }) {
  if (history.length < 2) return <Box color="soft">No other number replaces it, and it replaces none.</Box>;
  return (
    <>
      <HistoryGraph
        current={part.numberKey}
        parts={history.map((p) => ({ key: p.numberKey, number: p.number, id: p.id, onHand: p.onHand }))}
        edges={edges}
      />
      {edges.map(({ from, to, kind, row }) => (
        <Box key={`${from}${to}`} mt="1" fontSize="sm">
          {history.find((p) => p.numberKey === from)?.number} → {history.find((p) => p.numberKey === to)?.number}:{' '}
          {kind}
          {row?.since && ` since ${dateText(row.since)}`}, {row?.source}
          {row?.note && `. ${row.note}`}
        </Box>
      ))}
      {mixes.map(({ part: other, mixing }) => (
        <Box key={other.id} mt="1" fontWeight={mixing === 'never-mix' ? '650' : '400'}>
          With <Code>{other.number}</Code>: {MIXING_WORDS[mixing]}
        </Box>
      ))}
    </>
  );
}

const VERDICTS = { equivalent: 'equivalent', refused: 'refused', 'cannot-tell': 'cannot be told' } as const;

function Equivalents({ view: { comparisons, part } }: { view: PartView }) {
  const order = { equivalent: 0, 'cannot-tell': 1, refused: 2 };
  const list = [...comparisons].sort(
    (a, b) => order[a.verdict] - order[b.verdict] || differences(a).length - differences(b).length,
  );
  if (part.kind !== 'plug' || list.length === 0) return null;
  return (
    <Section title="What could stand for it" aside="every attribute compared; an unknown one never counts as equal">
      <PlainTable heads={['Part', 'Verdict', 'What differs, and why it matters']}>
        {list.slice(0, 12).map((comparison) => (
          <tr key={comparison.part.id}>
            <td className="nowrap">
              <TextLink href={`/parts/${comparison.part.id}`}>
                <Code>{comparison.part.number}</Code>
              </TextLink>{' '}
              <Box as="span" color="soft">
                {comparison.part.maker}
              </Box>
            </td>
            <td className={comparison.verdict === 'equivalent' ? 'nowrap strong' : 'nowrap'}>
              {VERDICTS[comparison.verdict]}
            </td>
            <td>
              {differences(comparison).map((a) => (
                <Box key={a.attribute}>
                  {a.attribute}: {a.ours ?? '?'} against {a.theirs ?? '?'}.{' '}
                  <Box as="span" color="soft">
                    {a.why}
                  </Box>
                </Box>
              ))}
              {differences(comparison).length === 0 && 'nothing'}
            </td>
          </tr>
        ))}
      </PlainTable>
    </Section>
  );
}

const differences = (comparison: PartView['comparisons'][number]) =>
  comparison.attributes.filter((a) => a.verdict !== 'same' && !(a.verdict === 'allowed' && a.why === ''));

function Named({ view: { sheets } }: { view: PartView }) {
  return (
    <Section title="Sheets that name it">
      {sheets.length === 0 && <Box color="soft">None.</Box>}
      {sheets.map((sheet) => (
        <Box key={sheet.id}>
          <TextLink href={`/engines/${sheet.engineFamilyId}`}>{sheet.familyCode}</TextLink>, {scopeWords(sheet)}:{' '}
          <Code>{sheet.part.number}</Code>{' '}
          <Box as="span" color="soft">
            {sheet.sourceDocument}
          </Box>
        </Box>
      ))}
    </Section>
  );
}

function FittedNow({ view: { fittedIn } }: { view: PartView }) {
  return (
    <Section title="Fitted now, by the record">
      {fittedIn.length === 0 && <Box color="soft">In no vehicle.</Box>}
      <Box display="flex" flexWrap="wrap" columnGap="4">
        {fittedIn.map((vehicle) => (
          <Box key={vehicle.id}>
            <TextLink href={`/vehicles/${vehicle.id}`}>
              {vehicle.unitNumber} {vehicle.name}
            </TextLink>{' '}
            <Box as="span" color="soft">
              {vehicle.sites} sites
            </Box>
          </Box>
        ))}
      </Box>
    </Section>
  );
}
