import { createContext, useContext } from 'react';

/** What the fields and buttons of a form go by. */
interface FormState {
  readonly pending: boolean;
  readonly fields: Readonly<Record<string, string>>;
  readonly typed: Readonly<Record<string, readonly string[]>> | undefined;
}

export const FormContext = createContext<FormState>({ pending: false, fields: {}, typed: undefined });
export const useFormState = () => useContext(FormContext);
