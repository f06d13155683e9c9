import type { ReactNode } from 'react';

interface FieldFrameProps {
  readonly id: string;
  readonly label: string;
  readonly hint?: ReactNode;
  readonly fault?: string | null;
}

/** Label and hint over a field, and under it what is wrong with it. */
export function FieldFrame({ id, label, hint, fault, children }: FieldFrameProps & { children: ReactNode }) {
  return (
    <div className="field-frame">
      <div>
        <label htmlFor={id}>{label}</label>
        {hint && <span id={`${id}-hint`}>{hint}</span>}
      </div>
      {children}
      {fault && (
        <div id={`${id}-fault`} role="alert">
          {fault}
        </div>
      )}
    </div>
  );
}

/** Ties a control to its hint and fault for those who hear the page. */
export const describedBy = (id: string, hint: unknown, fault: unknown): string | undefined =>
  [hint ? `${id}-hint` : '', fault ? `${id}-fault` : ''].filter(Boolean).join(' ') || undefined;
