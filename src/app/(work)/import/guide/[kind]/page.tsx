import { Box } from '@chakra-ui/react';
import { notFound } from 'next/navigation';
import { requireActor } from '@/app/actor';
import { isKindName, kindOf } from '@/server/imports/kinds';
import { ButtonLink } from '@/ui/primitives/links';
import { Code, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

export default async function GuidePage({ params }: { params: Promise<{ kind: string }> }) {
  await requireActor();
  const { kind: name } = await params;
  if (!isKindName(name)) notFound();
  const kind = kindOf(name);
  return (
    <>
      <PageHead
        title={`${kind.name}.csv`}
        actions={
          <ButtonLink href={`/import/template/${kind.name}`} download>
            Template
          </ButtonLink>
        }
      >
        {kind.about}
      </PageHead>
      <Section title="Columns" aside="* must be filled">
        <PlainTable heads={['Column', 'What it holds', 'Example', 'Also known as']}>
          {kind.columns.map((column) => (
            <tr key={column.key}>
              <td>
                <Code>
                  {column.key}
                  {column.required && ' *'}
                </Code>
              </td>
              <td>{column.help}</td>
              <td>
                <Code>{column.example}</Code>
              </td>
              <td className="soft">{column.aliases?.join(', ')}</td>
            </tr>
          ))}
        </PlainTable>
      </Section>
      <Section title="What every file may look like">
        <Box as="ul" pl="5" maxW="75ch">
          <li>
            Separated by comma, semicolon, tab or vertical bar; quotes where a cell holds one of these; any line ends;
            UTF-8, UTF-16 or the old Windows coding.
          </li>
          <li>Numbers as 0.8 or 0,8; thousands as 104,000 or 104 000; a unit may stand behind the figure.</li>
          <li>
            Days as 2026-04-18, 18/04/2026 or 04/18/2026. If no row of the file decides which comes first, Isobar asks.
          </li>
          <li>Headers may have other names: match them once, and the match is remembered.</li>
          <li>
            The same file twice changes nothing. A row that cannot be right is refused with its line and reason; the
            others go in.
          </li>
          <li>At most 32 MB and 200 columns.</li>
        </Box>
      </Section>
    </>
  );
}
