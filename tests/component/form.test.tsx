import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { type ActionAnswer, ActionForm } from '../../src/ui/primitives/action-form';
import { SubmitButton } from '../../src/ui/primitives/button';
import { CheckField, Chips, SelectField, TextField } from '../../src/ui/primitives/fields';
import { draw } from './draw';

const router = vi.hoisted(() => ({ push: vi.fn(), refresh: vi.fn() }));
vi.mock('next/navigation', () => ({ useRouter: () => router, useServerInsertedHTML: () => undefined }));
beforeEach(() => vi.clearAllMocks());

/** A form with one field of each kind, and what its action was given. */
function drawForm(answer: ActionAnswer | Error, settings: { clears?: boolean } = {}) {
  const given: Record<string, string[]>[] = [];
  const action = async (_: ActionAnswer | null, data: FormData): Promise<ActionAnswer> => {
    given.push(Object.fromEntries([...new Set(data.keys())].map((name) => [name, data.getAll(name).map(String)])));
    if (answer instanceof Error) throw answer;
    return answer;
  };
  const drawn = draw(
    <ActionForm action={action} {...settings}>
      <TextField name="gap" label="Gap" hint="with its unit" defaultValue="1.05 mm" />
      <SelectField name="depot" label="Depot" choices={choices('Eastlight', 'Northhaven')} />
      <CheckField name="lubricated" label="Lubricated" />
      <Chips name="units" legend="Units" choices={choices('metric', 'us')} chosen={['metric']} />
      <Chips name="differs" legend="What differs" choices={choices('boot', 'core', 'length')} chosen={['core']} many />
      <SubmitButton>Save</SubmitButton>
    </ActionForm>,
  );
  const save = () => drawn.person.click(screen.getByRole('button', { name: 'Save' }));
  return { ...drawn, given, save };
}
const choices = (...values: readonly string[]) => values.map((value) => ({ value, label: value }));

describe('a form', () => {
  it('sends what each field holds', async () => {
    const { given, save, person } = drawForm({ ok: true });
    await person.clear(screen.getByLabelText('Gap'));
    await person.type(screen.getByLabelText('Gap'), '0.9 mm');
    await person.selectOptions(screen.getByLabelText('Depot'), 'Northhaven');
    await person.click(screen.getByLabelText('Lubricated'));
    await person.click(screen.getByLabelText('us'));
    await person.click(screen.getByLabelText('length'));
    await save();
    expect(given).toEqual([
      { gap: ['0.9 mm'], depot: ['Northhaven'], lubricated: ['on'], units: ['us'], differs: ['core', 'length'] },
    ]);
    await waitFor(() => expect(router.refresh).toHaveBeenCalledOnce());
  });

  it('sends nothing of what is not ticked', async () => {
    const { given, save, person } = drawForm({ ok: true });
    await person.click(screen.getByLabelText('core'));
    await save();
    expect(given).toEqual([{ gap: ['1.05 mm'], depot: ['Eastlight'], units: ['metric'] }]);
  });

  it('says what is wrong at the field, keeps what was typed, and goes nowhere', async () => {
    const { save, person } = drawForm({ ok: false, message: 'Mend what is marked.', fields: { gap: 'Give a unit.' } });
    const gap = screen.getByLabelText('Gap');
    await person.clear(gap);
    await person.type(gap, '0.9');
    await save();
    const faults = (await screen.findAllByRole('alert')).map(({ textContent }) => textContent);
    expect(faults).toEqual(['Give a unit.', 'Mend what is marked.']);
    expect(gap).toHaveProperty('value', '0.9');
    expect(gap.getAttribute('aria-invalid')).toBe('true');
    expect(router.refresh).not.toHaveBeenCalled();
    expect(router.push).not.toHaveBeenCalled();
  });

  it('says that nothing was saved where the server is not reached', async () => {
    const { save } = drawForm(new Error('no network'));
    await save();
    expect((await screen.findByRole('alert')).textContent).toContain('nothing was saved');
    expect(screen.getByLabelText('Gap')).toHaveProperty('value', '1.05 mm');
  });

  it('goes where the answer leads, and empties itself where it is asked to', async () => {
    const { save, person } = drawForm({ ok: true, to: '/due' }, { clears: true });
    await person.type(screen.getByLabelText('Gap'), ' old');
    await save();
    await waitFor(() => expect(router.push).toHaveBeenCalledExactlyOnceWith('/due'));
    expect(screen.getByLabelText('Gap')).toHaveProperty('value', '1.05 mm');
  });
});
