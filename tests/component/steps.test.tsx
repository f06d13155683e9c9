import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { JobRecord } from '../../src/core/work/entry';
import type { FloorJob, FloorStep } from '../../src/core/work/job-record';
import { untouched } from '../../src/core/work/order-model.fixture';
import { SetPanel } from '../../src/ui/floor/view/set-panel';
import { StepPanel } from '../../src/ui/floor/view/step-panel';
import { draw } from './draw';
import { job, useJobInMemory } from './floor-job';

/** The steps of a job, and its record as it is after each press. */
function drawSteps(over: Partial<FloorJob> = {}, begun: JobRecord = {}) {
  let record: JobRecord = {};
  const onSites = vi.fn();
  function Steps() {
    const floor = useJobInMemory({ ...untouched, ...begun }, over);
    record = floor.record;
    return <StepPanel floor={floor} onCodes="/codes" onFollowUp="/follow" onSites={onSites} />;
  }
  const drawn = draw(<Steps />);
  const hand = () => screen.getByRole('group', { name: /^Step \d+ in hand$/ });
  const press = (name: string | RegExp) => drawn.person.click(within(hand()).getByRole('button', { name }));
  return { ...drawn, hand, press, onSites, record: () => record };
}
const step = (over: Partial<FloorStep>): FloorStep => ({ ...(job.steps[0] as FloorStep), asks: [], ...over });

describe('the steps of a job', () => {
  it('have the first open one in hand, and go on as it is done', async () => {
    const { hand, press, record } = drawSteps();
    expect(hand().textContent).toContain('1. Check that the engine is cold');
    await press('cold');
    await press('Done');
    expect(record()['step cold']).toMatchObject({ state: 'done', 'answer.temperature': 'cold' });
    expect(hand().getAttribute('aria-label')).toBe('Step 3 in hand');
  });

  it('say at the step why it cannot be done yet, and keep it open', async () => {
    const { press, record } = drawSteps();
    await press('Done');
    expect(screen.getByRole('alert').textContent).not.toBe('');
    expect(record()['step cold']?.state).toBe('open');
    await press('hot');
    await press('Done');
    expect(record()['step cold']?.state).toBe('open');
  });

  it('are marked as not done only with a reason; a gate says whom that keeps waiting', async () => {
    const { press, hand, record } = drawSteps();
    await press('Not done…');
    expect(hand().textContent).toContain('what comes after it waits for a supervisor');
    expect(within(hand()).getByRole<HTMLButtonElement>('button', { name: 'Mark as not done' }).disabled).toBe(true);
    await press('no tool for it today');
    await press('Mark as not done');
    expect(record()['step cold']).toMatchObject({ state: 'not_done', 'answer.why': 'no tool for it today' });
  });

  it('can be taken up again after they were said', async () => {
    const { person, hand, press, record } = drawSteps(
      {},
      { 'step cold': { state: 'done', 'answer.temperature': 'cold' } },
    );
    await person.click(screen.getByRole('button', { name: /^1\. Check that the engine is cold/ }));
    expect(hand().getAttribute('aria-label')).toBe('Step 1 in hand');
    await press('Open it again');
    expect(record()['step cold']?.state).toBe('open');
  });

  it('leave what is done at each place to its place', async () => {
    drawSteps();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^2\. At each site/ }).disabled).toBe(true);
  });

  it('count parts out from what there should be, one more and one less', async () => {
    const ask = { key: 'out:screws_1', what: 'cover screws', kind: 'count' } as const;
    const { press, hand, record } = drawSteps({ steps: [step({ key: 'lids_out_1', kind: 'open', asks: [ask] })] });
    expect(hand().textContent).toContain('there should be 4');
    await press('4 counted');
    await press('cover screws: one less');
    expect(record()['count screws_1']?.out).toBe(3);
    await press('cover screws: one more');
    expect(record()['count screws_1']?.out).toBe(4);
  });

  it('take one press for each or one for all', async () => {
    const ask = { key: 'marked', what: 'connectors marked', kind: 'each', choices: ['1', '2', '3'] } as const;
    const { press, hand, record } = drawSteps({ steps: [step({ key: 'mark', kind: 'open', asks: [ask] })] });
    await press('2');
    expect(record()['step mark']?.['answer.marked']).toBe('2');
    expect(hand().textContent).toContain('1 of 3');
    await press('every one');
    expect(record()['step mark']?.['answer.marked']).toBe('1 2 3');
    await press('✓ 1');
    expect(record()['step mark']?.['answer.marked']).toBe('2 3');
  });

  it('show what the dash was last read at where it is read again', async () => {
    const ask = { key: 'from', what: 'odometer before the drive', kind: 'odometer' } as const;
    const { person, hand, record } = drawSteps({ steps: [step({ key: 'drive', kind: 'start', asks: [ask] })] });
    expect(hand().textContent).toContain('last read 41,310 km');
    await person.type(within(hand()).getByRole('textbox', { name: /^odometer before the drive/ }), '41320');
    expect(record()['step drive']?.['answer.from']).toBe('41320');
  });

  it('keep what was broken on arrival and a note for the next apart from the answers', async () => {
    const { person, record } = drawSteps({ steps: [step({ key: 'cover', kind: 'open' })] });
    await person.type(screen.getByLabelText(/^What was missing or broken/), 'clip gone');
    await person.type(screen.getByLabelText(/^What whoever does this next/), 'short ratchet');
    expect(record()['step cover']).toMatchObject({ 'answer.found': 'clip gone', 'answer.note': 'short ratchet' });
    expect(screen.getByText('Missing or broken on arrival: clip gone')).toBeTruthy();
  });
});

/** The new parts on the bench. */
function drawSet() {
  let record: JobRecord = {};
  function Parts() {
    const floor = useJobInMemory();
    record = floor.record;
    return <SetPanel floor={floor} />;
  }
  const drawn = draw(<Parts />);
  const press = (name: string | RegExp) => drawn.person.click(screen.getByRole('button', { name }));
  const plugs = (field: string) =>
    Object.entries(record).flatMap(([target, fields]) => (target.startsWith('site ') ? [fields[field]] : []));
  return { ...drawn, press, plugs };
}

describe('the new parts on the bench', () => {
  it('are read and measured by two presses where all are alike', async () => {
    const { press, plugs } = drawSet();
    await press('Read off each: all read EM-7310');
    expect(plugs('newNumber')).toEqual(['EM-7310', 'EM-7310', 'EM-7310', 'EM-7310']);
    await press('Each of 4 measures 1.05 mm');
    expect(plugs('newGap')).toEqual(['1.05 mm', '1.05 mm', '1.05 mm', '1.05 mm']);
    expect(screen.getByRole('status').textContent).toContain('4 of 4 measured. Every gap is in range.');
  });

  it('say at once that a whole set is gapped for another application', async () => {
    const { person } = drawSet();
    for (const field of screen.getAllByLabelText(/^New plug for/)) await person.type(field, '0.8 mm');
    expect(screen.getByRole('status').textContent).toContain('gapped for another application');
    expect(screen.queryByRole('button', { name: /^Each of/ })).toBeNull();
  });

  it('ask for the others only, once one was measured by itself', async () => {
    const { person, press, plugs } = drawSet();
    const [first] = screen.getAllByLabelText(/^New plug for/);
    await person.type(first as HTMLElement, '1.1 mm');
    await press('Each of 3 measures 1.05 mm');
    expect(plugs('newGap')).toEqual(['1.1 mm', '1.05 mm', '1.05 mm', '1.05 mm']);
  });
});
