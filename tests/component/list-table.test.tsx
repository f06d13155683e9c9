import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { ListTable } from '../../src/ui/primitives/list-table';
import { draw } from './draw';

interface Part {
  readonly id: string;
  readonly number: string;
  readonly onHand: number | null;
}

const part = (number: string, onHand: number | null): Part => ({ id: number, number, onHand });
const PARTS = [
  part('EM-7310', 4),
  part('EM-7205', null),
  part('NL-3806', 12),
  part('NL-3811', 2),
  part('FS-5210', 0),
  part('FS-3807', 30),
  part('KM-4180', 60),
  part('CB-5', 1),
];

const drawList = (items: readonly Part[] = PARTS) =>
  draw(
    <ListTable
      noun="parts"
      items={items}
      idOf={({ id }) => id}
      isOver={({ onHand }) => onHand === 0}
      columns={[
        {
          head: 'Number',
          value: ({ number }) => number,
          cell: ({ number }) => <a href={`/parts/${number}`}>{number}</a>,
        },
        { head: 'On hand', value: ({ onHand }) => onHand, numeric: true },
      ]}
    />,
  );
const shown = () => screen.getAllByRole('link').map(({ textContent }) => textContent);

describe('a list', () => {
  it('is sorted by a head, the other way by a second press; what is not known stays last', async () => {
    const { person } = drawList();
    const onHand = screen.getByRole('button', { name: 'On hand' });
    await person.click(onHand);
    const once = shown();
    await person.click(onHand);
    const twice = shown();
    expect([once, twice].map((order) => order.at(-1))).toEqual(['EM-7205', 'EM-7205']);
    expect(once.slice(0, 7)).toEqual(twice.slice(0, 7).toReversed());
    expect(new Set([once[0], twice[0]])).toEqual(new Set(['FS-5210', 'KM-4180']));
    expect(screen.getByRole('columnheader', { name: /On hand/ }).getAttribute('aria-sort')).toMatch(
      /ascending|descending/,
    );
  });

  it('is searched in every column, says how many are shown, and what to do where none is', async () => {
    const { person } = drawList();
    await person.keyboard('/');
    await person.keyboard('nl-38');
    expect(shown()).toEqual(['NL-3806', 'NL-3811']);
    expect(screen.getByRole('status').textContent).toBe('2 of 8');
    await person.keyboard('99');
    expect(screen.queryAllByRole('link')).toEqual([]);
    expect(screen.queryByText('Nothing here fits the search.')).not.toBeNull();
  });

  it('is saved as a file, as it is shown', async () => {
    const files: Blob[] = [];
    vi.spyOn(URL, 'createObjectURL').mockImplementation((file) => {
      files.push(file as Blob);
      return 'blob:list';
    });
    const { person } = drawList([...PARTS, part('=1+1', 3)]);
    await person.type(screen.getByRole('searchbox'), '1');
    await person.click(screen.getByRole('button', { name: 'CSV' }));
    await vi.waitFor(() => expect(files).toHaveLength(1));
    const lines = (await files[0]?.text())?.trimEnd().split('\r\n');
    expect(lines).toEqual([
      'Number,On hand',
      'EM-7310,4',
      'NL-3806,12',
      'NL-3811,2',
      'FS-5210,0',
      'KM-4180,60',
      'CB-5,1',
      "'=1+1,3",
    ]);
  });

  it('has no search where a glance is enough, and soft ink for what is over', () => {
    drawList(PARTS.slice(0, 5));
    expect(screen.queryByRole('searchbox')).toBeNull();
    const row = screen.getByRole('link', { name: 'FS-5210' }).closest('tr') as HTMLElement;
    expect(row.className).toBe('soft');
    expect(within(row).queryByText('0')).not.toBeNull();
  });
});
