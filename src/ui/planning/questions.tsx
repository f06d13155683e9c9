'use client';

import { useMemo, useState } from 'react';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { JobFacts } from '@/core/planning/plan-proposal';
import { planFigures, proposedSlotsOf } from '@/core/planning/proposal-view';
import { commonQuestions, type WhatIfChange } from '@/core/planning/what-if';
import { moneyText } from '@/text/format';
import { Section } from '../primitives/page';
import { changeWords } from './change-words';
import type { WhatIfPlans } from './use-what-if';

interface Props {
  readonly problem: PlanProblem;
  readonly jobs: readonly JobFacts[];
  readonly today: string;
  readonly currency: string;
  readonly isBusy: boolean;
  /** Works the two plans out; null: it was stopped or could not be. */
  readonly ask: (change: WhatIfChange) => Promise<WhatIfPlans | null>;
}

/** The questions asked most, a card each: one press works a question out, and the card holds the answer. */
export function Questions({ problem, jobs, today, currency, isBusy, ask }: Props) {
  const [answers, setAnswers] = useState<ReadonlyMap<string, string>>(new Map());
  const questions = useMemo(
    () => commonQuestions(problem, new Map(jobs.map(({ id, costs }) => [id, costs.unplanned.waiting]))),
    [problem, jobs],
  );
  const answer = async (change: WhatIfChange, words: string): Promise<void> => {
    const plans = await ask(change);
    if (plans) setAnswers((before) => new Map(before).set(words, answerText(plans, jobs, today, currency)));
  };
  if (questions.length === 0) return null;
  return (
    <Section title="Common questions" aside="one press works a question out">
      <div className="questions">
        {questions.map((change) => {
          const words = changeWords(change, problem);
          return (
            <button key={words} type="button" disabled={isBusy} onClick={() => void answer(change, words)}>
              <strong>What if: {words}?</strong>
              <span className="soft">{answers.get(words) ?? 'Not worked out yet.'}</span>
            </button>
          );
        })}
      </div>
    </Section>
  );
}

/** What a change costs against the plan without it, and how many jobs fall out of these days. */
function answerText(
  { asIs, changed, problem: { days } }: WhatIfPlans,
  jobs: readonly JobFacts[],
  today: string,
  currency: string,
): string {
  const [before, after] = [asIs, changed].map((plan) => planFigures({ days, jobs }, proposedSlotsOf({ plan }), today));
  if (!before || !after) return '';
  const money = Math.round(after.total - before.total);
  const out = after.leftOut - before.leftOut;
  const cost =
    money === 0 ? 'The same money' : `${moneyText(Math.abs(money), currency)} ${money > 0 ? 'dearer' : 'cheaper'}`;
  if (out === 0) return `${cost}, and as many jobs are done.`;
  return `${cost}; ${Math.abs(out)} ${Math.abs(out) === 1 ? 'job' : 'jobs'} ${out > 0 ? 'fewer' : 'more'} done in these days.`;
}
