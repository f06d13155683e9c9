import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { JobRecord } from '../../src/core/work/entry';
import type { FloorPlace, FloorTask } from '../../src/core/work/job-record';
import { PlacePanel } from '../../src/ui/floor/view/place-panel';
import { draw } from './draw';
import { coilPlace, coilTask, job, plugPlace, useJobInMemory } from './floor-job';

/** The panel of one place, and the record as it is after each press. */
function drawPanel(place: FloorPlace, tasks: readonly FloorTask[] = job.tasks) {
  let record: JobRecord = {};
  const onNext = vi.fn();
  function Panel() {
    const floor = useJobInMemory({}, { tasks });
    record = floor.record;
    const task = tasks.find(({ id }) => id === place.task) as FloorTask;
    const wrench = { name: 'stand-in', plays: [], begin: () => [] };
    return <PlacePanel {...{ floor, place, task, next: '3', last: null, wrench, onNext }} />;
  }
  const drawn = draw(<Panel />);
  const press = (name: string | RegExp) => drawn.person.click(screen.getByRole('button', { name }));
  const field = (label: RegExp) => screen.getByLabelText<HTMLInputElement>(label);
  return { ...drawn, press, field, onNext, fields: () => record[place.target] ?? {} };
}
const faults = () => screen.queryAllByRole('alert').map(({ textContent }) => textContent);

describe('the panel of a plug', () => {
  it('is read in one press where nothing is out of order', async () => {
    const { press, fields } = drawPanel(plugPlace);
    await press('Reads EM-7301, all normal, thread sound');
    expect(fields()).toMatchObject({ observedNumber: 'EM-7301', hole: 'sound', breakawayFeel: 'normal' });
    expect(Object.keys(fields().seen as object).length).toBeGreaterThan(3);
    expect(screen.queryByRole('button', { name: /^Reads EM-7301, all normal/ })).toBeNull();
    expect(screen.getByText(/as recorded/)).toBeTruthy();
  });

  it('says what is missing, leads there, and saves once nothing is', async () => {
    const { press, person, field, fields, onNext } = drawPanel(plugPlace);
    await press(/^Save cylinder 1/);
    expect(onNext).not.toHaveBeenCalled();
    const missing = within(screen.getByRole('alert')).getAllByRole('button');
    expect(missing.length).toBeGreaterThan(1);
    await press('Reads EM-7301, all normal, thread sound');
    await person.type(field(/^Old gap/), '1.2 mm');
    await person.type(field(/^Number on the new plug/), 'EM-7310');
    await person.type(field(/^New gap/), '1.05 mm');
    expect(faults()).toEqual([]);
    await press(/^Save cylinder 1/);
    expect(onNext).toHaveBeenCalledOnce();
    expect(fields()).toMatchObject({
      done: true,
      start: 'by hand',
      torqueMethod: 'wrench',
      installedTorque: '17.5 N·m',
    });
  });

  it('tells at the gap what the sheet allows, and logs a bend', async () => {
    const { press, person, field, fields } = drawPanel(plugPlace);
    await person.type(field(/^Number on the new plug/), 'EM-7310');
    await person.type(field(/^New gap/), '1.3 mm');
    expect(screen.getByText('✕ out of range')).toBeTruthy();
    await press('Bent: measure again');
    expect(fields()).toMatchObject({ bentFrom: '1.3', newGap: '' });
  });

  it('stops a plug that bound early, and takes the press back', async () => {
    const { press, fields } = drawPanel(plugPlace);
    await press('It bound early');
    expect(fields().start).toBe('bound early');
    expect(faults().join()).toContain('Do not turn further');
    await press('Out, cleaned, and in again by hand');
    expect(fields().start).toBe('by hand');
  });

  it('asks at once for the pieces of a cracked insulator, and says that a torn thread is repaired first', async () => {
    const { press, fields } = drawPanel(plugPlace);
    await press('Describe it');
    await press('nose cracked');
    expect(screen.getByRole('group', { name: 'Pieces of the cracked insulator' })).toBeTruthy();
    await press('A piece is missing');
    expect(fields().pieces).toBe('one is missing');
    await press('torn');
    expect(fields().hole).toBe('torn');
    await press('✓ torn');
    expect(fields().hole).toBeNull();
  });

  it('is typed on its pad, in the unit that is chosen', async () => {
    const { press, fields } = drawPanel(plugPlace);
    for (const key of ['1', '.', '2']) await press(key);
    await press('in');
    expect(fields().removedGap).toBe('1.2 in');
    await press('Delete the last digit');
    expect(fields().removedGap).toBe('1. in');
  });
});

describe('the panel of a coil', () => {
  it('is tested against its sheet, and goes back in where it is good', async () => {
    const { press, person, field, fields, onNext } = drawPanel(coilPlace);
    expect(screen.getByRole('heading', { level: 2 }).textContent).toBe('Coil 1');
    await press('reads NL-3811');
    await press('reads C-0417');
    await press('All sound');
    await person.type(field(/^Primary resistance/), '0.6');
    expect(screen.getByText('✓ in range')).toBeTruthy();
    await press('good');
    expect(screen.queryByLabelText(/^Number on the new coil/)).toBeNull();
    await person.type(field(/^Good for so much more/), '20000 km');
    await press(/^Save coil 1 Good, back in, next: 3/);
    expect(fields()).toMatchObject({ done: true, tagOut: 'C-0417', result: 'good', primaryOhm: '0.6' });
    expect(fields().installedTorque).toBeUndefined();
    expect(onNext).toHaveBeenCalledOnce();
  });

  it('says that a coil out of range is, and takes the torque of its screw for the new one', async () => {
    const { press, person, field, fields } = drawPanel(coilPlace, [{ ...coilTask, action: 'replace' }]);
    await person.type(field(/^Primary resistance/), '3');
    expect(screen.getByText('✕ out of range')).toBeTruthy();
    await person.type(field(/^Number on the new coil/), 'NL-3811');
    await person.type(field(/^Serial of the new one/), 'C-0501');
    expect(screen.getByText(/never the torque of a plug/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'turn angle' })).toBeNull();
    await press('All sound');
    await press(/^Save coil 1 New one in, screw 9 N·m/);
    expect(fields()).toMatchObject({ newNumber: 'NL-3811', tagIn: 'C-0501', installedTorque: '9 N·m' });
  });

  it('has a number pad of its own under the field in hand, in ohms', async () => {
    const { person, press, field, fields } = drawPanel(coilPlace);
    expect(screen.queryByRole('group', { name: 'Number pad' })).toBeNull();
    await person.click(field(/^Primary resistance/));
    const [pad] = screen.getAllByRole('group', { name: 'Number pad' });
    const key = (name: string) => person.click(within(pad as HTMLElement).getByRole('button', { name }));
    await key('5');
    expect(fields().primaryOhm).toBe('5 Ω');
    await key('OL, nothing conducts');
    expect(fields().primaryOhm).toBe('OL');
    await key('7');
    expect(fields().primaryOhm).toBe('7 Ω');
    await press(/^All sound/);
  });
});
