import { TextLink } from '@/ui/primitives/links';
import { ListTable } from '@/ui/primitives/list-table';
import { Code, Empty } from '@/ui/primitives/page';
import { enginePage } from '../engine-page';

export default enginePage(({ view: { vehicles } }) =>
  vehicles.length === 0 ? (
    <Empty>No vehicle has this engine.</Empty>
  ) : (
    <ListTable
      noun="vehicles"
      items={vehicles}
      idOf={({ id }) => id}
      columns={[
        {
          head: 'Unit',
          value: ({ unitNumber }) => unitNumber,
          cell: ({ id, unitNumber }) => (
            <TextLink href={`/vehicles/${id}`}>
              <Code>{unitNumber}</Code>
            </TextLink>
          ),
        },
        { head: 'Vehicle', value: ({ name }) => name },
        { head: 'Variant', value: ({ variant }) => variant },
      ]}
    />
  ),
);
