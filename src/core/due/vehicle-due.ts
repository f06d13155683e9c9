import type { PlainDate } from '../calendar/plain-date';
import type { Component } from '../engine/quantities';
import type { DueState } from './due';

/* A vehicle comes in once, for all its components: the one that binds first speaks for it, and what it costs to wait is the sum. */

/** What falls due within so many days of the first comes in with it: a vehicle is opened once. */
export const WINDOW_DAYS = 84;
/** A component with so much of its life used is worth changing while it is open. */
export const NEARLY_USED = 0.85;

/** Where one component of a vehicle stands. */
interface ComponentDue {
  readonly component: Component;
  readonly state: DueState;
  /** The likely due day. */
  readonly due: PlainDate | null;
  readonly lifeUsed: number | null;
}

/** What a person has to act on first. A part without a firm match or a reading hides a date that may have passed. */
const URGENCY: readonly DueState[] = [
  'past',
  'soon',
  'inspect',
  'no-match',
  'no-odometer',
  'blocked',
  'deferred',
  'later',
  'no-date',
];

/** The component that binds first: by what is to be done, then by day, then by life used. @returns null for none */
export function bindsFirst<C extends ComponentDue>(components: readonly C[]): C | null {
  const [first] = [...components].sort(compareDue);
  return first ?? null;
}

/** Negative where `a` is wanted before `b`. Plugs come first where nothing tells them apart. */
export function compareDue(a: ComponentDue, b: ComponentDue): number {
  return (
    URGENCY.indexOf(a.state) - URGENCY.indexOf(b.state) ||
    (a.due ?? FAR).localeCompare(b.due ?? FAR) ||
    (b.lifeUsed ?? 0) - (a.lifeUsed ?? 0) ||
    Number(b.component === 'plug') - Number(a.component === 'plug')
  );
}

const FAR = '9999-12-31';
