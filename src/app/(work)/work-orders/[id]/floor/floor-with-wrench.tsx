'use client';

import type { FloorJob } from '@/core/work/job-record';
import { type CurveKind, playCurve } from '@/simulators/torque-wrench';
import { FloorView } from '@/ui/floor/view/floor-view';
import type { Wrench } from '@/ui/floor/view/wrench-panel';
import { endWaitAction } from '../../actions';

/** The stand-in for a wrench that measures: it ships with the app and plays on the device, network or none. */
const STAND_IN: Wrench = {
  name: 'Measuring wrench, stand-in',
  plays: [
    { kind: 'good', words: 'Tighten' },
    { kind: 'cross_threaded', words: 'Play: cross-threaded' },
    { kind: 'yielding', words: 'Play: threads give way' },
  ],
  begin: (kind, job) => {
    const good: CurveKind = job.direction === 'in' && job.seating === 'conical' ? 'good_conical' : 'good_new_gasket';
    const played = playCurve(kind === 'good' ? good : (kind as CurveKind), Date.now() % 100_000);
    return scaled(played, job);
  },
};

/** What the stand-in played for its own sheet, as it would have been on this one. */
function scaled({ job: played, samples }: ReturnType<typeof playCurve>, job: Parameters<Wrench['begin']>[1]) {
  if (played.direction !== 'in' || job.direction !== 'in') return samples;
  const factor = job.targetNm.min / played.targetNm.min;
  return samples.map((sample) => ({
    ...sample,
    torqueNm: sample.torqueNm === null ? null : sample.torqueNm * factor,
  }));
}

export function FloorWithWrench({ first }: { first: FloorJob }) {
  const desk = `/work-orders/${first.orderId}`;
  return (
    <FloorView
      first={first}
      wrench={STAND_IN}
      deskHref={desk}
      codesHref={`${desk}/codes`}
      stopHref={`${desk}/stop`}
      goOn={endWaitAction}
    />
  );
}
