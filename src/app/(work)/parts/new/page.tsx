import { requireActor } from '@/app/actor';
import { may } from '@/server/access';
import { kindOf } from '@/server/imports/kinds';
import { EntryForm } from '@/ui/catalogue/entry-form';
import { Empty, PageHead } from '@/ui/primitives/page';
import { enterRowAction } from '../../engines/actions';

export default async function NewPartPage() {
  const actor = await requireActor();
  if (!may(actor, 'enter catalogue data')) return <Empty>Ask a supervisor or parts clerk to enter a part.</Empty>;
  return (
    <>
      <PageHead title="New part">Leave empty what is not known: it never counts as equal</PageHead>
      <EntryForm
        kind="parts"
        columns={kindOf('parts').columns}
        values={{ kind: 'plug' }}
        action={enterRowAction}
        save="Save the part"
      />
    </>
  );
}
