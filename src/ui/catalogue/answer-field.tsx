import type { QuestionKey } from '@/core/catalogue/match';
import { SelectField, TextField } from '../primitives/fields';

/** The form field that answers a fitment question, and where to look. */
export const ANSWER_FIELDS = {
  variant: { name: 'variant', label: 'Seen on the engine or its plate' },
  fuel: { name: 'fuel', label: 'Fuel, from the filler or the papers' },
  induction: { name: 'induction', label: 'Seen on the engine' },
  market: { name: 'market', label: 'Market, from the plate' },
  'model-year': { name: 'modelYear', label: 'Model year' },
  'built-on': { name: 'builtOn', label: 'Day of build, from the plate (2017-06-30)' },
  serial: { name: 'vin', label: 'VIN, from the plate' },
} as const;

export function AnswerField({
  question,
  choices,
  unit,
}: {
  question: QuestionKey;
  choices: readonly string[];
  unit?: string;
}) {
  if (!(question in ANSWER_FIELDS)) return null;
  const { name, label } = ANSWER_FIELDS[question as keyof typeof ANSWER_FIELDS];
  const whole = unit === undefined ? label : `${label}, unit ${unit}`;
  const chosen = question === 'variant' || question === 'fuel' || question === 'induction' || question === 'market';
  if (chosen)
    return (
      <SelectField
        name={name}
        label={whole}
        choices={[
          { value: '', label: 'look first, then choose' },
          ...choices.map((value) => ({ value, label: value })),
        ]}
      />
    );
  return (
    <TextField
      name={name}
      label={whole}
      mono={question === 'serial'}
      inputMode={question === 'model-year' ? 'numeric' : 'text'}
    />
  );
}
