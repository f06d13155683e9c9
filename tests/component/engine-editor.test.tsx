import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { EngineEditor } from '../../src/ui/catalogue/engine-editor';
import type { ActionAnswer } from '../../src/ui/primitives/action-form';
import { draw } from './draw';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ refresh: () => undefined, push: () => undefined }),
  useServerInsertedHTML: () => undefined,
}));

const INLINE_4 = {
  code: 'AG-14',
  name: 'four in line',
  arrangement: 'inline',
  mounting: 'transverse',
  bank_1: '1 2 3 4',
  bank_1_place: 'only',
  firing_order: '1 3 4 2',
  ignition: 'coil_on_plug',
  plugs_per_cylinder: '1',
};

/** The editor of an engine, and what it was saved as. */
function drawEditor(initial: Readonly<Record<string, string>> = INLINE_4, answer: ActionAnswer = { ok: true }) {
  const saved: Record<string, string>[] = [];
  const action = async (_: ActionAnswer | null, data: FormData): Promise<ActionAnswer> => {
    saved.push(Object.fromEntries([...data].map(([name, value]) => [name, String(value)])));
    return answer;
  };
  const drawn = draw(<EngineEditor initial={initial} action={action} />);
  const { person } = drawn;
  const retype = async (label: string, text: string) => {
    await person.clear(screen.getByLabelText(label));
    if (text !== '') await person.type(screen.getByLabelText(label), text);
  };
  const save = () => person.click(screen.getByRole('button', { name: 'Save the engine family' }));
  const says = () => screen.getByRole('status').textContent ?? '';
  return { ...drawn, retype, save, says, saved };
}

describe('an engine as it is typed', () => {
  it('is drawn and counted at once', async () => {
    const { says, retype } = drawEditor();
    expect(screen.getByRole('group', { name: /^The engine as typed/ })).toBeTruthy();
    expect(says()).toMatch(/^Consistent: .*4 .*plug/);
    await retype('Bank 1: holds cylinder 1', '1 2 3');
    await retype('Firing order', '1 2 3');
    expect(says()).toMatch(/3 .*plug/);
  });

  it('says what is not consistent yet, and draws nothing of it', async () => {
    const { says, retype } = drawEditor();
    await retype('Firing order', '1 3 4');
    expect(says()).toContain('Not consistent yet');
    expect(screen.queryByRole('group', { name: /^The engine as typed/ })).toBeNull();
    await retype('Firing order', '1 3 4 2');
    expect(says()).toMatch(/^Consistent/);
  });

  it('has twice the plugs where each cylinder has two, and asks for their order', async () => {
    const { person, says } = drawEditor();
    expect(screen.queryByLabelText('Holes in a row')).toBeNull();
    await person.selectOptions(screen.getByLabelText('Plugs a cylinder'), '2');
    expect(screen.getByLabelText('Holes in a row')).toBeTruthy();
    expect(says()).toMatch(/8 .*plug/);
  });

  it('asks for a second bank only where there is one, and for a rotor only with a distributor', async () => {
    const { person } = drawEditor();
    expect(screen.queryByLabelText('Bank 2')).toBeNull();
    await person.selectOptions(screen.getByLabelText('Arrangement'), 'V');
    expect(screen.getByLabelText('Bank 2')).toBeTruthy();
    expect(screen.queryByLabelText('Tower of cylinder 1')).toBeNull();
    await person.selectOptions(screen.getByLabelText('Ignition'), 'distributor');
    expect(screen.getByLabelText('Tower of cylinder 1')).toBeTruthy();
  });

  it('is told of coils that are no list', async () => {
    const { retype, says } = drawEditor();
    await retype('Plugs that each coil fires', 'one each');
    expect(says()).toContain('“one each” is not a list of coils');
  });

  it('is saved as its import file writes it, with the fault of a field beside the field', async () => {
    const refused = { ok: false, message: 'See the marked fields.', fields: { code: 'There is one of this code.' } };
    const { save, saved } = drawEditor(INLINE_4, refused);
    await save();
    await screen.findByText('There is one of this code.');
    expect(saved[0]).toMatchObject({ kind: 'engine-families', code: 'AG-14', bank_1: '1 2 3 4' });
    expect(screen.getByLabelText('Code').getAttribute('aria-invalid')).toBe('true');
  });
});

describe('a list that is typed as rows', () => {
  const rows = (legend: RegExp) => screen.getByRole('group', { name: legend });

  it('grows and shrinks by a row, and leaves out what is empty', async () => {
    const { person, save, saved } = drawEditor({ ...INLINE_4, other_work: 'belt: 100000 km' });
    const work = rows(/^Other work/);
    await person.click(within(work).getByRole('button', { name: 'Add a belt, filter or fluid' }));
    await person.type(within(work).getByLabelText('What 2'), 'coolant');
    await person.type(within(work).getByLabelText(/^Every 40000 km.* 2$/), '60 months');
    await person.click(within(work).getByRole('button', { name: 'Add a belt, filter or fluid' }));
    await save();
    await waitFor(() => expect(saved[0]?.other_work).toBe('belt: 100000 km | coolant: 60 months'));
    await person.click(within(work).getByRole('button', { name: 'Remove belt, filter or fluid 1' }));
    await save();
    await waitFor(() => expect(saved[1]?.other_work).toBe('coolant: 60 months'));
  });

  it('takes a list that is pasted as rows', async () => {
    const { person, save, saved } = drawEditor();
    const work = rows(/^Other work/);
    await person.click(within(work).getByRole('button', { name: /^Add a/ }));
    await person.click(within(work).getByLabelText('What 1'));
    await person.paste('belt: 100000 km | coolant: 60 months');
    expect(within(work).getAllByRole('button', { name: /^Remove/ })).toHaveLength(2);
    await save();
    await waitFor(() => expect(saved[0]?.other_work).toBe('belt: 100000 km | coolant: 60 months'));
  });
});
