import { act, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Floor } from '../../src/ui/floor/sync/use-floor';
import { Differences } from '../../src/ui/floor/view/differences';
import { SoakPanel } from '../../src/ui/floor/view/soak-panel';
import { Told } from '../../src/ui/floor/view/told';
import { draw } from './draw';
import { job } from './floor-job';

const floorWith = (over: object): Floor => ({ job, record: {}, aside: [], told: [], ...over }) as unknown as Floor;

describe('two answers to one question', () => {
  const difference = { id: 'd1', target: 'site 1A', field: 'removedGap', said: '1.3 mm', by: 'A. Corrie', at: '' };
  const drawBoth = (record: object, differences: readonly object[] = [difference]) => {
    const set = vi.fn();
    const drawn = draw(<Differences floor={floorWith({ job: { ...job, differences }, record, set })} />);
    return { ...drawn, set };
  };

  it('are shown with who said what, and one press settles which holds', async () => {
    const { person, set } = drawBoth({ 'site 1A': { removedGap: '1.2 mm' } });
    expect(screen.getByRole('alert').textContent).toContain('old gap: two answers. Which holds?');
    await person.click(screen.getByRole('button', { name: '1.3 mm, by A. Corrie' }));
    expect(set).toHaveBeenCalledExactlyOnceWith('site 1A', 'removedGap', '1.3 mm', 'd1');
    await person.click(screen.getByRole('button', { name: '1.2 mm, as it stands' }));
    expect(set).toHaveBeenLastCalledWith('site 1A', 'removedGap', '1.2 mm', 'd1');
  });

  it('are one where both say the same meanwhile', () => {
    drawBoth({ 'site 1A': { removedGap: '1.3 mm' } });
    expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual(['1.3 mm, as it stands']);
  });

  it('are not spoken of where there are none', () => {
    const { container } = drawBoth({}, []);
    expect(container.querySelector('[role=alert]')).toBeNull();
  });
});

describe('what the server did not take', () => {
  const refused = { id: 'e1', target: 'step cold', field: 'state', value: 'done', refusedWhy: 'The order is closed.' };
  it('stands with its reason until it is tried again or dropped', async () => {
    const [tryAgain, forget] = [vi.fn(), vi.fn()];
    const { person } = draw(<Told floor={floorWith({ aside: [refused], tryAgain, forget })} />);
    expect(screen.getByRole('alert').textContent).toContain('step cold, step “done”: not taken. The order is closed.');
    await person.click(screen.getByRole('button', { name: 'Try again' }));
    await person.click(screen.getByRole('button', { name: 'Drop it' }));
    expect([tryAgain.mock.calls, forget.mock.calls]).toEqual([[['e1']], [['e1']]]);
  });

  it('stands likewise where the server only remarked on it', async () => {
    const forget = vi.fn();
    const { person } = draw(<Told floor={floorWith({ told: [{ id: 't1', message: 'Torque is high.' }], forget })} />);
    await person.click(screen.getByRole('button', { name: 'Seen' }));
    expect(forget).toHaveBeenCalledExactlyOnceWith('t1');
  });
});

describe('soaking plugs that are seized', () => {
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'], now: new Date('2026-11-16T09:00:00Z') });
  });
  afterEach(() => {
    vi.useRealTimers();
  });
  const at = (time: string | null) => (time === null ? null : `2026-11-16T${time}:00Z`);
  const drawSoaks = (soaked: readonly (readonly [string, string | null])[], here: string, seized = true) => {
    const pressed = { onSoak: vi.fn(), onGo: vi.fn(), onFree: vi.fn() };
    const sites = soaked.map(([id, time]) => ({ id, name: id.slice(0, 1), seized, soakedAt: at(time) }));
    const drawn = draw(<SoakPanel sites={sites} here={here} targetNm={17.5} system="metric" {...pressed} />);
    const press = (name: string | RegExp) => act(async () => screen.getByRole('button', { name }).click());
    return { ...drawn, ...pressed, press, words: () => screen.getByRole('status').textContent ?? '' };
  };

  it('says at which torque to stop, and begins with a well that is dry', async () => {
    const { words, press, onSoak } = drawSoaks(
      [
        ['1A', null],
        ['2A', '08:58'],
      ],
      '1A',
    );
    expect(screen.getByRole('note').textContent).toContain('Stop at 35');
    expect(words()).toMatch(/^Next: cylinder 1, back off an eighth of a turn, then penetrant/);
    await press('Penetrant is in, start the soak');
    expect(onSoak).toHaveBeenCalledExactlyOnceWith('1A', '2026-11-16T09:00:00.000Z');
  });

  it('forces nothing while all soak, and sends to the well whose time is over', async () => {
    const { words, press, onGo } = drawSoaks(
      [
        ['1A', '08:59'],
        ['2A', '08:57'],
      ],
      '1A',
    );
    expect(words()).toMatch(/^Nothing to force: the soak of cylinder 2 ends at/);
    await act(async () => vi.advanceTimersByTime(60 * 60_000));
    expect(words()).toMatch(/^Next: cylinder \d has soaked/);
    await press(/^2: soaked/);
    expect(onGo).toHaveBeenCalledExactlyOnceWith('2A');
  });

  it('asks how a plug came loose where it only soaks by the method in force', async () => {
    drawSoaks([['1A', '08:00']], '1A', false);
    expect(screen.queryByRole('button', { name: 'It is out' })).toBeNull();
    expect(screen.getByText('Then say below how it came loose.')).toBeTruthy();
  });

  it('is told that a seized plug is out', async () => {
    const { press, onFree } = drawSoaks([['1A', '08:00']], '1A');
    await press('It is out');
    expect(onFree).toHaveBeenCalledExactlyOnceWith('1A');
  });
});
