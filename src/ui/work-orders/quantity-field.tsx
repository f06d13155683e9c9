'use client';

import { Box, Button, chakra, Flex, Input } from '@chakra-ui/react';
import { useId, useState } from 'react';
import { PLAUSIBLE_BREAKAWAY, readQuantity } from '@/core/units/read-quantity';
import type { UnitName } from '@/core/units/unit';
import { gapText, torqueText } from '../format/format';
import { useFormState } from '../primitives/action-form';

interface Props {
  readonly kind: 'gap' | 'torque' | 'breakaway';
  readonly name: string;
  readonly label: string;
  readonly hint?: string;
  /** The unit that a bare number is read in. */
  readonly typedIn: UnitName;
  readonly defaultValue: string;
}

/** A quantity in any unit: says at once how it is read, and offers the likely reading of a slip. */
export function QuantityField({ kind, name, label, hint, typedIn, defaultValue }: Props) {
  const id = useId();
  const [text, setText] = useState(defaultValue);
  const fault = useFormState().fields[name];
  const base = kind === 'gap' ? 'gap' : 'torque';
  const reading =
    text.trim() === ''
      ? null
      : readQuantity({
          kind: base,
          text,
          personUnit: typedIn,
          window: kind === 'breakaway' ? PLAUSIBLE_BREAKAWAY : undefined,
        });
  const system = typedIn === 'in' || typedIn === 'lbf·ft' ? 'us' : 'metric';
  const shown =
    reading?.verdict === 'ok'
      ? base === 'gap'
        ? gapText(reading.valueSi, system)
        : torqueText(reading.valueSi, system)
      : null;
  return (
    <Box mb="3">
      <chakra.label htmlFor={id} color="soft" fontSize="sm" display="block">
        {label} ({typedIn})
      </chakra.label>
      <Box color="soft" fontSize="sm" minH="20px">
        {hint}
      </Box>
      <Input
        id={id}
        name={name}
        value={text}
        onChange={(event) => setText(event.target.value)}
        aria-describedby={`${id}-read`}
        aria-invalid={fault || (reading && reading.verdict !== 'ok') ? true : undefined}
        bg="sheet"
        rounded="sm"
        borderColor="line"
        size="lg"
        h="52px"
        fontSize="xl"
        inputMode="text"
        autoComplete="off"
      />
      <Box id={`${id}-read`} aria-live="polite" fontSize="sm" minH="20px" mt="1">
        {shown && !fault && <Box color="action">read as {shown}</Box>}
        {reading && reading.verdict !== 'ok' && (
          <Box color="wrong.ink">
            {reading.message}
            <Flex gap="2" wrap="wrap" mt="1">
              {reading.suggestions.slice(0, 3).map((suggestion) => (
                <Button
                  key={suggestion.text}
                  type="button"
                  size="sm"
                  variant="outline"
                  rounded="sm"
                  borderColor="line"
                  color="ink"
                  onClick={() => setText(suggestion.text.split(' = ')[0] ?? '')}
                >
                  {suggestion.text}
                </Button>
              ))}
            </Flex>
          </Box>
        )}
        {fault && reading?.verdict !== 'ask' && reading?.verdict !== 'refuse' && (
          <Box role="alert" color="wrong.ink" fontWeight="600">
            {fault}
          </Box>
        )}
      </Box>
    </Box>
  );
}
