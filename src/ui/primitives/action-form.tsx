'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, type ReactNode, useActionState, useState, useTransition } from 'react';
import { FormContext } from './form-state';
import { TextLink } from './links';
import { tellUndoable } from './toasts';

/** What a form's action answers. */
export interface ActionAnswer {
  readonly ok: boolean;
  readonly message?: string;
  readonly fields?: Readonly<Record<string, string>>;
  /** What `undoAction` is asked with, where the change can be undone: the message comes with an Undo for some seconds. */
  readonly undo?: number | string;
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

/**
 * A form around a server action: keeps what was typed when it is refused, and says why beside the field. Before the scripts have
 * come, or without them, it posts to the same action and the page comes back with the answer: nothing typed is ever in an address.
 */
export function ActionForm({
  action,
  children,
  quiet = false,
  clears = false,
}: {
  action: FormAction;
  children: ReactNode;
  quiet?: boolean;
  /** Empty again once it was taken: what is pressed twice is not booked twice. */
  clears?: boolean;
}) {
  const router = useRouter();
  const [pending, startTransition] = useTransition();
  const [posted, post] = useActionState(action, null);
  const [said, setAnswer] = useState<ActionAnswer | null>(null);
  const answer = said ?? posted;
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const data = new FormData(event.currentTarget, (event.nativeEvent as SubmitEvent).submitter);
    startTransition(async () => {
      const next = await action(null, data).catch((): ActionAnswer => ({ ok: false, message: LOST }));
      setAnswer(next);
      if (!next.ok) return;
      if (next.undo !== undefined) tellUndoable(next.message ?? 'Saved.', next.undo);
      if (clears) form.reset();
      if (next.to && next.reload) window.location.assign(next.to);
      // Going to the page one is on shows nothing new by itself.
      else if (next.to && next.to !== window.location.pathname) router.push(next.to);
      else router.refresh();
    });
  };
  return (
    <FormContext.Provider value={{ pending, fields: answer?.fields ?? {}, typed: posted?.typed }}>
      <form action={post} onSubmit={submit} noValidate>
        {children}
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
        </div>
      </form>
    </FormContext.Provider>
  );
}
