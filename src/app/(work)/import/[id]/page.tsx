import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { MAX_SHOWN, type PlanSummary, type SummaryRow, VERDICTS, type Verdict } from '@/core/shared/plan-summary';
import { deps } from '@/server/deps';
import { type ImportView, viewImport } from '@/server/imports/import-file';
import { allKinds, isKindName, kindOf } from '@/server/imports/kinds';
import { countText } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { LookAgain } from '@/ui/primitives/look-again';
import { Caution, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { adjustAction, confirmAction, discardAction } from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };

const WORDS: Readonly<Record<Verdict, string>> = {
  add: 'added',
  change: 'changed',
  skip: 'skipped',
  refuse: 'refused',
};

export default page(async function ImportCheckPage({ params, searchParams }: Props) {
  const actor = await requireActor();
  const view = await viewImport(deps(), actor, (await params).id);
  mustShow(view);
  const { plan, fileName, problem } = view.value;
  if (!plan) return <WithoutPlan view={view.value} />;
  const asked = (await searchParams).show;
  const shown = VERDICTS.find((verdict) => verdict === asked) ?? null;
  return (
    <>
      <PageHead title={`Check of ${fileName}`}>
        {titleOf(plan.kind)} · {countText(plan.rowCount)} rows · nothing is written yet
      </PageHead>
      {problem && (
        <Box mb="4">
          <Caution>{problem}</Caution>
        </Box>
      )}
      <Questions view={view.value} plan={plan} />
      {plan.questions.length === 0 && plan.missing.length === 0 && (
        <Outcome view={view.value} plan={plan} shown={shown} />
      )}
      <Columns view={view.value} plan={plan} />
      <PressForm action={discardAction} quiet>
        <input type="hidden" name="importId" value={view.value.id} />
        <SubmitButton>Discard this file</SubmitButton>
      </PressForm>
    </>
  );
});

const titleOf = (kind: string): string => (isKindName(kind) ? kindOf(kind).title : kind);

/** A file that a worker is at, or that is done with. */
function WithoutPlan({ view: { id, fileName, state, problem } }: { view: ImportView }) {
  const working = state === 'checking' || state === 'applying';
  return (
    <>
      <PageHead title={fileName}>
        {state === 'checking' && 'It is being checked: what each row would do. Nothing is written yet.'}
        {state === 'applying' && 'It is being imported, all of it or nothing.'}
        {!working && `It was ${state}.`}
      </PageHead>
      {problem && <Caution>{problem}</Caution>}
      {working && <LookAgain />}
      <Box mb="4" color="soft">
        {working && (
          <>
            You may leave this page: a worker does it, see <TextLink href="/settings/jobs">Background work</TextLink>.{' '}
          </>
        )}
        <TextLink href="/import">Back to Import</TextLink>
      </Box>
      {(state === 'checking' || state === 'checked') && (
        <PressForm action={discardAction} quiet>
          <input type="hidden" name="importId" value={id} />
          <SubmitButton>Discard this file</SubmitButton>
        </PressForm>
      )}
    </>
  );
}

function Questions({ view, plan }: { view: ImportView; plan: PlanSummary }) {
  return plan.questions.map((question) => (
    <Box key={question.key} bg="caution.bg" p="4" rounded="sm" mb="5" maxW="640px">
      <PressForm action={adjustAction}>
        <input type="hidden" name="importId" value={view.id} />
        <Box mb="3" fontWeight="650">
          {question.text}
        </Box>
        <Flex gap="2" wrap="wrap">
          {question.choices.map((choice) => (
            <SubmitButton key={choice.value} name={`option.${question.key}`} value={choice.value}>
              {choice.label}
            </SubmitButton>
          ))}
        </Flex>
      </PressForm>
    </Box>
  ));
}

function Outcome({ view, plan, shown }: { view: ImportView; plan: PlanSummary; shown: Verdict | null }) {
  const { counts, doubtful } = plan;
  const rows = plan.rows.filter((row) => shown === null || row.verdict === shown);
  const all = VERDICTS.filter((verdict) => shown === null || verdict === shown);
  const more = all.reduce((sum, verdict) => sum + counts[verdict], 0) - Math.min(rows.length, MAX_SHOWN);
  const sorted = shown === null ? [...rows].sort((a, b) => weight(a) - weight(b) || a.line - b.line) : rows;
  return (
    <>
      <Flex gap="3" wrap="wrap" align="center" mb="3">
        {VERDICTS.map((verdict) => (
          <ButtonLink key={verdict} href={`/import/${view.id}?show=${verdict}`}>
            {countText(counts[verdict])} {WORDS[verdict]}
          </ButtonLink>
        ))}
        {shown && <TextLink href={`/import/${view.id}`}>all rows</TextLink>}
        {doubtful > 0 && (
          <Box color="caution.ink">
            {doubtful} added {doubtful === 1 ? 'row is' : 'rows are'} doubtful: see why
          </Box>
        )}
      </Flex>
      <Flex gap="3" wrap="wrap" mb="4" align="flex-start">
        {counts.add + counts.change > 0 ? (
          <PressForm action={confirmAction}>
            <input type="hidden" name="importId" value={view.id} />
            <input type="hidden" name="digest" value={plan.digest} />
            <input type="hidden" name="background" value={view.inBackground ? 'yes' : ''} />
            <SubmitButton main>
              Confirm: add {countText(counts.add)}, change {countText(counts.change)}
              {counts.refuse > 0 ? `, leave out ${countText(counts.refuse)} refused` : ''}
            </SubmitButton>
          </PressForm>
        ) : (
          <Box color="soft" maxW="60ch">
            {counts.refuse > 0
              ? 'Nothing to add yet. Import what is missing, then load this page again, or mend the refused rows.'
              : 'Nothing to do: all of it is here already.'}
          </Box>
        )}
        {counts.refuse > 0 && (
          <ButtonLink href={`/import/${view.id}/refused`} download>
            Refused rows as CSV, to mend
          </ButtonLink>
        )}
      </Flex>
      <PlainTable heads={['Line', 'Would be', 'What', 'Why']}>
        {sorted.slice(0, MAX_SHOWN).map((row) => (
          <tr key={row.line}>
            <td>{row.line}</td>
            <td className={row.verdict === 'refuse' ? 'wrong strong' : undefined}>{WORDS[row.verdict]}</td>
            <td>{row.what}</td>
            <td>{row.reasons.join('; ')}</td>
          </tr>
        ))}
      </PlainTable>
      {more > 0 && <Box color="soft">{countText(more)} more rows like these.</Box>}
    </>
  );
}

/** What needs a look comes first. */
function weight({ verdict, reasons }: SummaryRow): number {
  if (verdict === 'refuse') return 0;
  return verdict === 'add' && reasons.length > 0 ? 1 : VERDICTS.indexOf(verdict) + 1;
}

function Columns({ view, plan }: { view: ImportView; plan: PlanSummary }) {
  const headers = plan.header.filter((name) => name !== '');
  const columns = isKindName(plan.kind) ? kindOf(plan.kind).columns : [];
  const open = plan.missing.length > 0;
  return (
    <Section title="Which column is which" aside="remembered for the next file with these headers">
      {open && (
        <Box color="wrong.ink" mb="3" role="alert">
          Not found in this file: {plan.missing.join(', ')}. Choose the column that holds each, or mend the header line.
        </Box>
      )}
      <details open={open}>
        <summary>
          {Object.keys(view.mapping).length} of {headers.length} columns used
        </summary>
        <Box mt="3">
          <Form action={adjustAction}>
            <input type="hidden" name="importId" value={view.id} />
            <Grid templateColumns="repeat(auto-fill, minmax(220px, 1fr))" columnGap="4">
              {columns.map((column) => (
                <SelectField
                  key={column.key}
                  name={`column.${column.key}`}
                  label={`${column.key}${column.required ? ' *' : ''}`}
                  choices={[
                    { value: '', label: 'not in this file' },
                    ...headers.map((name) => ({ value: name, label: name.slice(0, 60) })),
                  ]}
                  defaultValue={view.mapping[column.key] ?? ''}
                />
              ))}
              {plan.kind === 'odometer' && (
                <SelectField
                  name="option.unit"
                  label="Unit where the file names none"
                  choices={[
                    { value: '', label: 'as each dash shows' },
                    { value: 'km', label: 'km' },
                    { value: 'mi', label: 'mi' },
                  ]}
                  defaultValue={view.options.unit ?? ''}
                />
              )}
            </Grid>
            <SubmitButton>Check again</SubmitButton>
          </Form>
        </Box>
        <Box mt="4">
          <Form action={adjustAction}>
            <input type="hidden" name="importId" value={view.id} />
            <Flex gap="3" align="end">
              <SelectField
                name="kind"
                label="This file is"
                choices={allKinds().map(({ name, title }) => ({ value: name, label: title }))}
                defaultValue={plan.kind}
              />
              <Box mb="3">
                <SubmitButton>Change</SubmitButton>
              </Box>
            </Flex>
          </Form>
        </Box>
      </details>
    </Section>
  );
}
