'use client';

import { Box, Grid } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { gapForBoost } from '@/core/gap/bands';
import { type Breath, gapOfEqualDemand, sparkDemand } from '@/core/gap/spark-demand';
import { readNumber } from '@/core/units/read-number';
import { useChartInk } from '../charts/chart-ink';
import { gapText } from '../format/format';
import type { FormAction } from '../primitives/action-form';
import { LiveText } from '../primitives/live-fields';
import { Caution, Facts } from '../primitives/page';
import type { BenchEngine, ToolProps } from './bench-data';
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

const number = (text: string, fallback: number): number => readNumber(text)[0] ?? fallback;
const kilovolts = (volts: number): string => `about ${(volts / 1000).toFixed(1)} kV`;

/** What a gap asks of the coil over pressure, and the gap that keeps the demand under boost. */
export function SparkBench({ data, system, keep }: ToolProps & { keep: FormAction }) {
  const [engineId, setEngineId] = useState(data.engines[0]?.id ?? '');
  const engine = data.engines.find((e) => e.id === engineId);
  const [gap, setGap] = useState((engine?.gapMm ?? 1).toFixed(2));
  const [standardKpa, setStandardKpa] = useState(String(standardOf(engine)));
  const [boostedKpa, setBoostedKpa] = useState(String(Math.round(standardOf(engine) * MORE_BOOST)));
  const [kelvin, setKelvin] = useState('315');
  const [ratio, setRatio] = useState(String(engine?.compressionRatio ?? 9.8));
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
  const input = {
    gapMm: clamp(number(gap, 1), 0.3, 2),
    standardKpa: clamp(number(standardKpa, 100), 20, 500),
    boostedKpa: clamp(number(boostedKpa, 170), 20, 500),
    intakeK: clamp(number(kelvin, 315), 220, 450),
    compressionRatio: clamp(number(ratio, 9.8), 4, 20),
  };
  const standard: Breath = {
    intakeKpa: input.standardKpa,
    intakeK: input.intakeK,
    compressionRatio: input.compressionRatio,
  };
  const boosted: Breath = { ...standard, intakeKpa: input.boostedKpa };
  const asked = sparkDemand(input.gapMm, standard);
  const worse = sparkDemand(input.gapMm, boosted);
  const kept = gapOfEqualDemand(input.gapMm, standard, boosted);
  const summary = `${engine?.code ?? 'engine'}: ${input.gapMm.toFixed(2)} mm asks ${kilovolts(asked)} at ${input.standardKpa} kPa and ${kilovolts(worse)} at ${input.boostedKpa} kPa; ${kept.toFixed(2)} mm keeps the demand.`;
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '320px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <EnginePicker data={data} value={engineId} onChange={choose} />
          <LiveText label="Gap" hint="mm" value={gap} onChange={setGap} inputMode="decimal" />
          <LiveText
            label="Standard intake pressure"
            hint="kPa, absolute"
            value={standardKpa}
            onChange={setStandardKpa}
            inputMode="decimal"
          />
          <LiveText
            label="Boosted intake pressure"
            hint="kPa, absolute"
            value={boostedKpa}
            onChange={setBoostedKpa}
            inputMode="decimal"
          />
          <LiveText
            label="Intake temperature"
            hint="K; 315 is 42 °C"
            value={kelvin}
            onChange={setKelvin}
            inputMode="decimal"
          />
          <LiveText label="Compression ratio" value={ratio} onChange={setRatio} inputMode="decimal" />
          <LiveText label="Gaps stated for boosts" hint="kPa=mm: 100=1.00 180=0.70" value={known} onChange={setKnown} />
        </Box>
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
            The ratio is what counts; the voltage itself is ±30 %. Between two known boosts take the tighter gap and ask
            for approval.
          </Caution>
        </Box>
      </Grid>
      <KeepForm
        tool="spark"
        action={keep}
        kept={{ input: { engine: engine?.code ?? '', gap, standardKpa, boostedKpa, kelvin, ratio }, summary }}
      />
    </>
  );
}

/** What a table of stated gaps says for this boost. */
function StatedGap({ known, kpa, system }: { known: string; kpa: number; system: ToolProps['system'] }) {
  const bands = [...known.matchAll(/(\d+(?:[.,]\d+)?)\s*=\s*(\d+(?:[.,]\d+)?)/g)].map((m) => {
    const gapMm = number(m[2] ?? '', 1);
    return { upToKpa: number(m[1] ?? '', 100), minMm: gapMm, maxMm: gapMm };
  });
  if (bands.length === 0) return null;
  const found = gapForBoost(bands, kpa);
  const words =
    found.kind === 'above-all'
      ? `No gap is stated for ${kpa} kPa or above: ask the maker or tuner.`
      : found.kind === 'between'
        ? `${kpa} kPa lies between two stated boosts: take the tighter gap, ${gapText(found.band.maxMm, system)}, and ask for approval.`
        : `Stated for ${found.band.upToKpa} kPa: ${gapText(found.band.maxMm, system)}.`;
  return (
    <Box role="status" mb="2" px="3" py="2" rounded="sm" bg={found.kind === 'in-band' ? 'tint' : 'caution.bg'}>
      {words}
    </Box>
  );
}

const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

function DemandChart({
  standard,
  boosted,
  gapMm,
  keptMm,
}: {
  standard: Breath;
  boosted: Breath;
  gapMm: number;
  keptMm: number;
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
