import { describe, expect, it } from 'vitest';
import type { PersonId } from '@/core/shared/kinds';
import { Answered } from '../sync/answered';
import type { Clock } from '../sync/clock';
import { type CaseWaiting, caseOutbox, type SentCaseEntry } from './case-outbox';

/** A device whose network is as the test says, and whose clock goes on when it is told to. */
async function device(kept: readonly CaseWaiting[] = []) {
  const stored = new Map(kept.map((entry) => [entry.id, entry]));
  let answer: (entries: readonly SentCaseEntry[]) => Promise<unknown> = async () => ({});
  let timers: (() => void)[] = [];
  let id = 0;
  let looked = 0;
  const reached: (readonly SentCaseEntry[])[] = [];
  const clock: Clock = {
    nowMs: () => Date.parse('2026-11-16T08:00:00Z'),
    after: (_, run) => {
      timers = [...timers, run];
      return () => {
        timers = timers.filter((timer) => timer !== run);
      };
    },
  };
  const outbox = caseOutbox(
    {
      send: async (entries) => {
        await answer(entries);
        reached.push(entries);
      },
      look: async () => {
        looked += 1;
      },
    },
    {
      load: async () => ({ entries: [...stored.values()], ofOthers: 0 }),
      save: async (keep, drop) => {
        for (const entry of keep) stored.set(entry.id, entry);
        for (const gone of drop) stored.delete(gone);
      },
    },
    clock,
    () => `id-${++id}`,
    'vane' as PersonId,
  );
  const goOn = async () => {
    const due = timers;
    timers = [];
    for (const run of due) run();
    for (let i = 0; i < 80; i++) await Promise.resolve();
  };
  await outbox.start();
  await goOn();
  return {
    outbox,
    reached,
    goOn,
    looked: () => looked,
    stored: () => [...stored.values()],
    say: (text: string) => outbox.add((entry) => ({ ...entry, caseId: 'case', said: { kind: 'note', words: text } })),
    answers: (next: typeof answer) => {
      answer = next;
    },
  };
}
const words = ({ said }: { said: SentCaseEntry['said'] }) => (said.kind === 'note' ? said.words : said.kind);
const cut = async () => {
  throw new TypeError('no network');
};

describe('what is said at the vehicle', () => {
  it('is kept on the device until the server has it, and sent once the network is back', async () => {
    const d = await device();
    d.answers(cut);
    d.say('one');
    d.say('two');
    await d.goOn();
    expect(d.outbox.snapshot()).toMatchObject({ link: 'cut' });
    expect(d.stored().map(words)).toEqual(['one', 'two']);
    d.answers(async () => ({}));
    await d.goOn();
    expect(d.reached.flat().map((entry) => [entry.by, words(entry)])).toEqual([
      ['vane', 'one'],
      ['vane', 'two'],
    ]);
    expect([d.stored(), d.outbox.snapshot().waiting]).toEqual([[], []]);
  });

  it('goes on with what an earlier page left, under the same ids, and then asks what others said', async () => {
    const left = {
      id: 'old',
      personId: 'vane' as PersonId,
      at: '2026-11-16T07:00:00Z',
      place: 1,
      tried: true,
      caseId: 'case',
      said: { kind: 'note' as const, words: 'left' },
    };
    const d = await device([left]);
    expect(d.reached.flat()).toEqual([{ id: 'old', by: 'vane', at: left.at, said: left.said }]);
    expect(d.looked()).toBeGreaterThan(0);
  });

  it('is taken back as long as it is here alone', async () => {
    const d = await device();
    d.answers(cut);
    d.say('one');
    d.say('wrong');
    await d.goOn();
    d.outbox.dropLast();
    await d.goOn();
    expect(d.outbox.snapshot().waiting.map(words)).toEqual(['one']);
    expect(d.stored().map(words)).toEqual(['one']);
  });

  it('does not wait behind what the server will never take', async () => {
    const d = await device();
    d.answers(async (entries) => {
      if (entries.some((entry) => words(entry) === 'bad')) throw new Answered(422, 'There is no cylinder 9.');
    });
    for (const text of ['good', 'bad', 'better']) d.say(text);
    for (let i = 0; i < 5; i++) await d.goOn();
    expect(d.reached.flat().map(words)).toEqual(['good', 'better']);
    expect(d.outbox.snapshot()).toMatchObject({ waiting: [], aside: [{ refusedWhy: 'There is no cylinder 9.' }] });
    d.outbox.drop(d.outbox.snapshot().aside[0]?.id ?? '');
    await d.goOn();
    expect([d.outbox.snapshot().aside, d.stored()]).toEqual([[], []]);
  });

  it('says why where the case was closed meanwhile, and does not ask again for ever', async () => {
    const d = await device();
    d.answers(async () => {
      throw new Answered(409, 'Misfire 5 is closed.');
    });
    d.say('late');
    await d.goOn();
    expect(d.outbox.snapshot()).toMatchObject({ waiting: [], aside: [{ refusedWhy: 'Misfire 5 is closed.' }] });
  });

  it.each([401, 403])('keeps all where nobody, or somebody else, is signed in (%i)', async (status) => {
    const d = await device();
    d.answers(async () => {
      throw new Answered(status, 'Who is asking?');
    });
    d.say('one');
    await d.goOn();
    expect(d.outbox.snapshot()).toMatchObject({ link: 'signed-out' });
    expect(d.stored().map(words)).toEqual(['one']);
  });
});
