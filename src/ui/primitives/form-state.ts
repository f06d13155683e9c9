import { createContext, useContext } from 'react';
import type { FieldValues, UseFormRegister } from 'react-hook-form';

/** What the fields and buttons of a form go by. */
interface FormState {
  readonly pending: boolean;
  readonly fields: Readonly<Record<string, string>>;
  readonly typed: Readonly<Record<string, readonly string[]>> | undefined;
  /** Tells the form of a field's changes, so that its fault goes as it is mended. */
  readonly register?: UseFormRegister<FieldValues>;
}

export const FormContext = createContext<FormState>({ pending: false, fields: {}, typed: undefined });
export const useFormState = () => useContext(FormContext);
