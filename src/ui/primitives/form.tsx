'use client';

import { type FormEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import { type FieldErrors, type Resolver, useForm } from 'react-hook-form';
import type { z } from 'zod';
import { FAULTS_MARKED, type FormInput, texts } from '@/contracts/forms/form-input';
import { Answered, type FormAction, useSending } from './action-form';
import { FormContext } from './form-state';

export type FormName = Extract<keyof typeof import('@/contracts/forms'), `${string}Form`>;

let schemas: Pick<typeof import('@/contracts/forms'), FormName> | null = null;
let resolver: typeof import('@hookform/resolvers/zod').zodResolver | null = null;

/** Loads the schemas as a form is taken up. Until they are here, or without a network, the server judges alone: nobody waits. */
export async function loadSchemas(): Promise<void> {
  if (schemas) return;
  const loaded = await Promise.all([import('@/contracts/forms'), import('@hookform/resolvers/zod')]).catch(() => null);
  if (!loaded) return;
  schemas = loaded[0];
  resolver = loaded[1].zodResolver;
}

/** Judges what stands in the form by the schema of its use-case, with what the pressed button says. */
function judgedBy(
  name: FormName,
  form: RefObject<HTMLFormElement | null>,
  pressed: RefObject<HTMLElement | null>,
): Resolver {
  return async (values, context, options) => {
    if (!schemas || !resolver || !form.current) return { values, errors: {} };
    const { schema, read = (typed) => typed, fieldName = (field) => field }: FormInput = schemas[name];
    const data = new FormData(form.current, pressed.current);
    const judged = await resolver(schema as z.ZodType<object, object>)(
      read(texts(data), data) as never,
      context,
      options,
    );
    const errors = Object.entries(judged.errors).map(([field, fault]) => [fieldName(field), fault]);
    return errors.length > 0 ? { values: {}, errors: Object.fromEntries(errors) } : { values, errors: {} };
  };
}

/** The message of each field, however deep its name. */
function messagesOf(errors: FieldErrors, path = ''): Readonly<Record<string, string>> {
  const parts = Object.entries(errors).map(([name, fault]) =>
    typeof fault?.message === 'string'
      ? { [path + name]: fault.message }
      : messagesOf(fault as FieldErrors, `${path}${name}.`),
  );
  return Object.assign({}, ...parts);
}

/**
 * A form with fields around a server action: judged as it is sent, by the schema that its use-case reads it with; the first fault
 * is focused, and what was typed stays. Before the scripts have come, or without them, it posts to the same action and the page
 * comes back with the answer: nothing typed is ever in an address.
 */
export function Form({
  action,
  input,
  children,
  quiet = false,
  clears = false,
}: {
  action: FormAction;
  /** By which of `contracts/forms` it is judged; left out: the server judges alone. */
  input?: FormName;
  children: ReactNode;
  quiet?: boolean;
  /** Empty again once it was taken: what is pressed twice is not booked twice. */
  clears?: boolean;
}) {
  const { pending, startTransition, post, typed, answer, setAnswer, send } = useSending({ action, clears });
  const form = useRef<HTMLFormElement>(null);
  const pressed = useRef<HTMLElement>(null);
  const [refusals, setRefusals] = useState(0);
  const { register, handleSubmit, reset, formState } = useForm({
    resolver: input && judgedBy(input, form, pressed),
    shouldFocusError: false,
    shouldUnregister: true,
  });
  useEffect(() => {
    if (refusals > 0) form.current?.querySelector<HTMLElement>('[aria-invalid="true"], [data-invalid] input')?.focus();
  }, [refusals]);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const sent = event.currentTarget;
    pressed.current = (event.nativeEvent as SubmitEvent).submitter;
    const data = new FormData(sent, pressed.current);
    startTransition(async () => {
      let isTaken = false;
      await handleSubmit(
        async () => {
          isTaken = (await send(sent, data)).ok;
        },
        () => setAnswer({ ok: false, message: FAULTS_MARKED }),
      )();
      if (isTaken) reset(undefined, { keepValues: true });
      else setRefusals((count) => count + 1);
    });
  };
  const fields = { ...answer?.fields, ...messagesOf(formState.errors) };
  return (
    <FormContext.Provider value={{ pending, fields, typed, register }}>
      <form ref={form} action={post} onSubmit={submit} onFocus={input && loadSchemas} noValidate>
        {children}
        <Answered answer={answer} quiet={quiet} />
      </form>
    </FormContext.Provider>
  );
}
