import { describe, expect, it } from 'vitest';
import type { PolicyChoice } from '@/core/policy/policies';
import type { SpecSheet } from '@/db/queries/catalogue';
import { sheetChoices } from './sheet-choices';
import { threadsFor } from './threads';

const spec = (over: Partial<SpecSheet> = {}, shell: 'plated' | 'bare' | null = 'plated'): SpecSheet =>
  ({
    torqueMinNm: 20,
    torqueMaxNm: 26,
    lubricant: null,
    regap: null,
    engineTemperature: null,
    sourceDocument: 'Demo data: book',
    revision: 2,
    part: { shell },
    ...over,
  }) as SpecSheet;
const ALUMINIUM = { headMaterial: 'aluminium', compoundPlace: null } as const;
const IRON = { headMaterial: 'iron', compoundPlace: null } as const;
const shop = (option: string, scope: PolicyChoice['scope'] = 'shop'): PolicyChoice => ({
  policy: 'thread_compound',
  scope,
  scopeKey: null,
  option,
  why: 'said so',
});

describe('threadsFor', () => {
  it('leaves a plated shell dry and lowers nothing', () => {
    expect(threadsFor(spec(), ALUMINIUM, [])).toMatchObject({
      lubricant: 'dry',
      torqueNm: { min: 20, max: 26 },
      inForce: { scope: 'default' },
    });
  });

  it('greases a bare shell in aluminium, not in iron, and the torque follows', () => {
    const { torqueNm, lubricant } = threadsFor(spec({}, 'bare'), ALUMINIUM, []);
    expect(lubricant).toBe('anti_seize');
    expect([torqueNm.min, torqueNm.max]).toEqual([expect.closeTo(14, 9), expect.closeTo(18.2, 9)]);
    expect(threadsFor(spec({}, 'bare'), IRON, []).lubricant).toBe('dry');
    expect(threadsFor(spec({}, null), ALUMINIUM, []).lubricant).toBe('dry');
  });

  it('lets the sheet override the shop, and the group both', () => {
    const says = spec({ lubricant: 'nickel' });
    expect(threadsFor(says, ALUMINIUM, [shop('dry')])).toMatchObject({
      lubricant: 'anti_seize',
      inForce: { scope: 'sheet' },
    });
    expect(threadsFor(says, ALUMINIUM, [shop('dry', 'group')])).toMatchObject({
      lubricant: 'dry',
      inForce: { scope: 'group' },
      doubt: expect.stringContaining('The spec sheet says nickel'),
    });
  });

  it('says what a sheet decides, with its source', () => {
    const choices = sheetChoices(spec({ lubricant: 'dry', regap: 'never', engineTemperature: 'cold' }));
    expect(choices.map(({ policy, option }) => [policy, option])).toEqual([
      ['thread_compound', 'by_sheet'],
      ['new_gaps', 'return'],
      ['engine_temperature', 'cold'],
    ]);
    expect(choices.every((choice) => choice.why === 'Demo data: book, revision 2')).toBe(true);
    expect(sheetChoices(spec())).toEqual([]);
  });
});
