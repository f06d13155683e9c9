import { afterDecision, DECISIONS, type Decision, WATCH_KM } from '@/core/misfire/case-state';
import { remedyTask } from '@/core/misfire/remedy-task';
import type { CaseView } from '@/server/misfire/view-case';
import { causeText } from '@/text/misfire-words';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { Section } from '@/ui/primitives/page';
import { decideCaseAction } from '../actions';

type Told = Exclude<Decision, 'mend'>;
const isTold = (decision: Decision): decision is Told => decision !== 'mend';

const WORDS: Readonly<Record<Told, readonly [press: string, label: string, hint: string]>> = {
  refer: ['Refer it', 'To whom, and what is asked', 'as: injector shop, flow of injector 4'],
  watch: [
    `Watch it for ${WATCH_KM} km`,
    'Why it is believed to be gone',
    'as: connector 3 pressed on, no misfire on the drive',
  ],
  close: ['Close it', 'What it was', `as: none in ${WATCH_KM} km`],
  reopen: ['It came back: go on with it', 'What is seen', 'as: shakes again uphill'],
};

/** How the case goes on, or ends. */
export function DecisionsSection({ view, canDecide }: { view: CaseView; canDecide: boolean }) {
  const { misfire, advice } = view;
  const possible = DECISIONS.filter(isTold).filter((decision) => afterDecision(misfire.state, decision) !== null);
  const other = advice.causes.find((cause) => !remedyTask(cause));
  if (!canDecide || possible.length === 0) return null;
  return (
    <Section title="Decide">
      {possible.map((decision) => {
        const [press, label, hint] = WORDS[decision];
        return (
          <details key={decision} open={misfire.state === 'closed' && decision === 'reopen'}>
            <summary>{press}</summary>
            <Form action={decideCaseAction} input="decideForm">
              <input type="hidden" name="caseId" value={misfire.id} />
              <input type="hidden" name="decision" value={decision} />
              {decision === 'refer' && other && (
                <input
                  type="hidden"
                  name="cause"
                  value={JSON.stringify({ cause: other.cause, cylinders: other.cylinders })}
                />
              )}
              <TextField
                name="words"
                label={label}
                hint={hint}
                defaultValue={decision === 'refer' && other ? `not ignition: ${causeText(other)}` : ''}
              />
              <SubmitButton>{press}</SubmitButton>
            </Form>
          </details>
        );
      })}
    </Section>
  );
}
