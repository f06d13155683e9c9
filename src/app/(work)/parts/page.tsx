import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, NotShown, page } from '@/app/shown-page';
import type { SuffixCheck } from '@/core/catalogue/suffix';
import { may } from '@/server/access';
import { findPart, listParts, viewPart } from '@/server/catalogue/view-part';
import { deps } from '@/server/deps';
import { gapText, NONE } from '@/text/format';
import { NumberSays } from '@/ui/parts/number-says';
import { PartInHand } from '@/ui/parts/part-in-hand';
import { PartSearch } from '@/ui/parts/part-search';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';

type Props = { searchParams: Promise<{ number?: string; unit?: string }> };

export default page(async function PartsPage({ searchParams }: Props) {
  const actor = await requireActor();
  const { number = '', unit = '' } = await searchParams;
  const parts = await listParts(deps(), actor);
  mustShow(parts);
  return (
    <>
      <PageHead
        title="Parts"
        actions={
          <>
            <ButtonLink href="/engines/export?of=parts" download>
              CSV
            </ButtonLink>
            {may(actor, 'enter catalogue data') && <ButtonLink href="/parts/new">New part</ButtonLink>}
          </>
        }
      >
        What is the part in my hand, and where may it go?
      </PageHead>
      <PartSearch key={`${number} ${unit}`} initial={number} initialUnit={unit} />
      {number !== '' && <InHand number={number.slice(0, 200)} unit={unit.slice(0, 40)} />}
      <Section title="Catalogue" aside={`${parts.value.length} parts`}>
        {parts.value.length === 0 && <Empty>No part yet. Import parts.csv, or enter the first one by hand.</Empty>}
        <Catalogue parts={parts.value} system={actor.unitSystem} />
      </Section>
    </>
  );
});

async function InHand({ number, unit }: { number: string; unit: string }) {
  const actor = await requireActor();
  const match = await findPart(deps(), actor, number);
  if (!match.ok) return <NotShown error={match.error} />;
  const { part, near, number: read } = match.value;
  if (part) return <Known id={part.id} unit={unit} />;
  const base = read?.kind === 'read' ? read.base : null;
  const samePlug = read?.kind === 'read' && base && onlyGapDiffers(read.checks);
  return (
    <>
      <Box
        role="status"
        bg={samePlug ? 'tint' : 'wrong.bg'}
        color={samePlug ? 'ink' : 'wrong.ink'}
        p="4"
        rounded="sm"
        mb="5"
        maxW="860px"
      >
        <strong>
          <Code>{number.slice(0, 40)}</Code> is not in the catalogue.
        </strong>{' '}
        {unknownWords(Boolean(samePlug), Boolean(base))}
        {read && (
          <Box mt="1" color="ink">
            <NumberSays number={read} system={actor.unitSystem} />
          </Box>
        )}
        {near.length > 0 && !samePlug && (
          <Box as="ul" pl="4" mt="1">
            {near.map((other) => (
              <li key={other.number}>
                Did you mean{' '}
                <TextLink href={`/parts?number=${encodeURIComponent(other.number)}`}>{other.number}</TextLink>?{' '}
                {other.why}
              </li>
            ))}
          </Box>
        )}
      </Box>
      {samePlug && <Known id={base.id} unit={unit} />}
    </>
  );
}

/** The same plug as its base, but for the gap it is sold with. */
const onlyGapDiffers = (checks: readonly SuffixCheck[]): boolean =>
  checks.every((check) => check.verdict !== 'contradicts' || check.attribute === 'preGapMm');

async function Known({ id, unit }: { id: string; unit: string }) {
  const view = await viewPart(deps(), await requireActor(), id);
  return view.ok ? <PartInHand view={view.value} unit={unit} /> : <Empty>{view.error.message}</Empty>;
}

type Listed = Extract<Awaited<ReturnType<typeof listParts>>, { ok: true }>['value'];

type ListedPart = Listed[number];

function Catalogue({ parts, system }: { parts: Listed; system: 'metric' | 'us' }) {
  if (parts.length === 0) return null;
  const columns: readonly Column<ListedPart>[] = [
    {
      head: 'Number',
      value: ({ part }) => part.number,
      cell: ({ part }) => (
        <TextLink href={`/parts/${part.id}`}>
          <Code>{part.number}</Code>
        </TextLink>
      ),
    },
    { head: 'Maker', value: ({ part }) => part.maker },
    { head: 'Kind', value: ({ part }) => part.kind.replace('_', ' ') },
    {
      head: 'What',
      value: ({ part }) =>
        [part.thread, part.reachMm && `${part.reachMm} mm`, part.seat, part.name].filter(Boolean).join(', '),
    },
    {
      head: 'Gap as sold',
      value: ({ part }) => part.preGapMm,
      cell: ({ part }) => <span className="nowrap">{gapText(part.preGapMm, system)}</span>,
    },
    { head: 'On hand', value: ({ part }) => part.onHand, numeric: true },
    {
      head: 'Price',
      value: ({ part }) => part.price,
      cell: ({ part }) => part.price?.toFixed(2) ?? NONE,
      numeric: true,
    },
    {
      head: 'Today',
      value: ({ current }) => currentWords(current) || null,
      cell: ({ current }) => currentWords(current),
    },
  ];
  return <ListTable noun="parts" dense items={parts} idOf={({ part }) => part.id} columns={columns} />;
}

/** What replaced a part, in words; empty: nothing did. */
function currentWords(current: ListedPart['current']): string {
  if (current.kind === 'replaced') return `${current.redesigned ? 'redesigned as' : 'now'} ${current.part.number}`;
  return current.kind === 'needs-answer'
    ? `two successors: ${current.successors.map(({ number }) => number).join(', ')}`
    : '';
}

/** What a number that is not in the catalogue may be. */
function unknownWords(samePlug: boolean, hasBase: boolean): string {
  if (samePlug) return 'Its number reads as the part below with another gap.';
  return hasBase
    ? 'Its number reads as another plug than the one its base names. Do not fit it.'
    : 'Do not fit what is not known.';
}
