import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { BenchData } from '../../src/ui/bench/bench-data';
import { CoilBench } from '../../src/ui/bench/coil-bench';
import { ConvertBench } from '../../src/ui/bench/convert-bench';
import { FiringBench } from '../../src/ui/bench/firing-bench';
import { GapBench } from '../../src/ui/bench/gap-bench';
import { LeadBench } from '../../src/ui/bench/lead-bench';
import { SparkBench } from '../../src/ui/bench/spark-bench';
import { TorqueBench } from '../../src/ui/bench/torque-bench';
import { draw } from './draw';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ refresh: () => undefined }),
  useServerInsertedHTML: () => undefined,
}));

const keep = async () => ({ ok: true });
const NOTHING: BenchData = { sheets: [], engines: [], leadSets: [], wrenches: [], today: '2026-11-16' };
const props = { data: NOTHING, system: 'metric', keep } as const;
const status = () => screen.getAllByRole('status')[0]?.textContent ?? '';

/** Types into a field instead of what is there. */
async function retype(person: ReturnType<typeof draw>['person'], label: RegExp, text: string): Promise<void> {
  const field = screen.getByLabelText(label);
  await person.clear(field);
  if (text !== '') await person.type(field, text);
}

describe('the gap set checker', () => {
  it.each([
    ['1.05 1.06 1.05 1.07', /^Good batch/, ['accept', 'accept', 'accept', 'accept']],
    ['0.80 0.80 0.81 0.80', /^All alike, but .* too narrow: gapped for another application/, null],
    ['1.05 1.05 0.60 1.05', /^Plug 3 lies far from the rest/, ['accept', 'accept', 'set it aside: dropped', 'accept']],
  ])('judges %s as a batch and each plug', async (gaps, words, rows) => {
    const { person } = draw(<GapBench {...props} />);
    await person.type(screen.getByLabelText(/^Gaps measured/), gaps);
    expect(status()).toMatch(words);
    const shown = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(shown).toHaveLength(4);
    if (rows) expect(shown.map((row) => within(row).getAllByRole('cell')[2]?.textContent)).toEqual(rows);
  });

  it('judges nothing while a gap cannot be read, and says which', async () => {
    const { person } = draw(<GapBench {...props} />);
    await person.type(screen.getByLabelText(/^Gaps measured/), '1.05 wide');
    expect(screen.getByRole('alert').textContent).toContain('wide');
    expect(screen.queryByRole('table')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Save this result' })).toBeNull();
  });

  it('reads bare figures as inches for a person who works in inches', async () => {
    const { person } = draw(<GapBench {...props} system="us" />);
    await retype(person, /^Gap range/, '0.039 to 0.043');
    await person.type(screen.getByLabelText(/^Gaps measured/), '0.041 0.041');
    expect(status()).toMatch(/^Good batch/);
  });
});

describe('the torque planner', () => {
  const wrench = {
    id: 'w',
    name: 'T5',
    unit: 'N·m',
    min: 5,
    max: 50,
    step: 0.5,
    lengthMm: 300,
    calibratedOn: '2026-05-01',
  } as const;
  const setting = () => Number(/Set the wrench to\s*([\d.]+) N·m/.exec(status())?.[1]);

  it('sets a wrench lower the longer its adapter is, and as without one where it stands square', async () => {
    const { person } = draw(<TorqueBench {...props} data={{ ...NOTHING, wrenches: [wrench] }} />);
    const plain = setting();
    expect(plain).toBeGreaterThanOrEqual(20);
    expect(plain).toBeLessThanOrEqual(25);
    await person.type(screen.getByLabelText(/^Adapter/), '60');
    const long = setting();
    expect(long).toBeLessThan(plain);
    await retype(person, /^Its angle/, '90');
    expect(setting()).toBe(plain);
  });

  it('gives the turn where no wrench fits, and lowers a torque for a greased thread', async () => {
    const { person } = draw(<TorqueBench {...props} data={{ ...NOTHING, wrenches: [wrench] }} />);
    const dry = setting();
    await person.selectOptions(screen.getByLabelText(/^Threads/), 'anti-seize');
    expect(setting()).toBeLessThan(dry);
    await person.selectOptions(screen.getByLabelText(/^Wrench/), 'none: turn by angle');
    expect(status()).toMatch(/^Without a wrench.*°|turn/);
  });

  it('says what it cannot read, and works nothing out', async () => {
    const { person } = draw(<TorqueBench {...props} />);
    await retype(person, /^Torque, clean dry threads/, 'hand tight');
    expect(screen.getByRole('alert').textContent).not.toBe('');
    expect(screen.queryByText(/Set the wrench to|Without a wrench/)).toBeNull();
  });
});

describe('the converter', () => {
  it('gives a figure in every unit of its kind', async () => {
    draw(<ConvertBench {...props} />);
    const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(rows.map(({ textContent }) => textContent)).toEqual(
      expect.arrayContaining(['0.762mm', '0.0300in', '30.0thou']),
    );
  });

  it('takes a decimal comma, and offers what a slip was meant to be', async () => {
    const { person } = draw(<ConvertBench {...props} />);
    await retype(person, /^As typed/, '0,8 mm');
    expect(screen.getByRole('table').textContent).toContain('0.800mm');
    await retype(person, /^As typed/, '30 mm');
    expect(screen.queryByRole('table')).toBeNull();
    await person.click(within(screen.getByRole('status')).getAllByRole('button')[0] as HTMLElement);
    expect(screen.getByRole('table').textContent).toMatch(/mm/);
  });
});

describe('one coil or all', () => {
  it('turns at the chance at which the visit costs what the coils cost', async () => {
    const { person } = draw(<CoilBench currency="EUR" />);
    expect(status()).toContain('Replace the one');
    // Five coils at 40 against one more visit of 40 + 80 × 1.5 + 150: 200 / (5 × 310).
    expect(screen.getByText('12.9 %')).toBeTruthy();
    await retype(person, /^Chance that one fails/, '20');
    expect(status()).toContain('Replace them all');
  });

  it('says which figure cannot be, and gives no advice', async () => {
    const { person } = draw(<CoilBench currency="EUR" />);
    await retype(person, /^Chance that one fails/, '120');
    expect(screen.getByRole('alert').textContent).not.toBe('');
    expect(screen.queryByRole('status')).toBeNull();
  });
});

describe('the firing order', () => {
  const cap = () => screen.getAllByRole('img')[0]?.getAttribute('aria-label') ?? '';

  it('gives the towers as the rotor turns', async () => {
    const { person } = draw(<FiringBench {...props} />);
    expect(cap()).toBe(
      'Rotor clockwise: tower 1 cylinder 1, tower 2 cylinder 3, tower 3 cylinder 4, tower 4 cylinder 2',
    );
    await person.selectOptions(screen.getByLabelText(/^Rotor turns/), 'counterclockwise');
    expect(cap()).toBe(
      'Rotor counterclockwise: tower 1 cylinder 1, tower 2 cylinder 2, tower 3 cylinder 4, tower 4 cylinder 3',
    );
  });

  it('refuses an order that names a cylinder twice', async () => {
    const { person } = draw(<FiringBench {...props} />);
    await retype(person, /^Firing order/, '1 3 3 2');
    expect(screen.getByRole('alert').textContent).toContain('names each cylinder from 1 once');
    expect(screen.queryByRole('img')).toBeNull();
  });
});

describe('leads by length', () => {
  it('lays a new set with the least slack, and says where none is long enough', async () => {
    const { person } = draw(<LeadBench {...props} />);
    await person.type(screen.getByLabelText(/^Lengths needed/), '300 350 400 450');
    await person.type(screen.getByLabelText(/^Lengths in the box/), '460 310 360 410');
    expect(status()).toBe('Fits, 40 mm of slack in all. 1: 310 mm, 2: 360 mm, 3: 410 mm, 4: 460 mm.');
    await retype(person, /^Lengths in the box/, '310 360 410 440');
    expect(status()).toContain('No lead left is long enough for place 4 (450 mm)');
    await retype(person, /^Lengths in the box/, '310 360 460');
    expect(status()).toBe('3 leads for 4 places: the set is not whole.');
  });
});

describe('what a gap asks of the coil', () => {
  it('asks for more volts under boost, and names a gap that keeps the demand', async () => {
    const { person } = draw(<SparkBench {...props} />);
    expect(screen.getByText(/^Fill in every figure/)).toBeTruthy();
    await person.type(screen.getByLabelText(/^Compression ratio/), '10');
    const kept = screen.getByText(/keeps the demand\.$/).textContent ?? '';
    const [, usual, boosted, gap] =
      /asks about ([\d.]+) kV .* about ([\d.]+) kV .*; ([\d.]+) mm keeps/.exec(kept) ?? [];
    expect(Number(boosted)).toBeGreaterThan(Number(usual));
    expect(Number(gap)).toBeLessThan(1);
  });

  it('says which figure lies outside what can be worked out', async () => {
    const { person } = draw(<SparkBench {...props} />);
    await retype(person, /^Gap$/, '9');
    const faults = screen.getAllByRole('alert').map(({ textContent }) => textContent ?? '');
    expect(faults.some((fault) => fault.includes('2 mm'))).toBe(true);
  });
});
