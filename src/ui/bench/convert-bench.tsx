'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { PLAUSIBLE_BREAKAWAY, PLAUSIBLE_SCREW, readQuantity, type Window } from '@/core/units/read-quantity';
import { fromSi, QUANTITY_KINDS, type QuantityKind, unitsOf } from '@/core/units/unit';
import type { FormAction } from '../primitives/action-form';
import { choicesOf, LiveSelect, LiveText } from '../primitives/live-fields';
import { PlainTable } from '../primitives/plain-table';
import type { ToolProps } from './bench-data';
import { KeepForm } from './keep-form';

const KIND_WORDS = { gap: 'gap', torque: 'torque', distance: 'distance', resistance: 'resistance' };
const WHEN_WORDS = {
  plug: 'tightening a plug',
  screw: 'a screw of a coil or cap',
  breakaway: 'a plug that breaks loose',
};
const WINDOWS: Readonly<Record<string, Window>> = { screw: PLAUSIBLE_SCREW, breakaway: PLAUSIBLE_BREAKAWAY };
const DIGITS: Readonly<Record<string, number>> = { mm: 3, in: 4, thou: 1, N·m: 2, lbf·ft: 2, lbf·in: 1, km: 1, mi: 1 };

/** A figure in all its units, and the slip it would be if it cannot be right. */
export function ConvertBench({ system, keep }: ToolProps & { keep: FormAction }) {
  const [kind, setKind] = useState<QuantityKind>('gap');
  const [text, setText] = useState('0.030 in');
  const [when, setWhen] = useState('plug');
  const person = {
    gap: ['mm', 'in'],
    torque: ['N·m', 'lbf·ft'],
    distance: ['km', 'mi'],
    resistance: ['Ω', 'Ω'],
  } as const;
  const reading = readQuantity({
    kind,
    text,
    personUnit: person[kind][system === 'us' ? 1 : 0],
    window: kind === 'torque' ? WINDOWS[when] : undefined,
  });
  const rows =
    reading.verdict === 'ok'
      ? unitsOf(kind).map(
          (unit) => [unit.name, fromSi(reading.valueSi, unit.name).toFixed(DIGITS[unit.name] ?? 2)] as const,
        )
      : [];
  return (
    <Box maxW="560px">
      <LiveSelect
        label="What it is"
        value={kind}
        onChange={(value) => setKind(QUANTITY_KINDS.find((k) => k === value) ?? 'gap')}
        choices={choicesOf(QUANTITY_KINDS, KIND_WORDS)}
      />
      {kind === 'torque' && (
        <LiveSelect
          label="Of what"
          value={when}
          onChange={setWhen}
          choices={choicesOf(['plug', 'screw', 'breakaway'], WHEN_WORDS)}
        />
      )}
      <LiveText
        label="As typed"
        hint="0,8 mm · .030 in · 30 thou · 17 ft-lb · 104k"
        value={text}
        onChange={setText}
        mono
      />
      <ReadAs reading={reading} onPick={setText} />
      {rows.length > 0 && (
        <PlainTable heads={['Figure', 'Unit']} numeric={[1]}>
          {rows.map(([unit, value]) => (
            <tr key={unit}>
              <td className="large">{value}</td>
              <td className="soft">{unit}</td>
            </tr>
          ))}
        </PlainTable>
      )}
      <KeepForm
        tool="convert"
        action={keep}
        kept={{
          input: { kind, text },
          summary: rows.length > 0 ? `${text} = ${rows.map(([unit, value]) => `${value} ${unit}`).join(' = ')}` : null,
        }}
      />
    </Box>
  );
}

/** How the text is read, and what it may be instead. */
function ReadAs({ reading, onPick }: { reading: ReturnType<typeof readQuantity>; onPick: (text: string) => void }) {
  const good = reading.verdict === 'ok';
  return (
    <Box
      role="status"
      px="3"
      py="2"
      mb="3"
      rounded="sm"
      bg={good ? 'tint' : 'wrong.bg'}
      color={good ? 'ink' : 'wrong.ink'}
    >
      {reading.message}
      {reading.verdict !== 'ok' && reading.suggestions.length > 0 && (
        <Box display="flex" gap="3" flexWrap="wrap" mt="1">
          {reading.suggestions.map((suggestion) => (
            <Box
              as="button"
              key={suggestion.text}
              textDecoration="underline"
              cursor="pointer"
              onClick={() => onPick(suggestion.text.split(' = ')[0] ?? '')}
            >
              {suggestion.text}
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
