import { Box, Grid } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { tighteningOrder } from '@/core/engine/access';
import { sayOpens } from '@/core/engine/access-items';
import { coilOf, companions, terminalOf } from '@/core/engine/coils';
import { neighbours, siteName, sitePlace } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { restingText } from '@/core/engine/resting';
import type { UnitSystem } from '@/core/units/person-units';
import { towerMap } from '@/core/wiring/firing-map';
import { fastenersSaid } from '@/core/work/procedure/phases/way';
import { may } from '@/server/access';
import { type EngineView, viewEngine } from '@/server/catalogue/view-engine';
import { deps } from '@/server/deps';
import { ACCESS_WORDS, COMPONENT_WORDS, IGNITION_WORDS, otherWorkWords } from '@/text/catalogue-words';
import { NONE, torqueText } from '@/text/format';
import { OtherSheets } from '@/ui/catalogue/other-sheets';
import { type CheckForm, SheetsSideBySide } from '@/ui/catalogue/sheets-side-by-side';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Caution, Empty, Facts, PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { checkSheetAction } from '../actions';

type Props = { params: Promise<{ id: string }> };

export default page(async function EnginePage({ params }: Props) {
  const actor = await requireActor();
  const found = await viewEngine(deps(), actor, (await params).id);
  mustShow(found);
  const view = found.value;
  const { family, layout } = view;
  const enter = may(actor, 'enter catalogue data');
  const check = may(actor, 'check spec sheets')
    ? { action: checkSheetAction, back: `/engines/${family.id}`, name: actor.name }
    : null;
  return (
    <>
      <PageHead
        title={`${family.code}, ${family.name}`}
        actions={
          enter && (
            <>
              <ButtonLink href={`/engines/${family.id}/edit`}>Edit the engine</ButtonLink>
              <ButtonLink href={`/engines/${family.id}/sheet`} main>
                New spec sheet
              </ButtonLink>
            </>
          )
        }
      >
        {view.quantities
          .map(({ component, quantity }) => `${quantity} ${COMPONENT_WORDS[component].toLowerCase()}`)
          .join(' · ')}
      </PageHead>
      {family.hybrid && (
        <Box mb="4">
          <Caution>The traction system is isolated by qualified people before anything here is touched.</Caution>
        </Box>
      )}
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8">
        <Section title="Engine" aside="seen from the front of the vehicle">
          <EngineDrawing
            layout={layout}
            title={`Engine ${family.code}: ${layout.sites.length} plug sites`}
            marks={Object.fromEntries(
              layout.sites.map((site) => [siteId(site), { state: 'plain' as const, href: `#site-${siteId(site)}` }]),
            )}
            ignition
          />
        </Section>
        <Box minW="0">
          <EngineFacts view={view} system={actor.unitSystem} />
          <WeakPoints view={view} />
        </Box>
      </Grid>
      <Way view={view} mayEdit={enter} />
      <Section title="Plug specs" aside="sources of one scope side by side; the highest rank is in force">
        {view.scopes.length === 0 && <Empty>No sheet yet: nothing can be fitted to this engine.</Empty>}
        {view.scopes.map((scope) => (
          <SheetsSideBySide key={scope.scope} scope={scope} system={actor.unitSystem} check={check} />
        ))}
      </Section>
      <OtherParts view={view} system={actor.unitSystem} check={check} />
      <Sites view={view} />
      <Section title="Vehicles">
        {view.vehicles.length === 0 && <Empty>No vehicle has this engine.</Empty>}
        <Box display="flex" flexWrap="wrap" columnGap="5" rowGap="1">
          {view.vehicles.map((vehicle) => (
            <Box key={vehicle.id}>
              <TextLink href={`/vehicles/${vehicle.id}`}>
                {vehicle.unitNumber} {vehicle.name}
              </TextLink>
              {vehicle.variant && (
                <Box as="span" color="soft">
                  , {vehicle.variant}
                </Box>
              )}
            </Box>
          ))}
        </Box>
      </Section>
    </>
  );
});

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
                  <Lines key="other" lines={family.otherWork.map((one) => otherWorkWords(one, system))} />,
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

/** What comes off on the way to the plugs, in its order. */
function Way({ view: { family, layout }, mayEdit }: { view: EngineView; mayEdit: boolean }) {
  const items = family.accessItems ?? [];
  return (
    <Section
      id="way"
      title="The way to the plugs"
      aside={
        mayEdit ? (
          <TextLink href={`/engines/${family.id}/way`}>{items.length > 0 ? 'change it' : 'write it'}</TextLink>
        ) : null
      }
    >
      {items.length === 0 ? (
        <Box color="soft">Nobody has written it: the steps go by how each bank is reached.</Box>
      ) : (
        <PlainTable heads={['', 'What', 'Opens', 'Held by', 'Off', 'On', 'Kit']}>
          {items.map((item, i) => (
            <tr key={item.key}>
              <td>{i + 1}</td>
              <td>
                {item.what}
                {item.onlyWith && <span className="soft"> only with {item.onlyWith}</span>}
                {item.insteadOf && (
                  <span className="soft"> instead of {items.find(({ key }) => key === item.insteadOf)?.what}</span>
                )}
              </td>
              <td>{sayOpens(layout.model, item.opens)}</td>
              <td>{item.fasteners && fastenersSaid(item.part, item.fasteners)}</td>
              <td>{item.minutesOff} min</td>
              <td>{item.minutesOn} min</td>
              <td>{[item.seal?.what, item.breaks?.what].filter(Boolean).join(', ')}</td>
            </tr>
          ))}
        </PlainTable>
      )}
    </Section>
  );
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

function OtherParts({
  view: { others, quantities },
  system,
  check,
}: {
  view: EngineView;
  system: UnitSystem;
  check: CheckForm | null;
}) {
  if (others.length === 0) return null;
  const count = new Map(quantities.map(({ component, quantity }) => [component, quantity]));
  return (
    <Section title="Other parts" aside="each with its own sheet and clock; the highest rank is in force">
      <OtherSheets scopes={others} count={count} system={system} check={check} />
    </Section>
  );
}

function Sites({ view: { layout } }: { view: EngineView }) {
  return (
    <Section title="Sites" aside="two plugs side by side need not serve one cylinder">
      <PlainTable heads={['Site', 'Where', 'Coil and terminal', 'Beside it in its bank']}>
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
