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
      {step.outcomes.map((one) => {
        const line = (
          <>
            <span>
              <strong>{outcomeText(test, one.outcome)}</strong>
              <small>
                {one.cause && one.chance >= SELDOM
                  ? `then ${causeText(one.cause)}, ${percentText(one.cause.probability)}`
                  : 'hardly ever'}
              </small>
            </span>
            <span className="then">
              {one.next && one.chance >= SELDOM ? `${stepText(one.next, ignition)}, ${one.next.minutes} min` : ''}
            </span>
          </>
        );
        return <li key={one.outcome}>{press ? press(one, line) : <div>{line}</div>}</li>;
      })}
    </ul>
  );
}
