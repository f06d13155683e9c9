import { type CountState, dashFigure, LONGEST_TEST, openCounts } from './ask';
import { type NamedPlace, sayPlaces } from './say-places';
import type { PlaceState } from './task';

interface PlaceProgress extends NamedPlace {
  readonly state: PlaceState;
  /** Done under another sheet than the one in force, and not released. */
  readonly redo: boolean;
}

interface StepProgress {
  readonly title: string;
  readonly perSite: boolean;
  readonly state: 'open' | 'done' | 'not_done';
}

export interface Closing {
  readonly places: readonly PlaceProgress[];
  readonly steps: readonly StepProgress[];
  readonly counts: readonly CountState[];
  /** Gates that what was left undone keeps shut, in words. */
  readonly gates: readonly string[];
  /** Fields about which two people said otherwise. */
  readonly differences: number;
  /** What the job waits for, in words. */
  readonly waits: readonly string[];
  /** Another sheet is in force than the order works by; null: its own. */
  readonly sheetChanged: string | null;
}

/** Where what is missing is done: at the vehicle, on its tab of the order, or at the head of the order's pages. */
export type MissingAt = 'sites' | 'steps' | 'gates' | 'findings' | 'head';

export interface Missing {
  readonly says: string;
  readonly at: MissingAt;
}

/** What is still missing before a work order can be closed. Empty: it can be. */
export function missingToClose(closing: Closing): readonly Missing[] {
  const { places, steps, counts, gates, differences, waits, sheetChanged } = closing;
  const open = places.filter(({ state }) => state === 'open');
  const redo = places.filter((place) => place.redo);
  const unsaid = steps.filter((step) => !step.perSite && step.state === 'open').map(({ title }) => title);
  const differing = `${differences === 1 ? 'One field has' : `${differences} fields have`} two answers: choose at the vehicle.`;
  const all: readonly (Missing | false)[] = [
    sheetChanged !== null && { says: `${sheetChanged} Take it over, or have a supervisor decide.`, at: 'head' },
    open.length > 0 && { says: `${sayPlaces(open)} not done yet.`, at: 'sites' },
    redo.length > 0 && {
      says: `${sayPlaces(redo)} done under another sheet than the one in force: redo, or release with a reason.`,
      at: 'head',
    },
    differences > 0 && { says: differing, at: 'sites' },
    ...waits.map((wait): Missing => ({ says: `Waits: ${wait}.`, at: 'head' })),
    ...openCounts(counts).map((says): Missing => ({ says, at: 'steps' })),
    ...gates.map((says): Missing => ({ says, at: 'gates' })),
    unsaid.length > 0 && { says: `Neither done nor marked as not done: ${someOf(unsaid)}.`, at: 'steps' },
  ];
  return all.filter((missing) => missing !== false);
}

/** An order may be closed days after its road test, with the vehicle out again: so far at most, in what the dash shows. */
const MAX_SINCE_TEST = 2000;

/**
 * Whether the odometer at the close can follow the end of the road test: both are read off one dash.
 *
 * @param shown what the dash shows at the close @param end as it was written after the road test
 * @param isAbout the figure at the close is only about so much
 * @returns what differs and what to do; null: nothing does, or there was no road test
 */
export function roadTestFault(shown: number, end: string | undefined, isAbout: boolean): string | null {
  const ended = dashFigure(end);
  if (ended === null) return null;
  const least = isAbout ? ended - LONGEST_TEST : Math.floor(ended);
  if (Math.round(shown) >= least && shown <= ended + MAX_SINCE_TEST) return null;
  return `The road test ended at ${ended}, and this is ${Math.round(shown)}. Read the dash again. If the road test was written wrongly, say so below and close.`;
}

const MAX_NAMED = 2;

/** The first of a list, and how many more there are. */
const someOf = (titles: readonly string[]): string =>
  titles.length <= MAX_NAMED
    ? titles.join('; ')
    : `${titles.slice(0, MAX_NAMED).join('; ')}; and ${titles.length - MAX_NAMED} more`;
