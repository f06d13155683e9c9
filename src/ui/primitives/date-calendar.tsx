'use client';

import { DatePicker, Portal } from '@chakra-ui/react';
import { type CalendarDate, parseDate } from '@internationalized/date';
import { isPlainDate } from '@/core/calendar/plain-date';

interface Props {
  /** The field below which it opens. */
  readonly field: () => HTMLElement | null;
  /** The day in the field, where it holds one. */
  readonly day: string;
  readonly today: string | undefined;
  /** No later day can be chosen. */
  readonly max: string | undefined;
  readonly onChoose: (day: string) => void;
  readonly onClose: () => void;
}

const dayOf = (text = ''): CalendarDate | undefined => (isPlainDate(text) ? parseDate(text) : undefined);

/** A month to choose a day from, weeks from Monday; its title leads to months and years. */
export function DateCalendar({ field, day, today, max, onChoose, onClose }: Props) {
  const chosen = dayOf(day);
  return (
    <DatePicker.Root
      defaultOpen
      locale="en-GB"
      startOfWeek={1}
      timeZone="UTC"
      defaultValue={chosen ? [chosen] : []}
      defaultFocusedValue={chosen ?? dayOf(today)}
      max={dayOf(max)}
      positioning={{ placement: 'bottom-start', getAnchorRect: () => field()?.getBoundingClientRect() ?? null }}
      onValueChange={({ value: [value] }) => value && onChoose(value.toString())}
      onOpenChange={({ open }) => !open && onClose()}
    >
      <Portal>
        <DatePicker.Positioner>
          <DatePicker.Content aria-label="Month">
            <DatePicker.View view="day">
              <DatePicker.Header />
              <DatePicker.DayTable />
            </DatePicker.View>
            <DatePicker.View view="month">
              <DatePicker.Header />
              <DatePicker.MonthTable />
            </DatePicker.View>
            <DatePicker.View view="year">
              <DatePicker.Header />
              <DatePicker.YearTable />
            </DatePicker.View>
          </DatePicker.Content>
        </DatePicker.Positioner>
      </Portal>
    </DatePicker.Root>
  );
}
