import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { personUnits } from '../units/person-units';
import type { Json } from './entry';
import {
  GATE_TABLE,
  GATES,
  type Gate,
  type Lift,
  PLACE_GATES,
  STAGE_WORDS,
  STAGES,
  stageOfField,
  stageOfStep,
} from './gate-table';
import { gatesOf, placeGates, shutByNotDone, stopBefore } from './gates';
import type { OrderModel, StepModel } from './order-model';
import { plugService, untouched } from './order-model.fixture';
import { placeFaultsIn } from './order-rules';
import { placeRecord } from './place-fields';
import { STEP_KINDS } from './procedure/step';
import { stepTarget } from './targets';

const step = (kind: StepModel['kind'], key = String(kind)): StepModel => ({
  key,
  kind,
  title: `do ${key}`,
  perSite: kind === 'sites',
  asks: [],
});
const lift = (gate: Gate, target: string | null = null): Lift => ({
  gate,
  target,
  reason: 'said so',
  by: 'R. T.',
  at: '',
});

/** An order with every kind of step, and nothing counted. */
const every: OrderModel = { ...plugService, steps: STEP_KINDS.map((kind) => step(kind)), counts: [], places: [] };
const said = (done: readonly string[], state: Json = 'done') =>
  Object.fromEntries(done.map((key) => [stepTarget(key), { state }]));
const keysOf = (gates: readonly Gate[]): string[] => gates.flatMap((gate) => GATE_TABLE[gate].steps.map(String));

describe('a gate', () => {
  it.each(GATES.filter((gate) => GATE_TABLE[gate].steps.length > 0))(
    '%s stops what comes after it and nothing before, until its steps are done or it is lifted',
    (gate) => {
      const others = GATES.filter((one) => one !== gate);
      const record = said(keysOf(others).filter((key) => !keysOf([gate]).includes(key)));
      const { before, says } = GATE_TABLE[gate];
      for (const stage of STAGES) {
        const stop = stopBefore(every, record, stage);
        expect([stage, stop?.includes(says) ?? false]).toEqual([
          stage,
          STAGES.indexOf(stage) >= STAGES.indexOf(before),
        ]);
        expect(stopBefore({ ...every, lifts: [lift(gate)] }, record, stage)).toBeNull();
      }
      const done = said(keysOf(GATES));
      expect(stopBefore(every, done, 'close')).toBeNull();
      expect(gatesOf(every, record).find((one) => one.gate === gate)?.state).toBe('shut');
    },
  );

  it('is not there where the engine has no such step', () => {
    const bare = { ...every, steps: [step('safe'), step('sites')] };
    expect(gatesOf(bare, said(['safe'])).map(({ gate, state }) => [gate, state])).toEqual([
      ['safe', 'open'],
      ['solvent', 'open'],
      ['pieces', 'open'],
      ['counts', 'open'],
    ]);
  });

  it('stays shut where its step was marked as not done, and says so to whoever closes', () => {
    const record = { ...said(keysOf(GATES)), ...said(['road'], 'not_done') };
    expect(stopBefore(every, record, 'close')).toContain(GATE_TABLE.proved.says);
    expect(shutByNotDone(every, record).join(' ')).toContain('“do road”');
    expect(shutByNotDone({ ...every, lifts: [lift('proved')] }, record)).toEqual([]);
  });

  it('holds the start for penetrant, a count that is short and a place that is open', () => {
    const ready = { ...plugService, counts: [], steps: [step('start')] };
    const soaked = { 'site 1A': { soakedAt: '2026-11-16T08:00:00Z', done: true } };
    expect(stopBefore({ ...ready, places: [] }, {}, 'start')).toBeNull();
    expect(stopBefore(ready, soaked, 'start')).toContain('Penetrant was used');
    expect(stopBefore(ready, {}, 'start')).toContain('Cylinders 1, 2, 3, 4 not done yet');
    const counted = {
      ...ready,
      places: [],
      counts: [{ key: 'rags', kind: 'rags' as const, what: 'rags', expected: 3, outStep: 'x', backStep: 'x' }],
    };
    expect(stopBefore(counted, { 'count rags': { out: 3, back: 2 } }, 'start')).toContain('missing 1');
    expect(stopBefore(counted, { 'count rags': { out: 3, back: 3 } }, 'start')).toBeNull();
  });

  it('once open stays open whatever else is done: more done never shuts one', () => {
    const kinds = fc.subarray([...STEP_KINDS]);
    fc.assert(
      fc.property(kinds, kinds, fc.constantFrom(...STAGES), (some, more, stage) => {
        if (stopBefore(every, said(some), stage) !== null) return;
        expect(stopBefore(every, said([...some, ...more]), stage)).toBeNull();
      }),
    );
  });
});

describe('a cracked insulator', () => {
  const model: OrderModel = { ...plugService, steps: [], counts: [] };
  const done = Object.fromEntries(plugService.places.map(({ target }) => [target, { done: true }]));
  const stop = (over: Readonly<Record<string, Json>>, lifts: readonly Lift[] = []) =>
    stopBefore({ ...model, lifts }, { ...done, 'site 3A': { done: true, ...over } }, 'start');

  it.each(['nose cracked', 'insulator cracked'])(
    '%s stops the start where it was seen, until every piece is there',
    (word) => {
      const seen = { [word]: 2 };
      expect(stop({})).toBeNull();
      expect(stop({ seen })).toMatch(/Cylinder 3: .*is every piece there.*do not crank/);
      expect(stop({ seen, pieces: 'one is missing' })).toContain('lies in the cylinder');
      expect(stop({ seen, pieces: 'one is missing' }, [lift('pieces')])).toBeNull();
      expect(stop({ seen, pieces: 'all there' })).toBeNull();
    },
  );
});

describe('a gate of one place', () => {
  const plain = { hole: 'sound', start: 'by hand', breakawayFeel: 'normal', newGap: '1.05' };
  const at = (over: Readonly<Record<string, Json>>, lifts: readonly Lift[] = [], breakawayNm: number | null = null) =>
    placeGates({ lifts }, { target: 'site 1A', place: placeRecord({ ...plain, ...over }), breakawayNm, mostNm: 19 });

  it.each([
    ['by_hand', { start: 'bound early' }],
    ['by_hand', { start: null }],
    ['breakaway', { breakawayFeel: 'seized' }],
    ['threads', { hole: 'torn' }],
    ['threads', { hole: null }],
    ['dropped', { dropped: 'dropped' }],
  ] as const)('%s holds a plug with %j, at its own place alone', (gate, over) => {
    expect(at({})).toEqual([]);
    expect(at(over).map((one) => [one.gate, one.state])).toEqual([[gate, 'shut']]);
    expect(at(over, [lift(gate, 'site 1A')])[0]?.state).toBe('lifted');
    expect(at(over, [lift(gate, 'site 2A')])[0]?.state).toBe('shut');
    const told = placeFaultsIn(plugService, { 'site 1A': { ...plain, ...over } }, 'site 1A', personUnits('metric'));
    expect(Object.values(told).join(' ')).toContain(at(over)[0]?.waits[0]);
  });

  it('takes what comes loose at more than twice its torque for seized, until it has soaked', () => {
    expect(at({}, [], 37)).toEqual([]);
    expect(at({}, [], 39).map(({ gate }) => gate)).toEqual(['breakaway']);
    expect(at({ soakedAt: '2026-11-16T08:00:00Z' }, [], 60)).toEqual([]);
  });

  it('lets a dropped plug in once its gap is measured again and its insulator looked at', () => {
    expect(at({ dropped: 'dropped', newGap: '' })[0]?.waits[0]).toContain('measure its gap again');
    expect(at({ dropped: 'dropped' })[0]?.waits[0]).toContain('look at the insulator');
    expect(at({ dropped: 'insulator sound' })).toEqual([]);
  });
});

describe('stages', () => {
  it('are known of every step, and of every field of a place', () => {
    expect(STEP_KINDS.map(stageOfStep).filter((stage) => stage !== null && !STAGES.includes(stage))).toEqual([]);
    expect(stageOfField('plug', 'removedGap')).toBe('out');
    expect(stageOfField('coil', 'tagOut')).toBe('access');
    expect(stageOfField('plug', 'newGap')).toBeNull();
    expect(stopBefore(plugService, untouched, 'access')).toBeNull();
    expect(stopBefore(plugService, untouched, 'out')).toContain('engine temperature');
  });
});

describe('the page of gates', () => {
  it('is as the table says', async () => {
    const row = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
    const page = [
      '# Gates',
      '',
      'A gate stops what comes after it: at the vehicle the part in hand is not taken up, and whatever a device sends is refused,',
      'also from one that was offline. It is one table in the core, `src/core/work/gate-table.ts`; this page is made from it.',
      'A supervisor may lift a gate for one visit, with a reason that stays on the record, the job card and the finished record.',
      'A step that is marked as not done has a reason too, and leaves its gate shut.',
      '',
      row(['before', 'gate', 'opens when', 'what it keeps from happening', 'of']),
      row(['---', '---', '---', '---', '---']),
      ...GATES.map((gate) =>
        row([
          STAGE_WORDS[GATE_TABLE[gate].before],
          `**${GATE_TABLE[gate].says}**`,
          GATE_TABLE[gate].opens,
          GATE_TABLE[gate].hazard,
          PLACE_GATES.some((one) => one === gate) ? 'each place' : 'the visit',
        ]),
      ),
      '',
      'New parts are read and measured on the bench at any time, and a place may be left as it was for a reason at any time.',
      '',
    ].join('\n');
    await expect(page).toMatchFileSnapshot('../../../docs/gates.md');
  });
});
