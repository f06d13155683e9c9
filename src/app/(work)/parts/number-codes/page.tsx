import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { groupBy } from '@/core/shared/group-by';
import { may } from '@/server/access';
import { listNumberCodes } from '@/server/catalogue/read-number';
import { deps } from '@/server/deps';
import { kindOf } from '@/server/imports/kinds';
import { NONE } from '@/text/format';
import { EntryForm } from '@/ui/catalogue/entry-form';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { enterRowAction } from '../../engines/actions';

export default page(async function NumberCodesPage() {
  const actor = await requireActor();
  const codes = await listNumberCodes(deps(), actor);
  mustShow(codes);
  const makers = [...groupBy(codes.value, (code) => code.maker)];
  return (
    <>
      <PageHead title="Number codes">
        How each maker’s numbers are to be read. The same digit means another thing to another maker
      </PageHead>
      {makers.length === 0 && (
        <Empty>No table yet. Import number-codes.csv, or enter the first code from a maker’s own list below.</Empty>
      )}
      <Grid templateColumns={{ base: '1fr', xl: '1fr 1fr' }} columnGap="8">
        {makers.map(([maker, rows]) => (
          <Section key={maker} title={maker} aside={[...new Set(rows.map((row) => row.source))].join('; ')}>
            <PlainTable heads={['Place', 'Says', 'Code', 'Meaning']}>
              {rows.map((row) => (
                <tr key={row.id}>
                  <td>{row.place}</td>
                  <td>{SAYS[row.attribute]}</td>
                  <td>{row.code === '' ? <Box color="soft">nothing stands there</Box> : <Code>{row.code}</Code>}</td>
                  <td>{meaning(row)}</td>
                </tr>
              ))}
            </PlainTable>
          </Section>
        ))}
      </Grid>
      {may(actor, 'enter catalogue data') && (
        <Section title="Enter or correct a code" aside="an entry with the same maker, place and code is corrected">
          <EntryForm
            kind="number-codes"
            columns={kindOf('number-codes').columns}
            values={{ attribute: 'gap' }}
            hidden={{ back: '/parts/number-codes' }}
            action={enterRowAction}
            save="Save the code"
          />
        </Section>
      )}
    </>
  );
});

const SAYS = {
  base: 'base of the number',
  resistor: 'resistor',
  heat_range: 'heat',
  gap: 'gap as sold',
  terminal: 'terminal',
  shell: 'shell',
} as const;

type Row = Extract<Awaited<ReturnType<typeof listNumberCodes>>, { ok: true }>['value'][number];

function meaning({ attribute, value }: Row): string {
  if (value === '') return attribute === 'base' ? 'each # is one digit' : NONE;
  if (attribute === 'resistor') return value === 'yes' ? 'with' : 'without';
  return attribute === 'gap' && /^\d/.test(value) ? `${Number(value).toFixed(2)} mm` : value;
}
