import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { listImports } from '@/server/imports/import-file';
import { allKinds } from '@/server/imports/kinds';
import { instantText, NONE } from '@/text/format';
import { FileDrop } from '@/ui/imports/file-drop';
import { TextLink } from '@/ui/primitives/links';
import { type Column, ListTable } from '@/ui/primitives/list-table';
import { PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { uploadAction } from './actions';

type ImportRow = Extract<Awaited<ReturnType<typeof listImports>>, { ok: true }>['value'][number];

const WAITING: Readonly<Record<string, string>> = {
  checking: 'being checked',
  checked: 'checked',
  applying: 'being imported',
};

export default page(async function ImportPage() {
  const list = await listImports(deps(), await requireActor());
  mustShow(list);
  const titles = new Map(allKinds().map((kind) => [kind.name as string, kind.title]));
  const order = new Map(allKinds().map((kind, i) => [kind.name as string, i]));
  const waiting = list.value
    .filter((row) => WAITING[row.state] !== undefined)
    .sort((a, b) => (order.get(a.kind) ?? 9) - (order.get(b.kind) ?? 9));
  const done = list.value.filter((row) => row.state === 'applied');
  return (
    <>
      <PageHead title="Import">
        Upload in any order: each file is checked first and shows row by row what it would do. Nothing is written until
        you confirm.
      </PageHead>
      <FileDrop action={uploadAction} kinds={allKinds().map(({ name, title }) => ({ value: name, label: title }))} />
      {waiting.length > 0 && (
        <Section title="Uploaded, not imported yet" aside="in the order in which they build on each other">
          {waiting.map((row) => (
            <Box key={row.id} py="1" borderBottom="1px solid" borderColor="hair">
              <TextLink href={`/import/${row.id}`}>{row.fileName}</TextLink> · {titles.get(row.kind)} ·{' '}
              {WAITING[row.state]} · uploaded {instantText(row.createdAt)} by {row.by}
            </Box>
          ))}
        </Section>
      )}
      <Section title="The files">
        <PlainTable heads={['File', 'Needs first', 'Columns explained', 'Template', 'Sample']}>
          {allKinds().map((kind, i) => (
            <tr key={kind.name}>
              <td className="strong">
                <span className="soft">{i + 1}</span> {kind.title}
              </td>
              <td>{kind.needs.map((need) => titles.get(need)).join(', ') || 'nothing'}</td>
              <td>
                <TextLink href={`/import/guide/${kind.name}`}>Guide</TextLink>
              </td>
              <td>
                <a href={`/import/template/${kind.name}`} download>
                  <u>{kind.name}.csv</u>
                </a>
              </td>
              <td>
                <a href={`/import/sample/${kind.name}`} download>
                  <u>filled with demo data</u>
                </a>
              </td>
            </tr>
          ))}
        </PlainTable>
      </Section>
      {done.length > 0 && (
        <Section title="Imported before">
          <ListTable noun="imports" items={done} idOf={({ id }) => id} columns={COLUMNS} />
        </Section>
      )}
    </>
  );
});

const COLUMNS: readonly Column<ImportRow>[] = [
  {
    head: 'When',
    value: ({ appliedAt }) => appliedAt?.toISOString() ?? null,
    cell: ({ appliedAt }) => (appliedAt ? instantText(appliedAt) : NONE),
  },
  { head: 'File', value: ({ fileName }) => fileName },
  { head: 'Added', value: ({ counts }) => counts?.add ?? 0, numeric: true },
  { head: 'Changed', value: ({ counts }) => counts?.change ?? 0, numeric: true },
  { head: 'Skipped', value: ({ counts }) => counts?.skip ?? 0, numeric: true },
  { head: 'Refused', value: ({ counts }) => counts?.refuse ?? 0, numeric: true },
  { head: 'By', value: ({ by }) => by },
];
