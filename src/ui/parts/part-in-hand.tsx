import { Box } from '@chakra-ui/react';
import type { Component } from '@/core/engine/quantities';
import { TextLink } from '../primitives/links';
import { Code } from '../primitives/page';

interface Taking {
  readonly id: string;
  readonly unitNumber: string;
  readonly name: string;
  readonly takes: 'yes' | 'whole-set' | 'superseded' | 'ask' | 'no';
  readonly quantity: number;
}

interface View {
  readonly part: { readonly id: string; readonly number: string; readonly maker: string; readonly kind: Component };
  readonly current:
    | { readonly kind: 'itself' }
    | { readonly kind: 'replaced'; readonly part: { readonly number: string }; readonly redesigned: boolean }
    | { readonly kind: 'needs-answer'; readonly successors: readonly { readonly number: string }[] };
  readonly vehicles: readonly Taking[];
  /** What the number says of itself, where it has a suffix. */
  readonly number?: {
    readonly kind: string;
    readonly base?: { readonly id: string; readonly number: string } | null;
  } | null;
}

const TAKES_WORDS: Readonly<Record<Taking['takes'], string>> = {
  yes: 'Yes: it may go in',
  'whole-set': 'Only as a whole set: it is the redesign of what the sheet names, never mixed with the old one',
  superseded: 'No: a redesign took its place for these; fit the current number throughout',
  ask: 'Not before its question is resolved',
  no: 'No',
};

/** What it is, what it is called today, and which of our vehicles take it, in what quantity. */
export function PartInHand({ view, unit = '' }: { view: View; unit?: string }) {
  const { part, current, vehicles } = view;
  const asked = vehicles.find((vehicle) => vehicle.unitNumber === unit);
  const groups = (['yes', 'whole-set', 'superseded', 'ask'] as const).map((takes) => ({
    takes,
    list: vehicles.filter((vehicle) => vehicle.takes === takes),
  }));
  return (
    <Box role="status" bg="sheet" border="1px solid" borderColor="line" p="4" rounded="sm" mb="5" maxW="860px">
      <Box fontSize="lg">
        <TextLink href={`/parts/${part.id}`}>
          <Code>{part.number}</Code>
        </TextLink>
        : {part.kind.replace('_', ' ')} by {part.maker}
      </Box>
      <Current current={current} />
      {unit !== '' && (
        <Box mt="2" fontWeight="650">
          Unit {unit}:{' '}
          {asked ? `${TAKES_WORDS[asked.takes]} (${asked.quantity} of them).` : 'No. Its sheet names another part.'}
        </Box>
      )}
      {vehicles.length === 0 && <NoneTakes base={view.number?.base ?? null} />}
      {groups.map(
        ({ takes, list }) =>
          list.length > 0 && (
            <Box key={takes} mt="3">
              <strong>{TAKES_WORDS[takes]}</strong>
              <Box display="flex" flexWrap="wrap" columnGap="4">
                {list.map((vehicle) => (
                  <Box key={vehicle.id}>
                    <TextLink href={`/vehicles/${vehicle.id}`}>
                      {vehicle.unitNumber} {vehicle.name}
                    </TextLink>{' '}
                    <Box as="span" color="soft">
                      × {vehicle.quantity}
                    </Box>
                  </Box>
                ))}
              </Box>
            </Box>
          ),
      )}
    </Box>
  );
}

/** A suffix is not named by a sheet that names its base: what differs decides. */
function NoneTakes({ base }: { base: { readonly id: string; readonly number: string } | null }) {
  return (
    <Box mt="2">
      No sheet of the fleet names this number.
      {base && (
        <>
          {' '}
          Its base is <TextLink href={`/parts/${base.id}`}>{base.number}</TextLink>: see below what its suffix changes.
        </>
      )}
    </Box>
  );
}

function Current({ current }: { current: View['current'] }) {
  switch (current.kind) {
    case 'itself':
      return <Box color="soft">This is its current number.</Box>;
    case 'replaced':
      return (
        <Box>
          Today it is <Code>{current.part.number}</Code>,{' '}
          {current.redesigned
            ? 'a redesign: never mix the two within one engine.'
            : 'the same part under a new number.'}
        </Box>
      );
    case 'needs-answer':
      return (
        <Box color="wrong.ink">
          Two successors are open: {current.successors.map((p) => p.number).join(' and ')}. Ask the maker which holds.
        </Box>
      );
  }
}
