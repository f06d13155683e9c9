'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { type CoilAdvice, type CoilChoice, chooseCoils } from '@/core/components/coil-choice';
import { moneyText } from '@/text/format';
import { LiveText } from '../primitives/live-fields';
import { CoilCosts } from './coil-costs';
import { type Limits, readFigures, wholeOf } from './figure';

/** What can be entered. */
const LIMITS = {
  others: { least: 0, most: 15, whole: true },
  price: { least: 0, most: 100_000 },
  labourPerHour: { least: 0, most: 100_000 },
  accessHours: { least: 0, most: 100 },
  downtimePerVisit: { least: 0, most: 1_000_000 },
  chancePercent: { least: 0, most: 100 },
} satisfies Readonly<Record<string, Limits>>;
type Name = keyof typeof LIMITS;

const START: Readonly<Record<Name, string>> = {
  others: '5',
  price: '40',
  labourPerHour: '80',
  accessHours: '1.5',
  downtimePerVisit: '150',
  chancePercent: '5',
};
/** Each with its label and unit; without one it is money. */
const FIELDS: readonly (readonly [Name, string, string?])[] = [
  ['others', 'Coils that still work', ''],
  ['price', 'Price of a coil'],
  ['labourPerHour', 'Labour an hour'],
  ['accessHours', 'Hours to get at them again', 'h'],
  ['downtimePerVisit', 'Off the road for one more visit'],
  ['chancePercent', 'Chance that one fails before it is open anyway', '% each'],
];

/** One coil or all, worked out while typing, with the chance at which it turns. */
export function CoilBench({ currency }: { currency: string }) {
  const [typed, setTyped] = useState(START);
  const read = readFigures(LIMITS, typed);
  const figures = wholeOf(read);
  const choice = figures && choiceOf(figures);
  return (
    <Grid templateColumns={{ base: '1fr', lg: '400px minmax(0, 1fr)' }} columnGap="8">
      <Box>
        {FIELDS.map(([name, label, unit = currency]) => (
          <LiveText
            key={name}
            label={label}
            hint={unit}
            value={typed[name]}
            onChange={(value) => setTyped((before) => ({ ...before, [name]: value }))}
            fault={read[name].fault}
            inputMode="decimal"
          />
        ))}
      </Box>
      <Box minW="0">{choice && <Advice advice={chooseCoils(choice)} choice={choice} currency={currency} />}</Box>
    </Grid>
  );
}

const choiceOf = ({ chancePercent, ...others }: Readonly<Record<Name, number>>): CoilChoice => ({
  ...others,
  chanceEach: chancePercent / 100,
});

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

function Advice({ advice, choice, currency }: { advice: CoilAdvice; choice: CoilChoice; currency: string }) {
  const money = (amount: number): string => moneyText(amount, currency);
  const all = advice.advice === 'all';
  return (
    <>
      <Box role="status" mb="4">
        <Box fontSize="34px" fontWeight="700" lineHeight="1.1">
          {all ? 'Replace them all' : 'Replace the one'}
        </Box>
        <Box color="soft">
          {all
            ? 'Leaving the others in costs more than their price.'
            : 'The others are worth less to replace than to leave in.'}
        </Box>
      </Box>
      <CoilCosts
        advice={advice}
        currency={currency}
        leave={`Leave ${choice.others} in: ${choice.others} × ${percent(choice.chanceEach)} × ${money(advice.extraVisit)}`}
        replace={`Replace ${choice.others} now: ${choice.others} × ${money(choice.price)}, it is open anyway`}
      />
      <Box>
        It turns at a chance of <strong>{percent(advice.breakEvenChance)}</strong> each.
      </Box>
    </>
  );
}
