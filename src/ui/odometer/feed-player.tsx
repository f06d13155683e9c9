'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState, useTransition } from 'react';
import { Button } from '../primitives/button';
import { TextLink } from '../primitives/links';
import { PlainTable } from '../primitives/plain-table';

type Fault = 'none' | 'late' | 'doubled' | 'out_of_order' | 'wrong_unit' | 'digit_dropped' | 'missing';

export interface PlayAnswer {
  readonly message: string;
  readonly tally: readonly {
    readonly fault: Fault;
    readonly sent: number;
    readonly counts: {
      readonly accepted: number;
      readonly suspect: number;
      readonly known: number;
      readonly refused: number;
    };
  }[];
}

const FAULT_WORDS: Readonly<Record<Fault, string>> = {
  none: 'Sound',
  late: 'Late by three days',
  doubled: 'Sent twice',
  out_of_order: 'Out of order',
  wrong_unit: 'In the other unit',
  digit_dropped: 'A digit dropped',
  missing: 'Missing',
};

/** Plays the stand-in and shows what became of each kind of message. */
export function FeedPlayer({ play }: { play: (seed: number) => Promise<PlayAnswer> }) {
  const [answer, setAnswer] = useState<PlayAnswer | null>(null);
  const [seed, setSeed] = useState(1);
  const [pending, startTransition] = useTransition();
  const press = () =>
    startTransition(async () => {
      const lost = {
        message: 'Isobar could not be reached, so it is not sure what was recorded. Try again.',
        tally: [],
      };
      setAnswer(await play(seed).catch(() => lost));
      setSeed(seed + 1);
    });
  return (
    <>
      <Box maxW="70ch" mb="3">
        It drives every vehicle on from its last reading to today at its own rate, a message a day, and makes the
        mistakes of real feeds: late, doubled, out of order, in the other unit, with a digit dropped, or not at all.
        Nothing is dropped: what cannot follow is kept as suspect.
      </Box>
      <Flex gap="3" align="center">
        <Button main onClick={press} disabled={pending}>
          {pending ? 'Driving…' : 'Play the feed'}
        </Button>
        <Box role="status" aria-live="polite">
          {answer?.message}
        </Box>
      </Flex>
      {answer && answer.tally.length > 0 && (
        <Box mt="4" maxW="760px">
          <PlainTable
            heads={['Messages', 'Sent', 'Accepted', 'Suspect', 'Here already', 'Refused']}
            numeric={[2, 3, 4, 5, 6]}
          >
            {answer.tally.map(({ fault, sent, counts }) => (
              <tr key={fault}>
                <td>{FAULT_WORDS[fault]}</td>
                <td>{sent}</td>
                <td>{counts.accepted}</td>
                <td>{counts.suspect}</td>
                <td>{counts.known}</td>
                <td>{counts.refused}</td>
              </tr>
            ))}
          </PlainTable>
          <TextLink href="/odometer">Mend the suspect ones</TextLink>
        </Box>
      )}
    </>
  );
}
