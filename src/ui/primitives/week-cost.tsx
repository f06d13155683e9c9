import { moneyText, NONE } from '@/text/format';

interface Props {
  /** Its unit number; null: the amount is not that of a whole vehicle. */
  readonly unit: string | null;
  /** Money; null: nobody knows. */
  readonly amount: number | null;
  readonly currency: string;
}

/** What a vehicle costs each week that it waits: one figure, the same wherever it is shown. */
export const WeekCost = ({ unit, amount, currency }: Props) =>
  amount === null ? (
    NONE
  ) : (
    <span data-unit={unit ?? undefined} data-week-cost={unit === null ? undefined : amount.toFixed(2)}>
      {moneyText(amount, currency)}
    </span>
  );
