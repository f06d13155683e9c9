import { Box } from '@chakra-ui/react';
import { turnAngle } from '@/core/torque/plan';
import type { UnitSystem } from '@/core/units/person-units';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { heldText } from '@/text/due-words';
import { turnText } from '@/text/format';
import { SOURCE_WORDS } from '@/text/order-words';
import { DueSum } from '@/ui/due/due-breakdown';
import { TextLink } from '@/ui/primitives/links';
import { Section } from '@/ui/primitives/page';
import { SpecLines } from '@/ui/work-orders/spec-lines';
import { MisfiresSection } from './misfires-section';
import { OdometerSection } from './odometer-section';
import { PressureSection } from './pressure-section';
import { vehiclePage } from './vehicle-page';

export default vehiclePage(({ view, actor }) => (
  <div className="halves">
    <div>
      <PressureSection view={view} actor={actor} />
      <DateSection view={view} system={actor.unitSystem} />
    </div>
    <div>
      <OdometerSection view={view} system={actor.unitSystem} actor={actor} />
      <SpecSection view={view} system={actor.unitSystem} />
      <MisfiresSection view={view} actor={actor} />
    </div>
  </div>
));

interface Props {
  readonly view: VehicleView;
  readonly system: UnitSystem;
}

/** How the due date comes about, step by step, for each component. */
function DateSection({ view: { due }, system }: Props) {
  if (due.breakdown.length === 0) return null;
  return (
    <Section
      id="date"
      title="How the date comes about"
      aside={`${COMPONENT_WORDS[due.component].toLowerCase()}, step by step`}
    >
      <DueSum lines={due.breakdown} system={system} />
      {due.components.slice(1).map(
        (other) =>
          other.breakdown.length > 0 && (
            <details key={other.component}>
              <summary>{COMPONENT_WORDS[other.component]}</summary>
              <DueSum lines={other.breakdown} system={system} />
            </details>
          ),
      )}
      {due.tested && (
        <Box color="soft" mt="2">
          {heldText(due.tested)}
        </Box>
      )}
    </Section>
  );
}

function SpecSection({ view: { fitment, layout, rivals, family, threads, current }, system }: Props) {
  if (fitment.kind !== 'match') return null;
  const { spec } = fitment;
  const angle = turnAngle(spec.part.seat, 'new');
  return (
    <Section id="spec" title="Spec in force">
      <SpecLines
        spec={spec}
        quantity={layout.sites.length}
        system={system}
        threads={threads}
        current={current}
        angle={spec.angleDeg !== null ? `${spec.angleDeg}°, by the sheet,` : turnText(angle)}
      />
      {rivals.length > 0 && (
        <Box color="soft" fontSize="sm" mt="2">
          Other sources beside it:{' '}
          {rivals.map((rival) => `${rival.sourceDocument} (${SOURCE_WORDS[rival.sourceKind]})`).join('; ')}.{' '}
          <TextLink href={`/engines/${family.id}/specs`}>Compare</TextLink>
        </Box>
      )}
    </Section>
  );
}
