import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { groupBy } from '@/core/shared/group-by';

import { deps } from '@/server/deps';
import { KIND_WORDS, listNotices, type NoticeKind, type NoticeRow } from '@/server/notices/list-notices';
import { dateText } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Empty, PageHead, Section } from '@/ui/primitives/page';
import { putAsideAction } from './actions';

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
              <PressForm action={putAsideAction} quiet>
                <input type="hidden" name="upTo" value={latest.toISOString()} />
                <SubmitButton main>Dismiss all</SubmitButton>
              </PressForm>
            )}
          </>
        }
      >
        <strong>{notices.length}</strong> not dismissed by you
      </PageHead>
      {notices.length === 0 && (
        <Empty>
          Nothing new. Limits that are passed or soon will be, feeds that have gone silent and suspect readings are
          listed here, each once.
        </Empty>
      )}
      <PressForm action={putAsideAction} quiet>
        {(Object.keys(KIND_WORDS) as NoticeKind[]).map((kind) => {
          const rows = byKind.get(kind) ?? [];
          return rows.length > 0 && <Kind key={kind} kind={kind} rows={rows} />;
        })}
      </PressForm>
    </>
  );
});

/** Notices of one kind, those of a depot together, to be dismissed one by one or all at once. */
function Kind({ kind, rows }: { kind: NoticeKind; rows: readonly NoticeRow[] }) {
  const depots = [...groupBy(rows, (row) => row.depot)].sort(([a], [b]) => a.localeCompare(b));
  return (
    <Section
      title={KIND_WORDS[kind]}
      aside={<DismissButton rows={rows} words={`Dismiss all ${rows.length} of this kind`} />}
    >
      {depots.map(([depot, rowsOfDepot]) => (
        <div key={depot} className="notices">
          <div>
            <strong>{depot}</strong>
            {rowsOfDepot.length > 1 && (
              <DismissButton rows={rowsOfDepot} words={`Dismiss these ${rowsOfDepot.length}`} />
            )}
          </div>
          <ul>
            {rowsOfDepot.map((row) => (
              <li key={row.id}>
                <span>
                  <TextLink href={kind === 'suspect' ? '/odometer' : `/vehicles/${row.vehicleId}`}>
                    <strong>{row.unitNumber}</strong> {row.name}
                  </TextLink>
                  : {row.text} <span className="soft small">noted {dateText(row.notedOn)}</span>
                </span>
                <DismissButton rows={[row]} words="Dismiss" about={`the notice of unit ${row.unitNumber}`} />
              </li>
            ))}
          </ul>
        </div>
      ))}
    </Section>
  );
}

function DismissButton({ rows, words, about }: { rows: readonly NoticeRow[]; words: string; about?: string }) {
  return (
    <SubmitButton name="ids" value={rows.map(({ id }) => id).join()}>
      {words}
      {about && <span className="aloud"> {about}</span>}
    </SubmitButton>
  );
}
