'use client';

import { createToaster, Portal, Toast, Toaster } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';

/** So long a change can be undone from its message; after that from the record. */
const UNDO_MS = 10_000;
const toaster = createToaster({ placement: 'bottom-end', pauseOnPageIdle: true, max: 3 });

/** Says what was done, with Undo. @param undo the change's id in the record */
export const tellUndoable = (message: string, undo: number): void => {
  toaster.create({ title: message, duration: UNDO_MS, meta: { undo } });
};

const LOST = 'Isobar could not be reached: nothing was undone. Undo it from the record.';

/** A form's action, as far as a message needs it. */
type UndoAction = (before: null, data: FormData) => Promise<{ readonly ok: boolean; readonly message?: string }>;

/** Messages in the corner. One that can be undone has a button for it. @param action undoes a change by its id */
export function Toasts({ action }: { action: UndoAction }) {
  const router = useRouter();
  const undo = async (id: number): Promise<void> => {
    const data = new FormData();
    data.set('undo', String(id));
    const { ok, message = '' } = await action(null, data).catch(() => ({ ok: false, message: LOST }));
    toaster.create({ title: message, type: ok ? 'info' : 'error', duration: UNDO_MS });
    router.refresh();
  };
  return (
    <Portal>
      <Toaster toaster={toaster}>
        {({ id, title, type, meta }) => (
          <Toast.Root key={id} data-fault={type === 'error' || undefined}>
            <Toast.Title>{title}</Toast.Title>
            {typeof meta?.undo === 'number' && (
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
    </Portal>
  );
}
