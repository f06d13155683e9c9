'use client';

import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { type ComponentProps, useRef, useState } from 'react';
import { TextControl } from './field-frame';

/** Loaded with the first calendar that is opened. */
const Calendar = dynamic(() => import('./date-calendar').then(({ DateCalendar }) => DateCalendar), { ssr: false });

/** As a person who types would: whoever listens to the field hears of it. */
function type(field: HTMLInputElement, text: string): void {
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  field.focus();
}

/** A day, typed as 2026-11-30 or chosen from a calendar; the same for everybody, whatever country the browser is set to. */
export function DateControl({ max, ref, ...props }: ComponentProps<typeof TextControl>) {
  const field = useRef<HTMLInputElement>(null);
  const [isOpen, setOpen] = useState(false);
  const attach = (element: HTMLInputElement | null) => {
    field.current = element;
    if (typeof ref === 'function') ref(element);
    else if (ref) ref.current = element;
  };
  const today = () => field.current?.closest<HTMLElement>('[data-now]')?.dataset.now;
  return (
    <span className="date-control">
      <TextControl ref={attach} mono placeholder="yyyy-mm-dd" autoComplete="off" maxLength={10} {...props} />
      <button
        type="button"
        aria-label="Pick from a month"
        title="Pick from a month"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        <CalendarDays size={18} />
      </button>
      {isOpen && (
        <Calendar
          field={() => field.current}
          day={field.current?.value ?? ''}
          today={today()}
          max={max?.toString()}
          onChoose={(day) => field.current && type(field.current, day)}
          onClose={() => setOpen(false)}
        />
      )}
    </span>
  );
}
