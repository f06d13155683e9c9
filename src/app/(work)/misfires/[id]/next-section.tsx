import type { SaidInput } from '@/contracts/misfire';
import type { StepAhead, Tried } from '@/core/misfire/advice';
import type { Said } from '@/core/misfire/case-entry';
import { withOutcome } from '@/core/misfire/evidence';
import { remedyTask } from '@/core/misfire/remedy-task';
import type { CaseView } from '@/server/misfire/view-case';
import { dateText, moneyText } from '@/text/format';
import {
  afterSwapText,
  CASE_STATE_WORDS,
  causeText,
  stepCost,
  stepText,
  stepWhy,
  swapPresses,
  swappedText,
  swapSays,
} from '@/text/misfire-words';
import { placeNow } from '@/ui/misfire/place-now';
import { TruthTable } from '@/ui/misfire/truth-table';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { ButtonLink } from '@/ui/primitives/links';
import { Caution, Section } from '@/ui/primitives/page';
import { mendCaseAction, sayAction } from '../actions';
import { SafetyLines } from './safety-lines';

interface Props {
  readonly view: CaseView;
  readonly canSay: boolean;
  readonly mayMend: boolean;
}

/** What to do next, what each outcome of it would mean, and what else could be done. */
export function NextSection({ view, canSay, mayMend }: Props) {
  const { advice, facts, misfire } = view;
  const [first, ...others] = advice.steps;
  if (misfire.state !== 'open') return <Decided view={view} />;
  const { ignition } = facts.engine;
  return (
    <Section
      title={advice.underway ? 'Underway' : 'Next'}
      aside={first && !advice.underway ? `${stepCost(first)}, the way there and back among them` : undefined}
    >
      {advice.underway ? (
        <Underway view={view} step={advice.underway} canSay={canSay} />
      ) : (
        first && <Step view={view} step={first} canSay={canSay} mayMend={mayMend} isFirst />
      )}
      {advice.replacedInVain > 1 && (
        <Caution>
          {advice.replacedInVain} parts were replaced and cured nothing: stop replacing. Test, or refer it.
        </Caution>
      )}
      <SafetyLines hybrid={view.family.hybrid} />
      {others.length > 0 && (
        <details>
          <summary>Do something else</summary>
          {others.map((step) => (
            <details key={stepText(step, ignition)} className="other-step">
              <summary>
                {stepText(step, ignition)}, {stepCost(step)}
              </summary>
              <Step view={view} step={step} canSay={canSay} mayMend={mayMend} />
            </details>
          ))}
        </details>
      )}
    </Section>
  );
}

/** What was decided last, and where it goes on. */
function Decided({ view: { entries, misfire, orderNumber } }: { view: CaseView }) {
  const last = entries.findLast(({ entry: { said } }) => said.kind === 'decided');
  const decision = last?.entry.said;
  return (
    <Section title={CASE_STATE_WORDS[misfire.state]} aside={last && dateText(last.entry.at.toISOString().slice(0, 10))}>
      <div className="step-title">{decision?.kind === 'decided' ? decision.words : ''}</div>
      <div className="step-actions">
        {misfire.state === 'referred' && (
          <ButtonLink href={`/misfires/${misfire.id}/paper`} main>
            Print the referral
          </ButtonLink>
        )}
        {misfire.state === 'mending' && (
          <ButtonLink href={`/work-orders/${misfire.workOrderId}`} main>
            Work order {orderNumber}
          </ButtonLink>
        )}
      </div>
    </Section>
  );
}

const asText = (value: Said | SaidInput): string => JSON.stringify(value);

function Step({ view, step, canSay, mayMend, isFirst = false }: Props & { step: StepAhead; isFirst?: boolean }) {
  const { facts, misfire } = view;
  const { ignition } = facts.engine;
  const { test } = step;
  const cost = moneyText(step.expectedCost, facts.currency);
  return (
    <>
      {isFirst && <div className="step-title">{stepText(step, ignition)}</div>}
      <div>{stepWhy(step, facts.currency)}</div>
      <div className="soft">
        Until it is cured it is expected to cost {cost}.
        {test?.test === 'swap' && ` ${swapSays(test.moved, ignition)} ${test.to} runs normally and is near.`}
      </div>
      {test?.test === 'swap' ? (
        <>
          <TruthTable step={step} ignition={ignition} />
          {canSay && (
            <div className="step-actions">
              {swapPresses(test, ignition).map(({ text, bootsStayed }) => (
                <SayButton
                  key={text}
                  caseId={misfire.id}
                  value={{
                    kind: 'swapped',
                    moved: test.moved,
                    from: test.from,
                    to: test.to,
                    boots_stayed: bootsStayed,
                  }}
                  main={isFirst && !bootsStayed}
                >
                  {text}
                </SayButton>
              ))}
            </div>
          )}
        </>
      ) : (
        test && <Outcomes view={view} step={step} canSay={canSay} />
      )}
      {!test && <Cure view={view} step={step} mayMend={mayMend} isFirst={isFirst} />}
    </>
  );
}

/** Parts have changed places: what is seen on the road says which of them it is. */
function Underway({ view, step, canSay }: { view: CaseView; step: Tried; canSay: boolean }) {
  const { test } = step;
  const { misfire, facts } = view;
  if (test?.test !== 'swap') return null;
  return (
    <>
      <div className="step-title">{swappedText(test, facts.engine.ignition)}</div>
      <div className="soft">{afterSwapText(view.advice)} Then say what you see.</div>
      <Outcomes view={view} step={step} canSay={canSay} />
      {canSay && (
        <SayButton caseId={misfire.id} value={{ kind: 'put_back', moved: test.moved, from: test.from, to: test.to }}>
          Swap back
        </SayButton>
      )}
    </>
  );
}

function Outcomes({ view, step, canSay }: { view: CaseView; step: Tried; canSay: boolean }) {
  const { test } = step;
  if (!test) return null;
  return (
    <TruthTable
      step={step}
      ignition={view.facts.engine.ignition}
      press={
        canSay
          ? ({ outcome }, line) => (
              <PressForm action={sayAction} quiet>
                <input type="hidden" name="caseId" value={view.misfire.id} />
                <input type="hidden" name="said" value={asText({ kind: 'test', test: withOutcome(test, outcome) })} />
                <button type="submit">{line}</button>
              </PressForm>
            )
          : undefined
      }
    />
  );
}

function SayButton({
  caseId,
  value,
  children,
  main = false,
}: {
  caseId: string;
  value: Said | SaidInput;
  children: string;
  main?: boolean;
}) {
  return (
    <PressForm action={sayAction} quiet>
      <input type="hidden" name="caseId" value={caseId} />
      <input type="hidden" name="said" value={asText(value)} />
      <SubmitButton main={main}>{children}</SubmitButton>
    </PressForm>
  );
}

/** What is replaced is drafted as work; what is none of the ignition is referred below. */
function Cure({
  view,
  step,
  mayMend,
  isFirst,
}: {
  view: CaseView;
  step: StepAhead;
  mayMend: boolean;
  isFirst: boolean;
}) {
  const { cause, cylinders } = step;
  if (cause === null) return null;
  const remedy = remedyTask({ cause, cylinders });
  if (!remedy) return <div className="soft">Refer or watch it below.</div>;
  if (!mayMend) return <div className="soft">A supervisor puts the work on a visit.</div>;
  const now = placeNow({ cause, cylinders }, view.story.away);
  const where = view.openOrder ? `on work order ${view.openOrder.number}` : 'on a new visit';
  return (
    <PressForm action={mendCaseAction}>
      <input type="hidden" name="caseId" value={view.misfire.id} />
      <input type="hidden" name="cause" value={JSON.stringify({ cause, cylinders })} />
      {now && <div>It {now}: that is where the work is drafted.</div>}
      <div className="step-actions">
        <SubmitButton main={isFirst}>{`Draft the work ${where}: ${causeText({ cause, cylinders })}`}</SubmitButton>
      </div>
    </PressForm>
  );
}
