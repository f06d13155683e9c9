import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type WalkAnswer, YardWalk } from '../../src/ui/odometer/yard-walk';
import { draw } from './draw';

const router = vi.hoisted(() => ({ refresh: vi.fn() }));
vi.mock('next/navigation', () => ({ useRouter: () => router, useServerInsertedHTML: () => undefined }));
beforeEach(() => vi.clearAllMocks());

const vehicle = (unitNumber: string) => ({
  id: unitNumber,
  unitNumber,
  name: 'post van',
  unit: 'km' as const,
  last: '41,310',
  lastOn: '2 Nov 2026',
  expected: '41,900',
});

/** A walk past three vehicles, and what was saved of it. */
function drawWalk(answer: WalkAnswer | Error) {
  const saved: { readings: readonly object[]; on: string }[] = [];
  const save = async (readings: readonly object[], on: string): Promise<WalkAnswer> => {
    saved.push({ readings, on });
    if (answer instanceof Error) throw answer;
    return answer;
  };
  const drawn = draw(<YardWalk vehicles={['4', '15', '104'].map(vehicle)} today="2026-11-16" save={save} />);
  const field = (unit: string) => screen.getByLabelText<HTMLInputElement>(`Reading of unit ${unit}`);
  return { ...drawn, saved, field, button: () => screen.getByRole<HTMLButtonElement>('button', { name: /^Save/ }) };
}
const result = (unitNumber: string, state: 'accepted' | 'suspect' | 'refused', message: string) => ({
  unitNumber,
  state,
  message,
});

describe('a walk through the yard', () => {
  it('is typed down by Enter, and saved in one step', async () => {
    const { person, field, button, saved } = drawWalk({ ok: true, results: [] });
    expect(button().disabled).toBe(true);
    await person.type(field('4'), '41950{Enter}22010{Enter}');
    expect(document.activeElement).toBe(field('104'));
    await person.keyboard('{Shift>}{Enter}{/Shift}');
    expect(document.activeElement).toBe(field('15'));
    expect(button().textContent).toBe('Save 2 readings');
    await person.click(button());
    expect(saved).toEqual([
      {
        on: '2026-11-16',
        readings: [
          { unitNumber: '4', text: '41950' },
          { unitNumber: '15', text: '22010' },
        ],
      },
    ]);
    await waitFor(() => expect(router.refresh).toHaveBeenCalledOnce());
  });

  it('keeps what was refused in its field, with the reason beside it, and says how many are suspect', async () => {
    const { person, field, button } = drawWalk({
      ok: true,
      results: [
        result('4', 'accepted', 'accepted'),
        result('15', 'refused', 'Below the last.'),
        result('104', 'suspect', 'Too far.'),
      ],
    });
    for (const unit of ['4', '15', '104']) await person.type(field(unit), '41950');
    await person.click(button());
    await screen.findByText('Below the last.');
    expect(['4', '15', '104'].map((unit) => field(unit).value)).toEqual(['', '41950', '']);
    expect(screen.getByRole('status').textContent).toContain('1 kept as suspect');
  });

  it('loses nothing where the server is not reached', async () => {
    const { person, field, button } = drawWalk(new Error('offline'));
    await person.type(field('15'), '22010');
    await person.click(button());
    await screen.findByText(/nothing was saved/);
    expect(field('15').value).toBe('22010');
    expect(router.refresh).not.toHaveBeenCalled();
  });

  it('is of another day where somebody says so', async () => {
    const { person, field, button, saved } = drawWalk({ ok: true, results: [] });
    const day = screen.getByLabelText('Day of the walk');
    await person.clear(day);
    await person.type(day, '2026-11-13');
    await person.type(field('4'), '41900');
    await person.click(button());
    expect(saved[0]?.on).toBe('2026-11-13');
  });
});
