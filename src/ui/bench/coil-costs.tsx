import type { CoilAdvice } from '@/core/components/coil-choice';
import { moneyText } from '@/text/format';
import { PlainTable } from '../primitives/plain-table';

/** What one more visit costs, and leaving coils in beside replacing them; the better of the two is strong. */
export function CoilCosts({
  advice,
  currency,
  leave,
  replace,
}: {
  advice: CoilAdvice;
  currency: string;
  /** What is left in, and what is replaced, in words. */
  leave: string;
  replace: string;
}) {
  const all = advice.advice === 'all';
  return (
    <PlainTable heads={['', 'Cost']} numeric={[2]}>
      <tr>
        <td>One more visit, for one coil</td>
        <td>{moneyText(advice.extraVisit, currency)}</td>
      </tr>
      <tr>
        <td>{leave}</td>
        <td className={all ? undefined : 'strong'}>{moneyText(advice.expectedIfOne, currency)}</td>
      </tr>
      <tr>
        <td>{replace}</td>
        <td className={all ? 'strong' : undefined}>{moneyText(advice.replaceOthersNow, currency)}</td>
      </tr>
    </PlainTable>
  );
}
