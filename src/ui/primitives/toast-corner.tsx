'use client';

import { createToaster, Toast, Toaster } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';

/** So long a change can be undone from its message; after that from the record. */
const UNDO_MS = 10_000;
const LOST = 'Isobar could not be reached: nothing was undone. Undo it from the record.';

export interface Message {
  readonly text: string;
  /** What the undo action is asked with. */
  readonly undo: number | string;
}

/** A form's action, as far as a message needs it. */
export type UndoAction = (before: null, data: FormData) => Promise<{ readonly ok: boolean; readonly message?: string }>;

interface Props {
  /** All since the page was opened, the latest last. */
  readonly messages: readonly Message[];
  readonly action: UndoAction;
}

/** Shows each message for some seconds, with a button that undoes its change. */
export function ToastCorner({ messages, action }: Props) {
  const router = useRouter();
  const [toaster] = useState(() => createToaster({ placement: 'bottom-end', pauseOnPageIdle: true, max: 3 }));
  const shown = useRef(0);
  useEffect(() => {
    const fresh = messages.slice(shown.current);
    shown.current = messages.length;
    // The corner begins to listen in a microtask of its own mount; a message before that would be lost.
    queueMicrotask(() => {
      for (const { text, undo } of fresh) toaster.create({ title: text, duration: UNDO_MS, meta: { undo } });
    });
  }, [messages, toaster]);
  const undo = async (what: Message['undo']): Promise<void> => {
    const data = new FormData();
    data.set('undo', String(what));
    const { ok, message = '' } = await action(null, data).catch(() => ({ ok: false, message: LOST }));
    toaster.create({ title: message, type: ok ? 'info' : 'error', duration: UNDO_MS });
    router.refresh();
  };
  return (
    <Toaster toaster={toaster}>
      {({ id, title, type, meta }) => (
        <Toast.Root key={id} data-fault={type === 'error' || undefined}>
          <Toast.Title>{title}</Toast.Title>
          {meta?.undo !== undefined && (
            <button
              type="button"
              className="button"
              onClick={() => {
                toaster.remove(id);
                void undo(meta.undo);
              }}
            >
              Undo
            </button>
          )}
          <Toast.CloseTrigger aria-label="Close the message">
            <X size={16} />
          </Toast.CloseTrigger>
        </Toast.Root>
      )}
    </Toaster>
  );
}
