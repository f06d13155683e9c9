import { describe, expect, it } from 'vitest';
import { REMOVAL_REASONS } from '@/core/components/history';
import { CHECK_CODES } from '@/core/odometer/check';
import { AUDIT_ACTIONS } from '@/core/shared/audit';
import { workOrderActionWords } from './audit-words';
import { resistorWords } from './catalogue-words';
import { turnText, wearText } from './format';
import { afterSwapText, drivingText } from './misfire-words';
import { doubtHead, doubtText } from './odometer-words';
import { removalChoices } from './removal-words';

describe('words for a doubtful reading', () => {
  it('go on in a sentence, in the units of whoever reads them', () => {
    expect(doubtText(['backwards', 'digit_slip'], 104_996, 'metric')).toBe(
      'goes backwards, probably has a digit dropped, doubled or misread: about 104,996 km',
    );
    expect(doubtText(['too_fast'], null, 'us')).toBe('is over 932 mi a day');
    expect(doubtText(['a code of another build'], null, 'metric')).toBe('');
  });

  it('are a head of the inbox for every code, and for one that nobody knows', () => {
    for (const code of CHECK_CODES) expect(doubtHead(code, 'metric')).toMatch(/^[A-Z]/);
    expect(doubtHead('moon', 'metric')).toBe('Moon');
  });
});

describe('words for what was done', () => {
  it('are there for everything the trail of a work order tells', () => {
    for (const action of AUDIT_ACTIONS['work-order']) expect(workOrderActionWords(action)).not.toBe('');
    expect(workOrderActionWords('of another build')).toBe('of another build');
  });

  it('give each reason of a removal once', () => {
    const labels = removalChoices(REMOVAL_REASONS).map(({ label }) => label);
    expect(new Set(labels).size).toBe(REMOVAL_REASONS.length);
  });
});

describe('wear, turns and resistors', () => {
  it('are told in the units at hand, and as one figure where there is one', () => {
    expect(wearText(3.2, 'metric')).toBe('3.2 µm per 1,000 km');
    expect(wearText(3.2, 'us')).toBe('0.20 thou per 1,000 mi');
    expect([turnText({ min: 180, max: 240 }), turnText({ min: 90, max: 90 })]).toEqual(['180° to 240°', '90°']);
    expect([true, false, null].map(resistorWords)).toEqual(['with', 'without', null]);
  });
});

describe('words for a vehicle that must not be driven', () => {
  it('never ask for a drive', () => {
    const stopped = { driving: 'stop', reasons: [{ kind: 'counts', cylinder: 2, per1000: 143 }] } as const;
    expect(drivingText(stopped)).toMatch(/^Do not drive on: cylinder 2 misfires 143 times in 1,000/);
    expect(afterSwapText(stopped)).toMatch(/Do not drive/);
    expect(afterSwapText({ driving: 'to_the_shop' })).toMatch(/and drive/);
  });
});
