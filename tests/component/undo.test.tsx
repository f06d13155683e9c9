import { screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { type ActionAnswer, PressForm } from '../../src/ui/primitives/action-form';
import { SubmitButton } from '../../src/ui/primitives/button';
import { Toasts } from '../../src/ui/primitives/toasts';
import { draw } from './draw';

const router = vi.hoisted(() => ({ push: vi.fn(), refresh: vi.fn() }));
vi.mock('next/navigation', () => ({ useRouter: () => router, useServerInsertedHTML: () => undefined }));
afterEach(() => vi.clearAllMocks());

/** A form whose change can be undone, and the corner where its message stands. */
function drawUndoable(undone: ActionAnswer | Error) {
  const asked: string[] = [];
  const undo = async (_: null, data: FormData): Promise<ActionAnswer> => {
    asked.push(String(data.get('undo')));
    if (undone instanceof Error) throw undone;
    return undone;
  };
  const drawn = draw(
    <>
      <PressForm action={async () => ({ ok: true, message: 'Task added.', undo: 71 })}>
        <SubmitButton>Add</SubmitButton>
      </PressForm>
      <Toasts action={undo} />
    </>,
  );
  return { ...drawn, asked };
}

describe('a change that can be undone', () => {
  it('says so once, in the corner, and one press undoes that very change', async () => {
    const { person, asked } = drawUndoable({ ok: true, message: 'Undone.' });
    await person.click(screen.getByRole('button', { name: 'Add' }));
    expect(await screen.findAllByText('Task added.')).toHaveLength(1);
    await person.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('Undone.')).toBeTruthy();
    expect(asked).toEqual(['71']);
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull());
    expect(router.refresh).toHaveBeenCalledTimes(2);
  });

  it.each([
    [{ ok: false, message: 'A. Corrie put on since. Undo that first.' }, 'A. Corrie put on since. Undo that first.'],
    [new Error('offline'), /Isobar could not be reached: nothing was undone/],
  ])('says why it was not undone', async (answer, words) => {
    const { person } = drawUndoable(answer);
    await person.click(screen.getByRole('button', { name: 'Add' }));
    await person.click((await screen.findAllByRole('button', { name: 'Undo' })).at(-1) as HTMLElement);
    expect(await screen.findByText(words)).toBeTruthy();
  });
});
