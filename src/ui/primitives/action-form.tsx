'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { type FormEvent, type ReactNode, useActionState, useState, useTransition } from 'react';
import { FormContext } from './form-state';
import { TextLink } from './links';
import type { Secret } from './shown-once';
import { tellUndoable } from './toasts';

const ShownOnce = dynamic(() => import('./shown-once').then((module) => module.ShownOnce), { loading: () => null });

/** What a form's action answers. */
export interface ActionAnswer {
  readonly ok: boolean;
  readonly message?: string;
  readonly fields?: Readonly<Record<string, string>>;
  /** What `undoAction` is asked with, where the change can be undone: the message comes with an Undo for some seconds. */
  readonly undo?: number | string;
  /** What is shown this once, to be copied. */
  readonly secret?: Secret;
  /** What the message speaks of. */
  readonly links?: readonly { readonly href: string; readonly label: string }[];
  /** Where to go on. */
  readonly to?: string;
  /** Loads the next page anew, as after signing in. */
  readonly reload?: boolean;
  /** What was typed, by field, where the page itself came back with the answer; never a password. */
  readonly typed?: Readonly<Record<string, readonly string[]>>;
}

/** @param before what the form was answered the last time, as React hands it over; no action goes by it */
export type FormAction = (before: ActionAnswer | null, data: FormData) => Promise<ActionAnswer>;

const LOST = 'Isobar could not be reached, so nothing was saved. What you typed is still here: try again.';

interface Sending {
  readonly action: FormAction;
  /** Empty again once it was taken: what is pressed twice is not booked twice. */
  readonly clears?: boolean;
}

/** Sends a form to its server action and goes on to where the answer says. Posted before its scripts came, the page holds the answer. */
export function useSending({ action, clears = false }: Sending) {
  const router = useRouter();
  const [pending, startTransition] = useTransition();
  const [posted, post] = useActionState(action, null);
  const [latest, setAnswer] = useState<ActionAnswer | null>(null);
  const send = async (form: HTMLFormElement, data: FormData): Promise<ActionAnswer> => {
    const next = await action(null, data).catch((): ActionAnswer => ({ ok: false, message: LOST }));
    setAnswer(next);
    if (!next.ok) return next;
    if (next.undo !== undefined) tellUndoable(next.message ?? 'Saved.', next.undo);
    if (clears) form.reset();
    if (next.to && next.reload) window.location.assign(next.to);
    // Going to the page one is on shows nothing new by itself.
    else if (next.to && next.to !== window.location.pathname) router.push(next.to);
    else router.refresh();
    return next;
  };
  return { pending, startTransition, post, typed: posted?.typed, answer: latest ?? posted, setAnswer, send };
}

/** What a form was answered, under it. A change that can be undone is told in a message with its Undo instead. */
export const Answered = ({ answer, quiet }: { readonly answer: ActionAnswer | null; readonly quiet: boolean }) => (
  <div aria-live="polite">
    {answer?.message && !(answer.ok && (quiet || answer.undo !== undefined)) && (
      <div className="told" role={answer.ok ? 'status' : 'alert'}>
        {answer.message}
        {answer.links?.map(({ href, label }) => (
          <span key={href}>
            {' '}
            <TextLink href={href}>{label}</TextLink>
          </span>
        ))}
      </div>
    )}
    {answer?.secret && <ShownOnce {...answer.secret} />}
  </div>
);

/** A server action behind a press: its fields are hidden or none. Before the scripts have come it posts to the same action. */
export function PressForm({
  action,
  children,
  quiet = false,
}: {
  action: FormAction;
  children: ReactNode;
  quiet?: boolean;
}) {
  const { pending, startTransition, post, typed, answer, send } = useSending({ action });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const data = new FormData(form, (event.nativeEvent as SubmitEvent).submitter);
    startTransition(async () => {
      await send(form, data);
    });
  };
  return (
    <FormContext.Provider value={{ pending, fields: answer?.fields ?? {}, typed }}>
      <form action={post} onSubmit={submit} noValidate>
        {children}
        <Answered answer={answer} quiet={quiet} />
      </form>
    </FormContext.Provider>
  );
}
