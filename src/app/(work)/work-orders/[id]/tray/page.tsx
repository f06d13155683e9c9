import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { alongBank, cylinderText } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { isOfEngine } from '@/core/engine/places';
import { NORMAL } from '@/core/inspection/vocabulary';
import { capital } from '@/core/shared/capital';
import type { UnitSystem } from '@/core/units/person-units';
import { siteTarget } from '@/core/work/targets';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { listPeople } from '@/server/fleet/people';
import { seenAt } from '@/server/work-orders/place-record';
import { viewWorkOrder, type WorkOrderSiteView, type WorkOrderView } from '@/server/work-orders/view-work-order';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { dateText, gapText, rangeTexts, wearText } from '@/text/format';
import { measuredTexts } from '@/text/task-words';
import { PartDrawing } from '@/ui/drawings/part-drawing';
import { NewPlugDrawing, PlugDrawing } from '@/ui/drawings/plug-drawing';
import { KeptPhoto } from '@/ui/primitives/kept-photo';
import { ButtonLink } from '@/ui/primitives/links';
import { Code, PageHead } from '@/ui/primitives/page';
import { PrintButton } from '@/ui/primitives/print-button';
import { FindingsSection } from '../findings-section';

type Props = { params: Promise<{ id: string }> };

/** The removed plugs side by side in engine order, drawn from what was recorded, and what they say together. */
export default page(async function TrayPage({ params }: Props) {
  const actor = await requireActor();
  const { id } = await params;
  const view = await viewWorkOrder(deps(), actor, id);
  mustShow(view);
  const { order, vehicle, layout, sites } = view.value;
  const people = await listPeople(deps(), actor);
  const looked = sites.filter(({ conditions }) => conditions !== null).length;
  return (
    <>
      <PageHead
        trail={[
          ['Work orders', '/work-orders'],
          [`Work order ${order.number}`, `/work-orders/${id}/findings`],
        ]}
        title={`Removed parts, unit ${vehicle.unitNumber} ${vehicle.name}`}
        actions={<PrintButton />}
      >
        {order.trayFirst
          ? `Laid from ${cylinderText(order.trayFirst)}`
          : 'Direction of the tray not declared: no bank can be named'}{' '}
        · {looked} of {sites.length} described
        {sites.some(({ differs }) => differs) &&
          ` · found part differs at ${sites
            .filter(({ differs }) => differs)
            .map(({ name }) => name)
            .join(', ')}`}
      </PageHead>
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', xl: 'minmax(0, 3fr) minmax(0, 2fr)' }} gap="8">
        <Box minW="0">
          {sites.length > 0 &&
            layout.model.banks.map((bank, i) => {
              const row = alongBank(layout, i + 1).flatMap((at) => sites.filter((site) => siteId(site) === siteId(at)));
              return (
                <Box key={bank.place} mb="5" borderTop="1px solid" borderColor="line" pt="2">
                  <Box color="soft">
                    {[bank.place === 'only' ? '' : `${bank.place} bank`, bankWear(row, actor.unitSystem)]
                      .filter(Boolean)
                      .join(' · ')}
                  </Box>
                  <div className="on-tray">
                    <figure>
                      <figcaption>New</figcaption>
                      <NewPlugDrawing gapMm={newGapOf(row, view.value)} seat={seatOf(view.value)} />
                      <span className="soft small">
                        {first(gapText(newGapOf(row, view.value), actor.unitSystem))}, nose clean, edges sharp
                      </span>
                    </figure>
                    {row.map((site) => (
                      <OnTray key={site.id} site={site} view={view.value} system={actor.unitSystem} />
                    ))}
                  </div>
                </Box>
              );
            })}
          <OtherParts view={view.value} />
        </Box>
        <Box minW="0">
          <FindingsSection
            view={view.value}
            actor={actor}
            people={
              people.ok
                ? people.value.flatMap(({ id: person, name, active }) =>
                    active ? [{ value: person, label: name }] : [],
                  )
                : []
            }
          />
        </Box>
      </Grid>
      {may(actor, 'record work') && (
        <Box data-no-print>
          <ButtonLink href="/work-orders/guide">Guide to removed parts</ButtonLink>
        </Box>
      )}
    </>
  );
});

/** What came out besides plugs, or was looked at: drawn from what was recorded, with what was measured. */
function OtherParts({ view: { tasks, layout } }: { view: WorkOrderView }) {
  const others = tasks.flatMap(({ row: { component }, places }) =>
    component === 'plug' ? [] : [{ component, places: places.filter(({ state }) => state !== 'moved') }],
  );
  const whole = others.filter(({ component }) => isOfEngine(component));
  const rows = [
    ...others
      .filter(({ component }) => !isOfEngine(component))
      .map(({ component, places }) => ({
        words: COMPONENT_WORDS[component],
        parts: places.map((place) => ({ component, place })),
      })),
    {
      words: 'Of the whole engine',
      parts: whole.flatMap(({ component, places }) => places.map((place) => ({ component, place }))),
    },
  ];
  return rows
    .filter(({ parts }) => parts.length > 0)
    .map(({ words, parts }) => (
      <Box key={words} mb="5" borderTop="1px solid" borderColor="line" pt="2">
        <Box color="soft">{words}</Box>
        <div className="on-tray">
          {parts.map(({ component, place: { id, name, place } }) => (
            <figure key={`${component} ${id}`}>
              <figcaption>
                {isOfEngine(component) ? <small>{name}</small> : name.replace(/^\D+/, '') || name}
              </figcaption>
              <PartDrawing component={component} seen={seenAt(place)} title={name} towers={layout.cylinders} />
              <Box fontSize="sm" minW="0">
                <Box>{seenWords(place.conditions)}</Box>
                {besideIt(place).map((line) => (
                  <Box key={line} color="soft">
                    {line}
                  </Box>
                ))}
              </Box>
            </figure>
          ))}
        </div>
      </Box>
    ));
}

type PlaceOnTray = WorkOrderView['tasks'][number]['places'][number]['place'];

const besideIt = (place: PlaceOnTray): readonly string[] => [
  ...measuredTexts(place),
  ...(place.grade === null ? [] : [`grade ${place.grade} of 5`]),
  ...(place.tagOut ? [`serial ${place.tagOut}`] : []),
];

/** The gap that the plugs of a bank went in with, or the middle of the sheet's where nobody wrote it down. */
function newGapOf(row: readonly WorkOrderSiteView[], { plug }: WorkOrderView): number | null {
  const fitted = row.flatMap(({ fittedGapMm, differs }) => (fittedGapMm === null || differs ? [] : fittedGapMm));
  return fitted[0] ?? (plug && (plug.spec.gapMinMm + plug.spec.gapMaxMm) / 2);
}

const seatOf = ({ plug }: WorkOrderView): 'gasket' | 'conical' => plug?.spec.part.seat ?? 'gasket';

/** Gaps and wear of a bank in one line, to be held beside the other. */
function bankWear(row: readonly WorkOrderSiteView[], system: UnitSystem): string {
  const gaps = row.flatMap(({ removedGapMm }) => removedGapMm ?? []).sort((a, b) => a - b);
  const rates = row.flatMap(({ growth }) => growth ?? []);
  const [least, most] = [gaps[0], gaps.at(-1)];
  if (least === undefined || most === undefined) return '';
  const [range] = rangeTexts(least, most, system, 'gap');
  const mean = rates.reduce((sum, rate) => sum + rate, 0) / rates.length;
  return `gaps ${range}${rates.length > 0 ? `, wear ${wearText(mean, system)}` : ''}`;
}

function OnTray({ site, view, system }: { site: WorkOrderSiteView; view: WorkOrderView; system: UnitSystem }) {
  const limit = view.plug?.gapLimitMm ?? Number.POSITIVE_INFINITY;
  const over = site.removedGapMm !== null && site.removedGapMm > limit;
  return (
    <figure>
      <figcaption>{site.name}</figcaption>
      <PlugDrawing
        seen={seenAt(site)}
        gapMm={site.removedGapMm}
        seat={seatOf(view)}
        title={capital(cylinderText(site.name))}
      />
      <Box fontSize="sm" minW="0">
        <Box fontWeight="650" fontSize="16px" color={over ? 'wrong.ink' : undefined}>
          {first(gapText(site.removedGapMm, system))}
          {over && ', over the limit'}
        </Box>
        {site.removedGapMm !== null && <Box color="soft">{second(gapText(site.removedGapMm, system))}</Box>}
        <Box color="soft">
          {site.fittedGapMm === null || site.differs
            ? 'fitted gap unknown'
            : `was ${first(gapText(site.fittedGapMm, system))}`}
        </Box>
        {site.growth !== null && (
          <Box color={site.wearsFaster ? 'wrong.ink' : 'soft'}>
            {site.growth >= 0 ? '+' : ''}
            {wearText(site.growth, system)}
            {site.wearsFaster && ', faster than the others'}
          </Box>
        )}
        <Box mt="1">{seenWords(site.conditions)}</Box>
        {site.breakawayFeel && <Box color="soft">came loose: {site.breakawayFeel}</Box>}
        <Flex color={site.differs ? 'wrong.ink' : 'soft'} wrap="wrap" gap="1">
          {site.observedNumber ? <Code>{site.observedNumber}</Code> : <span>number not read</span>}
          {site.differs && <span>record says {site.expectedNumber}</span>}
        </Flex>
        <Photos order={view.order.id} photos={view.photos} site={site} />
        <SetBefore site={site} view={view} system={system} />
      </Box>
    </figure>
  );
}

type Photos = WorkOrderView['photos'];

function Photos({ order, photos, site }: { order: string; photos: Photos; site: WorkOrderSiteView }) {
  const here = photos.filter(({ target }) => target === siteTarget(siteId(site)));
  if (here.length === 0) return null;
  return (
    <Flex gap="1" mt="1" wrap="wrap" data-no-print>
      {here.map(({ id, who }) => (
        <KeptPhoto key={id} order={order} photo={id} words={`${capital(cylinderText(site.name))}, by ${who}`} />
      ))}
    </Flex>
  );
}

/** The plug that sat here before this one, to be held beside it. */
function SetBefore({
  site,
  view: { before },
  system,
}: {
  site: WorkOrderSiteView;
  view: WorkOrderView;
  system: UnitSystem;
}) {
  const then = before?.places.find((row) => siteId(row) === siteId(site));
  if (!before || !then) return null;
  const seen = seenWords(then.conditions);
  return (
    <Box mt="1" color="soft" borderTop="1px solid" borderColor="hair">
      before it, {dateText(before.on)}:{' '}
      {then.removedGapMm === null ? '' : `${first(gapText(then.removedGapMm, system))}, `}
      {seen}
      {then.remark && `, ${then.remark}`}
      <Photos order={before.id} photos={before.photos} site={site} />
    </Box>
  );
}

/** A figure in the person's unit, and in the other. */
const first = (text: string): string => text.split(' · ')[0] ?? '';
const second = (text: string): string => text.split(' · ')[1] ?? '';

/** What was seen, told by what is not as it should be. */
function seenWords(conditions: readonly string[] | null): string {
  if (conditions === null) return 'not looked at';
  return conditions.filter((word) => !NORMAL.has(word)).join(', ') || 'normal';
}
