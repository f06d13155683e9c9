import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { viewEngine } from '@/server/catalogue/view-engine';
import { deps } from '@/server/deps';
import { kindOf } from '@/server/imports/kinds';
import { EntryForm } from '@/ui/catalogue/entry-form';
import { Empty, PageHead } from '@/ui/primitives/page';
import { enterRowAction } from '../../actions';

type Props = { params: Promise<{ id: string }> };

/** Columns that only a file needs: in a form a range is one field. */
const ONLY_IN_FILES = new Set([
  'gap_min',
  'gap_max',
  'gap_unit',
  'torque_min',
  'torque_max',
  'torque_unit',
  'interval_unit',
  'engine_family',
  'entered_by',
  'checked_by',
]);

export default page(async function NewSheetPage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewEngine(deps(), actor, (await params).id);
  mustShow(view);
  if (!may(actor, 'enter catalogue data')) return <Empty>Ask a supervisor or parts clerk to enter a spec sheet.</Empty>;
  const { family } = view.value;
  return (
    <>
      <PageHead title={`New spec sheet for ${family.code}`}>
        Copy the figures from their source, with units. A sheet never changes once it is here: a change is a new
        revision. Another person then checks it against the source.
      </PageHead>
      <EntryForm
        kind="spec-sheets"
        columns={kindOf('spec-sheets').columns.filter((column) => !ONLY_IN_FILES.has(column.key))}
        values={{
          component: 'plug',
          revision: '1',
          source_kind: 'service_information',
        }}
        hidden={{ engine_family: family.code, back: `/engines/${family.id}/specs` }}
        action={enterRowAction}
        save="Save the sheet, unchecked"
      />
    </>
  );
});
