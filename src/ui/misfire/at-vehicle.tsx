'use client';

import { type ReactNode, useEffect, useState } from 'react';
import type { Layout } from '@/core/engine/layout';
import type { Advice, StepAhead, Tried } from '@/core/misfire/advice';
import type { Story } from '@/core/misfire/case-entry';
import { withOutcome } from '@/core/misfire/evidence';
import { FOUND_WORDS, type MisfireEngine } from '@/core/misfire/misfire-case';
import { remedyTask } from '@/core/misfire/remedy-task';
import { percentText } from '@/text/format';
import {
  afterSwapText,
  causeText,
  FOUND_WORDS_TEXT,
  stepCost,
  stepText,
  stepWhy,
  swapPresses,
  swappedText,
  swapSays,
} from '@/text/misfire-words';
import { type FormAction, PressForm } from '../primitives/action-form';
import { Button, SubmitButton } from '../primitives/button';
import { keepPage } from '../primitives/keep-page';
import { Unsent } from '../sync/unsent';
import { placeNow } from './place-now';
import { StopDriving } from './stop-driving';
import { SuspicionDrawing } from './suspicion-drawing';
import { TruthTable } from './truth-table';
import { type MisfireAtVehicle, useMisfire } from './use-misfire';

interface Props extends MisfireAtVehicle {
  readonly layout: Layout;
  readonly currency: string;
  /** Null: this person drafts no work. */
  readonly mend: FormAction | null;
}

type Misfire = ReturnType<typeof useMisfire>;

/** A misfire at the vehicle: one step at a time, large, with a network or without. */
export function MisfireSteps({ layout, currency, mend, ...first }: Props) {
  const misfire = useMisfire(first);
  useEffect(() => keepPage(['/misfire.js']), []);
  const { ignition } = first.facts.engine;
  const { advice, story } = misfire;
  const step = advice?.steps[0];
  return (
    <div className="at-misfire" data-at-vehicle>
      <LinkState misfire={misfire} />
      {advice && <StopDriving advice={advice} />}
      {!advice || !step ? (
        <p className="soft" role="status">
          Working it out…
        </p>
      ) : (
        <>
          <div className="where">
            <div>
              <StepHead misfire={misfire} advice={advice} step={step} ignition={ignition} currency={currency} />
            </div>
            <div>
              <SuspicionDrawing layout={layout} byCylinder={advice.byCylinder} maxH="220px" />
            </div>
          </div>
          <StepBody {...{ misfire, step: advice.underway ?? step, ignition }}>
            <Cure {...{ step, mend, caseId: first.caseId }} away={story.away} />
          </StepBody>
          <p className="soft">
            {advice.causes
              .slice(0, 3)
              .map((cause) => `${causeText(cause)}: ${percentText(cause.probability)}`)
              .join(' · ')}
          </p>
          {!advice.underway && <Others {...{ misfire, steps: advice.steps.slice(1), ignition }} />}
          <Counts misfire={misfire} layout={layout} />
          <Found misfire={misfire} layout={layout} />
        </>
      )}
    </div>
  );
}

/** What is still on this device alone, and what the server would not take. */
function LinkState({ misfire: { waiting, aside, ofOthers, link, undo, drop } }: { misfire: Misfire }) {
  return (
    <>
      <div className="link-state">
        <Unsent unsent={waiting.length} ofOthers={ofOthers} link={link} />
        {waiting.length > 0 && link !== 'sending' && <Button onClick={undo}>Take the last back</Button>}
      </div>
      {aside.map(({ id, refusedWhy }) => (
        <div key={id} className="told" role="alert">
          Not taken: {refusedWhy} <Button onClick={() => drop(id)}>Drop the entry</Button>
        </div>
      ))}
    </>
  );
}

interface StepProps {
  readonly misfire: Misfire;
  readonly step: StepAhead;
  readonly ignition: MisfireEngine['ignition'];
}

function StepHead({ misfire, advice, step, ignition, currency }: StepProps & { advice: Advice; currency: string }) {
  const { underway } = misfire.story;
  if (underway)
    return (
      <>
        <div className="step-title">{swappedText(underway, ignition)}</div>
        <div>{afterSwapText(advice)} What do you see?</div>
      </>
    );
  return (
    <>
      <div className="step-title">{stepText(step, ignition)}</div>
      <div>
        {step.minutes} min. {stepWhy(step, currency)}
      </div>
      {step.test?.test === 'swap' && <div className="soft">{swapSays(step.test.moved, ignition)}</div>}
    </>
  );
}

/** What is said of a test by one press; of what is no test, what stands within. */
function StepBody({
  misfire: { say, story },
  step,
  ignition,
  children,
}: Omit<StepProps, 'step'> & { step: Tried; children?: ReactNode }) {
  const { test } = step;
  if (!test) return children;
  if (test.test === 'swap' && !story.underway)
    return (
      <>
        <TruthTable step={step} ignition={ignition} />
        <div className="step-actions">
          {swapPresses(test, ignition).map(({ text, bootsStayed }) => (
            <Button
              key={text}
              main={!bootsStayed || undefined}
              onClick={() =>
                say({
                  kind: 'swapped',
                  moved: test.moved,
                  from: test.from,
                  to: test.to,
                  ...(bootsStayed && { bootsStayed }),
                })
              }
            >
              {text}
            </Button>
          ))}
        </div>
      </>
    );
  return (
    <>
      <TruthTable
        step={step}
        ignition={ignition}
        press={({ outcome }, line) => (
          <button type="button" onClick={() => say({ kind: 'test', test: withOutcome(test, outcome) })}>
            {line}
          </button>
        )}
      />
      {test.test === 'swap' && (
        <div className="step-actions">
          <Button onClick={() => say({ kind: 'put_back', moved: test.moved, from: test.from, to: test.to })}>
            Swap back
          </Button>
        </div>
      )}
    </>
  );
}

function Cure({
  step: { cause, cylinders },
  mend,
  caseId,
  away,
}: {
  step: StepAhead;
  mend: FormAction | null;
  caseId: string;
  away: Story['away'];
}) {
  const now = cause && placeNow({ cause, cylinders }, away);
  const remedy = cause && remedyTask({ cause, cylinders });
  if (!cause || !remedy)
    return (
      <p>
        This is for others. Refer it or watch it on the <a href={`/misfires/${caseId}`}>page of the misfire</a>.
      </p>
    );
  const there = now && <p>It {now}.</p>;
  if (!mend)
    return (
      <>
        {there}
        <p>Tell a supervisor: they put the work on a visit.</p>
      </>
    );
  return (
    <PressForm action={mend}>
      {there}
      <input type="hidden" name="caseId" value={caseId} />
      <input type="hidden" name="cause" value={JSON.stringify({ cause, cylinders })} />
      <div className="step-actions">
        <SubmitButton main>Draft the work</SubmitButton>
      </div>
    </PressForm>
  );
}

/** Another test than the one that is proposed. */
function Others({
  misfire,
  steps,
  ignition,
}: {
  misfire: Misfire;
  steps: readonly StepAhead[];
  ignition: StepProps['ignition'];
}) {
  const tests = steps.filter(({ test }) => test !== null);
  if (tests.length === 0) return null;
  return (
    <details>
      <summary>Do another test</summary>
      {tests.map((step) => (
        <details key={stepText(step, ignition)} className="other-step">
          <summary>
            {stepText(step, ignition)}, {stepCost(step)}
          </summary>
          <StepBody {...{ misfire, step, ignition }} />
        </details>
      ))}
    </details>
  );
}

/** What the reader counts at each cylinder now: parts may have changed places, so it is of the place. */
function Counts({ misfire: { say }, layout }: { misfire: Misfire; layout: Layout }) {
  const [typed, setTyped] = useState<Readonly<Record<number, string>>>({});
  const cylinders = [...new Set(layout.sites.map(({ cylinder }) => cylinder))].sort((a, b) => a - b);
  const counts = cylinders.flatMap((cylinder) => {
    const text = (typed[cylinder] ?? '').trim().replace(',', '.');
    return text === '' ? [] : [{ cylinder, misfires: Number(text) }];
  });
  const wrong = counts.find(({ misfires }) => !(misfires >= 0 && misfires <= 1000));
  return (
    <details>
      <summary>Misfire counts</summary>
      <p className="soft">Misfires in 1,000 firings of each cylinder, as it sits now.</p>
      <div className="count-fields">
        {cylinders.map((cylinder) => (
          <label key={cylinder}>
            Cylinder {cylinder}
            <input
              className="field"
              inputMode="decimal"
              value={typed[cylinder] ?? ''}
              onChange={({ target }) => setTyped((before) => ({ ...before, [cylinder]: target.value }))}
            />
          </label>
        ))}
      </div>
      {wrong && <div className="fault">Cylinder {wrong.cylinder}: give misfires in 1,000 firings, 0 to 1000.</div>}
      <div className="step-actions">
        <Button
          disabled={counts.length === 0 || wrong !== undefined}
          onClick={() => {
            say({ kind: 'counts', counts });
            setTyped({});
          }}
        >
          Save the counts
        </Button>
      </div>
    </details>
  );
}

/** What is seen by the way, at the cylinder that is suspected most. */
function Found({ misfire: { say, advice, story }, layout }: { misfire: Misfire; layout: Layout }) {
  const most = [...(advice?.byCylinder ?? [])].sort((a, b) => b.share - a.share).map(({ cylinder }) => cylinder);
  const cylinders = most.length > 0 ? most.slice(0, 2) : layout.sites.slice(0, 1).map(({ cylinder }) => cylinder);
  return (
    <details>
      <summary>Something found by the way</summary>
      {cylinders.map((cylinder) => (
        <fieldset key={cylinder} className="word-grid">
          <legend>Cylinder {cylinder}</legend>
          {FOUND_WORDS.map((word) => {
            const isSaid = story.found.some((find) => find.cylinder === cylinder && find.word === word);
            return (
              <Button
                key={word}
                aria-pressed={isSaid}
                disabled={isSaid}
                onClick={() => say({ kind: 'found', cylinder, word })}
              >
                {isSaid ? '✓ ' : ''}
                {FOUND_WORDS_TEXT[word]}
              </Button>
            );
          })}
        </fieldset>
      ))}
    </details>
  );
}
