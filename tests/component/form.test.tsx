import { screen, waitFor } from '@testing-library/react';
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ActionAnswer } from '../../src/ui/primitives/action-form';
import { SubmitButton } from '../../src/ui/primitives/button';
import { CheckField, Chips } from '../../src/ui/primitives/choice-fields';
import { SelectField, TextField } from '../../src/ui/primitives/fields';
import { Form, loadSchemas } from '../../src/ui/primitives/form';
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
    <Form action={action} {...settings}>
      <TextField name="gap" label="Gap" hint="with its unit" defaultValue="1.05 mm" />
      <SelectField name="depot" label="Depot" choices={choices('Eastlight', 'Northhaven')} />
      <CheckField name="lubricated" label="Lubricated" />
      <Chips name="units" legend="Units" choices={choices('metric', 'us')} chosen={['metric']} />
      <Chips name="differs" legend="What differs" choices={choices('boot', 'core', 'length')} chosen={['core']} many />
      <SubmitButton>Save</SubmitButton>
    </Form>,
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

/** The form by which a seller is banned, judged by its own schema; what its action was given, and what it answers. */
function drawBan(answer: ActionAnswer = { ok: true }) {
  const given: string[] = [];
  const action = async (_: ActionAnswer | null, data: FormData): Promise<ActionAnswer> => {
    given.push([...data].map(([name, value]) => `${name}=${value}`).join('&'));
    return answer;
  };
  const drawn = draw(
    <Form action={action} input="banForm">
      <TextField name="name" label="Who" />
      <TextField name="reason" label="Why" />
      <SubmitButton>Ban</SubmitButton>
    </Form>,
  );
  const ban = async () => drawn.person.click(await screen.findByRole('button', { name: 'Ban' }));
  return { ...drawn, given, ban };
}

// Loaded once before: how long a machine takes to load the schemas is nobody's fault.
beforeAll(loadSchemas);

describe('a form that is judged by the schema of its use-case', () => {
  it('says every fault before anything is sent, and goes to the first', async () => {
    const { ban, given } = drawBan();
    await ban();
    const faults = (await screen.findAllByRole('alert')).map(({ textContent }) => textContent);
    expect(faults).toEqual([
      'Say who.',
      'Say why, in a few words.',
      'Something here is missing or wrong. See the marked fields.',
    ]);
    await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Who')));
    expect(given).toEqual([]);
  });

  it('drops a fault as it is mended, and sends once all are', async () => {
    const { ban, given, person } = drawBan();
    await ban();
    await screen.findByText('Say who.');
    await person.type(screen.getByLabelText('Who'), 'Island Auto Stall');
    await waitFor(() => expect(screen.queryByText('Say who.')).toBeNull());
    expect(screen.getByText('Say why, in a few words.')).toBeTruthy();
    await person.type(screen.getByLabelText('Why'), 'three dead coils');
    await ban();
    await waitFor(() => expect(given).toEqual(['name=Island Auto Stall&reason=three dead coils']));
    await waitFor(() => expect(screen.queryAllByRole('alert')).toEqual([]));
  });

  it('shows at its field what only the server can know, and lets it be sent again', async () => {
    const { ban, given, person } = drawBan({
      ok: false,
      message: 'Banned already.',
      fields: { name: 'Banned on 2 Nov.' },
    });
    await person.type(screen.getByLabelText('Who'), 'Island Auto Stall');
    await person.type(screen.getByLabelText('Why'), 'three dead coils');
    await ban();
    expect(await screen.findByText('Banned on 2 Nov.')).toBeTruthy();
    await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText('Who')));
    await ban();
    await waitFor(() => expect(given).toHaveLength(2));
  });
});
