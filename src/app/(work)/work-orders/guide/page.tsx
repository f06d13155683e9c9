import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { CONDITIONS, type ConditionRegion, NORMAL } from '@/core/inspection/vocabulary';
import { POINTS_TO, REGION_WORDS } from '@/text/condition-words';
import { NewPlugDrawing, PlugDrawing } from '@/ui/drawings/plug-drawing';
import { Caution, PageHead, Section } from '@/ui/primitives/page';

export const metadata = { title: 'Guide to removed parts' };

/** Regions that are seen on the body, above the threads. */
const OF_BODY: ReadonlySet<string> = new Set<ConditionRegion>(['gasket', 'insulator', 'boot', 'connector']);

const shownOf = (region: string) => (OF_BODY.has(region) ? 'body' : 'firing end');
const GAP_MM = 1.05;
const HEIGHT = '200px';

/** Every condition drawn, and what it points to. */
export default async function GuidePage() {
  await requireActor();
  return (
    <>
      <PageHead title="Guide to removed parts">
        One plug shows a condition; where it stands in the engine shows the cause. Compare, do not judge by one.
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
                <NewPlugDrawing gapMm={GAP_MM} seat="gasket" height={HEIGHT} of={shownOf(region)} />
                <Box color="soft">Fitted new, to compare with</Box>
              </Grid>
              {words.map((word) => (
                <Grid key={word} templateColumns="104px 1fr" gap="3" alignItems="start">
                  <PlugDrawing
                    seen={{ [word]: 3 }}
                    gapMm={GAP_MM}
                    seat="gasket"
                    title={word}
                    height={HEIGHT}
                    of={word === 'seat sooted' ? 'body' : shownOf(region)}
                  />
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
