import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { viewEngine } from '@/server/catalogue/view-engine';
import { deps } from '@/server/deps';
import { familyFields } from '@/server/exports/catalogue-csv';
import { EngineEditor } from '@/ui/catalogue/engine-editor';
import { Empty, PageHead } from '@/ui/primitives/page';
import { enterRowAction } from '../../actions';

type Props = { params: Promise<{ id: string }> };

export default page(async function EditEnginePage({ params }: Props) {
  const actor = await requireActor();
  const view = await viewEngine(deps(), actor, (await params).id);
  mustShow(view);
  if (!may(actor, 'enter catalogue data')) return <Empty>Ask a supervisor or parts clerk to change an engine.</Empty>;
  const { family, vehicles } = view.value;
  return (
    <>
      <PageHead
        trail={[
          ['Engines', '/engines'],
          [family.code, `/engines/${family.id}`],
        ]}
        title={`Edit ${family.code}`}
      >
        In {vehicles.length} vehicles: what changes here changes their plug sites, quantities and steps
      </PageHead>
      <EngineEditor initial={familyFields(family)} action={enterRowAction} />
    </>
  );
});
