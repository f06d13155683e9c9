import { describe, expect, it } from 'vitest';
import { entryValueSchema } from './order-entry';

const takes = (target: string, field: string, value: unknown): boolean | null =>
  entryValueSchema(target, field)?.safeParse(value).success ?? null;

describe('entryValueSchema', () => {
  it.each([
    ['site 1A', 'newGap', '1.05 mm', true],
    ['site 1A', 'newGap', 1.05, false],
    ['site 1A', 'newNumber', 'x'.repeat(61), false],
    ['site 1A', 'remark', 'x'.repeat(500), true],
    ['site 1A', 'seen', { 'nose tan': 2 }, true],
    ['site 1A', 'seen', { 'nose tan': 4 }, false],
    ['site 1A', 'seen', { 'nose gold': 2 }, false],
    ['site 1A', 'breakawayFeel', 'seized', true],
    ['site 1A', 'breakawayFeel', 'well', false],
    ['site 1A', 'breakawayFeel', null, true],
    ['site 1A', 'soakedAt', '2026-11-16T08:00:00+01:00', true],
    ['site 1A', 'soakedAt', 'yesterday', false],
    ['site 1A', 'done', 'true', false],
    ['step start', 'state', 'not_done', true],
    ['step start', 'state', 'half', false],
    ['step start', 'answer.idle', 'even', true],
    ['step start', 'answer.idle', 'x'.repeat(301), false],
    ['count tools', 'out', 7, true],
    ['count tools', 'out', 7.5, false],
    ['count tools', 'back', -1, false],
    ['order', 'trayFirst', '1A', true],
    ['order', 'trayFirst', 1, false],
  ])('%s %s takes %j: %s', (target, field, value, expected) => {
    expect(takes(target, field, value)).toBe(expected);
  });

  it('knows no shape for what no order has', () => {
    expect([takes('site 1A', 'toString', 'x'), takes('cap 1', 'newGap', '1'), takes('', '', '')]).toEqual([
      null,
      null,
      null,
    ]);
  });

  it('takes a curve of a wrench, and no other object for one', () => {
    const curve = {
      points: [[0, 1.5]],
      verdict: 'stop',
      fault: 'seizing',
      peakNm: 9,
      contactDeg: null,
      source: 'TW-1',
    };
    expect(takes('site 1A', 'curve', curve)).toBe(true);
    expect(takes('site 1A', 'curve', null)).toBe(true);
    for (const wrong of [
      { verdict: 'fine' },
      { fault: 'moon' },
      { points: Array(201).fill([0, 1]) },
      { peakNm: '9' },
      { source: 'x'.repeat(61) },
    ])
      expect(takes('site 1A', 'curve', { ...curve, ...wrong })).toBe(false);
  });
});
