'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { checkGaps, type GapVerdict, gapTarget, gaugeAdvice } from '@/core/gap/check';
import type { Mm } from '@/core/shared/kinds';
import { personUnits, type UnitSystem } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import type { FloorJob, FloorSite } from '@/core/work/job-record';
import { quantityIn, siteIn } from '@/core/work/order-model';
import { siteTarget } from '@/core/work/targets';
import { gapText, rangeTexts } from '@/text/format';
import { Caution } from '../../primitives/page';
import type { Floor } from '../sync/use-floor';
import { NumberField } from './number-field';
import { NumberPad } from './number-pad';
import { Press } from './parts';

const BATCH_WORDS: Readonly<Record<string, string>> = {
  good: 'Every gap is in range.',
  wrong_application:
    'All alike, and off: gapped for another application. Check the part number before anything is bent.',
  handling_damage: 'One differs from the rest: handling damage. Set it aside.',
  adjust_individually: 'Some want to be set one by one.',
};

interface NewPlugRow {
  readonly site: FloorSite;
  readonly number: string;
  /** As typed. */
  readonly gap: string;
  readonly mm: Mm | null;
  readonly done: boolean;
}

const rowsOf = ({ job, record }: Pick<Floor, 'job' | 'record'>): readonly NewPlugRow[] =>
  job.sites.map((site) => {
    const { newNumber: number, newGap: gap, done } = siteIn(record, site.id);
    return { site, number, gap, mm: quantityIn(job, site.id, 'newGap', gap, personUnits(job.units)), done };
  });

/** The new plugs on the bench, before anything is opened: number and gap of each, judged one by one and as a set. */
export function SetPanel({ floor }: { floor: Floor }) {
  const { job, set, edit } = floor;
  const [active, setActive] = useState(job.sites[0]?.id ?? '');
  const units = personUnits(job.units);
  const { rules } = job;
  const rows = rowsOf(floor);
  const measured = rows.filter((row) => row.mm !== null);
  const check =
    measured.length === 0
      ? null
      : checkGaps(
          rules.gap,
          rules.electrode,
          rules.regap,
          measured.map((row) => row.mm ?? 0),
        );
  const verdict = new Map(measured.map((row, i) => [row.site.id, check?.plugs[i]]));
  const unread = rows.filter((row) => row.number === '');
  const putGap = (id: string, text: string) => set(siteTarget(id), 'newGap', text);
  const [range, other] = rangeTexts(rules.gap.minMm, rules.gap.maxMm, job.units, 'gap');
  const chips = [...new Set([rules.gap.minMm, gapTarget(rules.gap), rules.gap.maxMm])].map(
    (mm) => `${fromSi(mm, units.gap).toFixed(units.gap === 'mm' ? 2 : 3)} ${units.gap}`,
  );
  return (
    <Flex gap="5" wrap="wrap" align="flex-start">
      <Box flex="1 1 360px" minW="0">
        <Box fontSize="18px" mb="2">
          {job.sites.length} × <strong>{rules.partNumber}</strong>, gap {range} · {other}.{' '}
          {gaugeAdvice(rules.electrode)}
        </Box>
        {unread.length > 0 && (
          <Press
            wide
            onPress={() => {
              for (const { site } of unread) set(siteTarget(site.id), 'newNumber', rules.partNumber);
            }}
          >
            Read off each: {unread.length === rows.length ? 'all' : `the other ${unread.length}`} read{' '}
            {rules.partNumber}
          </Press>
        )}
        {rows.map((row) => (
          <NewPart
            key={row.site.id}
            row={row}
            job={job}
            chips={chips}
            active={active === row.site.id}
            verdict={verdict.get(row.site.id)}
            onActive={() => {
              setActive(row.site.id);
              edit(siteTarget(row.site.id), 'newGap');
            }}
            onChange={(text) => putGap(row.site.id, text)}
          />
        ))}
      </Box>
      <Box flex="0 1 280px" position={{ md: 'sticky' }} top="2">
        <NumberPad
          at={active}
          kind="gap"
          value={rows.find((row) => row.site.id === active)?.gap ?? ''}
          unit={units.gap}
          onChange={(text) => {
            edit(siteTarget(active), 'newGap');
            putGap(active, text);
          }}
        />
        {check && measured.length > 1 && (
          <Box mt="3" role="status" fontSize="18px" fontWeight="650">
            {measured.length} of {rows.length} measured. {BATCH_WORDS[check.batch.verdict]}
          </Box>
        )}
        <Box mt="3">
          <Caution>
            A wrong reach can strike the piston: compare a new plug with the first one out. All present, right and
            measured, else do not open the engine.
          </Caution>
        </Box>
      </Box>
    </Flex>
  );
}

function verdictWords({ action, byMm }: GapVerdict, system: UnitSystem) {
  if (action === 'accept') return { words: 'in range', good: true };
  return { words: action === 'reject' ? 'set it aside' : `${action} by ${gapText(byMm, system)}`, good: false };
}

/** One new plug: its gap as measured, by pad or by what a gauge offers. */
function NewPart({
  row: { site, number, gap, mm, done },
  job,
  chips,
  active,
  verdict,
  onActive,
  onChange,
}: {
  row: NewPlugRow;
  job: FloorJob;
  chips: readonly string[];
  active: boolean;
  verdict: GapVerdict | undefined;
  onActive: () => void;
  onChange: (text: string) => void;
}) {
  return (
    <Box borderBottom="1px solid" borderColor="hair" pb="2">
      <NumberField
        field="newGap"
        name={`New plug for site ${site.name}`}
        known={number === '' ? 'number not read yet' : `reads ${number}`}
        value={gap}
        system={job.units}
        active={active}
        verdict={mm === null || !verdict ? null : verdictWords(verdict, job.units)}
        onActive={onActive}
        onChange={onChange}
      />
      {!done && (
        <Flex gap="1.5" mt="1.5" wrap="wrap">
          {chips.map((text) => (
            <Press key={text} chosen={text === gap} onPress={() => onChange(text)}>
              {text}
            </Press>
          ))}
        </Flex>
      )}
    </Box>
  );
}
