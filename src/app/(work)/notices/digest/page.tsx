import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { addDays } from '@/core/calendar/plain-date';
import { deps } from '@/server/deps';
import { viewDigest } from '@/server/notices/list-notices';
import { dateText } from '@/text/format';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';

type Props = { searchParams: Promise<{ on?: string }> };

export default page(async function DigestPage({ searchParams }: Props) {
  const actor = await requireActor();
  const digest = await viewDigest(deps(), actor, (await searchParams).on);
  mustShow(digest);
  const { on, sections } = digest.value;
  return (
    <>
      <PageHead
        title={`Digest of ${dateText(on)}`}
        actions={
          <>
            <ButtonLink href={`/notices/digest?on=${addDays(on, -1)}`}>The day before</ButtonLink>
            <ButtonLink href={`/notices/digest/eml?on=${on}`} download>
              As a mail file
            </ButtonLink>
          </>
        }
      >
        Everything noted that day, for the whole fleet. Isobar sends no mail: open the file in your own program, or
        subscribe to the feed.
      </PageHead>
      {sections.length === 0 && <Empty>Nothing was noted on this day.</Empty>}
      {sections.map(({ kind, title, notices }) => (
        <Section key={kind} title={title} aside={String(notices.length)}>
          {notices.map((row) => (
            <Box key={row.id} py="1">
              <TextLink href={`/vehicles/${row.vehicleId}`}>
                <strong>{row.unitNumber}</strong> {row.name}
              </TextLink>
              : {row.text}{' '}
              <Box as="span" color="soft" fontSize="sm">
                {row.depot}
              </Box>
            </Box>
          ))}
        </Section>
      ))}
    </>
  );
});
