import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { siteId } from '@/core/engine/layout';
import { CONDITIONS, type ConditionRegion } from '@/core/reading/vocabulary';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewWorkOrder, type WorkOrderSiteView, type WorkOrderView } from '@/server/work-orders/view-work-order';
import { EngineDrawing, type SiteMark } from '@/ui/drawings/engine-drawing';
import { gapText, rangeTexts, torqueText, type UnitSystem } from '@/ui/format/format';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { Caution, Empty, PageHead } from '@/ui/primitives/page';
import { SiteForm } from '@/ui/work-orders/site-form';
import { siteAction } from '../../../actions';

type Props = { params: Promise<{ id: string; site: string }> };

export default async function SitePage({ params }: Props) {
  const actor = await requireActor();
  const { id, site: wanted } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  if (!view.ok) return <Empty>{view.error.message}</Empty>;
  const { order, vehicle, family, spec, layout, sites, steps, threads } = view.value;
  const site = sites.find((s) => siteId(s) === wanted);
  if (!site)
    return (
      <Empty>
        This engine has no site {wanted.slice(0, 8)}.{' '}
        <TextLink href={`/work-orders/${id}`}>Back to the work order</TextLink>
      </Empty>
    );
  const live = order.state !== 'closed' && order.state !== 'cancelled' && may(actor, 'record work');
  const next = nextOpen(sites, site);
  const [gap, gapOther] = rangeTexts(spec.gapMinMm, spec.gapMaxMm, actor.unitSystem, 'gap');
  const [torque, torqueOther] = rangeTexts(spec.torqueMinNm, spec.torqueMaxNm, actor.unitSystem, 'torque');
  const todo = sites.filter((s) => s.doneAt === null);
  return (
    <Box fontSize={{ base: '17px', md: '18px' }}>
      <PageHead
        title={`Site ${site.name} · unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={<ButtonLink href={`/work-orders/${id}`}>Work order {order.number}</ButtonLink>}
      >
        {site.where} · {family.code} · {todo.length} of {sites.length} to do
        {fittedWords(site) && <Box>{fittedWords(site)}</Box>}
      </PageHead>
      <Grid
        templateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 7fr) minmax(0, 5fr)' }}
        templateAreas={{ base: '"engine" "form" "steps"', lg: '"form engine" "form steps"' }}
        templateRows={{ lg: 'auto 1fr' }}
        columnGap="6"
        rowGap="4"
      >
        <Box minW="0" gridArea="form">
          {live ? (
            <SiteForm
              key={siteId(site)}
              action={siteAction}
              workOrderId={id}
              site={{ ...carriedOn(site, sites, threads.compound), done: site.doneAt !== null }}
              siteName={site.name}
              expected={site.expectedNumber}
              partNumber={spec.part.number}
              gapHint={`spec ${gap} · ${gapOther}`}
              torqueHint={`spec ${torque} · ${torqueOther}`}
              fittedGap={
                site.fittedGapMm === null
                  ? 'gap when fitted is not known'
                  : `fitted at ${gapText(site.fittedGapMm, actor.unitSystem)}`
              }
              typedIn={actor.unitSystem === 'us' ? { gap: 'in', torque: 'lbf·ft' } : { gap: 'mm', torque: 'N·m' }}
              regions={Object.entries(CONDITIONS).map(([region, conditions]) => ({
                region: REGION_WORDS[region as ConditionRegion],
                conditions,
              }))}
              next={
                next
                  ? { href: `/work-orders/${id}/sites/${siteId(next)}`, name: next.name }
                  : { href: `/work-orders/${id}`, name: null }
              }
            />
          ) : (
            <Empty>This work order is {order.state}. What was recorded stands on its page.</Empty>
          )}
        </Box>
        <Box minW="0" gridArea="engine">
          <EngineDrawing
            layout={layout}
            marks={marksOf(id, sites, site, actor.unitSystem)}
            title="Engine: choose a site"
          />
          <Box mt="3">
            <Caution>{steps.find((step) => step.perSite)?.caution ?? 'Start every plug by hand.'}</Caution>
          </Box>
        </Box>
        <Box minW="0" gridArea="steps">
          <NextSteps view={view.value} />
        </Box>
      </Grid>
    </Box>
  );
}

const REGION_WORDS: Readonly<Record<ConditionRegion, string>> = {
  nose: 'Insulator nose',
  deposits: 'Deposits',
  electrodes: 'Electrodes',
  shell: 'Shell and threads',
  gasket: 'Gasket',
  insulator: 'Insulator outside',
  well: 'Well',
  boot: 'Boot',
  connector: 'Connector',
};

/** Lot, compound and batch as at the site done last, or as the rule in force has them: they seldom change within an engine. */
function carriedOn(site: WorkOrderSiteView, sites: readonly WorkOrderSiteView[], rule: 'nickel' | 'copper' | null) {
  const last = sites
    .filter((s) => s.doneAt !== null)
    .sort((a, b) => (b.doneAt?.getTime() ?? 0) - (a.doneAt?.getTime() ?? 0))[0];
  if (site.doneAt) return site;
  return {
    ...site,
    newLot: site.newLot ?? last?.newLot ?? null,
    compound: site.compound ?? last?.compound ?? (rule ? `${rule} compound` : null),
    compoundBatch: site.compoundBatch ?? last?.compoundBatch ?? null,
  };
}

/** What the next one to undo it wants to know of how it was fitted. */
function fittedWords({ fitted }: WorkOrderSiteView): string | null {
  if (!fitted) return null;
  const { lot, compound, compoundBatch } = fitted;
  if (!lot && !compound) return null;
  const batch = compoundBatch ? `, batch ${compoundBatch}` : '';
  return `When it was fitted: ${[lot && `lot ${lot}`, compound ? `${compound}${batch}` : 'threads dry'].filter(Boolean).join('; ')}.`;
}

/** The next site to do after this one, round to the first. */
function nextOpen(sites: readonly WorkOrderSiteView[], now: WorkOrderSiteView): WorkOrderSiteView | null {
  const at = sites.indexOf(now);
  return [...sites.slice(at + 1), ...sites.slice(0, at)].find((site) => site.doneAt === null) ?? null;
}

function marksOf(
  id: string,
  sites: readonly WorkOrderSiteView[],
  now: WorkOrderSiteView,
  system: UnitSystem,
): Record<string, SiteMark> {
  const first = (text: string) => text.split(' · ')[0] ?? '';
  return Object.fromEntries(
    sites.map((site) => [
      siteId(site),
      {
        state: site === now ? ('now' as const) : site.doneAt ? ('done' as const) : ('todo' as const),
        lines:
          site.doneAt && site !== now
            ? [
                first(gapText(site.newGapMm, system)),
                ...(site.installedTorqueNm ? [first(torqueText(site.installedTorqueNm, system))] : []),
              ]
            : [],
        href: `/work-orders/${id}/sites/${siteId(site)}`,
      },
    ]),
  );
}

function NextSteps({ view: { steps } }: { view: WorkOrderView }) {
  const open = steps.filter((step) => step.state === 'open' && !step.perSite);
  if (open.length === 0) return null;
  return (
    <Box mt="4" fontSize="15px">
      <Box color="soft">Steps without an answer</Box>
      {open.map((step) => (
        <Flex key={step.id} gap="2" py="1" borderBottom="1px solid" borderColor="hair">
          <span aria-hidden="true">○</span>
          {step.title}
        </Flex>
      ))}
    </Box>
  );
}
