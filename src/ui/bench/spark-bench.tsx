'use client';

import { Box, Grid } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { gapForBoost } from '@/core/gap/bands';
import { type Breath, gapOfEqualDemand, sparkDemand } from '@/core/gap/spark-demand';
import type { Mm } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { readNumber } from '@/core/units/read-number';
import { gapText } from '@/text/format';
import { useChartInk } from '../charts/chart-ink';
import type { FormAction } from '../primitives/action-form';
import { LiveText } from '../primitives/live-fields';
import { Caution, Facts } from '../primitives/page';
import type { BenchEngine, ToolProps } from './bench-data';
import { readFigures, wholeOf } from './figure';
import { KeepForm } from './keep-form';
import { EnginePicker } from './pickers';

const HEIGHT = 360;
const Chart = dynamic(() => import('../charts/chart').then((m) => m.Chart), {
  ssr: false,
  loading: () => <Box h={`${HEIGHT}px`} />,
});
const GAPS = Array.from({ length: 29 }, (_, i) => 0.4 + i * 0.05);

/** The sheet's gap holds at the engine's own pressure; what is asked is more of it. */
const standardOf = (engine: BenchEngine | undefined): number => engine?.intakeKpa ?? 100;
const MORE_BOOST = 1.3;

/** What can be entered. */
const LIMITS = {
  gapMm: { least: 0.3, most: 2, unit: 'mm' },
  standardKpa: { least: 20, most: 500, unit: 'kPa' },
  boostedKpa: { least: 20, most: 500, unit: 'kPa' },
  intakeK: { least: 220, most: 450, unit: 'K' },
  compressionRatio: { least: 4, most: 20 },
} as const;
type Asked = { readonly [K in keyof typeof LIMITS]: number };

const kilovolts = (volts: number): string => `about ${(volts / 1000).toFixed(1)} kV`;

/** What a gap asks of the coil over pressure, and the gap that keeps the demand under boost. */
export function SparkBench({ data, system, keep }: ToolProps & { keep: FormAction }) {
  const [engineId, setEngineId] = useState(data.engines[0]?.id ?? '');
  const engine = data.engines.find((e) => e.id === engineId);
  const [gap, setGap] = useState((engine?.gapMm ?? 1).toFixed(2));
  const [standardKpa, setStandardKpa] = useState(String(standardOf(engine)));
  const [boostedKpa, setBoostedKpa] = useState(String(Math.round(standardOf(engine) * MORE_BOOST)));
  const [kelvin, setKelvin] = useState('315');
  const [ratio, setRatio] = useState(engine?.compressionRatio == null ? '' : String(engine.compressionRatio));
  const [known, setKnown] = useState('');
  const choose = (id: string): void => {
    setEngineId(id);
    const next = data.engines.find((e) => e.id === id);
    if (!next) return;
    if (next.compressionRatio !== null) setRatio(String(next.compressionRatio));
    setStandardKpa(String(standardOf(next)));
    setBoostedKpa(String(Math.round(standardOf(next) * MORE_BOOST)));
    if (next.gapMm !== null) setGap(next.gapMm.toFixed(2));
  };
  const fields = [
    { name: 'gapMm', label: 'Gap', hint: 'mm', text: gap, set: setGap },
    {
      name: 'standardKpa',
      label: 'Standard intake pressure',
      hint: 'kPa, absolute',
      text: standardKpa,
      set: setStandardKpa,
    },
    {
      name: 'boostedKpa',
      label: 'Boosted intake pressure',
      hint: 'kPa, absolute',
      text: boostedKpa,
      set: setBoostedKpa,
    },
    { name: 'intakeK', label: 'Intake temperature', hint: 'K; 315 is 42 °C', text: kelvin, set: setKelvin },
    { name: 'compressionRatio', label: 'Compression ratio', hint: undefined, text: ratio, set: setRatio },
  ] as const;
  const read = readFigures(LIMITS, { gapMm: gap, standardKpa, boostedKpa, intakeK: kelvin, compressionRatio: ratio });
  const input = wholeOf(read);
  const result = input && resultOf(input);
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '320px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <EnginePicker data={data} value={engineId} onChange={choose} />
          {fields.map(({ name, label, hint, text, set }) => (
            <LiveText
              key={name}
              label={label}
              hint={hint}
              value={text}
              onChange={set}
              inputMode="decimal"
              fault={read[name].fault}
            />
          ))}
          <LiveText label="Gaps stated for boosts" hint="kPa=mm: 100=1.00 180=0.70" value={known} onChange={setKnown} />
        </Box>
        {input && result ? (
          <SparkResult {...{ input, result, known, system }} />
        ) : (
          <Box role="status">Fill in every figure on the left to work out the demand.</Box>
        )}
      </Grid>
      <KeepForm
        tool="spark"
        action={keep}
        kept={{
          input: { engine: engine?.code ?? '', gap, standardKpa, boostedKpa, kelvin, ratio },
          summary:
            input &&
            result &&
            `${engine?.code ?? 'engine'}: ${input.gapMm.toFixed(2)} mm asks ${kilovolts(result.asked)} at ${input.standardKpa} kPa and ${kilovolts(result.worse)} at ${input.boostedKpa} kPa; ${result.kept.toFixed(2)} mm keeps the demand.`,
        }}
      />
    </>
  );
}

function resultOf({ gapMm, standardKpa, boostedKpa, intakeK, compressionRatio }: Asked) {
  const standard: Breath = { intakeKpa: standardKpa, intakeK, compressionRatio };
  const boosted: Breath = { ...standard, intakeKpa: boostedKpa };
  return {
    standard,
    boosted,
    asked: sparkDemand(gapMm, standard),
    worse: sparkDemand(gapMm, boosted),
    kept: gapOfEqualDemand(gapMm, standard, boosted),
  };
}

function SparkResult({
  input,
  result: { standard, boosted, asked, worse, kept },
  known,
  system,
}: {
  input: Asked;
  result: ReturnType<typeof resultOf>;
  known: string;
  system: ToolProps['system'];
}) {
  return (
    <Box minW="0">
      <Box role="status" mb="2">
        <Facts
          rows={[
            ['Standard engine', `${gapText(input.gapMm, system)} asks ${kilovolts(asked)}`],
            ['Under boost', `the same gap asks ${kilovolts(worse)}, ${(worse / asked).toFixed(2)} times as much`],
            ['Keeps the demand', <strong key="kept">{gapText(kept, system)}</strong>],
          ]}
        />
      </Box>
      <StatedGap known={known} kpa={input.boostedKpa} system={system} />
      <DemandChart standard={standard} boosted={boosted} gapMm={input.gapMm} keptMm={kept} />
      <Caution>
        The ratio is what counts; the voltage itself is ±30 %. Between two known boosts take the tighter gap and ask for
        approval.
      </Caution>
    </Box>
  );
}

/** What a table of stated gaps says for this boost. */
function StatedGap({ known, kpa, system }: { known: string; kpa: number; system: ToolProps['system'] }) {
  const bands = [...known.matchAll(/(\d+(?:[.,]\d+)?)\s*=\s*(\d+(?:[.,]\d+)?)/g)].flatMap((m) => {
    const [upToKpa, gapMm] = [readNumber(m[1] ?? '')[0], readNumber(m[2] ?? '')[0]];
    return upToKpa === undefined || gapMm === undefined ? [] : [{ upToKpa, minMm: gapMm, maxMm: gapMm }];
  });
  if (bands.length === 0) return null;
  const boosted = gapForBoost(bands, kpa);
  const words = boostWords(boosted, kpa, system);
  return (
    <Box role="status" mb="2" px="3" py="2" rounded="sm" bg={boosted.kind === 'in-band' ? 'tint' : 'caution.bg'}>
      {words}
    </Box>
  );
}

function DemandChart({
  standard,
  boosted,
  gapMm,
  keptMm,
}: {
  standard: Breath;
  boosted: Breath;
  gapMm: Mm;
  keptMm: Mm;
}) {
  const ink = useChartInk();
  const option = useMemo(() => {
    const pressures = [60, standard.intakeKpa, (standard.intakeKpa + boosted.intakeKpa) / 2, boosted.intakeKpa];
    const curve = (kpa: number) =>
      GAPS.map((g) => [
        Number(g.toFixed(2)),
        Number((sparkDemand(g, { ...standard, intakeKpa: kpa }) / 1000).toFixed(2)),
      ]);
    const mark = (name: string, g: number, breath: Breath, filled: boolean) => ({
      type: 'scatter' as const,
      name,
      data: [[Number(g.toFixed(3)), Number((sparkDemand(g, breath) / 1000).toFixed(2))]],
      symbolSize: 13,
      itemStyle: { color: filled ? ink.ink : 'transparent', borderColor: ink.ink, borderWidth: 2 },
      z: 5,
      label: {
        show: true,
        formatter: name,
        position: 'bottom' as const,
        color: ink.ink,
        distance: 8,
        backgroundColor: ink.paper,
        padding: [2, 4],
      },
    });
    return {
      grid: { left: 56, right: 90, top: 30, bottom: 44 },
      tooltip: { trigger: 'item' as const },
      xAxis: {
        type: 'value' as const,
        name: 'gap, mm',
        nameLocation: 'middle' as const,
        nameGap: 28,
        min: 0.4,
        max: 1.8,
        interval: 0.2,
        nameTextStyle: { color: ink.soft },
        axisLabel: { color: ink.soft },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'value' as const,
        name: 'about kV',
        nameTextStyle: { color: ink.soft },
        axisLabel: { color: ink.soft },
        splitLine: { lineStyle: { color: ink.hair } },
      },
      series: [
        ...pressures.map((kpa, i) => ({
          type: 'line' as const,
          name: `${Math.round(kpa)} kPa`,
          data: curve(kpa),
          symbol: 'none',
          lineStyle: { color: ink.ramp[i + 1], width: i === 1 ? 3 : 1.5 },
          itemStyle: { color: ink.ramp[i + 1] },
          endLabel: { show: true, formatter: `${Math.round(kpa)} kPa`, color: ink.soft },
        })),
        mark('standard', gapMm, standard, true),
        mark('keeps the demand', keptMm, boosted, false),
      ],
    };
  }, [standard, boosted, gapMm, keptMm, ink]);
  const label = `Spark demand over gap at four intake pressures. ${gapMm.toFixed(2)} mm at ${standard.intakeKpa} kPa asks as much as ${keptMm.toFixed(2)} mm at ${boosted.intakeKpa} kPa.`;
  return <Chart option={option} label={label} height={HEIGHT} />;
}

function boostWords(boosted: ReturnType<typeof gapForBoost>, kpa: number, system: UnitSystem): string {
  switch (boosted.kind) {
    case 'above-all':
      return `No gap is stated for ${kpa} kPa or above: ask the maker or tuner.`;
    case 'between':
      return `${kpa} kPa lies between two stated boosts: take the tighter gap, ${gapText(boosted.band.maxMm, system)}, and ask for approval.`;
    case 'in-band':
      return `Stated for ${boosted.band.upToKpa} kPa: ${gapText(boosted.band.maxMm, system)}.`;
  }
}
