import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { type Actor, may } from '@/server/access';
import { type EngineView, viewEngine } from '@/server/catalogue/view-engine';
import { deps } from '@/server/deps';
import { partsText } from '@/text/task-words';
import { SubPlaces } from '@/ui/frame/sub-places';
import { ButtonLink } from '@/ui/primitives/links';
import { Caution, PageHead } from '@/ui/primitives/page';

interface EngineTabProps {
  readonly view: EngineView;
  readonly actor: Actor;
}

/** A page of one engine family: its head and its tabs, over what the tab shows. */
export const enginePage = (Tab: (props: EngineTabProps) => ReactNode) =>
  page(async ({ params }: { params: Promise<{ id: string }> }) => {
    const actor = await requireActor();
    const answered = await viewEngine(deps(), actor, (await params).id);
    mustShow(answered);
    const view = answered.value;
    const { family, quantities, vehicles } = view;
    const root = `/engines/${family.id}`;
    return (
      <>
        <PageHead
          title={`${family.code}, ${family.name}`}
          actions={
            may(actor, 'enter catalogue data') && (
              <>
                <ButtonLink href={`${root}/edit`}>Edit the engine</ButtonLink>
                <ButtonLink href={`${root}/sheet`} main>
                  New spec sheet
                </ButtonLink>
              </>
            )
          }
        >
          {quantities
            .flatMap(({ component, quantity }) =>
              component === 'consumable' ? [] : [`${quantity} ${partsText(component, quantity)}`],
            )
            .join(' · ')}
        </PageHead>
        {family.hybrid && (
          <Box mb="4">
            <Caution>The traction system is isolated by qualified people before anything here is touched.</Caution>
          </Box>
        )}
        <SubPlaces
          label="Parts of the engine"
          places={[
            { href: root, label: 'Overview' },
            { href: `${root}/specs`, label: 'Specs' },
            { href: `${root}/access`, label: 'Access' },
            { href: `${root}/vehicles`, label: `Vehicles (${vehicles.length})` },
          ]}
        />
        <Tab view={view} actor={actor} />
      </>
    );
  });
