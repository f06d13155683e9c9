import { screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { beforeAll, describe, expect, it } from 'vitest';
import { DateControl } from '../../src/ui/primitives/date-control';
import { draw } from './draw';

// Loaded once before, so that no test waits for a module.
beforeAll(() => import('../../src/ui/primitives/date-calendar'));

/** A field for a day on a page of 16 November 2026, and the days that its listener heard of. */
function drawDay({ day = '', max }: { day?: string; max?: string } = {}) {
  const heard: string[] = [];
  function Page() {
    const [value, setValue] = useState(day);
    const onChange = (text: string) => {
      heard.push(text);
      setValue(text);
    };
    return (
      <main data-now="2026-11-16">
        <DateControl aria-label="Until" max={max} value={value} onChange={({ target }) => onChange(target.value)} />
      </main>
    );
  }
  const drawn = draw(<Page />);
  const open = async () => {
    await drawn.person.click(screen.getByRole('button', { name: 'Pick from a month' }));
    await screen.findByRole('grid');
  };
  const title = () => screen.getByRole('button', { name: /view/ }).textContent;
  const dayButton = (words: RegExp) => screen.getByRole('button', { name: words });
  return { ...drawn, heard, open, title, dayButton, field: screen.getByLabelText<HTMLInputElement>('Until') };
}

describe('a field for a day', () => {
  it('opens the month of today where it is empty, and takes the day that is chosen', async () => {
    const { person, heard, open, title, dayButton, field } = drawDay();
    await open();
    expect(title()).toBe('November 2026');
    await person.click(dayButton(/27 November 2026/));
    await waitFor(() => expect(heard).toEqual(['2026-11-27']));
    expect(field.value).toBe('2026-11-27');
    await waitFor(() => expect(screen.queryByRole('grid')).toBeNull());
    await waitFor(() => expect(document.activeElement).toBe(field));
  });

  it('opens the month of the day that it holds', async () => {
    const { open, title } = drawDay({ day: '2027-02-03' });
    await open();
    expect(title()).toBe('February 2027');
  });

  it('opens today’s month where what was typed is no day, and leaves what was typed', async () => {
    const { open, title, field } = drawDay({ day: 'Friday' });
    await open();
    expect(title()).toBe('November 2026');
    expect(field.value).toBe('Friday');
  });

  it('lets no day be chosen after the latest', async () => {
    const { open, dayButton } = drawDay({ max: '2026-11-16' });
    await open();
    expect(dayButton(/17 November 2026/).getAttribute('aria-disabled')).toBe('true');
    expect(dayButton(/16 November 2026/).getAttribute('aria-disabled')).not.toBe('true');
  });
});
