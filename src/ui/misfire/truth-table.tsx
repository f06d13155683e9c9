import type { ReactNode } from 'react';
import type { OutcomeAhead, Tried } from '@/core/misfire/advice';
import type { MisfireEngine } from '@/core/misfire/misfire-case';
import { percentText } from '@/text/format';
import { causeText, outcomeText, stepText } from '@/text/misfire-words';

/** Less likely than that, an outcome is no surprise to be prepared for. */
const SELDOM = 0.005;

/** What each outcome of a test would mean, and what is done then. @param press makes a line something to press */
export function TruthTable({
  step,
  ignition,
  press,
}: {
  step: Tried;
  ignition: MisfireEngine['ignition'];
  press?: (one: OutcomeAhead, line: ReactNode) => ReactNode;
}) {
  const { test } = step;
  if (!test) return null;
  return (
    <ul className="outcomes" data-press={press ? true : undefined}>
      {step.outcomes.map((outcome) => {
        const line = (
          <>
            <span>
              <strong>{outcomeText(test, outcome.outcome)}</strong>
              <small>
                {outcome.cause && outcome.chance >= SELDOM
                  ? `then ${causeText(outcome.cause)}, ${percentText(outcome.cause.probability)}`
                  : 'hardly ever'}
              </small>
            </span>
            <span className="then">
              {outcome.next && outcome.chance >= SELDOM
                ? `${stepText(outcome.next, ignition)}, ${outcome.next.minutes} min`
                : ''}
            </span>
          </>
        );
        return <li key={outcome.outcome}>{press ? press(outcome, line) : <div>{line}</div>}</li>;
      })}
    </ul>
  );
}
