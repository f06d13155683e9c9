import { describe, expect, it } from 'vitest';
import { engine } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { closingBlockers, plugServiceSteps } from './steps';

const layout = layoutOf(
  engine({
    arrangement: 'inline',
    mounting: 'transverse',
    ignition: 'coil_rail',
    plugsPerCylinder: 1,
    banks: [{ place: 'only', cylinders: [1, 2, 3, 4] }],
    firingOrder: [1, 3, 4, 2],
  }),
);
const steps = (over = {}) =>
  plugServiceSteps({ layout, hybrid: false, plugNumber: 'EM-7310', seat: 'gasket', ...over });

describe('plugServiceSteps', () => {
  it('counts sites and names what this engine has', () => {
    const text = steps()
      .map((s) => s.title)
      .join('\n');
    expect(text).toContain('4 × EM-7310');
    expect(text).toContain('coil rail');
    expect(text).toContain('1 coil on');
  });

  it('isolates traction before anything is opened on a hybrid', () => {
    const keys = steps({ hybrid: true }).map((s) => s.key);
    expect(keys.indexOf('isolate')).toBeLessThan(keys.indexOf('leads'));
    expect(steps({ hybrid: true }).find((s) => s.key === 'isolate')?.caution).toContain('qualified people only');
  });

  it('shows the hazard at the step where it is, and never a gasket on a conical seat', () => {
    expect(steps().find((s) => s.key === 'cold')?.caution).toContain('burns');
    expect(steps({ seat: 'conical' }).find((s) => s.perSite)?.caution).toContain('no gasket');
  });
});

describe('closingBlockers', () => {
  it('names open sites and silent steps, and takes "not done" as an answer', () => {
    const step = (state: 'open' | 'done' | 'not_done', perSite = false) => ({ title: 'Road test', perSite, state });
    expect(
      closingBlockers(
        [
          { name: '2', done: false },
          { name: '3', done: false },
        ],
        [step('open')],
      ),
    ).toEqual(['Sites 2, 3 not done yet.', 'Neither done nor marked as not done: Road test.']);
    expect(closingBlockers([{ name: '2', done: true }], [step('done'), step('not_done'), step('open', true)])).toEqual(
      [],
    );
  });
});
