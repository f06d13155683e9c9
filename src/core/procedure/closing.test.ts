import { describe, expect, it } from 'vitest';
import { closingBlockers } from './closing';

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
