import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { may } from '@/server/access';
import { SubPlaces } from '@/ui/frame/sub-places';
import { FeedPlayer } from '@/ui/odometer/feed-player';
import { LargeFile } from '@/ui/odometer/large-file';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { playFeedAction } from '../actions';
import { ODOMETER_PLACES } from '../places';

export default async function FeedPage() {
  const actor = await requireActor();
  return (
    <>
      <PageHead title="Feed">
        Odometers that report by themselves: how to connect one, and a stand-in to try it with
      </PageHead>
      <SubPlaces label="Odometer" places={ODOMETER_PLACES} />
      <Section title="Connect a feed">
        <Box maxW="70ch">
          Any feed can send readings, one or up to 1,000 at a time, to <Code>POST /api/v1/odometer-readings</Code> with
          a token from Settings. A repeated <Code>Idempotency-Key</Code> gets the first answer, and a reading that is
          here already changes nothing, so sending twice does no harm. The same from a terminal, for the demo:{' '}
          <Code>npm run simulate</Code>.
        </Box>
      </Section>
      {may(actor, 'import data') && (
        <Section title="A large file" aside="written whole or not at all">
          <Box maxW="70ch" mb="3">
            CSV with unit_number, read_on, odometer, and where known unit and source. Every check is made; what is here
            already stays as it is, so a file can be sent again.
          </Box>
          <LargeFile />
        </Section>
      )}
      <Section title="Telematics stand-in" aside="demo fleet only">
        {may(actor, 'record odometer readings') ? (
          <FeedPlayer play={playFeedAction} />
        ) : (
          <Empty>A supervisor or technician can play the stand-in.</Empty>
        )}
      </Section>
    </>
  );
}
