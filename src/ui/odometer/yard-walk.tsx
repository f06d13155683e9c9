'use client';

import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useState, useTransition } from 'react';
import { Button } from '../primitives/button';
import { DateControl } from '../primitives/date-control';
import { FieldFrame } from '../primitives/field-frame';
import { PlainTable } from '../primitives/plain-table';

interface WalkVehicle {
  readonly id: string;
  readonly unitNumber: string;
  readonly name: string;
  /** What the dash shows. */
  readonly unit: 'km' | 'mi';
  readonly last: string;
  readonly lastOn: string;
  readonly expected: string;
}

export type WalkAnswer =
  | { readonly ok: false; readonly message: string }
  | {
      readonly ok: true;
      readonly results: readonly {
        readonly unitNumber: string;
        readonly state: 'accepted' | 'suspect' | 'known' | 'refused';
        readonly message: string;
      }[];
    };

type Save = (readings: { unitNumber: string; text: string }[], on: string) => Promise<WalkAnswer>;

const LOST = 'Isobar could not be reached, so nothing was saved. What you typed is still here: try again.';

/** A column to type down: Enter goes to the next vehicle; all of it is saved in one step. */
export function YardWalk({ vehicles, today, save }: { vehicles: readonly WalkVehicle[]; today: string; save: Save }) {
  const router = useRouter();
  const [on, setOn] = useState(today);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [answer, setAnswer] = useState<WalkAnswer | null>(null);
  const [pending, startTransition] = useTransition();
  const filled = vehicles.filter((vehicle) => (typed[vehicle.unitNumber] ?? '').trim() !== '');
  const send = () =>
    startTransition(async () => {
      const readings = filled.map(({ unitNumber }) => ({ unitNumber, text: (typed[unitNumber] ?? '').trim() }));
      const next = await save(readings, on).catch((): WalkAnswer => ({ ok: false, message: LOST }));
      setAnswer(next);
      if (!next.ok) return;
      const kept = next.results.filter((result) => result.state === 'refused').map((result) => result.unitNumber);
      setTyped((before) => Object.fromEntries(Object.entries(before).filter(([unit]) => kept.includes(unit))));
      router.refresh();
    });
  const results = new Map(answer?.ok ? answer.results.map((result) => [result.unitNumber, result]) : []);
  const suspect = answer?.ok ? answer.results.filter((result) => result.state === 'suspect').length : 0;
  return (
    <>
      <Box display="flex" gap="4" alignItems="end" mb="3" flexWrap="wrap">
        <Box w="170px">
          <FieldFrame label="Day of the walk">
            <DateControl value={on} max={today} onChange={(event) => setOn(event.target.value)} />
          </FieldFrame>
        </Box>
        <Button main mb="3" disabled={pending || filled.length === 0} onClick={send}>
          {pending ? 'Saving…' : `Save ${filled.length} reading${filled.length === 1 ? '' : 's'}`}
        </Button>
        <Box aria-live="polite" role="status">
          {answer &&
            (answer.ok
              ? `Saved. ${suspect > 0 ? `${suspect} kept as suspect: see the other page.` : ''}`
              : answer.message)}
        </Box>
      </Box>
      <PlainTable heads={['Vehicle', 'Reading', '', 'Expected about', 'Last accepted', 'on']} numeric={[4, 5]}>
        {vehicles.map((vehicle) => (
          <tr key={vehicle.id}>
            <td>
              <strong>{vehicle.unitNumber}</strong> {vehicle.name}
            </td>
            <td className="nowrap">
              <input
                className="field"
                aria-label={`Reading of unit ${vehicle.unitNumber}`}
                data-walk
                value={typed[vehicle.unitNumber] ?? ''}
                onChange={(event) => setTyped((before) => ({ ...before, [vehicle.unitNumber]: event.target.value }))}
                onKeyDown={nextOnEnter}
                inputMode="decimal"
                style={{ width: 130 }}
              />{' '}
              <Box as="span" color="soft">
                {vehicle.unit}
              </Box>
            </td>
            <td className={results.get(vehicle.unitNumber)?.state === 'accepted' ? 'soft' : 'wrong'}>
              {results.get(vehicle.unitNumber)?.message}
            </td>
            <td>{vehicle.expected}</td>
            <td>{vehicle.last}</td>
            <td className="nowrap">{vehicle.lastOn}</td>
          </tr>
        ))}
      </PlainTable>
    </>
  );
}

function nextOnEnter(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== 'Enter') return;
  event.preventDefault();
  const fields = [...document.querySelectorAll<HTMLInputElement>('[data-walk]')];
  fields[fields.indexOf(event.currentTarget) + (event.shiftKey ? -1 : 1)]?.focus();
}
