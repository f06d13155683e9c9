import type { UnitSystem } from '@/core/units/person-units';
import type { CaseView } from '@/server/misfire/view-case';
import { dateText, distanceText } from '@/text/format';
import { TextLink } from '@/ui/primitives/links';
import { Section } from '@/ui/primitives/page';

/** What changed last is the first suspect: a line back in distance. */
export function ChangedSection({ view: { changed }, system }: { view: CaseView; system: UnitSystem }) {
  return (
    <Section title="What changed last" aside="within 500 km: suspect">
      {changed.length === 0 && <div className="soft">Nothing is on record.</div>}
      <ol className="changed-line">
        {changed.map(({ kmAgo, on, words, isRecent, workOrderId }) => (
          <li key={`${kmAgo} ${words}`} data-recent={isRecent || undefined}>
            <span className="ago">
              {kmAgo === null ? '' : `${distanceText(kmAgo, system)} ago`}
              {on && ` · ${dateText(on)}`}
              {isRecent && ' · recent'}
            </span>
            <span>{workOrderId ? <TextLink href={`/work-orders/${workOrderId}`}>{words}</TextLink> : words}</span>
          </li>
        ))}
      </ol>
    </Section>
  );
}
