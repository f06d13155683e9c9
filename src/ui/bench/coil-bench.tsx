'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { type CoilAdvice, type CoilChoice, chooseCoils } from '@/core/components/coil-choice';
import { readNumber } from '@/core/units/read-number';
import { moneyText } from '@/text/format';
import { LiveText } from '../primitives/live-fields';
import { PlainTable } from '../primitives/plain-table';

/** What can be entered, lowest and highest, and what stands there at first. */
const FIGURES = {
  others: { label: 'Coils that still work', most: 15, start: '5' },
  price: { label: 'Price of a coil', most: 100_000, start: '40' },
  labourPerHour: { label: 'Labour an hour', most: 100_000, start: '80' },
  accessHours: { label: 'Hours to get at them again', most: 100, start: '1.5' },
  downtimePerVisit: { label: 'Off the road for one more visit', most: 1_000_000, start: '150' },
  chancePercent: { label: 'Chance that one fails before it is open anyway', most: 100, start: '5' },
} as const;
type Name = keyof typeof FIGURES;
const NAMES = Object.keys(FIGURES) as readonly Name[];
const HINTS: Readonly<Partial<Record<Name, string>>> = { accessHours: 'h', chancePercent: '% each' };
const MONEY: readonly Name[] = ['price', 'labourPerHour', 'downtimePerVisit'];

function readFigure(name: Name, text: string): { readonly value: number } | { readonly fault: string } {
  const { most } = FIGURES[name];
  const [value] = readNumber(text);
  const whole = name !== 'others' || (value !== undefined && Number.isInteger(value));
  return value !== undefined && value <= most && whole
    ? { value }
    : { fault: `Give a ${name === 'others' ? 'whole number' : 'figure'} from 0 to ${most.toLocaleString('en')}.` };
}

/** One coil or all, worked out while typing, with the chance at which it turns. */
export function CoilBench({ currency }: { currency: string }) {
  const [typed, setTyped] = useState<Readonly<Record<Name, string>>>(
    () => Object.fromEntries(NAMES.map((name) => [name, FIGURES[name].start])) as Record<Name, string>,
  );
  const read = Object.fromEntries(NAMES.map((name) => [name, readFigure(name, typed[name])])) as Record<
    Name,
    ReturnType<typeof readFigure>
  >;
  const choice = choiceOf(read);
  return (
    <Grid templateColumns={{ base: '1fr', lg: '400px minmax(0, 1fr)' }} columnGap="8">
      <Box>
        {NAMES.map((name) => {
          const figure = read[name];
          return (
            <LiveText
              key={name}
              label={FIGURES[name].label}
              hint={MONEY.includes(name) ? currency : HINTS[name]}
              value={typed[name]}
              onChange={(value) => setTyped((before) => ({ ...before, [name]: value }))}
              fault={'fault' in figure ? figure.fault : null}
              inputMode="decimal"
            />
          );
        })}
      </Box>
      <Box minW="0">{choice && <Advice advice={chooseCoils(choice)} choice={choice} currency={currency} />}</Box>
    </Grid>
  );
}

/** Null while a figure cannot be read. */
function choiceOf(read: Readonly<Record<Name, ReturnType<typeof readFigure>>>): CoilChoice | null {
  const { others, price, labourPerHour, accessHours, downtimePerVisit, chancePercent } = read;
  if (
    !('value' in others && 'value' in price && 'value' in labourPerHour && 'value' in accessHours) ||
    !('value' in downtimePerVisit && 'value' in chancePercent)
  )
    return null;
  return {
    others: others.value,
    price: price.value,
    labourPerHour: labourPerHour.value,
    accessHours: accessHours.value,
    downtimePerVisit: downtimePerVisit.value,
    chanceEach: chancePercent.value / 100,
  };
}

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
      <PlainTable heads={['', 'Cost']} numeric={[2]}>
        <tr>
          <td>One more visit, for one coil</td>
          <td>{money(advice.extraVisit)}</td>
        </tr>
        <tr>
          <td>
            Leave {choice.others} in: {choice.others} × {percent(choice.chanceEach)} × {money(advice.extraVisit)}
          </td>
          <td className={all ? undefined : 'strong'}>{money(advice.expectedIfOne)}</td>
        </tr>
        <tr>
          <td>
            Replace {choice.others} now: {choice.others} × {money(choice.price)}, it is open anyway
          </td>
          <td className={all ? 'strong' : undefined}>{money(advice.replaceOthersNow)}</td>
        </tr>
      </PlainTable>
      <Box>
        It turns at a chance of <strong>{percent(advice.breakEvenChance)}</strong> each.
      </Box>
    </>
  );
}
