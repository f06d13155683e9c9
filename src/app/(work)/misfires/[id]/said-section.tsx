import { FOUND_WORDS } from '@/core/misfire/misfire-case';
import type { UnitSystem } from '@/core/units/person-units';
import type { CaseView } from '@/server/misfire/view-case';
import { distanceText, instantText, percentText } from '@/text/format';
import { FOUND_WORDS_TEXT } from '@/text/misfire-words';
import { saidText } from '@/text/said-words';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { Section } from '@/ui/primitives/page';
import { keepCodesOfCaseAction, sayCountsAction, sayFieldsAction, takeBackEntryAction } from '../actions';

const FOUND_CHOICES = FOUND_WORDS.map((value) => ({ value, label: FOUND_WORDS_TEXT[value] }));
const MOMENT_CHOICES = [
  { value: 'usual', label: 'as usual, before it misfired' },
  { value: 'now', label: 'with the misfire' },
  { value: 'after', label: 'after it was mended' },
];
const GAUGE = ['1', '7/8', '3/4', '5/8', '1/2', '3/8', '1/4', '1/8', '0'].map((value) => ({
  value,
  label: { '1': 'full', '0': 'empty' }[value] ?? value,
}));

/** All that was said, found, tried and decided, and the forms to say more. */
export function SaidSection({ view, canSay, system }: { view: CaseView; canSay: boolean; system: UnitSystem }) {
  const { entries, facts, misfire } = view;
  const { ignition } = facts.engine;
  return (
    <Section title="Log">
      <Tank view={view} system={system} />
      <ol className="said-lines">
        {entries.map(({ entry, who }) => (
          <li key={entry.id}>
            <span>{saidText(entry.said, ignition, system)}</span>
            <span className="who">
              {entry.driver ? `${entry.driver}, driver` : (who ?? 'driver')} · {instantText(entry.at)}
            </span>
            {canSay && !['swapped', 'put_back', 'decided'].includes(entry.said.kind) && (
              <PressForm action={takeBackEntryAction} quiet>
                <input type="hidden" name="caseId" value={misfire.id} />
                <input type="hidden" name="entryId" value={entry.id} />
                <SubmitButton>Take back</SubmitButton>
              </PressForm>
            )}
          </li>
        ))}
      </ol>
      {canSay && <MoreToSay view={view} />}
    </Section>
  );
}

/** What the range of a tank lost, and got back: the figure that a driver notices. */
function Tank({ view: { tank }, system }: { view: CaseView; system: UnitSystem }) {
  const { usualKm, nowKm, afterKm, lost, regained } = tank;
  if (usualKm === null && nowKm === null && afterKm === null) return null;
  const say = (km: number | null) => (km === null ? null : distanceText(km, system));
  return (
    <div>
      Range of a tank:{' '}
      {[usualKm && `usual ${say(usualKm)}`, nowKm && `now ${say(nowKm)}`, afterKm && `after ${say(afterKm)}`]
        .filter(Boolean)
        .join(' · ')}
      {lost !== null && ` (${percentText(lost)})`}
      {regained !== null && ` (${regained > 0 ? '+' : ''}${percentText(regained)} since it was mended)`}
    </div>
  );
}

function MoreToSay({ view: { misfire, hasCodeReader, layout } }: { view: CaseView }) {
  const cylinders = Array.from({ length: layout.cylinders }, (_, i) => ({
    value: String(i + 1),
    label: String(i + 1),
  }));
  return (
    <div data-no-print>
      <details>
        <summary>Codes</summary>
        {hasCodeReader && (
          <PressForm action={keepCodesOfCaseAction}>
            <input type="hidden" name="caseId" value={misfire.id} />
            <input type="hidden" name="by" value="reader" />
            <SubmitButton>Read with the code reader, a stand-in</SubmitButton>
          </PressForm>
        )}
        <Form action={keepCodesOfCaseAction}>
          <input type="hidden" name="caseId" value={misfire.id} />
          <input type="hidden" name="by" value="hand" />
          <TextField name="typed" label="Typed, or pasted from another program" hint="as P0302 P0171" mono />
          <SubmitButton>Save the codes</SubmitButton>
        </Form>
      </details>
      <details>
        <summary>Misfire counts</summary>
        <Form action={sayCountsAction}>
          <input type="hidden" name="caseId" value={misfire.id} />
          <p className="soft">
            Misfires in 1,000 firings of each cylinder, by the place it is in now. A cylinder that was not counted stays
            empty.
          </p>
          <div className="count-fields">
            {cylinders.map(({ value, label }) => (
              <TextField key={value} name={`count ${value}`} label={`Cylinder ${label}`} inputMode="decimal" />
            ))}
          </div>
          <SubmitButton>Save the counts</SubmitButton>
        </Form>
      </details>
      <SayForm title="Something found" caseId={misfire.id} kind="found">
        <SelectField name="word" label="What" choices={FOUND_CHOICES} />
        <SelectField name="cylinder" label="Cylinder" choices={cylinders} />
      </SayForm>
      <SayForm title="Range of a tank" caseId={misfire.id} kind="tank">
        <SelectField name="moment" label="When" choices={MOMENT_CHOICES} />
        <TextField name="km" label="Driven, km" inputMode="decimal" />
        <SelectField name="from" label="Gauge at the start" choices={GAUGE} defaultValue="1" />
        <SelectField name="to" label="Gauge at the end" choices={GAUGE} defaultValue="1/4" />
      </SayForm>
      <SayForm title="Something else that changed" caseId={misfire.id} kind="changed">
        <TextField name="words" label="What" hint="as: fuel from the quarry tank, washed the engine" />
        <TextField name="km" label="How long ago, km" inputMode="decimal" />
      </SayForm>
      <SayForm title="A note" caseId={misfire.id} kind="note">
        <TextField name="words" label="Note" />
      </SayForm>
    </div>
  );
}

function SayForm({
  title,
  caseId,
  kind,
  children,
}: {
  title: string;
  caseId: string;
  kind: string;
  children: React.ReactNode;
}) {
  return (
    <details>
      <summary>{title}</summary>
      <Form action={sayFieldsAction}>
        <input type="hidden" name="caseId" value={caseId} />
        <input type="hidden" name="kind" value={kind} />
        {children}
        <SubmitButton>Keep it</SubmitButton>
      </Form>
    </details>
  );
}
