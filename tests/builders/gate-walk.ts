import { randomUUID } from 'node:crypto';
import { answered } from '../../demo/device';
import type { Entry, Json } from '../../src/core/work/entry';
import { GATE_TABLE, type Gate } from '../../src/core/work/gate-table';
import type { FloorJob } from '../../src/core/work/job-record';
import type { StepKind } from '../../src/core/work/procedure/step';
import { stepTarget } from '../../src/core/work/targets';

/* A visit walked from gate to gate, each tried before it is opened: as a device that was offline sends it, in one go and late. */

/** When all of it was pressed, without a network. */
const AT = '2026-11-16T07:10:00Z';

interface GateWalk {
  readonly job: () => Promise<FloorJob>;
  readonly send: (
    entries: readonly Entry[],
  ) => Promise<readonly { readonly outcome: string; readonly message: string | null }[]>;
}

const entry = (target: string, field: string, value: Json, base: Json = null): Entry => ({
  id: randomUUID(),
  target,
  field,
  value,
  base,
  at: AT,
});

/** What answers the steps of some kinds. */
const steps = (job: FloorJob, kinds: readonly StepKind[]): readonly Entry[] => {
  const own = job.steps.filter(({ kind }) => kind && kinds.includes(kind));
  const counts = new Set(own.flatMap(({ asks }) => asks.flatMap(({ key }) => (key.includes(':') ? [key] : []))));
  return answered(job, { at: AT, waitedFrom: '2026-11-16T06:00:00Z' }).filter(
    ({ target, field }) =>
      own.some(({ key }) => target === stepTarget(key)) ||
      (target.startsWith('count ') && counts.has(`${field}:${target.slice('count '.length)}`)),
  );
};

/** New parts read and measured, all of them. */
const bench = (job: FloorJob): readonly Entry[] =>
  job.places.flatMap(({ target }) => [
    entry(target, 'newNumber', job.plug?.rules.partNumber ?? '', ''),
    entry(target, 'newGap', '1.05 mm', ''),
  ]);

const TIGHT: readonly (readonly [string, Json, Json])[] = [
  ['torqueMethod', 'wrench', null],
  ['installedTorque', '17.5 N·m', ''],
];

/**
 * Walks the visit of a V6 with its intake in the way to the start of the engine.
 *
 * @returns the gates that held what was pressed too early, in the order in which they did
 */
export async function walkGates({ job: load, send }: GateWalk): Promise<readonly Gate[]> {
  const held: Gate[] = [];
  /** What is pressed too early, and what opens the gate, in one batch; then the press again. */
  const tryGate = async (gate: Gate, early: Entry, opens: readonly Entry[], says: string = GATE_TABLE[gate].says) => {
    const [first, ...others] = await send([early, ...opens]);
    if (first?.outcome !== 'refused' || !first.message?.includes(says))
      throw new Error(`${gate} let it by: ${JSON.stringify(first)}`);
    const wrong = others.find(({ outcome }) => outcome === 'refused');
    if (wrong) throw new Error(`${gate} was not opened: ${wrong.message}`);
    held.push(gate);
  };
  const job = await load();
  const cowl = job.steps.find(({ kind }) => kind === 'open')?.key ?? '';
  const open = () => entry(stepTarget(cowl), 'state', 'done', 'open');
  const gap = () => entry('site 1A', 'removedGap', '1.20 mm', '');
  const done = () => entry('site 1A', 'done', true, false);
  await tryGate('safe', entry('step codes_before', 'state', 'done', 'open'), steps(job, ['safe']));
  await tryGate('parts', open(), [...bench(job), ...steps(job, ['parts'])]);
  await tryGate('isolated', open(), steps(job, ['isolate']));
  await tryGate('fuel', open(), steps(job, ['fuel']));
  await tryGate('temperature', gap(), steps(job, ['cold']));
  await tryGate('wells', gap(), steps(job, ['open', 'rags', 'clean', 'leads', 'wells']));
  await send([gap(), ...TIGHT.map(([field, value, base]) => entry('site 1A', field, value, base))]);
  const sound = entry('site 1A', 'hole', 'sound');
  await tryGate('threads', done(), [sound], 'Look at the thread in the head');
  await send([entry('site 1A', 'breakawayFeel', 'seized'), entry('site 1A', 'start', 'by hand')]);
  await tryGate('breakaway', done(), [entry('site 1A', 'soakedAt', '2026-11-16T06:30:00Z')], 'seized');
  await send([entry('site 1A', 'dropped', 'dropped')]);
  await tryGate('dropped', done(), [entry('site 1A', 'dropped', 'insulator sound', 'dropped')], 'dropped');
  await send([entry('site 1A', 'start', 'bound early', 'by hand')]);
  await tryGate('by_hand', done(), [entry('site 1A', 'start', 'by hand', 'bound early'), done()], 'bound early');
  await send(
    job.places
      .filter(({ id }) => id !== '1A')
      .flatMap(({ target }) => [
        ...TIGHT.map(([field, value, base]) => entry(target, field, value, base)),
        entry(target, 'hole', 'sound'),
        entry(target, 'start', 'by hand'),
        entry(target, 'done', true, false),
      ]),
  );
  const now = await load();
  const start = () => entry('step start', 'state', 'done', 'open');
  await send([entry('step start', 'answer.idle', 'even')]);
  // Of the gates before the start the one for fluid in the cylinders is told first.
  await tryGate('solvent', start(), steps(now, ['clear']), 'Clear the cylinders');
  await send([entry('site 3A', 'seen', { 'nose cracked': 2 }, {})]);
  await tryGate('pieces', start(), [entry('site 3A', 'pieces', 'all there')], 'every piece there');
  const screws = steps(now, ['refit']).filter(({ target }) => target.startsWith('count '));
  await tryGate('counts', start(), [...screws, ...steps(now, ['close', 'count'])]);
  await tryGate('clicks', start(), steps(now, ['refit']));
  const [started] = await send([start()]);
  if (started?.outcome !== 'kept') throw new Error(`not started: ${started?.message}`);
  return held;
}
