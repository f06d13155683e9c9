'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Nm } from '@/core/shared/kinds';
import { beginCurve, type CurveJob, type CurveSample, type CurveState, nextSample } from '@/core/torque/curve';
import { type KeptCurve, keepCurve } from '@/core/torque/kept-curve';
import type { UnitSystem } from '@/core/units/person-units';
import { torqueText } from '@/text/format';
import { paint } from '@/ui/theme/paint';
import { FieldHead, Press, Stop } from './parts';

/** A wrench that measures torque and angle, or its stand-in. */
export interface Wrench {
  readonly name: string;
  /** What the stand-in can play. */
  readonly plays: readonly { readonly kind: string; readonly words: string }[];
  readonly begin: (kind: string, job: CurveJob) => readonly CurveSample[];
}

const FAULT_WORDS: Readonly<Record<string, string>> = {
  cross_threaded:
    'Cross-threaded: torque comes where the thread should run free. Back it out by hand, look at the thread, start again by hand.',
  yielding:
    'The threads give way: angle grows and torque does not. Stop turning, take it out, and show a supervisor the thread.',
  over_torque: 'Over the most that the sheet allows. Take it out, look at thread and gasket, and start again.',
  seizing: 'It seizes: over twice what it was tightened to. Stop, use the way for seized plugs.',
};

const PHASES: Readonly<Record<string, string>> = {
  run_in: 'runs in',
  seating: 'on its seat',
  crush: 'the washer is crushed, go on',
  tightening: 'tightening',
  breaking_loose: 'breaking loose',
  running_out: 'running out',
};

/** Samples of the stand-in go by so fast. */
const SAMPLE_MS = 16;

/** Torque against angle as it comes: says stop in time, and keeps the curve with the site. */
export function WrenchPanel({
  wrench,
  job,
  curve,
  system,
  onDone,
  onStop,
}: {
  wrench: Wrench;
  job: CurveJob;
  curve: KeptCurve | null;
  system: UnitSystem;
  onDone: (curve: KeptCurve) => void;
  onStop: (curve: KeptCurve) => void;
}) {
  const [state, setState] = useState<CurveState | null>(null);
  const [points, setPoints] = useState<readonly (readonly [number, number])[]>([]);
  const timer = useRef<ReturnType<typeof setInterval> | undefined>(undefined);
  useEffect(() => () => clearInterval(timer.current), []);
  const play = (kind: string) => {
    clearInterval(timer.current);
    const samples = wrench.begin(kind, job);
    let at = 0;
    let now = beginCurve(job);
    const seen: CurveSample[] = [];
    timer.current = setInterval(() => {
      const sample = samples[at];
      at += 1;
      if (sample) {
        seen.push(sample);
        now = nextSample(job, now, sample);
        setState(now);
        setPoints(seen.flatMap((s) => (s.torqueNm === null ? [] : [[s.angleDeg, s.torqueNm] as const])));
      }
      if (sample && now.verdict === 'go_on') return;
      clearInterval(timer.current);
      const kept = keepCurve(seen, now, wrench.name);
      if (now.verdict === 'done') onDone(kept);
      else if (now.verdict === 'stop') onStop(kept);
    }, SAMPLE_MS);
  };
  const shown = points.length > 0 ? points : (curve?.points ?? []);
  const verdict = state?.verdict ?? curve?.verdict;
  const fault = state?.fault ?? curve?.fault ?? null;
  return (
    <Box role="group" aria-label="Torque wrench">
      <FieldHead name={wrench.name} known="plays in place of a wrench" />
      <CurveShape points={shown} job={job} />
      {verdict === 'stop' && fault && <Stop>STOP. {FAULT_WORDS[fault]}</Stop>}
      <Box role="status" fontSize="18px" fontWeight="650" minH="28px">
        {state && verdict === 'go_on' && `${PHASES[state.phase]}: ${torqueText(points.at(-1)?.[1] ?? 0, system)}`}
        {verdict === 'done' && `✓ Reached: ${torqueText(state?.peakNm ?? curve?.peakNm ?? 0, system)}`}
      </Box>
      <Flex gap="2" wrap="wrap">
        {wrench.plays.map(({ kind, words }) => (
          <Press key={kind} onPress={() => play(kind)}>
            {words}
          </Press>
        ))}
      </Flex>
    </Box>
  );
}

const [W, H] = [300, 120];

/** The curve with the band that the sheet allows. */
export function CurveShape({ points, job }: { points: readonly (readonly [number, number])[]; job: CurveJob | null }) {
  const band = job?.direction === 'in' ? job.targetNm : null;
  const mostNm = Math.max(band ? band.max * 1.3 : 10, ...points.map(([, nm]) => nm));
  const mostDeg = Math.max(90, points.at(-1)?.[0] ?? 0);
  const x = (deg: number): number => 34 + (deg / mostDeg) * (W - 40);
  const y = (nm: Nm): number => H - 18 - (nm / mostNm) * (H - 26);
  return (
    <chakra.svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      maxH="170px"
      role="img"
      aria-label={`Torque against angle, ${points.length} samples`}
      css={{ '& text': { fontSize: '10px', fill: 'var(--chakra-colors-soft)' } }}
    >
      {band && (
        <>
          <rect x={34} y={y(band.max)} width={W - 40} height={y(band.min) - y(band.max)} fill={paint('tint')} />
          <text x={30} y={y(band.max) + 4} textAnchor="end">
            {band.max.toFixed(0)}
          </text>
          <text x={30} y={y(band.min) + 4} textAnchor="end">
            {band.min.toFixed(0)}
          </text>
        </>
      )}
      <path d={`M34 6V${H - 18}H${W - 6}`} fill="none" stroke={paint('line')} />
      <text x={2} y={10}>
        N·m
      </text>
      <text x={W - 6} y={H - 5} textAnchor="end">
        {Math.round(mostDeg)}°
      </text>
      {points.length > 1 && (
        <path
          d={`M${points.map(([deg, nm]) => `${x(deg).toFixed(1)} ${y(nm).toFixed(1)}`).join('L')}`}
          fill="none"
          stroke="action"
          strokeWidth="2"
        />
      )}
    </chakra.svg>
  );
}
