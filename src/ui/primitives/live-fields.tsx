'use client';

import { Box, chakra, Flex, Input, NativeSelect } from '@chakra-ui/react';
import { type ReactNode, useId } from 'react';
import type { Choice } from './fields';

interface LiveProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly hint?: ReactNode;
  readonly fault?: string | null;
  readonly name?: string;
}

function LiveFrame({
  id,
  label,
  hint,
  fault,
  children,
}: Pick<LiveProps, 'label' | 'hint' | 'fault'> & { id: string; children: ReactNode }) {
  return (
    <Box mb="3">
      <Flex justify="space-between" columnGap="3" align="baseline">
        <chakra.label htmlFor={id} color="soft" fontSize="sm">
          {label}
        </chakra.label>
        {hint && (
          <Box as="span" id={`${id}-hint`} color="soft" fontSize="sm" textAlign="right">
            {hint}
          </Box>
        )}
      </Flex>
      {children}
      {fault && (
        <Box id={`${id}-fault`} role="alert" mt="1" color="wrong.ink" fontSize="sm" fontWeight="600">
          {fault}
        </Box>
      )}
    </Box>
  );
}

const describedBy = (id: string, hint: unknown, fault: unknown): string | undefined =>
  [hint ? `${id}-hint` : '', fault ? `${id}-fault` : ''].filter(Boolean).join(' ') || undefined;

/** A field whose value is used as it is typed. */
export function LiveText({
  mono = false,
  inputMode,
  placeholder,
  ...props
}: LiveProps & { mono?: boolean; inputMode?: 'decimal' | 'numeric' | 'text'; placeholder?: string }) {
  const id = useId();
  return (
    <LiveFrame id={id} {...props}>
      <Input
        id={id}
        name={props.name}
        value={props.value}
        onChange={(event) => props.onChange(event.target.value)}
        inputMode={inputMode}
        placeholder={placeholder}
        aria-invalid={props.fault ? true : undefined}
        aria-describedby={describedBy(id, props.hint, props.fault)}
        bg="sheet"
        rounded="sm"
        borderColor="line"
        size="sm"
        fontFamily={mono ? 'mono' : undefined}
      />
    </LiveFrame>
  );
}

export function LiveSelect({ choices, ...props }: LiveProps & { choices: readonly Choice[] }) {
  const id = useId();
  return (
    <LiveFrame id={id} {...props}>
      <NativeSelect.Root size="sm">
        <NativeSelect.Field
          id={id}
          name={props.name}
          value={props.value}
          onChange={(event) => props.onChange(event.target.value)}
          aria-describedby={describedBy(id, props.hint, props.fault)}
          bg="sheet"
          rounded="sm"
          borderColor="line"
        >
          {choices.map((choice) => (
            <option key={choice.value} value={choice.value}>
              {choice.label}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </LiveFrame>
  );
}

/** A few lines, such as a pasted column of figures. */
export function LiveLines({ rows = 3, ...props }: LiveProps & { rows?: number }) {
  const id = useId();
  return (
    <LiveFrame id={id} {...props}>
      <chakra.textarea
        id={id}
        name={props.name}
        value={props.value}
        rows={rows}
        onChange={(event) => props.onChange(event.target.value)}
        aria-invalid={props.fault ? true : undefined}
        aria-describedby={describedBy(id, props.hint, props.fault)}
        w="100%"
        bg="sheet"
        border="1px solid"
        borderColor="line"
        rounded="sm"
        px="2"
        py="1"
        fontFamily="mono"
        fontSize="sm"
      />
    </LiveFrame>
  );
}

/** Choices of a list, shown as they are or in words. */
export const choicesOf = (values: readonly string[], words: Readonly<Record<string, string>> = {}): Choice[] =>
  values.map((value) => ({ value, label: words[value] ?? value.replaceAll('_', ' ') }));
