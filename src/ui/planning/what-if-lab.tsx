'use client';

import { useState } from 'react';
import type { NamedDepot } from '@/core/planning/board-week';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { JobFacts } from '@/core/planning/plan-proposal';
import { agreedSlotsOf, planFigures, proposedSlotsOf } from '@/core/planning/proposal-view';
import type { WhatIfChange } from '@/core/planning/what-if';
import type { FormAction } from '../primitives/action-form';
import { Button, SubmitButton } from '../primitives/button';
import { TextField } from '../primitives/fields';
import { Form } from '../primitives/form';
import { Section } from '../primitives/page';
import { ChangeForm } from './change-form';
import { changeWords } from './change-words';
import { ProposalFigures } from './proposal-figures';
import { ProposalProgress } from './proposal-progress';
import { ProposalWeeks } from './proposal-weeks';
import { Questions } from './questions';
import { useWhatIf, type WhatIfPlans } from './use-what-if';

interface Props {
  readonly problem: PlanProblem;
  readonly jobs: readonly JobFacts[];
  readonly depots: readonly NamedDepot[];
  readonly today: string;
  readonly currency: string;
  readonly keep: FormAction;
}

/** A second plan with something otherwise, worked out on this screen and set beside what is agreed. */
export function WhatIfLab({ problem, currency, ...props }: Props) {
  const [changes, setChanges] = useState<readonly WhatIfChange[]>([]);
  const { running, plans, fault, solve, stop } = useWhatIf(problem);
  return (
    <>
      <Questions
        {...{ problem, currency }}
        jobs={props.jobs}
        today={props.today}
        isBusy={running !== null}
        ask={(change) => {
          const asked = [change];
          setChanges(asked);
          return solve(asked);
        }}
      />
      <Section title="Changes to try">
        <ChangeForm problem={problem} onAdd={(change) => setChanges([...changes, change])} />
        {changes.length === 0 && (
          <p className="soft">Add a change: a bay more on Thursday, a person ill, parts late, a vehicle away.</p>
        )}
        <ul className="changes">
          {changes.map((change, i) => (
            <li key={JSON.stringify(change)}>
              {changeWords(change, problem)}
              <button
                type="button"
                className="link small"
                aria-label={`Take out: ${changeWords(change, problem)}`}
                onClick={() => setChanges(changes.filter((_, j) => j !== i))}
              >
                take out
              </button>
            </li>
          ))}
        </ul>
        {running ? (
          <>
            <p className="soft">Planning {running.step}</p>
            <ProposalProgress progress={running.progress} currency={currency} />
            <Button onClick={stop}>Stop, and keep the best so far</Button>
          </>
        ) : (
          <Button main={!plans || undefined} disabled={changes.length === 0} onClick={() => void solve(changes)}>
            Work it out
          </Button>
        )}
        {fault && <p role="alert">{fault}</p>}
      </Section>
      {plans && !running && (
        <Compared plans={plans} isStale={plans.changes !== changes} currency={currency} {...props} />
      )}
    </>
  );
}

function Compared({
  plans,
  isStale,
  jobs,
  depots,
  today,
  currency,
  keep,
}: Omit<Props, 'problem'> & { plans: WhatIfPlans; isStale: boolean }) {
  const { asIs, changed, problem, changes } = plans;
  const { days, bays, people } = problem;
  const figuresOf = (slots: Parameters<typeof planFigures>[1]) => planFigures({ days, jobs }, slots, today);
  const columns = [
    { name: 'Current plan', figures: figuresOf(agreedSlotsOf(jobs)) },
    { name: 'Planned again', figures: figuresOf(proposedSlotsOf({ plan: asIs })) },
    { name: 'What if', figures: figuresOf(proposedSlotsOf({ plan: changed })) },
  ];
  return (
    <>
      <Section title="Side by side" aside={isStale ? 'before you changed the list: work it out again' : undefined}>
        <ProposalFigures columns={columns} currency={currency} />
      </Section>
      <Section title="Keep it" aside="it is adopted, or discarded, on its own page">
        <Form action={keep}>
          <div className="keep-name">
            <input type="hidden" name="changes" value={JSON.stringify(changes)} />
            <input type="hidden" name="slots" value={JSON.stringify(changed.assignments.map(slotOnly))} />
            <TextField
              name="name"
              label="Name"
              hint="as it is told apart from others"
              placeholder="J. Holm ill on Tuesday"
            />
          </div>
          <SubmitButton main>Keep as a proposal</SubmitButton>
        </Form>
      </Section>
      <ProposalWeeks result={{ days, plan: changed, jobs, bays, people }} {...{ depots, today, currency }} />
    </>
  );
}

const slotOnly = ({ job, day, bay, person, startMin }: WhatIfPlans['changed']['assignments'][number]) => ({
  job,
  day,
  bay,
  person,
  startMin,
});
