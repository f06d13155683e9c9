import type { Cause, Urgency } from './finding';
import type { Shape } from './shape';
import type { SignName } from './signs';

/** A cause, the signs it leaves, and where in the engine. */
export interface Rule {
  readonly id: Cause;
  /** Any of these at a site. */
  readonly signs: readonly SignName[];
  /**
   * The places this cause acts on as a whole, with how likely that is before anything was seen. Besides, or without, it may
   * act on single cylinders and explain a sign that no place as a whole explains.
   */
  readonly places?: Readonly<Partial<Record<Shape, number>>>;
  readonly urgency: Urgency;
  /** A sign that makes it more urgent than it is without, and what to do then. */
  readonly urgentWith?: { readonly sign: SignName; readonly urgency: Urgency; readonly next: string };
  /** Measured against a limit: it is there, whatever else explains what was measured. */
  readonly measured?: true;
  /** Less sure than its signs: other causes look the same. */
  readonly ambiguous?: boolean;
  readonly reason: string;
  readonly next: readonly string[];
}
