'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { type ReactNode, useId } from 'react';
import { useFormState } from './action-form';
import { describedBy, FieldFrame } from './field-frame';
import { type Choice, Options } from './options';
import type { SecretField } from './secret-fields';

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly hint?: ReactNode;
}

function Frame({ name, ...frame }: FieldProps & { readonly id: string; readonly children: ReactNode }) {
  return <FieldFrame {...frame} fault={useFormState().fields[name]} />;
}

function useField(name: string, hint: unknown, defaultValue?: string) {
  const id = useId();
  const { fields, typed } = useFormState();
  const fault = fields[name];
  return {
    id,
    control: {
      id,
      name,
      defaultValue: typed?.[name]?.[0] ?? defaultValue,
      'aria-invalid': fault ? (true as const) : undefined,
      'aria-describedby': describedBy(id, hint, fault),
    },
  };
}

interface TextProps extends FieldProps {
  readonly type?: string;
  readonly defaultValue?: string;
  readonly autoComplete?: string;
  readonly inputMode?: 'decimal' | 'numeric' | 'email' | 'text';
  readonly placeholder?: string;
  readonly mono?: boolean;
  readonly autoFocus?: boolean;
}

export function TextField({ name, label, hint, mono = false, type = 'text', defaultValue, ...rest }: TextProps) {
  const { id, control } = useField(name, hint, defaultValue);
  return (
    <Frame name={name} label={label} hint={hint} id={id}>
      <input {...control} {...rest} type={type} className="field" data-mono={mono || undefined} />
    </Frame>
  );
}

interface PasswordProps extends FieldProps {
  readonly name: SecretField;
  readonly autoComplete: 'current-password' | 'new-password';
}

export const PasswordField = (props: PasswordProps) => <TextField {...props} type="password" />;

export function SelectField({
  name,
  label,
  hint,
  choices,
  defaultValue,
  large = false,
}: FieldProps & { readonly choices: readonly Choice[]; readonly defaultValue?: string; readonly large?: boolean }) {
  const { id, control } = useField(name, hint, defaultValue);
  return (
    <Frame name={name} label={label} hint={hint} id={id}>
      <select {...control} className="field" data-large={large || undefined}>
        <Options choices={choices} />
      </select>
    </Frame>
  );
}

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
    <chakra.label display="inline-flex" gap="2" alignItems="center" minH="32px">
      <chakra.input
        type="checkbox"
        name={name}
        defaultChecked={typed ? typed[name] !== undefined : defaultChecked}
        accentColor="action"
        w="16px"
        h="16px"
      />
      {label}
    </chakra.label>
  );
}

interface ChipProps {
  readonly name: string;
  readonly legend: string;
  readonly choices: readonly Choice[];
  readonly chosen: readonly string[];
  readonly many?: boolean;
}

/** Large targets for gloves: a chosen chip is filled and ticked, so colour is not the only sign. */
export function Chips({ name, legend, choices, chosen, many = false }: ChipProps) {
  const { fields, typed } = useFormState();
  const fault = fields[name];
  const pressed = typed ? (typed[name] ?? []) : chosen;
  return (
    <chakra.fieldset mb="3" border="none">
      <chakra.legend color="soft" fontSize="sm" mb="1">
        {legend}
      </chakra.legend>
      <Flex gap="2" wrap="wrap">
        {choices.map((choice) => (
          <chakra.label key={choice.value} cursor="pointer">
            <chakra.input
              type={many ? 'checkbox' : 'radio'}
              name={name}
              value={choice.value}
              defaultChecked={pressed.includes(choice.value)}
              className="peer"
              position="absolute"
              opacity="0"
            />
            <Box
              as="span"
              display="inline-flex"
              alignItems="center"
              minH="44px"
              px="3"
              rounded="sm"
              border="1px solid"
              borderColor="line"
              bg="sheet"
              css={{
                '.peer:checked + &': { background: 'ink', color: 'sheet', borderColor: 'ink' },
                '.peer:checked + &::before': { content: '"✓"', marginRight: '6px' },
                '.peer:focus-visible + &': { outline: '2px solid', outlineColor: 'action', outlineOffset: '2px' },
              }}
            >
              {choice.label}
            </Box>
          </chakra.label>
        ))}
      </Flex>
      {fault && (
        <Box role="alert" mt="1" color="wrong.ink" fontSize="sm" fontWeight="600">
          {fault}
        </Box>
      )}
    </chakra.fieldset>
  );
}
