'use client';

import { memo } from 'react';
import { Press } from './parts';

const UNITS = {
  gap: ['mm', 'in', 'thou'],
  torque: ['N·m', 'lbf·ft', 'lbf·in'],
  resistance: ['Ω', 'kΩ'],
  distance: ['km', 'mi'],
} as const;
type PadKind = keyof typeof UNITS;

/** What a meter shows where nothing conducts. */
const OPEN = 'OL';

/** Splits "1.04 mm" into what is typed and its unit. */
const split = (text: string): { readonly digits: string; readonly unit: string } => {
  const digits = /^[\d.,]*/.exec(text)?.[0] ?? '';
  return { digits, unit: text.slice(digits.length).trim() };
};

/** The pad types into the field in hand. The unit is chosen, never guessed. */
function Pad({
  kind,
  value,
  unit: usual,
  onChange,
}: {
  /** The field it types into. */
  at: string;
  kind: PadKind;
  value: string;
  unit: string;
  onChange: (value: string) => void;
}) {
  const { digits, unit } = split(value);
  const isOpen = value === OPEN;
  const inForce = isOpen ? usual : unit || usual;
  const put = (next: string, nextUnit = inForce) => onChange(next === '' ? '' : `${next} ${nextUnit}`);
  return (
    <fieldset className="pad" aria-label="Number pad">
      <div className="pad-units">
        {UNITS[kind].map((name) => (
          <Press key={name} chosen={name === inForce && !isOpen} onPress={() => put(digits, name)}>
            {name}
          </Press>
        ))}
        {kind === 'resistance' && (
          <Press chosen={isOpen} onPress={() => onChange(OPEN)} label="OL, nothing conducts">
            {OPEN}
          </Press>
        )}
      </div>
      {['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0'].map((digit) => (
        <Press key={digit} onPress={() => put(digits + digit)}>
          {digit}
        </Press>
      ))}
      <Press onPress={() => put(digits.slice(0, -1))} label="Delete the last digit">
        ⌫
      </Press>
    </fieldset>
  );
}

/** Two dozen keys: drawn again only for another field or figure. */
export const NumberPad = memo(
  Pad,
  (before, after) =>
    before.at === after.at && before.kind === after.kind && before.value === after.value && before.unit === after.unit,
);
