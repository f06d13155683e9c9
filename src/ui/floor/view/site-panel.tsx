'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useId, useRef, useState } from 'react';
import { cylinderText } from '@/core/engine/layout';
import { capital } from '@/core/shared/capital';
import { readAdapterMm, wrenchesFor } from '@/core/torque/at-vehicle';
import { personUnits } from '@/core/units/person-units';
import type { Json } from '@/core/work/entry';
import type { FloorPlug } from '@/core/work/job-record';
import { isNewAt, quantityIn, taskOf } from '@/core/work/order-model';
import { placeFaultsIn } from '@/core/work/order-rules';
import type { Faults } from '@/core/work/place-done';
import { PLACE_FIELDS, type PlaceQuantity, placeRecord } from '@/core/work/place-fields';
import type { Floor } from '../sync/use-floor';
import { InspectionResult } from './inspection-result';
import { LeaveIt } from './leave-it';
import { LotAndMore, NewPlugDrawn, TighteningDrawn } from './new-plug';
import { NumberPad } from './number-pad';
import { OldPlugDrawn } from './old-plug';
import { FieldHead, Press, Stop } from './parts';
import { PhotoRow } from './photo-row';
import { jumpTo, SavePlace } from './save-place';
import { curveJob, inUnit, MORE, NEW, OLD, only, type Part, type PlugSite, seenOf, TIGHT, text } from './site-parts';
import { type Wrench, WrenchPanel } from './wrench-panel';

/** What a person opened and chose at the site in hand. */
interface Here {
  readonly site: string;
  readonly active: PlaceQuantity;
  /** The person went to a field: a phone shows the pad under it. */
  readonly typing: boolean;
  readonly more: boolean;
  readonly atWrench: boolean;
  /** Saving was tried: what is missing is shown until it is there. */
  readonly tried: boolean;
}
const arrivedAt = (site: string): Here => ({
  site,
  active: 'removedGap',
  typing: false,
  more: false,
  atWrench: false,
  tried: false,
});

/** Where a person is at the site in hand. The next site takes over the panel as it stands: drawing it anew would wait. */
function useHere(site: string) {
  const [here, setHere] = useState(() => arrivedAt(site));
  if (here.site !== site) setHere(arrivedAt(site));
  return {
    ...here,
    change: (part: Partial<Here>) => setHere((before) => ({ ...before, ...part })),
    flip: (what: 'more' | 'atWrench') => setHere((before) => ({ ...before, [what]: !before[what] })),
  };
}

/** The next site begins at its top, where the eye looks for it. */
function useTopOf(site: string) {
  const panel = useRef<HTMLDivElement>(null);
  const shownAt = useRef(site);
  useEffect(() => {
    if (shownAt.current === site) return;
    shownAt.current = site;
    const { top = 0 } = panel.current?.getBoundingClientRect() ?? {};
    if (top < 0 || top > window.innerHeight / 2) panel.current?.scrollIntoView({ block: 'start' });
  }, [site]);
  return panel;
}

/** The wrench that is proposed for a plug; empty where the shop has none that suits. */
function wrenchFor({ wrenches, today }: Floor['job'], { rules }: FloorPlug, adapter: string): string {
  const [best] = wrenchesFor(wrenches, rules.torqueNm, readAdapterMm(adapter), today);
  return best?.ok ? best.wrench.name : '';
}

/** What the one button would write, and whether it may. */
function finishing({ job, record }: Floor, plug: FloorPlug, { target }: PlugSite) {
  const fields = record[target] ?? {};
  const over = {
    start: fields.start ?? 'by hand',
    torqueMethod: fields.torqueMethod ?? 'wrench',
    installedTorque: text(fields, 'installedTorque') || inUnit(plug.targetNm, job),
    wrench: text(fields, 'wrench') || wrenchFor(job, plug, text(fields, 'adapter')),
  };
  return { over, faults: () => placeFaultsIn(job, record, target, personUnits(job.units), over) };
}

interface SiteProps {
  readonly floor: Floor;
  readonly site: PlugSite;
  readonly plug: FloorPlug;
  /** What comes after it, as a person calls it; null: nothing is left. */
  readonly next: string | null;
  /** The target of the site that was described last, for "same as the last". */
  readonly last: string | null;
  readonly wrench: Wrench;
  readonly onNext: () => void;
}

/** One site: the old plug out and read, the new one in and tightened. One button says what it does and where it goes. */
export function SitePanel({ floor, site, plug, next, last, wrench, onNext }: SiteProps) {
  const { job, record, set, edit } = floor;
  const { target } = site;
  const fields = record[target] ?? {};
  const here = useHere(site.id);
  const { active, change } = here;
  const put = (field: string, value: Json) => set(target, field, value);
  const units = personUnits(job.units);
  const kind = PLACE_FIELDS[active].quantity;
  const pad = (
    <NumberPad
      at={`${target}/${active}`}
      kind={kind}
      value={text(fields, active)}
      unit={units[kind]}
      onChange={(value) => {
        edit(target, active);
        put(active, value);
      }}
    />
  );
  const part = {
    site,
    put,
    job,
    plug,
    active,
    activate: (field: PlaceQuantity) => {
      change({ active: field, typing: true });
      edit(target, field);
    },
    quantity: (name: PlaceQuantity): number | null => quantityIn(job, target, name, text(fields, name), units),
    pad: here.typing ? pad : null,
  };
  const finish = () => {
    edit(null);
    const { over, faults } = finishing(floor, plug, site);
    const [missing] = Object.keys(faults());
    change({ tried: missing !== undefined });
    if (missing !== undefined) return jumpTo(missing);
    put('start', over.start);
    put('torqueMethod', over.torqueMethod);
    if (over.torqueMethod === 'wrench') {
      put('installedTorque', over.installedTorque);
      if (over.wrench) put('wrench', over.wrench);
    }
    put('done', true);
    onNext();
  };
  return (
    <div className="site" ref={useTopOf(site.id)}>
      <SiteSide {...{ floor, site, last, here, part }} />
      <div className="site-hand">
        {here.atWrench ? <AtWrench {...{ fields, job, plug, wrench, put }} /> : <div className="pad-beside">{pad}</div>}
        <Finish
          {...{
            floor,
            site,
            plug,
            next,
            faults: here.tried ? finishing(floor, plug, site).faults() : {},
            finish,
            onNext,
          }}
        />
      </div>
    </div>
  );
}

/** What is read and noted of one site, from the old plug to the pictures. */
function SiteSide({
  floor,
  site,
  last,
  here,
  part,
}: Pick<SiteProps, 'floor' | 'site' | 'last'> & {
  here: ReturnType<typeof useHere>;
  part: Omit<Part, 'fields'>;
}) {
  const { job, record, set, edit } = floor;
  const { target } = site;
  const fields = record[target] ?? {};
  const seenAt = (at: string) => seenOf(record[at] ?? {});
  const bare = job.places.filter(
    (place) =>
      place.component === 'plug' &&
      !place.moved &&
      place.target !== target &&
      Object.keys(seenAt(place.target)).length === 0,
  );
  const looks = taskOf(job, site)?.action !== 'replace';
  return (
    <div className="site-side">
      <h2>{capital(cylinderText(site.name))}</h2>
      <span className="site-where">
        {site.where}
        {fields.done === true && ` · done by ${site.doneBy ?? 'you'}`}
      </span>
      {site.fittedWith && <div className="aside">When it was fitted: {site.fittedWith}.</div>}
      {site.redo && <Stop>Done under another sheet than the one in force: do it again, or have it released.</Stop>}
      <OldPlugDrawn
        {...part}
        fields={only(fields, OLD)}
        last={last ? seenAt(last) : null}
        bare={bare.length}
        more={here.more}
        onMore={() => here.flip('more')}
        onAlike={() => {
          for (const other of bare) set(other.target, 'seen', fields.seen ?? null);
        }}
      />
      {looks && <InspectionResult floor={floor} place={site} />}
      {isNewAt(job, record, site) && <NewPlugDrawn {...part} fields={only(fields, NEW)} />}
      <TighteningDrawn
        {...part}
        fields={only(fields, TIGHT)}
        setting={inUnit(part.plug.targetNm, job)}
        onWrench={() => here.flip('atWrench')}
      />
      <LotAndMore {...part} fields={only(fields, MORE)} before={last ? (record[last] ?? {}) : {}} />
      <LeaveIt floor={floor} place={site} />
      <Remark
        value={text(fields, 'remark')}
        onChange={(value) => part.put('remark', value)}
        onFocus={() => edit(target, 'remark')}
      />
      <PhotoRow key={target} target={target} job={job} waiting={floor.photos} onAdd={floor.addPhoto} />
    </div>
  );
}

function AtWrench({
  fields,
  job,
  plug,
  wrench,
  put,
}: Pick<Part, 'fields' | 'job' | 'plug' | 'put'> & {
  wrench: Wrench;
}) {
  return (
    <WrenchPanel
      wrench={wrench}
      job={curveJob(plug)}
      curve={placeRecord(fields).curve}
      system={job.units}
      onDone={(curve) => {
        put('curve', curve);
        put('torqueMethod', 'wrench');
        put('installedTorque', inUnit(curve.peakNm, job));
      }}
      onStop={(curve) => put('curve', curve)}
    />
  );
}

const METHOD_WORDS: Readonly<Record<string, string>> = { angle: 'tightened by angle', feel: 'tightened by feel' };

/** Saves the place as a plug that was started by hand and tightened; one that bound early is stopped first. */
function Finish({
  floor,
  site,
  plug,
  next,
  faults,
  finish,
  onNext,
}: Pick<SiteProps, 'floor' | 'site' | 'plug' | 'next' | 'onNext'> & { faults: Faults; finish: () => void }) {
  const done = floor.record[site.target]?.done === true;
  const { over } = finishing(floor, plug, site);
  const how = METHOD_WORDS[String(over.torqueMethod)] ?? `torqued ${over.installedTorque}`;
  const bound = over.start === 'bound early';
  const after = next ? `next: ${next}` : 'all cylinders done';
  return (
    <>
      <SavePlace
        name={cylinderText(site.name)}
        words={done ? after : `Started by hand, ${how}, ${after}`}
        done={done}
        faults={faults}
        onSave={finish}
        onNext={onNext}
        onTakeBack={() => floor.set(site.target, 'done', false)}
      />
      {!done && (
        <BoundEarly bound={bound} onPress={() => floor.set(site.target, 'start', bound ? 'by hand' : 'bound early')} />
      )}
    </>
  );
}

/** Cross-threading is stopped here: out, looked at, cleaned, and in again by hand. */
function BoundEarly({ bound, onPress }: { bound: boolean; onPress: () => void }) {
  return (
    <Box mt="2">
      {bound && (
        <Stop>
          Do not turn further. Back it out by hand, look at its thread and the hole, clean both, start it again by hand.
          Where it binds again, say below what the thread in the head is like: a supervisor decides.
        </Stop>
      )}
      <Press wide onPress={onPress}>
        {bound ? 'Out, cleaned, and in again by hand' : 'It bound early'}
      </Press>
    </Box>
  );
}

function Remark({
  value,
  onChange,
  onFocus,
}: {
  value: string;
  onChange: (value: string) => void;
  onFocus: () => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id}>
        <FieldHead name="Remark" />
      </label>
      <textarea
        id={id}
        className="remark"
        value={value}
        rows={1}
        onFocus={onFocus}
        onChange={(event) => onChange(event.target.value)}
      />
    </div>
  );
}
