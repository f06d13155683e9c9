import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { DueRow } from '../../src/ui/due/due-row';
import { DueTable } from '../../src/ui/due/due-table';
import { PageHead } from '../../src/ui/primitives/page';
import { PageLinks } from '../../src/ui/primitives/page-links';
import { ShownOnce } from '../../src/ui/primitives/shown-once';
import { draw } from './draw';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ refresh: () => undefined, push: () => undefined }),
  useServerInsertedHTML: () => undefined,
}));

const row = (over: Partial<DueRow> = {}): DueRow => ({
  ...{
    id: 'v15',
    unit: '15',
    name: 'mobile library',
    engine: 'AG-11T · EM-7205',
    depot: 'Eastlight',
    group: 'library',
  },
  ...{ lifeUsed: 0.9, assumed: false, life: '90 %', what: 'plugs', also: '', state: 'soon', urgent: false },
  ...{ trouble: null, due: '2 Dec 2026', pressure: 12, currency: 'EUR', isWhole: true, limit: '60,000 km' },
  ...{ odometer: '41,310 km', suspects: 0, sure: 'measured', order: null, next: 'open' },
  ...over,
});

describe('the due list', () => {
  const drawDue = (rows: readonly DueRow[], hidden: Parameters<typeof DueTable>[0]['hidden'] = []) => {
    const opened: string[] = [];
    const openOrder = async (_: unknown, data: FormData) => {
      opened.push(String(data.get('vehicleId')));
      return { ok: true };
    };
    return { ...draw(<DueTable {...{ rows, hidden, openOrder }} dense={false} />), opened };
  };

  it('opens a work order for the very vehicle of its row', async () => {
    const { person, opened } = drawDue([row(), row({ id: 'v104', unit: '104' })]);
    await person.click(screen.getByRole('button', { name: 'Open a work order for unit 104' }));
    await waitFor(() => expect(opened).toEqual(['v104']));
  });

  it('leads to the order that is open, and to the readings that nobody believes', () => {
    drawDue([
      row({ order: { id: 'o1', number: 1001, when: 'Mon 16 Nov' } }),
      row({ id: 'v8', unit: '8', next: 'resolve', suspects: 2 }),
    ]);
    expect(screen.getByRole('link', { name: '1001' }).getAttribute('href')).toBe('/work-orders/o1');
    expect(screen.getByText('2 suspect')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('names what else makes waiting dear, before what is due', () => {
    drawDue([row({ trouble: 'misfire 12', urgent: true, state: 'past the limit', also: 'also boots' })]);
    expect(screen.getByText(/^misfire 12/)).toBeTruthy();
    expect(screen.getByText('past the limit').tagName).toBe('STRONG');
    expect(screen.getByText('also boots')).toBeTruthy();
  });

  it('leaves out the columns that a person hides', () => {
    drawDue([row()], ['odometer', 'limit']);
    const heads = screen.getAllByRole('columnheader').map(({ textContent }) => textContent);
    expect(heads).not.toContain('Odometer');
    expect(heads).toContain('Vehicle');
    expect(screen.queryByText('41,310 km')).toBeNull();
  });
});

describe('the pages of a list', () => {
  const drawPages = (page: number, count: number) =>
    draw(<PageLinks path="/due" query="depot=Eastlight" page={page} count={count} pageSize={50} />);
  const links = () => within(screen.getByRole('navigation')).getAllByRole<HTMLAnchorElement>('link');

  it('are links that keep the filter, the page in hand marked', () => {
    drawPages(2, 130);
    expect(links().map((link) => link.getAttribute('href'))).toEqual(
      [1, 1, 2, 3, 3].map((page) => `/due?depot=Eastlight&page=${page}`),
    );
    expect(screen.getByText('2').getAttribute('aria-current')).toBe('page');
  });

  it('lead nowhere before the first and after the last', () => {
    drawPages(3, 130);
    expect(links().at(-1)?.getAttribute('href')).toBe('/due?depot=Eastlight&page=3');
    expect(links()).toHaveLength(4);
  });

  it('are not there where one page holds all', () => {
    drawPages(1, 50);
    expect(screen.queryByRole('navigation')).toBeNull();
  });
});

describe('the head of a page', () => {
  it('says in the browser’s tab what it says, and leads back along its trail', () => {
    draw(
      <PageHead
        title="Codes"
        trail={[
          ['Work orders', '/work-orders'],
          ['Work order 1001', '/work-orders/o1'],
        ]}
      />,
    );
    expect(document.title).toBe('Codes · Isobar');
    const trail = within(screen.getByRole('navigation')).getAllByRole('link');
    expect(trail.map((link) => link.getAttribute('href'))).toEqual(['/work-orders', '/work-orders/o1']);
  });
});

describe('a secret that is shown once', () => {
  it('is copied by one press, and drawn for phones where it is an address', async () => {
    const { person } = draw(
      <ShownOnce label="Address for drivers" text="https://isobar.example/report/x" isForPhones />,
    );
    expect(screen.getByLabelText<HTMLInputElement>(/copy it now, it is shown this once/).value).toBe(
      'https://isobar.example/report/x',
    );
    expect(screen.getByRole('img', { name: 'Address for drivers as a code for phones' })).toBeTruthy();
    await person.click(screen.getByRole('button', { name: /^Copy/ }));
    expect(await screen.findByText('Copied')).toBeTruthy();
    expect(await navigator.clipboard.readText()).toBe('https://isobar.example/report/x');
  });

  it('is no drawing where it is a token', () => {
    draw(<ShownOnce label="Token" text="abc" />);
    expect(screen.queryByRole('img')).toBeNull();
  });
});
