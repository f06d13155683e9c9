'use client';

import { Box, chakra, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { companions } from '@/core/engine/coils';
import type { Distributor as DistributorModel, Rotation } from '@/core/engine/model';
import { checkIndexing, leadSwapEffect, towerMap, wastePolarity } from '@/core/wiring/firing-map';
import { tracedFromText } from '@/core/wiring/found-distributor';
import { Distributor } from '../drawings/ignition-shapes';
import type { FormAction } from '../primitives/action-form';
import { choicesOf, LiveSelect, LiveText } from '../primitives/live-fields';
import { Caution, Facts, Section } from '../primitives/page';
import type { ToolProps } from './bench-data';
import { KeepForm } from './keep-form';
import { EnginePicker } from './pickers';

const SIZE = 170;

/** Firing order, towers of the cap both ways round, companions, and what swapped leads do. */
export function FiringBench({ data, keep }: ToolProps & { keep: FormAction }) {
  const first = data.engines.find((e) => e.ignition === 'distributor') ?? data.engines[0];
  const [engineId, setEngineId] = useState(first?.id ?? '');
  const [order, setOrder] = useState(first?.firingOrder.join(' ') ?? '1 3 4 2');
  const [rotation, setRotation] = useState<Rotation>(first?.distributor?.rotation ?? 'clockwise');
  const [tower, setTower] = useState(String(first?.distributor?.towerOfCylinder1 ?? 1));
  const [seen, setSeen] = useState('');
  const [swap, setSwap] = useState('');
  const choose = (id: string): void => {
    setEngineId(id);
    const next = data.engines.find((e) => e.id === id);
    if (!next) return;
    setOrder(next.firingOrder.join(' '));
    setRotation(next.distributor?.rotation ?? 'clockwise');
    setTower(String(next.distributor?.towerOfCylinder1 ?? 1));
  };
  const numbers = order
    .split(/[\s,-]+/)
    .filter(Boolean)
    .map(Number);
  const fault = orderFault(numbers);
  const distributor: DistributorModel = {
    rotation,
    towerOfCylinder1: Math.min(Math.max(1, Number(tower) || 1), Math.max(1, numbers.length)),
  };
  const summary = fault
    ? null
    : `Firing order ${numbers.join(' ')}, rotor ${rotation}, cylinder 1 at tower ${distributor.towerOfCylinder1}: clockwise from tower 1 ${towerMap(
        numbers,
        distributor,
      )
        .map((t) => t.cylinder)
        .join(' ')}.`;
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '320px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <EnginePicker data={data} value={engineId} onChange={choose} />
          <LiveText label="Firing order" value={order} onChange={setOrder} fault={fault} />
          <LiveSelect
            label="Rotor turns, seen from above"
            value={rotation}
            onChange={(value) => setRotation(value === 'counterclockwise' ? 'counterclockwise' : 'clockwise')}
            choices={choicesOf(['clockwise', 'counterclockwise'])}
          />
          <LiveText
            label="Tower of cylinder 1"
            hint="clockwise from 1"
            value={tower}
            onChange={setTower}
            inputMode="numeric"
          />
          <LiveText label="Leads traced by hand" hint="tower=cylinder: 5=1 6=5" value={seen} onChange={setSeen} />
          <LiveText label="Two leads that may be swapped" hint="cylinders: 3 4" value={swap} onChange={setSwap} />
        </Box>
        {fault === null && (
          <Box minW="0">
            <Caps numbers={numbers} distributor={distributor} />
            <Indexing numbers={numbers} distributor={distributor} seen={seen} />
            <Pairs
              numbers={numbers}
              swap={swap}
              waste={data.engines.find((e) => e.id === engineId)?.ignition === 'waste_spark'}
            />
            <Caution>Compare a new cap with the old one before any lead is moved. The coil lead is the centre.</Caution>
          </Box>
        )}
      </Grid>
      <KeepForm tool="firing" action={keep} kept={{ input: { order, rotation, tower, seen, swap }, summary }} />
    </>
  );
}

function orderFault(numbers: readonly number[]): string | null {
  const wanted = numbers.map((_, i) => i + 1).join();
  if (numbers.length > 0 && [...numbers].sort((a, b) => a - b).join() === wanted) return null;
  return 'A firing order names each cylinder from 1 once, such as 1 3 4 2.';
}

function Caps({ numbers, distributor }: { numbers: readonly number[]; distributor: DistributorModel }) {
  const other: DistributorModel = {
    ...distributor,
    rotation: distributor.rotation === 'clockwise' ? 'counterclockwise' : 'clockwise',
  };
  return (
    <Section title="The cap from above" aside="towers bear the cylinder of their lead; tower 1 at the top">
      <Box display="flex" gap="8" flexWrap="wrap">
        {[distributor, other].map((d, i) => (
          <Box key={d.rotation} textAlign="center">
            <Box opacity={i === 0 ? 1 : 0.6}>
              <Cap numbers={numbers} distributor={d} />
            </Box>
            <Box fontWeight={i === 0 ? '650' : '400'}>{d.rotation}</Box>
            {i === 1 && (
              <Box color="soft" fontSize="sm">
                if the rotor turned the other way
              </Box>
            )}
          </Box>
        ))}
      </Box>
    </Section>
  );
}

function Cap({ numbers, distributor }: { numbers: readonly number[]; distributor: DistributorModel }) {
  const centre = { x: SIZE / 2, y: SIZE / 2 };
  const map = towerMap(numbers, distributor);
  const towers = map.map((t) => {
    const angle = ((t.tower - 1) / map.length) * 2 * Math.PI - Math.PI / 2;
    return { ...t, x: centre.x + 56 * Math.cos(angle), y: centre.y + 56 * Math.sin(angle) };
  });
  const label = `Rotor ${distributor.rotation}: ${map.map((t) => `tower ${t.tower} cylinder ${t.cylinder}`).join(', ')}`;
  return (
    <chakra.svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      w="190px"
      role="img"
      aria-label={label}
      css={{ '& text': { fontFamily: 'body' } }}
    >
      <Distributor centre={centre} radius={76} towers={towers} clockwise={distributor.rotation === 'clockwise'} />
    </chakra.svg>
  );
}

function Indexing({
  numbers,
  distributor,
  seen,
}: {
  numbers: readonly number[];
  distributor: DistributorModel;
  seen: string;
}) {
  const traced = tracedFromText(seen);
  if (traced.length === 0) return null;
  if (traced.length < 2)
    return (
      <Box role="status" mb="3">
        Trace a second lead: one alone cannot tell.
      </Box>
    );
  const checked = checkIndexing(numbers, distributor, traced);
  const words = indexingWords(checked);
  return (
    <Box
      role="status"
      mb="3"
      px="3"
      py="2"
      rounded="sm"
      bg={checked.kind === 'contradiction' ? 'wrong.bg' : 'tint'}
      color={checked.kind === 'contradiction' ? 'wrong.ink' : 'ink'}
    >
      {words}
    </Box>
  );
}

function Pairs({ numbers, swap, waste }: { numbers: readonly number[]; swap: string; waste: boolean }) {
  const pairs = companions(numbers);
  const [a, b] = swap.split(/[\s,]+/).map(Number);
  const effect = a && b ? leadSwapEffect(waste ? pairs : [], a, b) : null;
  const words = {
    none: 'nothing changes',
    'polarity-only': 'they are companions: both still fire in time, only the polarity turns',
    'both-misfire': 'both cylinders fire at the wrong moment and misfire',
  };
  return (
    <Section title="Waste-spark companions" aside="half a firing order apart">
      {pairs.length === 0 ? (
        <Box color="soft">An odd number of cylinders has none.</Box>
      ) : (
        <Facts
          rows={[
            ['Pairs', pairs.map((pair) => pair.join(' with ')).join(', ')],
            [
              'Wear',
              `${wastePolarity(pairs)
                .map((p) => `${p.cylinder} ${p.wearsMore}`)
                .join(', ')} electrode: expected, not a finding`,
            ],
            ...(effect ? [[`Leads ${a} and ${b} swapped`, words[effect]] as const] : []),
          ]}
        />
      )}
    </Section>
  );
}

function indexingWords(checked: ReturnType<typeof checkIndexing>): string {
  switch (checked.kind) {
    case 'as-recorded':
      return 'The leads agree with the record.';
    case 'turned':
      return `The distributor was set back turned by ${checked.towers} tower${checked.towers === 1 ? '' : 's'}: cylinder 1 now sits at tower ${checked.towerOfCylinder1}. Every lead runs right as it is.`;
    default:
      return 'The leads agree with no turn of the cap: two are swapped, or the rotor turns the other way. Check before starting.';
  }
}
