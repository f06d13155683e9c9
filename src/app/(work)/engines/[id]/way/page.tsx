import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { viewAccessItems } from '@/server/catalogue/access-items';
import { deps } from '@/server/deps';
import { AccessEditor } from '@/ui/catalogue/access-editor';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { saveAccessItemsAction } from '../../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ from?: string }> };

export default page(async function WayPage({ params, searchParams }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const { from } = await searchParams;
  const view = await viewAccessItems(deps(), actor, { id, from: from || undefined });
  mustShow(view);
  if (!may(actor, 'enter catalogue data'))
    return <Empty>Ask a supervisor or parts clerk to change the access to the plugs of an engine.</Empty>;
  const { family, layout, rows, copied, others } = view.value;
  return (
    <>
      <PageHead
        title={`Access to the plugs of ${family.code}`}
        actions={
          <>
            <ButtonLink href="/engines/export/way" download>
              Every family as CSV
            </ButtonLink>
            <ButtonLink href={`/engines/${family.id}`}>The engine</ButtonLink>
          </>
        }
      >
        In the order in which it comes off; it goes on again in exactly the reverse order. Steps, counts, tools, kit and
        minutes follow from it.
      </PageHead>
      <AccessEditor
        key={copied?.code ?? 'own'}
        familyId={family.id}
        version={family.version}
        layout={layout}
        saved={rows}
        copied={copied}
        action={saveAccessItemsAction}
      />
      {others.length > 0 && (
        <p className="soft">
          Begin from another family:{' '}
          {others.map((other, i) => (
            <span key={other.id}>
              {i > 0 && ' · '}
              <TextLink href={`/engines/${family.id}/way?from=${other.id}`}>
                {other.code} ({other.items})
              </TextLink>
            </span>
          ))}
        </p>
      )}
    </>
  );
});
