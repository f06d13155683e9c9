'use client';

import { useId } from 'react';
import { personUnits } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import type { FloorJob } from '@/core/work/job-record';
import { FieldHead, Press, Verdict } from './parts';

/** A number as it is read off the part: typed, or pressed when it reads as it should. */
export function NumberRead({
  field,
  label,
  value,
  known,
  offer,
  offered = 'reads',
  verdict,
  onChange,
}: {
  /** The field of the record that it is. */
  field: string;
  label: string;
  value: string;
  known: string;
  offer: string | null;
  /** Before the number that is offered. */
  offered?: string;
  verdict: { readonly words: string; readonly good: boolean } | null;
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <div data-field={field}>
      <label htmlFor={id}>
        <FieldHead name={label} known={known} />
      </label>
      <div className="number-read">
        <input
          id={id}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
        />
        {offer && value === '' && (
          <Press mono onPress={() => onChange(offer)}>
            {offered} {offer}
          </Press>
        )}
        {verdict && <Verdict {...verdict} />}
      </div>
    </div>
  );
}

/** One press for what a wire gauge says; the pad is there for what lies between. */
export function GaugeRow({
  steps,
  job,
  value,
  label,
  onPick,
}: {
  steps: readonly number[];
  job: FloorJob;
  value: number | null;
  label: string;
  onPick: (text: string) => void;
}) {
  const unit = personUnits(job.units).gap;
  const decimals = unit === 'mm' ? 2 : 3;
  return (
    <fieldset className="press-row" data-close aria-label={label}>
      {steps.map((mm) => {
        const shown = fromSi(mm, unit).toFixed(decimals);
        return (
          <Press
            key={mm}
            chosen={value !== null && Math.abs(value - mm) < 0.003}
            onPress={() => onPick(`${shown} ${unit}`)}
          >
            {shown}
          </Press>
        );
      })}
    </fieldset>
  );
}
