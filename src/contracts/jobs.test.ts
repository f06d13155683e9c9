import { describe, expect, it } from 'vitest';
import { JOB_NAMES, JOBS } from './jobs';

const id = '00000000-0000-4000-8000-000000000001';

describe('what a job is told', () => {
  it.each([
    ['refresh-families', { fleetId: id, familyIds: [id], why: 'a sheet' }, true],
    ['refresh-families', { fleetId: id, familyIds: [], why: 'a sheet' }, false],
    ['due-run', { fleetId: id }, true],
    ['due-run', { fleetId: 'all' }, false],
    ['due-runs', {}, true],
    ['load-readings', { fleetId: id, loadId: id }, true],
    ['load-readings', { fleetId: id }, false],
    ['notices', { fleetId: id }, true],
    ['notices', {}, false],
    ['check-import', { fleetId: id, importId: id }, true],
    ['check-import', { fleetId: id }, false],
    ['apply-import', { fleetId: id, importId: id, personId: id, digest: 'abc' }, true],
    ['apply-import', { fleetId: id, importId: id, digest: 'abc' }, false],
    ['tidy', {}, true],
  ] as const)('%s takes %j: %s', (name, data, expected) => {
    expect(JOBS[name].safeParse(data).success).toBe(expected);
  });

  it('has a name for every job, fit for a queue', () => {
    expect(new Set(JOB_NAMES)).toEqual(new Set(Object.keys(JOBS)));
    for (const name of JOB_NAMES) expect(name).toMatch(/^[a-z][a-z-]*$/);
  });
});
