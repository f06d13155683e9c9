import { screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Faults } from '../../src/core/work/place-done';
import { jumpTo, SavePlace } from '../../src/ui/floor/view/save-place';
import { draw } from './draw';

const drawPlace = (over: { faults?: Faults; done?: boolean } = {}) => {
  const pressed = { onSave: vi.fn(), onNext: vi.fn(), onTakeBack: vi.fn() };
  const drawn = draw(
    <>
      <div data-field="hole">
        <button type="button">sound</button>
      </div>
      <div data-field="newGap">
        <input aria-label="New gap" />
      </div>
      <SavePlace
        name="cylinder 4"
        words="Started by hand, torqued 17.5 N·m, next: 6"
        done={false}
        faults={{}}
        {...over}
        {...pressed}
      />
    </>,
  );
  return { ...drawn, ...pressed };
};

describe('the one button of a place', () => {
  it('says what it saves and, below, what it will write', async () => {
    const { person, onSave, onNext } = drawPlace();
    await person.click(
      screen.getByRole('button', { name: 'Save cylinder 4 Started by hand, torqued 17.5 N·m, next: 6' }),
    );
    expect([onSave.mock.calls.length, onNext.mock.calls.length]).toEqual([1, 0]);
  });

  it('goes on where the place is done, and can take the place back', async () => {
    const { person, onSave, onNext, onTakeBack } = drawPlace({ done: true, faults: { newGap: 'too wide' } });
    expect(screen.queryByRole('alert')).toBeNull();
    await person.click(screen.getByRole('button', { name: /^Done: cylinder 4/ }));
    await person.click(screen.getByRole('button', { name: 'Take cylinder 4 back' }));
    expect([onSave, onNext, onTakeBack].map(({ mock }) => mock.calls.length)).toEqual([0, 1, 1]);
  });

  it('lists what is missing, and each leads to its field', async () => {
    const { person } = drawPlace({ faults: { newGap: 'Close it by 0.06 mm.', hole: 'Say what the thread is like.' } });
    await person.click(screen.getByRole('button', { name: 'Close it by 0.06 mm.' }));
    expect(document.activeElement).toBe(screen.getByLabelText('New gap'));
    await person.click(screen.getByRole('button', { name: 'Say what the thread is like.' }));
    expect(document.activeElement?.textContent).toBe('sound');
  });

  it('stays where a field is not on the page', () => {
    drawPlace();
    const before = document.activeElement;
    jumpTo('curve');
    jumpTo(undefined);
    expect(document.activeElement).toBe(before);
  });
});
