import { screen, waitFor } from '@testing-library/react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { ComplaintForm } from '../../src/ui/misfire/complaint-form';
import type { ActionAnswer } from '../../src/ui/primitives/action-form';
import { loadSchemas } from '../../src/ui/primitives/form';
import { draw } from './draw';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ refresh: () => undefined, push: () => undefined }),
  useServerInsertedHTML: () => undefined,
}));
beforeAll(loadSchemas);

/** The form in which a misfire is reported, and what was sent of it. */
function drawReport(settings: { asksWho?: boolean; asksCodes?: boolean } = {}) {
  const sent: Record<string, string[]>[] = [];
  const action = async (_: ActionAnswer | null, data: FormData): Promise<ActionAnswer> => {
    sent.push(Object.fromEntries([...new Set(data.keys())].map((name) => [name, data.getAll(name).map(String)])));
    return { ok: true };
  };
  const drawn = draw(<ComplaintForm action={action} {...settings} />);
  const report = () => drawn.person.click(screen.getByRole('button', { name: 'Report it' }));
  return { ...drawn, sent, report };
}

describe('the report of a misfire', () => {
  it('is a unit, a lamp, symptoms and words, and warns of a lamp that flashes', async () => {
    const { person, sent, report } = drawReport();
    expect(screen.getByRole('note').textContent).toContain('Flashing: stop where it is safe');
    await person.type(screen.getByLabelText(/^Number of the vehicle/), '104');
    await person.click(screen.getByLabelText('flashing'));
    await person.type(screen.getByLabelText(/^In your words/), 'shakes on the hill');
    await report();
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ unitNumber: ['104'], lamp: ['flashing'], words: ['shakes on the hill'] });
  });

  it('asks for the number of the vehicle before anything is sent', async () => {
    const { person, sent, report } = drawReport();
    await person.click(screen.getByLabelText('flashing'));
    await report();
    expect((await screen.findAllByRole('alert')).map(({ textContent }) => textContent)).toContain(
      'Give the number of the vehicle.',
    );
    await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText(/^Number of the vehicle/)));
    expect(sent).toEqual([]);
  });

  it('asks a person without an account who reports', async () => {
    const { person, sent, report } = drawReport({ asksWho: true });
    await person.type(screen.getByLabelText(/^Number of the vehicle/), '104');
    await person.click(screen.getByRole('radio', { name: 'on, steady' }));
    await report();
    await screen.findByText('Say who you are.');
    await person.type(screen.getByLabelText('Who are you?'), 'Ferry driver');
    await report();
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.driver).toEqual(['Ferry driver']);
  });

  it('says beside the codes which is none', async () => {
    const { person, sent, report } = drawReport({ asksCodes: true });
    await person.type(screen.getByLabelText(/^Number of the vehicle/), '104');
    await person.click(screen.getByRole('radio', { name: 'on, steady' }));
    await person.type(screen.getByLabelText(/^Fault codes/), 'shakes');
    await report();
    const codes = screen.getByLabelText(/^Fault codes/);
    await waitFor(() => expect(codes.getAttribute('aria-invalid')).toBe('true'));
    expect(sent).toEqual([]);
  });
});
