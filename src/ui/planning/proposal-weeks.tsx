'use client';

import { useState } from 'react';
import type { NamedDepot } from '@/core/planning/board-week';
import type { ProposalResult } from '@/core/planning/plan-proposal';
import { agreedSlotsOf, type ProposedJob, proposedJobs, weekOfProposal, weeksOf } from '@/core/planning/proposal-view';
import { dateText } from '@/text/format';
import { Button } from '../primitives/button';
import { Section } from '../primitives/page';
import { ProposalBoard } from './proposal-board';
import { ProposalJobs } from './proposal-jobs';

interface Props {
  readonly result: ProposalResult;
  readonly depots: readonly NamedDepot[];
  readonly today: string;
  readonly currency: string;
}

/** A proposal week by week and depot by depot: the board, and each job with what becomes of it and why. */
export function ProposalWeeks({ result, depots, today, currency }: Props) {
  const jobs = proposedJobs(result);
  const used = depots.filter(({ name }) => jobs.some(({ facts }) => facts.depot === name));
  const weeks = weeksOf(result);
  const [depotName, setDepot] = useState(used[0]?.name ?? '');
  const [monday, setMonday] = useState(weeks[0] ?? '');
  const depot = used.find(({ name }) => name === depotName) ?? used[0];
  if (!depot || monday === '') return null;
  const withChange = (...changes: readonly ProposedJob['change'][]): readonly ProposedJob[] =>
    jobs.filter(({ change, facts }) => changes.includes(change) && facts.depot === depot.name);
  const agreed = [...agreedSlotsOf(result.jobs)].flatMap(([id, slot]) => (slot ? [[id, slot] as const] : []));
  return (
    <>
      <div className="plain-choices">
        <Choice label="Depot" names={used.map(({ name }) => name)} chosen={depot.name} onChoose={setDepot} />
        <Choice
          label="Week"
          names={weeks}
          chosen={monday}
          onChoose={setMonday}
          words={(week) => `Week of ${dateText(week)}`}
        />
      </div>
      <ProposalBoard
        key={`${depot.name} ${monday}`}
        week={weekOfProposal(result, { depot, monday, today, currency })}
        agreed={new Map(agreed)}
        whys={Object.fromEntries(jobs.map(({ facts, why }) => [facts.id, `${facts.unitNumber}: ${why}`]))}
      />
      <Part title="Moved, and taken off" jobs={withChange('moved', 'taken off')} {...{ result, currency }} />
      <Part title="New" jobs={withChange('new')} {...{ result, currency }} />
      <Part title="Left out" jobs={withChange('left out')} {...{ result, currency }} />
      <Part title="Unchanged" jobs={withChange('stays')} {...{ result, currency }} />
    </>
  );
}

function Part({ title, jobs, ...props }: { title: string } & Parameters<typeof ProposalJobs>[0]) {
  if (jobs.length === 0) return null;
  return (
    <Section title={`${title}: ${jobs.length}`}>
      <ProposalJobs jobs={jobs} {...props} />
    </Section>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly names: readonly string[];
  readonly chosen: string;
  readonly onChoose: (name: string) => void;
  readonly words?: (name: string) => string;
}

function Choice({ label, names, chosen, onChoose, words = (name) => name }: ChoiceProps) {
  if (names.length < 2) return null;
  return (
    <fieldset className="plain-choice" data-no-print>
      <legend className="sr-only">{label}</legend>
      {names.map((name) => (
        <Button key={name} aria-pressed={name === chosen} onClick={() => onChoose(name)}>
          {words(name)}
        </Button>
      ))}
    </fieldset>
  );
}
