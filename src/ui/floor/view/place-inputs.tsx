import type { ComponentProps, ReactNode } from 'react';
import type { Window } from '@/core/units/read-quantity';
import { PLACE_FIELDS, type PlaceField, type PlaceQuantity } from '@/core/work/place-fields';
import { type Hand, text } from './hand';
import { NumberField } from './number-field';
import { NumberRead } from './number-read';
import { FieldHead, Press } from './parts';

type Verdict = ComponentProps<typeof NumberRead>['verdict'];

/** In range or not; null: nothing can be said. */
export const verdictOf = (good: boolean | null, right = 'in range', wrong = 'out of range'): Verdict =>
  good === null ? null : { words: good ? right : wrong, good };

/** A quantity of the place in hand. */
export const QuantityInput = ({
  hand: { place, job, fields, active, pad, activate, put },
  field,
  ...rest
}: {
  hand: Hand;
  field: PlaceQuantity;
  name: string;
  known?: string;
  verdict?: Verdict;
  /** What the sheet allows. */
  sheet?: Window;
}) => (
  <NumberField
    component={place.component}
    field={field}
    value={text(fields, field)}
    system={job.units}
    active={active === field}
    pad={pad}
    onActive={() => activate(field)}
    onChange={(value) => put(field, value)}
    {...rest}
  />
);

/** A number or a few words of the place in hand, read off a part or a box. */
export const TextInput = ({
  hand: { fields, put },
  field,
  known = '',
  offer = null,
  verdict = null,
  ...rest
}: {
  hand: Pick<Hand, 'fields' | 'put'>;
  field: PlaceField;
  label: string;
  known?: string;
  offer?: string | null;
  offered?: string;
  verdict?: Verdict;
}) => (
  <NumberRead
    field={field}
    value={text(fields, field)}
    onChange={(value) => put(field, value)}
    {...{ known, offer, verdict }}
    {...rest}
  />
);

type ChoiceName = {
  [F in PlaceField]: (typeof PLACE_FIELDS)[F] extends { readonly kind: 'choice' } ? F : never;
}[PlaceField];

/** One of the answers that a field has; pressed again, none. */
export const ChoiceInput = ({
  hand: { fields, put },
  field,
  head,
  known,
  label,
  words = {},
  children,
}: {
  hand: Pick<Hand, 'fields' | 'put'>;
  field: ChoiceName;
  head?: string;
  known?: string;
  /** For whoever hears the page. */
  label?: string;
  /** Answers that are called otherwise than they are stored. */
  words?: Readonly<Record<string, string>>;
  /** Said before the answers. */
  children?: ReactNode;
}) => (
  <>
    {head && <FieldHead name={head} known={known} />}
    <fieldset className="press-row" aria-label={label ?? head} data-field={field}>
      {children}
      {PLACE_FIELDS[field].choices.map((choice: string) => (
        <Press
          key={choice}
          chosen={fields[field] === choice}
          onPress={() => put(field, fields[field] === choice ? null : choice)}
        >
          {words[choice] ?? choice}
        </Press>
      ))}
    </fieldset>
  </>
);
