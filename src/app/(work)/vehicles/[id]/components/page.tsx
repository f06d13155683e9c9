import { siteName, sitePlace } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import type { UnitSystem } from '@/core/units/person-units';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { dateText, distanceText, gapText, NONE } from '@/text/format';
import { Code, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { CoilsSection } from '../coils-section';
import { ComponentsSection } from '../components-section';
import { vehiclePage } from '../vehicle-page';

export default vehiclePage(({ view, actor }) => (
  <>
    <ComponentsSection view={view} actor={actor} />
    <FittedSection view={view} system={actor.unitSystem} />
    <CoilsSection view={view} actor={actor} />
  </>
));

function FittedSection({ view: { vehicle, layout, fitted }, system }: { view: VehicleView; system: UnitSystem }) {
  const bySite = new Map(fitted.map((row) => [siteId(row.fitted), row]));
  return (
    <Section
      id="fitted"
      title="Fitted now"
      aside={<a href={`/vehicles/${vehicle.id}/history`}>all that is or was in it, for its next keeper (CSV)</a>}
    >
      <PlainTable
        heads={['Cylinder', 'Where', 'Part by the record', 'Read off it', 'Since', 'At', 'Gap then', 'History']}
      >
        {layout.sites.map((site) => {
          const row = bySite.get(siteId(site));
          return (
            <tr key={siteId(site)}>
              <td className="strong">{siteName(layout, site)}</td>
              <td className="soft">{sitePlace(layout, site)}</td>
              <td>
                <Code>{row?.number ?? row?.fitted.believedNumber ?? 'unknown'}</Code>
              </td>
              <td>
                <Code>{row?.fitted.observedNumber ?? NONE}</Code>
              </td>
              <td className="nowrap">
                {row ? certain(dateText(row.fitted.installedOn), row.fitted.installedOnCertainty) : 'assumed from new'}
              </td>
              <td className="nowrap">
                {row ? certain(distanceText(row.fitted.installedKm, system), row.fitted.installedKmCertainty) : NONE}
              </td>
              <td className="nowrap">{gapText(row?.fitted.gapMm ?? null, system)}</td>
              <td>
                {row?.fitted.history ?? 'unknown'}
                {row?.fitted.goodForKm != null && (
                  <div className="soft small">
                    {dateText(row.fitted.checkedOn)}: good for {distanceText(row.fitted.goodForKm, system)} more,{' '}
                    {row.fitted.checkedFrom}
                  </div>
                )}
              </td>
            </tr>
          );
        })}
      </PlainTable>
    </Section>
  );
}

const CERTAIN = {
  exact: (text: string) => text,
  estimated: (text: string) => `about ${text}`,
  assumed: (text: string) => `${text}, assumed`,
};
const certain = (text: string, certainty: keyof typeof CERTAIN): string => CERTAIN[certainty](text);
