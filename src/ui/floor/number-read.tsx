'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { useId } from 'react';
import type { FloorJob } from '@/core/floor/job';
import { fromSi } from '@/core/units/unit';
import { unitsOf } from './number-field';
import { FieldHead, Press } from './parts';

/** A number as it is read off the part: typed, or pressed when it reads as it should. */
export function NumberRead({
  label,
  value,
  known,
  offer,
  offered = 'reads',
  verdict,
  onChange,
}: {
  label: string;
  value: string;
  known: string;
  offer: string | null;
  /** Before the number that is offered. */
  offered?: string;
  verdict: { readonly words: string; readonly well: boolean } | null;
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <Box>
      <label htmlFor={id}>
        <FieldHead name={label} known={known} />
      </label>
      <Flex gap="2" wrap="wrap" align="center">
        <chakra.input
          id={id}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          flex="1 1 160px"
          minW="0"
          minH="52px"
          px="3"
          bg="sheet"
          border="1px solid"
          borderColor="line"
          rounded="sm"
          fontSize="20px"
          fontFamily="mono"
        />
        {offer && value === '' && (
          <Press mono onPress={() => onChange(offer)}>
            {offered} {offer}
          </Press>
        )}
        {verdict && (
          <Box fontSize="15px" fontWeight="650" color={verdict.well ? 'action' : 'wrong.ink'}>
            {verdict.well ? '✓ ' : '✕ '}
            {verdict.words}
          </Box>
        )}
      </Flex>
    </Box>
  );
}

/** One press for what a wire gauge says; the pad is there for what lies between. */
export function GaugeRow({
  steps,
  job,
  value,
  label,
  onPick,
}: {
  steps: readonly number[];
  job: FloorJob;
  value: number | null;
  label: string;
  onPick: (text: string) => void;
}) {
  const unit = unitsOf(job.units).gap;
  const decimals = unit === 'mm' ? 2 : 3;
  return (
    <Flex gap="1.5" wrap="wrap" mt="2" role="group" aria-label={label}>
      {steps.map((mm) => {
        const shown = fromSi(mm, unit).toFixed(decimals);
        return (
          <Press
            key={mm}
            chosen={value !== null && Math.abs(value - mm) < 0.003}
            onPress={() => onPick(`${shown} ${unit}`)}
          >
            {shown}
          </Press>
        );
      })}
    </Flex>
  );
}
