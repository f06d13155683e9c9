'use client';

import { Box, chakra, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { type LeadMatch, matchLeads } from '@/core/wiring/lead-match';
import { routingNotes } from '@/core/wiring/lead-routing';
import { paint } from '@/ui/theme/paint';
import type { FormAction } from '../primitives/action-form';
import { LiveLines, LiveSelect } from '../primitives/live-fields';
import { Caution } from '../primitives/page';
import type { ToolProps } from './bench-data';
import { KeepForm } from './keep-form';

const numbers = (text: string): number[] =>
  (text.match(/\d+(?:[.,]\d+)?/g) ?? []).map((t) => Number(t.replace(',', '.')));

/** Of the lead sets in the catalogue the one that fits with least slack. */
function bestSet(data: ToolProps['data'], needed: readonly number[]) {
  const fitting = data.leadSets.flatMap((set) => {
    const { totalSlackMm } = matchLeads(needed, set.lengthsMm);
    return totalSlackMm === null ? [] : [{ set, totalSlackMm }];
  });
  return fitting.sort((a, b) => a.totalSlackMm - b.totalSlackMm)[0]?.set;
}

/** A new set of leads to the places of the old by length. */
export function LeadBench({ data, keep }: ToolProps & { keep: FormAction }) {
  const withLeads = data.engines.filter((e) => e.leadLengthsMm);
  const [engineId, setEngineId] = useState(withLeads[0]?.id ?? '');
  const start = bestSet(data, withLeads[0]?.leadLengthsMm ?? []);
  const [setId, setSetId] = useState(start?.id ?? '');
  const [needed, setNeeded] = useState(withLeads[0]?.leadLengthsMm?.join(' ') ?? '');
  const [fresh, setFresh] = useState(start?.lengthsMm.join(' ') ?? '');
  const chooseEngine = (id: string): void => {
    setEngineId(id);
    const lengths = withLeads.find((e) => e.id === id)?.leadLengthsMm;
    if (!lengths) return;
    setNeeded(lengths.join(' '));
    const fitting = bestSet(data, lengths);
    if (!fitting) return;
    setSetId(fitting.id);
    setFresh(fitting.lengthsMm.join(' '));
  };
  const chooseSet = (id: string): void => {
    setSetId(id);
    const lengths = data.leadSets.find((s) => s.id === id)?.lengthsMm;
    if (lengths) setFresh(lengths.join(' '));
  };
  const [places, leads] = [numbers(needed), numbers(fresh)];
  const engine = withLeads.find((e) => e.id === engineId);
  const matched = places.length > 0 && leads.length > 0 ? matchLeads(places, leads) : null;
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '340px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <LiveSelect
            label="Engine"
            value={engineId}
            onChange={chooseEngine}
            choices={[
              ...withLeads.map((e) => ({ value: e.id, label: `${e.code}, ${e.name}` })),
              { value: '', label: 'typed' },
            ]}
          />
          <LiveLines label="Lengths needed, in order of cylinder" hint="mm" value={needed} onChange={setNeeded} />
          <LiveSelect
            label="New set"
            value={setId}
            onChange={chooseSet}
            choices={[...data.leadSets.map((s) => ({ value: s.id, label: s.number })), { value: '', label: 'typed' }]}
          />
          <LiveLines label="Lengths in the box" hint="mm, typed or pasted" value={fresh} onChange={setFresh} />
        </Box>
        <Box minW="0">
          {matched && <Outcome match={matched} places={places} leads={leads} />}
          {matched?.feasible && <Drawing match={matched} places={places} leads={leads} />}
          {matched?.feasible && engine && (
            <Box as="ul" pl="5" mb="3" aria-label="When the leads are laid" css={{ listStyle: 'disc' }}>
              {routingNotes(engine.banks, engine.firingOrder, slackOf(matched, places, leads)).map((note) => (
                <li key={note}>{note}</li>
              ))}
            </Box>
          )}
          <Caution>
            Take one lead off at a time, or lay a template: a lead on the wrong tower can backfire into the intake.
          </Caution>
        </Box>
      </Grid>
      <KeepForm
        tool="leads"
        action={keep}
        kept={{ input: { needed, fresh }, summary: matched ? summaryText(matched, places, leads) : null }}
      />
    </>
  );
}

const slackOf = (matched: LeadMatch, places: readonly number[], leads: readonly number[]): readonly number[] =>
  places.map((need, place) => (leads[matched.assignment[place] ?? 0] ?? need) - need);

interface Props {
  readonly match: LeadMatch;
  readonly places: readonly number[];
  readonly leads: readonly number[];
}

function Outcome({ match, places, leads }: Props) {
  return (
    <Box
      role="status"
      mb="3"
      px="3"
      py="2"
      rounded="sm"
      bg={match.feasible ? 'tint' : 'wrong.bg'}
      color={match.feasible ? 'ink' : 'wrong.ink'}
      fontWeight="650"
    >
      {summaryText(match, places, leads)}
    </Box>
  );
}

function summaryText(matched: LeadMatch, places: readonly number[], leads: readonly number[]): string {
  if (!matched.feasible)
    return leads.length < places.length
      ? `${leads.length} leads for ${places.length} places: the set is not whole.`
      : `No lead left is long enough for place ${(matched.tooShortFor ?? 0) + 1} (${places[matched.tooShortFor ?? 0]} mm). This set does not fit.`;
  const spare = matched.spare.map((i) => `${leads[i]} mm`).join(', ');
  const pairs = matched.assignment.map((lead, place) => `${place + 1}: ${leads[lead]} mm`).join(', ');
  const ties =
    matched.ties.length > 0
      ? ` Places ${matched.ties.map((i) => i + 1).join(', ')} have leads of one length: either may go there.`
      : '';
  return `Fits, ${matched.totalSlackMm} mm of slack in all. ${pairs}.${spare ? ` Left over: ${spare}${matched.spare.length === 1 ? ', the coil lead if the kit has one' : ''}.` : ''}${ties}`;
}

const ROW = 34;
const SCALE = 0.42;

/** Each place as a line of its own length, the lead laid along it. */
function Drawing({ match, places, leads }: Props) {
  const longest = Math.max(...places, ...leads);
  return (
    <chakra.svg
      viewBox={`0 0 ${longest * SCALE + 190} ${places.length * ROW + 16}`}
      w="100%"
      maxH="420px"
      maxW="680px"
      role="img"
      aria-label={summaryText(match, places, leads)}
      mb="3"
      css={{ '& text': { fontFamily: 'body' } }}
    >
      {places.map((need, place) => {
        const lead = leads[match.assignment[place] ?? 0] ?? 0;
        const y = place * ROW + 22;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a place is known by its number
          <g key={place}>
            <text x={0} y={y + 5} fill={paint('ink')} style={{ fontSize: '15px', fontWeight: '700' }}>
              {place + 1}
            </text>
            <path d={`M28 ${y + 6} h${need * SCALE}`} stroke={paint('isobar')} strokeWidth={7} />
            <path
              d={`M28 ${y - 4} h${lead * SCALE}`}
              stroke={paint('action')}
              strokeWidth={4}
              strokeLinecap="round"
              fill="none"
            />
            <text x={36 + Math.max(need, lead) * SCALE} y={y + 5} fill={paint('soft')} style={{ fontSize: '13px' }}>
              {need} needed, {lead} mm
            </text>
          </g>
        );
      })}
    </chakra.svg>
  );
}
