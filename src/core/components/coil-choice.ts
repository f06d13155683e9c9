/** What it takes to decide whether one coil is replaced, or its neighbours with it. Money in one currency. */
export interface CoilChoice {
  /** Coils of the same age that work. */
  readonly others: number;
  /** Of one coil. */
  readonly price: number;
  readonly labourPerHour: number;
  /** To get at them once more, hours. */
  readonly accessHours: number;
  /** What a day off the road costs, for one more visit. */
  readonly downtimePerVisit: number;
  /** That one of the others fails before the covers are open anyway, from 0 to 1. */
  readonly chanceEach: number;
}

export interface CoilAdvice {
  /** What one more visit for one coil costs. */
  readonly extraVisit: number;
  /** Expected cost of the others if they stay. */
  readonly expectedIfOne: number;
  /** Cost of the others if they are replaced now: the covers are open, so that it is their price alone. */
  readonly replaceOthersNow: number;
  /** Above this chance each it pays to replace them all. */
  readonly breakEvenChance: number;
  readonly advice: 'one' | 'all';
}

/**
 * One coil, or all: the expected cost of leaving the others in against their price now. A tie leaves them in: a coil that works
 * is no waste yet.
 *
 * @throws RangeError for a figure that is below 0 or a chance above 1: a caller's mistake
 */
export function chooseCoils(choice: CoilChoice): CoilAdvice {
  const { others, price, labourPerHour, accessHours, downtimePerVisit, chanceEach } = choice;
  for (const [name, value] of Object.entries(choice))
    if (!(value >= 0 && Number.isFinite(value))) throw new RangeError(`chooseCoils: ${name} is ${value}`);
  if (chanceEach > 1) throw new RangeError(`chooseCoils: a chance of ${chanceEach}`);
  const extraVisit = accessHours * labourPerHour + price + downtimePerVisit;
  const expectedIfOne = others * chanceEach * extraVisit;
  const replaceOthersNow = others * price;
  return {
    extraVisit,
    expectedIfOne,
    replaceOthersNow,
    breakEvenChance: extraVisit === 0 ? 0 : price / extraVisit,
    advice: expectedIfOne > replaceOthersNow ? 'all' : 'one',
  };
}
