import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { CONDITIONS, type Condition, type ConditionRegion, NORMAL } from '@/core/inspection/vocabulary';
import { normalFor } from '@/core/work/place-fields';
import type { TaskComponent } from '@/core/work/task';
import { POINTS_TO, REGION_WORDS } from '@/text/condition-words';
import { PartDrawing } from '@/ui/drawings/part-drawing';
import { NewPlugDrawing, PlugDrawing } from '@/ui/drawings/plug-drawing';
import { Caution, PageHead, Section } from '@/ui/primitives/page';

/** Regions that are seen on the body, above the threads. */
const OF_BODY: ReadonlySet<string> = new Set<ConditionRegion>(['gasket', 'insulator', 'well']);
/** Regions of other parts than the plug, by the part that shows them. */
const PART_OF: Readonly<Partial<Record<ConditionRegion, Exclude<TaskComponent, 'plug'>>>> = {
  boot: 'boot',
  connector: 'coil',
  coil: 'coil',
  lead: 'lead',
  cap: 'cap',
  rotor: 'rotor',
  seal: 'seal',
};
const GAP_MM = 1.05;
const HEIGHT = '200px';

/** Every condition drawn, and what it points to. */
export default async function GuidePage() {
  await requireActor();
  return (
    <>
      <PageHead title="Guide to removed parts">
        One part shows a condition; where it stands in the engine shows the cause. Compare, do not judge by one.
      </PageHead>
      <Caution>
        A suspicion with evidence, never a verdict: fuel, oil, short trips and the plug’s own make change what is seen.
        Melted or peppered electrodes stop the work.
      </Caution>
      <Box mt="5">
        {Object.entries(CONDITIONS).map(([region, words]) => (
          <Section key={region} title={REGION_WORDS[region as ConditionRegion]}>
            <Grid templateColumns="repeat(auto-fill, minmax(200px, 1fr))" gap="4">
              <Grid templateColumns="104px 1fr" gap="3" alignItems="start">
                <Shown region={region as ConditionRegion} word={null} />
                <Box color="soft">Fitted new, to compare with</Box>
              </Grid>
              {words.map((word) => (
                <Grid key={word} templateColumns="104px 1fr" gap="3" alignItems="start">
                  <Shown region={region as ConditionRegion} word={word} />
                  <Box>
                    <strong>{word}</strong>
                    <Box color="soft" fontSize="sm">
                      {NORMAL.has(word) ? 'As it should be. ' : ''}
                      {POINTS_TO[word]}
                    </Box>
                  </Box>
                </Grid>
              ))}
            </Grid>
          </Section>
        ))}
      </Box>
    </>
  );
}

/** The part of a region that shows a word; null: a new one. */
function Shown({ region, word }: { region: ConditionRegion; word: Condition | null }) {
  const part = PART_OF[region];
  if (part) {
    const seen = word ? { [word]: 3 } : normalFor(part);
    return <PartDrawing component={part} seen={seen} title={word ?? 'new'} height={HEIGHT} />;
  }
  const view = OF_BODY.has(region) || word === 'seat sooted' ? 'body' : 'firing end';
  return word ? (
    <PlugDrawing seen={{ [word]: 3 }} gapMm={GAP_MM} seat="gasket" title={word} height={HEIGHT} view={view} />
  ) : (
    <NewPlugDrawing gapMm={GAP_MM} seat="gasket" height={HEIGHT} view={view} />
  );
}
