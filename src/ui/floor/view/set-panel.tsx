'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { checkGaps, gapTarget, gaugeAdvice } from '@/core/gap/check';
import { personUnits } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import { quantityIn } from '@/core/work/order-model';
import { siteTarget } from '@/core/work/targets';
import { rangeTexts } from '@/text/format';
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

/** The new plugs on the bench, before anything is opened: number and gap of each, judged one by one and as a set. */
export function SetPanel({ floor }: { floor: Floor }) {
  const { job, record, set, edit } = floor;
  const [active, setActive] = useState(job.sites[0]?.id ?? '');
  const units = personUnits(job.units);
  const { rules } = job;
  const rows = job.sites.map((site) => {
    const fields = record[siteTarget(site.id)] ?? {};
    return {
      site,
      number: String(fields.newNumber ?? ''),
      gap: String(fields.newGap ?? ''),
      mm: quantityIn(job, site.id, 'newGap', String(fields.newGap ?? ''), units),
      done: fields.done === true,
    };
  });
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
        {rows.map(({ site, number, gap, mm, done }) => {
          const own = verdict.get(site.id);
          return (
            <Box key={site.id} borderBottom="1px solid" borderColor="hair" pb="2">
              <NumberField
                field="newGap"
                name={`New plug for site ${site.name}`}
                known={number === '' ? 'number not read yet' : `reads ${number}`}
                value={gap}
                system={job.units}
                active={active === site.id}
                verdict={
                  mm === null || !own
                    ? null
                    : own.action === 'accept'
                      ? { words: 'in range', good: true }
                      : {
                          words:
                            own.action === 'reject' ? 'set it aside' : `${own.action} by ${own.byMm.toFixed(2)} mm`,
                          good: false,
                        }
                }
                onActive={() => {
                  setActive(site.id);
                  edit(siteTarget(site.id), 'newGap');
                }}
                onChange={(text) => putGap(site.id, text)}
              />
              {!done && (
                <Flex gap="1.5" mt="1.5" wrap="wrap">
                  {chips.map((text) => (
                    <Press key={text} chosen={text === gap} onPress={() => putGap(site.id, text)}>
                      {text}
                    </Press>
                  ))}
                </Flex>
              )}
            </Box>
          );
        })}
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
