'use client';

import { type ReactNode, useId } from 'react';
import type { UnitSystem } from '@/core/units/person-units';
import { personUnits } from '@/core/units/person-units';
import type { Window } from '@/core/units/read-quantity';
import { sayOhms } from '@/core/units/say';
import { readPlaceQuantity } from '@/core/work/place-done';
import { type PlaceQuantity, quantityField } from '@/core/work/place-fields';
import type { TaskComponent } from '@/core/work/task';
import { distanceText, gapText, torqueText } from '@/text/format';
import { FieldHead, Press, Verdict } from './parts';

const TEXT = { gap: gapText, torque: torqueText, distance: distanceText, resistance: sayOhms };

/** A quantity: typed on the pad or a keyboard, told at once as it is read, in both units. */
export function NumberField({
  component = 'plug',
  field,
  name,
  known,
  value,
  system,
  active,
  verdict,
  sheet,
  onActive,
  onChange,
  pad,
}: {
  /** The part that it is measured at. */
  component?: TaskComponent;
  field: PlaceQuantity;
  name: string;
  known?: string;
  value: string;
  system: UnitSystem;
  active: boolean;
  /** What the figure means here, and whether it is good. */
  verdict?: { readonly words: string; readonly good: boolean } | null;
  /** What the sheet allows: nothing else is offered instead of what cannot be right. */
  sheet?: Window;
  onActive: () => void;
  onChange: (value: string) => void;
  /** The number pad, where there is no room for it beside the fields. */
  pad?: ReactNode;
}) {
  const id = useId();
  const read = readPlaceQuantity(component, field, value, personUnits(system), sheet);
  const text = TEXT[quantityField(component, field).quantity];
  const shown = read.ok && read.value !== null ? text(read.value, system) : null;
  return (
    <div data-field={field}>
      <label htmlFor={id}>
        <FieldHead name={name} known={known} />
      </label>
      <div className="number-frame" data-active={active || undefined}>
        <input
          id={id}
          value={value}
          inputMode="none"
          autoComplete="off"
          onFocus={onActive}
          onChange={(event) => {
            // The field may have been in hand already when its site became another.
            onActive();
            onChange(event.target.value);
          }}
          aria-describedby={`${id}-read`}
          aria-invalid={!read.ok || undefined}
        />
        <div id={`${id}-read`} aria-live="polite">
          {shown && shown.replace(' · ', '') !== value && <span className="aside">{shown} </span>}
          {verdict && <Verdict {...verdict} />}
        </div>
      </div>
      {!read.ok && (
        <div className="fault" role="alert">
          {read.message}
          <div className="press-row">
            {read.suggestions.slice(0, 3).map((suggestion) => (
              <Press key={suggestion.text} onPress={() => onChange(suggestion.text.split(' = ')[0] ?? '')}>
                {suggestion.text}
              </Press>
            ))}
          </div>
        </div>
      )}
      {active && pad && <div className="pad-under">{pad}</div>}
    </div>
  );
}
