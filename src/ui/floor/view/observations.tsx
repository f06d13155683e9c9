'use client';

import { Box, Grid } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { CONDITIONS, type Condition, type ConditionRegion, NORMAL, REGIONS_OF } from '@/core/inspection/vocabulary';
import type { Mm } from '@/core/shared/kinds';
import type { Seen } from '@/core/work/place-fields';
import { REGION_WORDS } from '@/text/condition-words';
import { PlugDrawing } from '../../drawings/plug-drawing';
import { FieldHead, Press } from './parts';

const SEVERITY: Readonly<Record<number, string>> = { 1: 'just visible', 2: 'clear', 3: 'beyond doubt' };

/** The next press on a word: clear, beyond doubt, just visible, taken back. What is normal is seen or not. */
function pressed(seen: Seen, word: Condition): Seen {
  const { [word]: now, ...rest } = seen;
  if (now === undefined) return { ...seen, [word]: 2 };
  if (NORMAL.has(word) || now === 1) return rest;
  return { ...seen, [word]: now === 2 ? 3 : 1 };
}

/** What the plug, its place and what stands above it show: words by region beside the drawing of what was said. */
export function Observations({
  seen,
  gapMm,
  seat,
  above,
  onChange,
  below,
}: {
  seen: Seen;
  gapMm: Mm | null;
  seat: 'gasket' | 'conical';
  /** What stands above the plug. */
  above?: 'coil' | 'lead';
  onChange: (seen: Seen) => void;
  below: (region: ConditionRegion) => ReactNode;
}) {
  const marked = REGIONS_OF.plug.filter((region) => seat === 'gasket' || region !== 'gasket');
  return (
    <Grid templateColumns={{ base: 'minmax(0, 1fr)', md: '130px minmax(0, 1fr)' }} gap="3">
      <Box display={{ base: 'none', md: 'block' }} position="sticky" top="0" alignSelf="start">
        <PlugDrawing seen={seen} gapMm={gapMm} seat={seat} title="The plug as it was described" />
      </Box>
      <Words seen={seen} regions={[...marked, ...(above ? [above] : [])]} onChange={onChange} below={below} />
    </Grid>
  );
}

/** Words by region, each a press. */
export function Words({
  seen,
  regions,
  onChange,
  below,
}: {
  seen: Seen;
  regions: readonly ConditionRegion[];
  onChange: (seen: Seen) => void;
  /** What a region asks for once one of its words is pressed. */
  below?: (region: ConditionRegion) => ReactNode;
}) {
  return (
    <Box minW="0">
      {regions.map((region) => (
        <Box key={region} role="group" aria-label={REGION_WORDS[region]}>
          <FieldHead name={REGION_WORDS[region]} />
          <div className="press-row">
            {CONDITIONS[region].map((word) => {
              const severity = seen[word];
              return (
                <Press key={word} chosen={severity !== undefined} onPress={() => onChange(pressed(seen, word))}>
                  {word}
                  {severity !== undefined && !NORMAL.has(word) && `: ${SEVERITY[severity]}`}
                </Press>
              );
            })}
          </div>
          {below?.(region)}
        </Box>
      ))}
    </Box>
  );
}
