import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { type EngineListItem, listEngines } from '@/server/catalogue/view-engine';
import { deps } from '@/server/deps';
import { IGNITION_WORDS } from '@/text/catalogue-words';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';

export default page(async function EnginesPage() {
  const actor = await requireActor();
  const engines = await listEngines(deps(), actor);
  mustShow(engines);
  const list = engines.value;
  return (
    <>
      <PageHead
        title="Engines"
        actions={
          <>
            <ButtonLink href="/engines/export?of=engine-families" download>
              CSV
            </ButtonLink>
            <ButtonLink href="/engines/export?of=spec-sheets" download>
              Spec sheets as CSV
            </ButtonLink>
            {may(actor, 'enter catalogue data') && (
              <ButtonLink href="/engines/new" main>
                New engine family
              </ButtonLink>
            )}
          </>
        }
      >
        <strong>{list.length}</strong> families in {list.reduce((sum, item) => sum + item.vehicles, 0)} vehicles, each
        drawn from its own layout
      </PageHead>
      {list.length === 0 && (
        <Empty>
          No engine family yet. Import engine-families.csv, or enter the first one by hand: Isobar draws it as you type.
        </Empty>
      )}
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr', xl: '1fr 1fr 1fr' }} columnGap="8" rowGap="6">
        {list.map((item) => (
          <EngineCard key={item.family.id} item={item} />
        ))}
      </Grid>
    </>
  );
});

function EngineCard({ item: { family, layout, vehicles } }: { item: EngineListItem }) {
  return (
    <Box borderTop="1px solid" borderColor="line" pt="2" minW="0">
      <Box fontSize="17px" fontWeight="650">
        <TextLink href={`/engines/${family.id}`}>{family.code}</TextLink>
      </Box>
      <Box>{family.name}</Box>
      <Box color="soft" fontSize="sm" mb="1">
        {layout.sites.length} plugs, {IGNITION_WORDS[family.ignition]} · {vehicles} vehicle{vehicles === 1 ? '' : 's'}
      </Box>
      <EngineDrawing layout={layout} title={`Engine ${family.code}`} ignition maxH="230px" />
    </Box>
  );
}
