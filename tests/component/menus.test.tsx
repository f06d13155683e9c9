import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { GoTo } from '../../src/ui/frame/go-to';
import { LinkMenu } from '../../src/ui/primitives/link-menu';
import { draw } from './draw';

const router = vi.hoisted(() => ({ push: vi.fn() }));
vi.mock('next/navigation', () => ({ useRouter: () => router, useServerInsertedHTML: () => undefined }));
beforeEach(() => vi.clearAllMocks());

describe('a menu of links', () => {
  it('opens by key, and each link leads where it says', async () => {
    const { person } = draw(
      <LinkMenu
        label="Print, files"
        links={[
          { href: '/due/print', label: 'To print' },
          { href: '/due/csv', label: 'CSV', isFile: true },
        ]}
      />,
    );
    screen.getByRole('button', { name: 'Print, files' }).focus();
    await person.keyboard('{Enter}');
    const links = await screen.findAllByRole('menuitem');
    expect(links.map((link) => [link.textContent, link.getAttribute('href')])).toEqual([
      ['To print', '/due/print'],
      ['CSV', '/due/csv'],
    ]);
    expect(links.map((link) => link.hasAttribute('download'))).toEqual([false, true]);
    await person.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('menuitem')).toBeNull());
  });
});

describe('Go to', () => {
  const PLACES = [
    { href: '/due', label: 'Due' },
    { href: '/plan', label: 'Plan' },
  ];
  const drawn = (found: readonly { kind: string; href: string; label: string }[] = []) => {
    const find = vi.fn(async () => found);
    return { ...draw(<GoTo places={PLACES} find={find} />), find };
  };

  /** The first of what is found is chosen by itself. */
  const chosen = (label: string) =>
    waitFor(() => {
      const [first] = screen.getAllByRole('option');
      expect([first?.textContent?.startsWith(label), first?.hasAttribute('data-highlighted')]).toEqual([true, true]);
    });

  it('opens by Ctrl K with every place, and goes to the one that is chosen by keys', async () => {
    const { person } = drawn();
    await person.keyboard('{Control>}k{/Control}');
    expect((await screen.findAllByRole('option')).map(({ textContent }) => textContent)).toEqual([
      'Duepage',
      'Planpage',
    ]);
    await person.keyboard('pl');
    await chosen('Plan');
    await person.keyboard('{Enter}');
    expect(router.push).toHaveBeenCalledExactlyOnceWith('/plan');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('asks the server for the rest once, when typing pauses', async () => {
    const { person, find } = drawn([{ kind: 'vehicle', href: '/vehicles/1', label: '143 road-gritter' }]);
    await person.click(screen.getByRole('button', { name: 'Go to' }));
    await person.type(await screen.findByRole('combobox'), '143');
    await chosen('143 road-gritter');
    await person.keyboard('{Enter}');
    expect(find.mock.calls).toEqual([['143']]);
    expect(router.push).toHaveBeenCalledExactlyOnceWith('/vehicles/1');
  });

  it('says that nothing is found', async () => {
    const { person } = drawn();
    await person.click(screen.getByRole('button', { name: 'Go to' }));
    await person.type(await screen.findByRole('combobox'), 'zzz');
    expect(await screen.findByText('Nothing has this in its number or name.')).toBeTruthy();
  });
});
