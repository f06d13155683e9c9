'use client';

import { Checkbox, CheckboxCard, CheckboxGroup, Fieldset, RadioCard } from '@chakra-ui/react';
import type { Choice } from './field-frame';
import { useFormState } from './form-state';

export function CheckField({
  name,
  label,
  defaultChecked,
}: {
  readonly name: string;
  readonly label: string;
  readonly defaultChecked?: boolean;
}) {
  const { typed } = useFormState();
  return (
    <Checkbox.Root name={name} defaultChecked={typed ? typed[name] !== undefined : defaultChecked}>
      <Checkbox.HiddenInput />
      <Checkbox.Control />
      <Checkbox.Label>{label}</Checkbox.Label>
    </Checkbox.Root>
  );
}

interface ChipProps {
  readonly name: string;
  readonly legend: string;
  readonly choices: readonly Choice[];
  readonly chosen: readonly string[];
  readonly many?: boolean;
}

/** Large targets for gloves: a chosen one is filled and ticked, so colour is not the only sign. */
export function Chips({ name, legend, choices, chosen, many = false }: ChipProps) {
  const { fields, typed } = useFormState();
  const fault = fields[name];
  const pressed = [...(typed ? (typed[name] ?? []) : chosen)];
  return (
    <Fieldset.Root invalid={Boolean(fault)}>
      <Fieldset.Legend>{legend}</Fieldset.Legend>
      {many ? (
        <CheckboxGroup name={name} defaultValue={pressed}>
          <div className="chips">
            {choices.map(({ value, label }) => (
              <CheckboxCard.Root key={value} value={value}>
                <CheckboxCard.HiddenInput />
                <CheckboxCard.Label>{label}</CheckboxCard.Label>
              </CheckboxCard.Root>
            ))}
          </div>
        </CheckboxGroup>
      ) : (
        <RadioCard.Root name={name} defaultValue={pressed[0]} className="chips">
          {choices.map(({ value, label }) => (
            <RadioCard.Item key={value} value={value}>
              <RadioCard.ItemHiddenInput />
              <RadioCard.ItemText>{label}</RadioCard.ItemText>
            </RadioCard.Item>
          ))}
        </RadioCard.Root>
      )}
      <Fieldset.ErrorText role="alert">{fault}</Fieldset.ErrorText>
    </Fieldset.Root>
  );
}
