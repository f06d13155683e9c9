import { describe, expect, it } from 'vitest';
import { Answered } from '../sync/answered';
import type { Clock } from '../sync/clock';
import { CaseOutbox, type DeviceEntry } from './case-outbox';

/** A device whose network is as the test says, and whose clock goes on when it is told to. */
function device(kept: readonly DeviceEntry[] = []) {
  let stored = kept;
  let answer: (entries: readonly DeviceEntry[]) => Promise<unknown> = async () => ({});
  let timers: (() => void)[] = [];
  let id = 0;
  const reached: (readonly DeviceEntry[])[] = [];
  const clock: Clock = {
    nowMs: () => Date.parse('2026-11-16T08:00:00Z'),
    after: (_, run) => {
      timers = [...timers, run];
      return () => {
        timers = timers.filter((one) => one !== run);
      };
    },
  };
  const outbox = new CaseOutbox(
    {
      load: () => stored,
      save: (entries) => {
        stored = entries;
      },
    },
    async (entries) => {
      await answer(entries);
      reached.push(entries);
    },
    clock,
    () => `id-${++id}`,
    'vane',
  );
  const settle = () => new Promise((resolve) => setTimeout(resolve));
  return {
    outbox,
    reached,
    settle,
    stored: () => stored,
    answers: (next: typeof answer) => {
      answer = next;
    },
    goOn: async () => {
      const due = timers;
      timers = [];
      for (const run of due) run();
      await settle();
    },
  };
}
const note = (words: string) => ({ kind: 'note' as const, words });
const words = ({ said }: DeviceEntry) => (said.kind === 'note' ? said.words : said.kind);
const cut = async () => {
  throw new TypeError('no network');
};

describe('what is said at the vehicle', () => {
  it('is kept on the device until the server has it, and sent once the network is back', async () => {
    const d = device();
    d.answers(cut);
    d.outbox.say(note('one'));
    d.outbox.say(note('two'));
    await d.settle();
    expect(d.outbox.snapshot()).toMatchObject({ link: 'cut' });
    expect(d.stored().map(words)).toEqual(['one', 'two']);
    d.answers(async () => ({}));
    await d.goOn();
    expect(d.reached.flat().map(words)).toEqual(['one', 'two']);
    expect(d.stored()).toEqual([]);
    expect(d.outbox.snapshot().sent).toHaveLength(2);
  });

  it('goes on with what an earlier page left, under the same ids', async () => {
    const d = device([{ id: 'old', by: 'vane', at: '2026-11-16T07:00:00Z', said: note('left') }]);
    d.outbox.start();
    await d.settle();
    expect(d.reached.flat().map(({ id }) => id)).toEqual(['old']);
  });

  it('is taken back as long as it is here alone', async () => {
    const d = device();
    d.answers(cut);
    d.outbox.say(note('one'));
    d.outbox.say(note('wrong'));
    await d.settle();
    d.outbox.undo();
    expect(d.outbox.snapshot().waiting.map(words)).toEqual(['one']);
    expect(d.stored().map(words)).toEqual(['one']);
  });

  it('does not wait behind what the server will never take', async () => {
    const d = device();
    d.answers(cut);
    for (const one of ['good', 'bad', 'better']) d.outbox.say(note(one));
    await d.settle();
    d.answers(async (entries) => {
      if (entries.some((entry) => words(entry) === 'bad')) throw new Answered(422, 'There is no cylinder 9.');
    });
    await d.goOn();
    expect(d.reached.flat().map(words)).toEqual(['good', 'better']);
    expect(d.outbox.snapshot()).toMatchObject({ waiting: [], refused: { why: 'There is no cylinder 9.' } });
    d.outbox.seen();
    expect(d.outbox.snapshot().refused).toBeNull();
  });

  it('says why where the case was closed meanwhile, and does not ask again for ever', async () => {
    const d = device();
    d.answers(async () => {
      throw new Answered(409, 'Misfire 5 is closed.');
    });
    d.outbox.say(note('late'));
    await d.settle();
    expect(d.outbox.snapshot()).toMatchObject({ waiting: [], refused: { why: 'Misfire 5 is closed.' } });
  });

  it('keeps all where nobody is signed in any more', async () => {
    const d = device();
    d.answers(async () => {
      throw new Answered(401, 'Who is asking?');
    });
    d.outbox.say(note('one'));
    await d.settle();
    expect(d.outbox.snapshot()).toMatchObject({ link: 'signed-out' });
    expect(d.stored().map(words)).toEqual(['one']);
  });
});
