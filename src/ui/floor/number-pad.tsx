'use client';

import { Grid } from '@chakra-ui/react';
import { Press } from './parts';

const UNITS = { gap: ['mm', 'in', 'thou'], torque: ['N·m', 'lbf·ft', 'lbf·in'] } as const;

/** Splits "1.04 mm" into what is typed and its unit. */
const split = (text: string): { readonly digits: string; readonly unit: string } => {
  const digits = /^[\d.,]*/.exec(text)?.[0] ?? '';
  return { digits, unit: text.slice(digits.length).trim() };
};

/** The pad types into the field in hand. The unit is chosen, never guessed. */
export function NumberPad({
  kind,
  value,
  unit: usual,
  onChange,
}: {
  kind: 'gap' | 'torque';
  value: string;
  unit: string;
  onChange: (value: string) => void;
}) {
  const { digits, unit } = split(value);
  const inForce = unit || usual;
  const put = (next: string, nextUnit = inForce) => onChange(next === '' ? '' : `${next} ${nextUnit}`);
  return (
    <Grid templateColumns="repeat(3, 1fr)" gap="2" role="group" aria-label="Number pad">
      {UNITS[kind].map((name) => (
        <Press key={name} chosen={name === inForce} onPress={() => put(digits, name)}>
          {name}
        </Press>
      ))}
      {['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0'].map((digit) => (
        <Press key={digit} onPress={() => put(digits + digit)}>
          {digit}
        </Press>
      ))}
      <Press onPress={() => put(digits.slice(0, -1))} label="Delete the last digit">
        ⌫
      </Press>
    </Grid>
  );
}
