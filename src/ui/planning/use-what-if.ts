'use client';

import { useRef, useState } from 'react';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import type { SolvedPlan } from '@/core/planning/solver/plan';
import { type WhatIfChange, withChanges } from '@/core/planning/what-if';
import { solveHere } from './solve-here';

export interface WhatIfPlans {
  /** Planned again, with everything as it is. */
  readonly asIs: SolvedPlan;
  /** Planned with the changes. */
  readonly changed: SolvedPlan;
  readonly problem: PlanProblem;
  readonly changes: readonly WhatIfChange[];
}

interface Running {
  readonly step: 'as it is' | 'with the changes';
  readonly progress: PlanProgress | null;
}

/** Works both plans out on this screen, one after the other. */
export function useWhatIf(problem: PlanProblem) {
  const [running, setRunning] = useState<Running | null>(null);
  const [plans, setPlans] = useState<WhatIfPlans | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const asIs = useRef<SolvedPlan | null>(null);
  const stopping = useRef<AbortController | null>(null);

  const solve = async (changes: readonly WhatIfChange[]): Promise<WhatIfPlans | null> => {
    setFault(null);
    stopping.current = new AbortController();
    const { signal } = stopping.current;
    const tell = (step: Running['step']) => (progress: PlanProgress) => setRunning({ step, progress });
    try {
      setRunning({ step: 'as it is', progress: null });
      asIs.current ??= await solveHere(problem, tell('as it is'), signal);
      const other = withChanges(problem, changes);
      setRunning({ step: 'with the changes', progress: null });
      const changed = await solveHere(other, tell('with the changes'), signal);
      const solved = { asIs: asIs.current, changed, problem: other, changes };
      setPlans(solved);
      return solved;
    } catch {
      setFault(
        'The planner could not be started in this browser. Ask for the plan with “Plan again” instead: the server works it out.',
      );
      return null;
    } finally {
      setRunning(null);
    }
  };
  return { running, plans, fault, solve, stop: () => stopping.current?.abort() };
}
