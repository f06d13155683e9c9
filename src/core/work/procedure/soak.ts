/** What a seized plug takes, minutes. */
export interface SoakTimes {
  /** Clean the well, back off an eighth of a turn, fill in penetrant. */
  readonly prepare: number;
  readonly soak: number;
  /** To and fro until it is out. */
  readonly remove: number;
}

interface SoakSlot {
  readonly site: string;
  readonly prepareAt: number;
  readonly soakedAt: number;
  readonly removeAt: number;
  readonly doneAt: number;
}

/**
 * Several seized plugs as one pipeline for one person: each well is prepared and filled in turn, each plug taken out when
 * its soak is over. Far shorter than one after the other, as the soaks run side by side.
 *
 * @param sites in the order in which they are worked
 * @returns each site's times in minutes from the start
 * @throws RangeError for times that are not above 0
 */
export function soakPipeline(sites: readonly string[], times: SoakTimes): readonly SoakSlot[] {
  for (const [name, minutes] of Object.entries(times))
    if (!(minutes > 0)) throw new RangeError(`soakPipeline: ${name} must be above 0, got ${minutes}`);
  const { prepare, soak, remove } = times;
  let free = sites.length * prepare;
  return sites.map((site, i) => {
    const prepareAt = i * prepare;
    const soakedAt = prepareAt + prepare + soak;
    const removeAt = Math.max(free, soakedAt);
    free = removeAt + remove;
    return { site, prepareAt, soakedAt, removeAt, doneAt: free };
  });
}

/** When the last is out, minutes from the start; 0 for none. */
export const pipelineMinutes = (slots: readonly SoakSlot[]): number => slots.at(-1)?.doneAt ?? 0;
