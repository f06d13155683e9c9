import type { Actor } from '@/server/access';
import { partPlaces, type WorkOrderView } from '@/server/work-orders/view-work-order';
import { NONE, torqueText } from '@/text/format';
import { REMOVAL_WORDS } from '@/text/removal-words';
import { measuredTexts, PLACE_STATE_WORDS, RESULT_WORDS } from '@/text/task-words';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

/** What was found, measured and fitted of every part that is no plug. */
export function PartTable({ view, actor }: { view: WorkOrderView; actor: Actor }) {
  const places = partPlaces(view);
  if (places.length === 0) return null;
  return (
    <Section id="parts-record" title="Record of the other parts">
      <PlainTable heads={['Part', 'Came out', 'Seen', 'Measured', 'Went in', 'Screw', 'State']}>
        {places.map(({ place, target, name, state }) => (
          <tr key={target}>
            <td className="nowrap">
              <strong>{name}</strong>
            </td>
            <td>
              <Code>
                {[place.observedNumber ?? place.expectedNumber, place.tagOut ?? place.expectedTag]
                  .filter(Boolean)
                  .join(', ') || NONE}
              </Code>
              {place.removalReason && <div className="soft small">{REMOVAL_WORDS[place.removalReason]}</div>}
            </td>
            <td>
              {[place.conditions?.join(', '), place.grade && `grade ${place.grade} of 5`].filter(Boolean).join('; ') ||
                NONE}
            </td>
            <td className="nowrap">{measuredTexts(place).join(', ') || NONE}</td>
            <td>
              <Code>{[place.newNumber, place.tagIn].filter(Boolean).join(', ') || NONE}</Code>
            </td>
            <td className="nowrap">
              {place.installedTorqueNm === null
                ? (place.torqueMethod ?? NONE)
                : torqueText(place.installedTorqueNm, actor.unitSystem)}
            </td>
            <td>
              {state === 'done' ? '✓ ' : ''}
              {place.result ? RESULT_WORDS[place.result] : PLACE_STATE_WORDS[state]}
              {place.leftWhy && <div className="soft small">{place.leftWhy}</div>}
            </td>
          </tr>
        ))}
      </PlainTable>
    </Section>
  );
}
