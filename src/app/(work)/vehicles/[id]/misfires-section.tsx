import { type Actor, may } from '@/server/access';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText, percentText } from '@/text/format';
import { CASE_STATE_WORDS, causeText } from '@/text/misfire-words';
import { DrivingOrder } from '@/ui/misfire/stop-driving';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Section } from '@/ui/primitives/page';

/** Misfires of the vehicle, and the way to report one. */
export function MisfiresSection({ view: { misfires, vehicle }, actor }: { view: VehicleView; actor: Actor }) {
  return (
    <Section id="misfires" title="Misfires">
      {misfires.length === 0 && <div className="soft">None on record.</div>}
      {misfires.map(({ advice, misfire: { id, number, state, openedOn, pointsTo } }) => (
        <div key={id}>
          <DrivingOrder advice={advice} />
          <TextLink href={`/misfires/${id}`}>Misfire {number}</TextLink> · {CASE_STATE_WORDS[state].toLowerCase()} ·
          since {dateText(openedOn)}
          {pointsTo && ` · ${causeText(pointsTo)}, ${percentText(pointsTo.probability)}`}
        </div>
      ))}
      {may(actor, 'report misfires') && (
        <div className="step-actions" data-no-print>
          <ButtonLink href={`/misfires/report?unit=${encodeURIComponent(vehicle.unitNumber)}`}>It misfires</ButtonLink>
        </div>
      )}
    </Section>
  );
}
