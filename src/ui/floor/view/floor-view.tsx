'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { startTransition, useEffect, useState } from 'react';
import { stopBefore } from '@/core/work/gates';
import type { FloorJob } from '@/core/work/job-record';
import { countsIn, openPlacesIn, type PlaceModel, placeIn, stepStateIn } from '@/core/work/order-model';
import { siteTarget } from '@/core/work/targets';
import { keepPage } from '@/ui/primitives/keep-page';
import type { FormAction } from '../../primitives/action-form';
import { Caution, TabTitle } from '../../primitives/page';
import { PartBoundary } from '../../primitives/part-boundary';
import { Unsent } from '../../sync/unsent';
import { StoppedBanner } from '../../work-orders/stopped-banner';
import { type Floor, useFloor } from '../sync/use-floor';
import { CylinderPanel } from './cylinder-panel';
import { Differences } from './differences';
import { GateStop, LiftedGates, stopAt } from './gate-stop';
import { JobEngine } from './job-engine';
import { Press } from './parts';
import { ENGINE, nextPlace, placesAt, stateAt } from './places-at';
import { SetPanel } from './set-panel';
import { SoakPanel } from './soak-panel';
import { StepPanel } from './step-panel';
import { StopFindings } from './stop-findings';
import { Told } from './told';
import type { Wrench } from './wrench-panel';

const PLACES = [
  ['parts', 'New parts'],
  ['steps', 'Steps'],
  ['sites', 'Cylinders'],
] as const;
type Where = (typeof PLACES)[number][0];

interface At {
  readonly where: Where;
  /** The plug site in hand, or the engine for what it has one of. */
  readonly site: string;
  /** The part in hand there, by its target; empty: the first that is to do. */
  readonly part: string;
}

/** What stands in the address after #: it outlives a reload. "sites-3A", "sites-3A-coil", "steps". */
function readHash(job: FloorJob): At {
  const [where, site = '', component] = (typeof window === 'undefined' ? '' : window.location.hash.slice(1)).split('-');
  const first = openPlacesIn(job, job.record)[0] ?? job.places[0];
  const known = placesAt(job, site);
  return {
    where: PLACES.find(([place]) => place === where)?.[0] ?? firstPlace(job),
    site: known.length > 0 ? site : (first?.id ?? job.sites[0]?.id ?? ''),
    part: known.find((place) => place.component === component)?.target ?? '',
  };
}

/** Where the work begins: at the steps, as long as a gate stands before the plugs. */
const firstPlace = (job: FloorJob): Where => (stopBefore(job, job.record, 'out') === null ? 'sites' : 'steps');

/** Where the address says that the person is. */
function usePlace(first: FloorJob): At {
  const [at, setAt] = useState<At>({ where: 'sites', site: first.places[0]?.id ?? '', part: '' });
  useEffect(() => {
    setAt(readHash(first));
    // What the press itself did is painted first.
    const follow = () => startTransition(() => setAt(readHash(first)));
    window.addEventListener('hashchange', follow);
    return () => window.removeEventListener('hashchange', follow);
  }, [first]);
  return at;
}

/** Seized plugs that are still in; by the long method every well soaks before its plug is asked how it comes. */
function soaksOf({ job, record }: Floor) {
  const longRemoval = job.steps.some(({ kind }) => kind === 'loosen_long');
  return job.places.flatMap(({ id, name, component, target, moved }) => {
    if (component !== 'plug' || moved) return [];
    const { breakawayFeel, removedGap, done, soakedAt } = placeIn(record, target);
    const seized = breakawayFeel === 'seized';
    const soaks = seized || (longRemoval && breakawayFeel === null);
    return soaks && !removedGap && !done ? [{ id, name, seized, soakedAt }] : [];
  });
}

/** The engine as the index, one site or step in hand, and what is not yet sent. Works with the network gone. */
export function FloorView({
  first,
  wrench,
  deskHref,
  codesHref,
  stopHref,
  goOn,
}: {
  first: FloorJob;
  wrench: Wrench;
  deskHref: string;
  codesHref: string;
  stopHref: string;
  goOn: FormAction;
}) {
  const floor = useFloor(first);
  const { job } = floor;
  const at = usePlace(first);
  useEffect(keepPage, []);
  const go = (where: Where, site = at.site, component = '') => {
    floor.edit(null);
    const part = placesAt(job, site).length > 1 ? component : '';
    window.location.hash = where === 'sites' ? ['sites', site, part].filter(Boolean).join('-') : where;
  };
  return (
    // The mark by which the device knows a whole page from one that failed midway (src/workers/service-worker).
    <Box fontSize="17px" css={{ touchAction: 'manipulation' }} data-at-vehicle={job.orderId}>
      {/* Its height never depends on what the badge says: a press must not land beside its target because an answer came. */}
      <Head floor={floor} deskHref={deskHref} />
      {/* Until the device's store has been read a press would be lost: it is not taken. */}
      <div inert={!floor.ready} aria-busy={!floor.ready}>
        <nav className="floor-nav" aria-label="Parts of the job">
          {PLACES.map(([place, name]) => (
            <Press key={place} chosen={at.where === place} onPress={() => go(place)}>
              {name}
            </Press>
          ))}
          <WorkClock floor={floor} />
          {floor.undo && <Press onPress={floor.undo}>Undo</Press>}
          <a href={stopHref}>Job stops here…</a>
        </nav>
        <StoppedBanner stops={job.stops} workOrderId={job.orderId} goOn={goOn} />
        <PartBoundary name="What stops the work">
          <StopFindings floor={floor} />
        </PartBoundary>
        <PartBoundary name="Differences">
          <Differences floor={floor} />
        </PartBoundary>
        <PartBoundary name="Entries that were not accepted">
          <Told floor={floor} />
        </PartBoundary>
        <LiftedGates floor={floor} />
        {job.sheetChanged && (
          <Box mb="3">
            <Caution>{job.sheetChanged} Take it over on the work order before going on.</Caution>
          </Box>
        )}
        {at.where === 'parts' && (
          <PartBoundary name="The new parts">
            <SetPanel floor={floor} />
          </PartBoundary>
        )}
        {at.where === 'steps' && (
          <PartBoundary name="The steps">
            <StepPanel
              floor={floor}
              onCodes={codesHref}
              onFollowUp={`${deskHref}#follow-ups`}
              onSites={() => go('sites')}
            />
          </PartBoundary>
        )}
        {at.where === 'sites' && (
          <AtSites floor={floor} at={at} go={go} wrench={wrench} liftHref={`${deskHref}/procedure#gates`} />
        )}
      </div>
    </Box>
  );
}

/** The engine, and under it the part in hand. */
function AtSites({
  floor,
  at,
  go,
  wrench,
  liftHref,
}: {
  floor: Floor;
  at: At;
  go: (where: Where, site?: string, component?: string) => void;
  wrench: Wrench;
  liftHref: string;
}) {
  const { job, record } = floor;
  const [described, setDescribed] = useState<string | null>(null);
  const here = placesAt(job, at.site);
  const place =
    here.find(({ target }) => target === at.part) ?? here.find((open) => stateAt(record, open) === 'open') ?? here[0];
  if (!place) return null;
  const next = nextPlace(job, record, place);
  const stop = stopAt(floor, place);
  const engine = placesAt(job, ENGINE).map(({ name }) => name);
  return (
    <>
      <Grid
        templateColumns={{ base: 'minmax(0, 1fr)', md: 'minmax(0, 5fr) minmax(0, 3fr)' }}
        gap="4"
        alignItems="center"
      >
        <Box minW="0">
          <JobEngine floor={floor} here={at.site} />
          {engine.length > 0 && (
            <Box mt="2">
              <Press chosen={at.site === ENGINE} onPress={() => go('sites', ENGINE)}>
                {engine.join(', ')}
              </Press>
            </Box>
          )}
        </Box>
        <Box>
          <Caution>
            {job.caution} {portsOpen(floor)}
          </Caution>
          <TrayDirection floor={floor} />
        </Box>
      </Grid>
      <Soaks floor={floor} here={at.site} onGo={(id) => go('sites', id, 'plug')} />
      {stop && <GateStop floor={floor} why={stop} liftHref={liftHref} onSteps={() => go('steps')} />}
      <PartBoundary key={place.target} name="This part">
        {/* Seen, and not touched before its gates are open: what would be typed here would not be taken. */}
        <div inert={stop !== null} data-shut={stop !== null || undefined}>
          <CylinderPanel
            floor={floor}
            place={place}
            next={next}
            last={described === place.target ? null : described}
            wrench={wrench}
            onPart={(component) => go('sites', at.site, component)}
            onNext={() => {
              if (place.component === 'plug') setDescribed(place.target);
              if (next) go('sites', next.id, next.component);
              else go('steps');
            }}
          />
        </div>
      </PartBoundary>
    </>
  );
}

/** Wells that soak, where a plug is to come out. */
function Soaks({ floor, here, onGo }: { floor: Floor; here: string; onGo: (id: string) => void }) {
  const { job, record, set } = floor;
  if (!job.plug) return null;
  return (
    <SoakPanel
      sites={soaksOf(floor)}
      here={here}
      targetNm={job.plug.targetNm}
      system={job.units}
      onSoak={(id, when) => set(siteTarget(id), 'soakedAt', when)}
      onGo={onGo}
      onFree={(id) => {
        const target = siteTarget(id);
        set(target, 'breakawayFeel', 'tight');
        set(target, 'remark', `${record[target]?.remark ?? ''} was seized, came out after soaking`.trim());
      }}
    />
  );
}

/** What is in hand and what is left of it. */
function Head({ floor, deskHref }: { floor: Floor; deskHref: string }) {
  const { job, record } = floor;
  const left = openPlacesIn(job, record);
  const stepsOpen = job.steps.filter((step) => !step.perSite && stepStateIn(record, step.key) === 'open').length;
  return (
    <div className="floor-head">
      <TabTitle name={`At the vehicle: unit ${job.unitNumber} ${job.vehicleName}`} />
      <div>
        <h1>
          Unit {job.unitNumber} {job.vehicleName}
        </h1>
        <div className="aside">
          <a href={deskHref}>Work order {job.orderNumber}</a> · {job.engineCode}
          {kitWords(floor)}
        </div>
        <div className="aside">
          {leftWords(left)}
          {stepsOpen > 0 && ` · ${stepsOpen} steps open`}
        </div>
        {job.noteBefore && <div className="aside">The last time: {job.noteBefore}</div>}
      </div>
      <div className="unsent-place">
        <Unsent {...floor} />
      </div>
    </div>
  );
}

const MAX_NAMED = 8;

/** Short enough for one line; the drawing shows every one. */
function leftWords(places: readonly PlaceModel[]): string {
  if (places.length === 0) return 'all cylinders done';
  const shown = places.slice(0, MAX_NAMED);
  const [plugs, others] = [true, false].map((isPlug) =>
    shown.filter(({ component }) => (component === 'plug') === isPlug).map(({ name }) => name),
  );
  const more = places.length > MAX_NAMED ? ` and ${places.length - MAX_NAMED} more` : '';
  return `left: ${[plugs?.join(' '), ...(others ?? [])].filter(Boolean).join(', ')}${more}`;
}

/** What goes in, by number. */
function kitWords({ job, record }: Floor): string {
  return job.tasks
    .map(({ id, action, rules }) => {
      const places = job.places.filter(
        ({ task, moved, target }) => task === id && !moved && !placeIn(record, target).leftWhy,
      );
      return action === 'replace' && places.length > 0 ? ` · ${rules.partNumber} × ${places.length}` : '';
    })
    .join('');
}

function WorkClock({ floor: { job, setWorking } }: { floor: Floor }) {
  if (!job.live) return null;
  const since = job.workingSince
    ? new Date(job.workingSince).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
    : null;
  return (
    <Press chosen={since !== null} onPress={() => setWorking(since === null)}>
      {since ? `working since ${since}: pause` : `start work (${job.minutesWorked} of ${job.minutes} min)`}
    </Press>
  );
}

/** The first plug on the tray and the direction of the row, before the first is laid down. */
function TrayDirection({ floor: { job, record, set } }: { floor: Floor }) {
  const declared = record.order?.trayFirst;
  const plugs = job.sites.filter(({ id }) => placesAt(job, id).some(({ component }) => component === 'plug'));
  if (declared || plugs.length < 2) return null;
  const [firstSite] = plugs;
  const lastSite = plugs.at(-1);
  return (
    <Flex gap="2" wrap="wrap" align="center" mt="3">
      <Box>The tray: which plug is laid first?</Box>
      {[firstSite, lastSite].map(
        (site) =>
          site && (
            <Press key={site.id} onPress={() => set('order', 'trayFirst', site.id)}>
              from {site.name}
            </Press>
          ),
      )}
      <Box color="soft" fontSize="15px">
        without it no bank can be named
      </Box>
    </Flex>
  );
}

function portsOpen({ job, record }: Floor): string {
  const open = countsIn(job, record).flatMap(({ kind, out, back, expected }) =>
    kind === 'rags' && out !== null && back === null ? [`rags in ${out} of ${expected}`] : [],
  );
  return open.length > 0 ? `Intake ports are open: ${open.join(', ')}.` : '';
}
