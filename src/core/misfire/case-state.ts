/* What becomes of a case. */

/** open: being narrowed down; mending: a visit is to cure it; referred: others look; watching: cured, as it seems; closed. */
export const CASE_STATES = ['open', 'mending', 'referred', 'watching', 'closed'] as const;
export type CaseState = (typeof CASE_STATES)[number];

/** Not yet believed cured: the engine may misfire. */
export const UNCURED_STATES = ['open', 'mending', 'referred'] as const satisfies readonly CaseState[];
/** Of what is watched or closed nothing speaks against driving. */
export const mayMisfire = (state: CaseState): boolean => UNCURED_STATES.some((known) => known === state);

export const DECISIONS = ['mend', 'refer', 'watch', 'close', 'reopen'] as const;
export type Decision = (typeof DECISIONS)[number];

const LEADS_TO: Readonly<Record<Decision, CaseState>> = {
  mend: 'mending',
  refer: 'referred',
  watch: 'watching',
  close: 'closed',
  reopen: 'open',
};
const FROM: Readonly<Record<Decision, readonly CaseState[]>> = {
  mend: ['open', 'referred', 'watching'],
  refer: ['open', 'mending', 'watching'],
  watch: UNCURED_STATES,
  close: ['open', 'referred', 'watching'],
  reopen: ['mending', 'referred', 'watching', 'closed'],
};

/** Where a decision leads; null: it cannot be made of a case that stands so. */
export const afterDecision = (state: CaseState, decision: Decision): CaseState | null =>
  FROM[decision].includes(state) ? LEADS_TO[decision] : null;

/** What was mended is watched for so long before it is believed, km. */
export const WATCH_KM = 800;
/** What comes back within so many km of its end is the same case, with all it knew. */
const SAME_WITHIN_KM = 2000;

/** Whether a vehicle that misfires again goes on with a case that ended. @param endedKm where it ended; null: nobody knows */
export const isSameCase = (endedKm: number | null, nowKm: number | null): boolean =>
  endedKm !== null && nowKm !== null && nowKm - endedKm <= SAME_WITHIN_KM;
