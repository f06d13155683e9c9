import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { tighteningOrder } from '@/core/engine/access';
import { coilOf, companions, terminalOf } from '@/core/engine/coils';
import { neighbours, siteName, sitePlace } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { restingText } from '@/core/engine/resting';
import type { UnitSystem } from '@/core/units/person-units';
import { towerMap } from '@/core/wiring/firing-map';
import type { EngineView } from '@/server/catalogue/view-engine';
import { ACCESS_WORDS, IGNITION_WORDS, otherWorkWords } from '@/text/catalogue-words';
import { NONE, torqueText } from '@/text/format';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { Caution, Facts, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { enginePage } from './engine-page';

export default enginePage(({ view, actor }) => (
  <>
    <div className="halves">
      <Section title="Engine" aside="seen from the front of the vehicle">
        <EngineDrawing
          layout={view.layout}
          title={`Engine ${view.family.code}: ${view.layout.sites.length} plug sites`}
          marks={Object.fromEntries(
            view.layout.sites.map((site) => [siteId(site), { state: 'plain' as const, href: `#site-${siteId(site)}` }]),
          )}
          ignition
        />
      </Section>
      <div>
        <EngineFacts view={view} system={actor.unitSystem} />
        <WeakPoints view={view} />
      </div>
    </div>
    <Sites view={view} />
  </>
));

function EngineFacts({ view: { family, layout }, system }: { view: EngineView; system: UnitSystem }) {
  const { model } = layout;
  const banks = model.banks.map((bank, i) => {
    const access = family.access?.[i];
    const how = access ? `: ${ACCESS_WORDS[access.access]}, ${access.minutes} min` : '';
    return `${bank.place === 'only' ? 'bank' : bank.place} ${bank.cylinders.join(' ')}${how}`;
  });
  const pairs = model.ignition === 'waste_spark' ? companions(model.firingOrder) : [];
  const towers = model.distributor ? towerMap(model.firingOrder, model.distributor) : [];
  const boost = (family.intakeKpa ?? 0) > 105;
  return (
    <Section title="What it is">
      <Facts
        rows={[
          ['Ignition', IGNITION_WORDS[model.ignition]],
          ...(model.connectorRail ? [['Connectors', 'one rail over the coils of a bank'] as const] : []),
          ['Firing order', model.firingOrder.join(' ')],
          ...(pairs.length > 0 ? [['Companions', pairs.map((p) => p.join(' with ')).join(', ')] as const] : []),
          ...(model.distributor
            ? [
                [
                  'Towers',
                  `${towers.map((t) => t.cylinder).join(' ')}, clockwise from tower 1; the rotor turns ${model.distributor.rotation}`,
                ] as const,
              ]
            : []),
          [
            'Head',
            `${family.headMaterial}${family.compressionRatio === null ? '' : `, compression ${family.compressionRatio}:1`}`,
          ],
          [
            'Induction',
            `${family.induction}${family.intakeKpa === null ? '' : `, up to ${family.intakeKpa} kPa in the intake${boost ? ', absolute' : ''}`}`,
          ],
          ...plugRows(family),
          ['Banks and access', <Lines key="banks" lines={banks} />],
          ...(family.leadLengthsMm ? [['Leads needed', `${family.leadLengthsMm.join(', ')} mm`] as const] : []),
          ...(family.fasteners?.length
            ? [['Fasteners', <Lines key="fasteners" lines={family.fasteners.map(fastenerText)} />] as const]
            : []),
          ...(family.otherWork.length > 0
            ? [
                [
                  'Other work',
                  <Lines key="other" lines={family.otherWork.map((work) => otherWorkWords(work, system))} />,
                ] as const,
              ]
            : []),
          ['Variants', family.variants.join(' or ') || 'none'],
          ...(family.resting.length > 0 ? [['Rest at part load', restingText(family.resting)] as const] : []),
        ]}
      />
    </Section>
  );
}

/** What is special about the plugs of this engine, beside its sheets. */
function plugRows({
  boostBands,
  boostSource,
  compoundPlace,
}: EngineView['family']): readonly (readonly [string, ReactNode])[] {
  const bands = boostBands.map(({ upToKpa, asTyped }) => `up to ${upToKpa} kPa: ${asTyped}`);
  return [
    ...(bands.length > 0
      ? [['Gap by boost', <Lines key="boost" lines={[...bands, boostSource ?? '']} />] as const]
      : []),
    ...(compoundPlace === 'threads_and_shield'
      ? [['Compound', 'on the threads, and thinly on the shield below them'] as const]
      : []),
  ];
}

function fastenerText(f: NonNullable<EngineView['family']['fasteners']>[number]): string {
  const order =
    f.order === 'any' ? '' : `, ${f.order.replace('_', ' ')}: ${tighteningOrder(f.count, f.order).join(' ')}`;
  return `${f.count} × ${f.what} ${f.size}, ${torqueText(f.torqueNm, 'metric')}${order}${f.captive ? ', captive' : ''}`;
}

const Lines = ({ lines }: { lines: readonly string[] }) => lines.map((line) => <Box key={line}>{line}</Box>);

function WeakPoints({ view: { family } }: { view: EngineView }) {
  if (!family.weakPoints?.length) return null;
  return (
    <Box mb="5">
      <Caution>Known here: {family.weakPoints.map(({ says }) => says).join('; ')}.</Caution>
    </Box>
  );
}

function Sites({ view: { layout } }: { view: EngineView }) {
  return (
    <Section title="Cylinders" aside="two plugs side by side need not serve one cylinder">
      <PlainTable heads={['Cylinder', 'Where', 'Coil and terminal', 'Beside it in its bank']}>
        {layout.sites.map((site) => (
          <tr key={siteId(site)} id={`site-${siteId(site)}`}>
            <td className="strong">{siteName(layout, site)}</td>
            <td>{sitePlace(layout, site)}</td>
            <td>{[coilOf(layout.model, site)?.name, terminalOf(layout.model, site)].filter(Boolean).join(', ')}</td>
            <td>
              {neighbours(layout, site.cylinder)
                .map((n) => `cylinder ${n}`)
                .join(', ') || NONE}
            </td>
          </tr>
        ))}
      </PlainTable>
    </Section>
  );
}
