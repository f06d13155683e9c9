import { Box, Flex, Grid, Table } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { NotShown } from '@/app/not-shown';
import { deps } from '@/server/deps';
import { type ImportView, viewImport } from '@/server/imports/import-file';
import type { PlannedRow, Verdict } from '@/server/imports/kind';
import { allKinds } from '@/server/imports/kinds';
import type { ImportPlan } from '@/server/imports/plan-import';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { SelectField } from '@/ui/primitives/fields';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { adjustAction, confirmAction, discardAction } from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };

const VERDICTS: readonly Verdict[] = ['refuse', 'change', 'add', 'skip'];
const WORDS: Readonly<Record<Verdict, string>> = {
  add: 'added',
  change: 'changed',
  skip: 'skipped',
  refuse: 'refused',
};
const MAX_SHOWN = 200;

export default async function ImportCheckPage({ params, searchParams }: Props) {
  const actor = await requireActor();
  const view = await viewImport(deps(), actor, (await params).id);
  if (!view.ok) return <NotShown error={view.error} />;
  const { plan, fileName, state } = view.value;
  if (!plan)
    return (
      <Empty>
        {fileName} was {state}. <TextLink href="/import">Back to Import</TextLink>
      </Empty>
    );
  const asked = (await searchParams).show;
  const shown = VERDICTS.find((verdict) => verdict === asked) ?? null;
  return (
    <>
      <PageHead title={`Check of ${fileName}`}>
        {plan.kind.title} · {plan.table.rows.length} rows · nothing is written yet
      </PageHead>
      <Questions view={view.value} plan={plan} />
      {plan.questions.length === 0 && plan.missing.length === 0 && (
        <Outcome view={view.value} plan={plan} shown={shown} />
      )}
      <Columns view={view.value} plan={plan} />
      <ActionForm action={discardAction} quiet>
        <input type="hidden" name="importId" value={view.value.id} />
        <SubmitButton>Discard this file</SubmitButton>
      </ActionForm>
    </>
  );
}

function Questions({ view, plan }: { view: ImportView; plan: ImportPlan }) {
  return plan.questions.map((question) => (
    <Box key={question.key} bg="caution.bg" p="4" rounded="sm" mb="5" maxW="640px">
      <ActionForm action={adjustAction}>
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
      </ActionForm>
    </Box>
  ));
}

function Outcome({ view, plan, shown }: { view: ImportView; plan: ImportPlan; shown: Verdict | null }) {
  const { counts } = plan;
  const rows = plan.rows.filter((row) => shown === null || row.verdict === shown);
  const doubtful = plan.rows.filter((row) => row.verdict === 'add' && row.reasons.length > 0).length;
  const sorted = shown === null ? [...rows].sort((a, b) => weight(a) - weight(b) || a.line - b.line) : rows;
  return (
    <>
      <Flex gap="3" wrap="wrap" align="center" mb="3">
        {VERDICTS.map((verdict) => (
          <ButtonLink key={verdict} href={`/import/${view.id}?show=${verdict}`}>
            {counts[verdict]} {WORDS[verdict]}
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
          <ActionForm action={confirmAction}>
            <input type="hidden" name="importId" value={view.id} />
            <input type="hidden" name="digest" value={plan.digest} />
            <SubmitButton main>
              Confirm: add {counts.add}, change {counts.change}
              {counts.refuse > 0 ? `, leave out ${counts.refuse} refused` : ''}
            </SubmitButton>
          </ActionForm>
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
          <Table.Row key={row.line}>
            <Table.Cell w="70px">{row.line}</Table.Cell>
            <Table.Cell
              w="100px"
              color={row.verdict === 'refuse' ? 'wrong.ink' : undefined}
              fontWeight={row.verdict === 'refuse' ? '650' : undefined}
            >
              {WORDS[row.verdict]}
            </Table.Cell>
            <Table.Cell>{row.what}</Table.Cell>
            <Table.Cell>{row.reasons.join('; ')}</Table.Cell>
          </Table.Row>
        ))}
      </PlainTable>
      {sorted.length > MAX_SHOWN && <Box color="soft">{sorted.length - MAX_SHOWN} more rows like these.</Box>}
    </>
  );
}

/** What needs a look comes first. */
const weight = (row: PlannedRow): number =>
  row.verdict === 'refuse'
    ? 0
    : row.verdict === 'add' && row.reasons.length > 0
      ? 1
      : VERDICTS.indexOf(row.verdict) + 1;

function Columns({ view, plan }: { view: ImportView; plan: ImportPlan }) {
  const headers = plan.table.header.filter((name) => name !== '');
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
          <ActionForm action={adjustAction}>
            <input type="hidden" name="importId" value={view.id} />
            <Grid templateColumns="repeat(auto-fill, minmax(220px, 1fr))" columnGap="4">
              {plan.kind.columns.map((column) => (
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
              {plan.kind.name === 'odometer' && (
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
          </ActionForm>
        </Box>
        <Box mt="4">
          <ActionForm action={adjustAction}>
            <input type="hidden" name="importId" value={view.id} />
            <Flex gap="3" align="end">
              <SelectField
                name="kind"
                label="This file is"
                choices={allKinds().map(({ name, title }) => ({ value: name, label: title }))}
                defaultValue={plan.kind.name}
              />
              <Box mb="3">
                <SubmitButton>Change</SubmitButton>
              </Box>
            </Flex>
          </ActionForm>
        </Box>
      </details>
    </Section>
  );
}
