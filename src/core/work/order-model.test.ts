import { describe, expect, it } from 'vitest';
import { inline4 } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { findingKey } from '../inspection/finding';
import type { JobRecord } from './entry';
import { stopsIn } from './order-model';

const layout = layoutOf(inline4);
const trace = { seen: { 'nose coloured trace': 2 } };
const record = (over: JobRecord): JobRecord => ({
  order: { trayFirst: '1A' },
  'site 1A': { seen: { 'nose tan': 2 } },
  ...over,
});

describe('stopsIn', () => {
  it('tells what stops the work as soon as the second of two neighbours is described', () => {
    expect(stopsIn(layout, record({ 'site 2A': trace }), [])).toEqual([]);
    const [stop] = stopsIn(layout, record({ 'site 2A': trace, 'site 3A': trace }), []);
    expect(stop).toMatchObject({ cause: 'coolant_between', sites: [{ cylinder: 2 }, { cylinder: 3 }] });
    expect(stopsIn(layout, record({ 'site 2A': trace, 'site 4A': trace }), [])).toEqual([]);
  });

  it('stops on neighbours where nobody declared the tray, and is quiet once a supervisor has decided', () => {
    const both = { 'site 2A': trace, 'site 3A': trace };
    expect(stopsIn(layout, { ...record(both), order: {} }, [])).toMatchObject([{ cause: 'coolant_between' }]);
    const melted = record({ 'site 4A': { seen: { 'electrodes melted': 1 } } });
    const [stop] = stopsIn(layout, melted, []);
    expect(stop?.cause).toBe('detonation');
    expect(stopsIn(layout, melted, stop ? [findingKey(stop)] : [])).toEqual([]);
  });
});
