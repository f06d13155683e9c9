import { Progress } from '@chakra-ui/react';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import { moneyText } from '@/text/format';

/** How far a search is: what the best plan so far costs, and what no plan can be cheaper than. */
export function ProposalProgress({ progress, currency }: { progress: PlanProgress | null; currency: string }) {
  const share = progress?.share ?? 0;
  const money = (value: number): string => moneyText(Math.round(value), currency);
  return (
    <div className="plan-progress" role="status">
      <Progress.Root value={100 * share} aria-label="How far the search is">
        <Progress.Track>
          <Progress.Range />
        </Progress.Track>
      </Progress.Root>
      <p>
        {progress?.cost == null ? (
          'Looking at what is due…'
        ) : (
          <>
            Best plan so far <strong>{money(progress.cost)}</strong>
            {progress.bound !== null && <> · none can cost less than {money(progress.bound)}</>}
          </>
        )}
      </p>
    </div>
  );
}
