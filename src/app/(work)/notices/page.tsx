import { Box, Flex } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { groupBy } from '@/core/shared/group-by';
import { deps } from '@/server/deps';
import { KIND_WORDS, listNotices, type NoticeKind } from '@/server/notices/list-notices';
import { dateText } from '@/text/format';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { putAsideAction } from './actions';

export const metadata = { title: 'Notices' };

export default page(async function NoticesPage() {
  const actor = await requireActor();
  const list = await listNotices(deps(), actor);
  mustShow(list);
  const notices = list.value;
  const byKind = groupBy(notices, (row) => row.kind);
  const latest = notices.reduce((last, row) => (row.notedAt > last ? row.notedAt : last), new Date(0));
  return (
    <>
      <PageHead
        title="Notices"
        actions={
          <>
            <ButtonLink href="/notices/digest">Digest of today</ButtonLink>
            <ButtonLink href="/api/v1/notices.atom" download>
              Atom feed
            </ButtonLink>
            {notices.length > 0 && (
              <ActionForm action={putAsideAction} quiet>
                <input type="hidden" name="upTo" value={latest.toISOString()} />
                <SubmitButton main>Put all aside</SubmitButton>
              </ActionForm>
            )}
          </>
        }
      >
        <strong>{notices.length}</strong> not put aside by you
      </PageHead>
      {notices.length === 0 && (
        <Empty>
          Nothing new. Limits that are passed or soon will be, feeds that have gone silent and suspect readings are
          listed here, each once.
        </Empty>
      )}
      {(Object.keys(KIND_WORDS) as NoticeKind[]).map((kind) => {
        const rows = byKind.get(kind) ?? [];
        if (rows.length === 0) return null;
        return (
          <Section key={kind} title={KIND_WORDS[kind]} aside={String(rows.length)}>
            {rows.map((row) => (
              <Flex
                key={row.id}
                justify="space-between"
                align="center"
                gap="3"
                py="1"
                borderBottom="1px solid"
                borderColor="hair"
              >
                <Box minW="0">
                  <TextLink href={kind === 'suspect' ? '/odometer' : `/vehicles/${row.vehicleId}`}>
                    <strong>{row.unitNumber}</strong> {row.name}
                  </TextLink>
                  : {row.text}{' '}
                  <Box as="span" color="soft" fontSize="sm">
                    {row.depot}, noted {dateText(row.notedOn)}
                  </Box>
                </Box>
                <ActionForm action={putAsideAction} quiet>
                  <input type="hidden" name="ids" value={row.id} />
                  <SubmitButton>
                    Aside
                    <Box as="span" srOnly>
                      {' '}
                      the notice of unit {row.unitNumber}
                    </Box>
                  </SubmitButton>
                </ActionForm>
              </Flex>
            ))}
          </Section>
        );
      })}
    </>
  );
});
