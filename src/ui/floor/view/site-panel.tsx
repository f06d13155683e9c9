'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useId, useRef, useState } from 'react';
import { personUnits } from '@/core/units/person-units';
import type { Json } from '@/core/work/entry';
import type { FloorSite } from '@/core/work/job-record';
import { quantityIn, siteFaultsIn } from '@/core/work/order-model';
import type { Faults } from '@/core/work/site-done';
import { SITE_FIELDS, type SiteQuantity, siteRecord } from '@/core/work/site-fields';
import { siteTarget } from '@/core/work/targets';
import type { Floor } from '../sync/use-floor';
import { LotAndMore, NewPlugDrawn, TighteningDrawn } from './new-plug';
import { NumberPad } from './number-pad';
import { OldPlugDrawn } from './old-plug';
import { FieldHead, Press, Stop } from './parts';
import { PhotoRow } from './photo-row';
import { curveJob, inUnit, MORE, NEW, OLD, only, seenOf, TIGHT, text, torqueSetting } from './site-parts';
import { type Wrench, WrenchPanel } from './wrench-panel';

/** What a person opened and chose at the site in hand. */
interface Here {
  readonly site: string;
  readonly active: SiteQuantity;
  /** The person went to a field: a phone shows the pad under it. */
  readonly typing: boolean;
  readonly more: boolean;
  readonly atWrench: boolean;
  readonly faults: Faults;
}
const arrivedAt = (site: string): Here => ({
  site,
  active: 'removedGap',
  typing: false,
  more: false,
  atWrench: false,
  faults: {},
});

/** One site: the old plug out and read, the new one in and tightened. One button says what it does and where it goes. */
export function SitePanel({
  floor,
  site,
  next,
  last,
  wrench,
  onNext,
}: {
  floor: Floor;
  site: FloorSite;
  next: FloorSite | null;
  /** The site that was described last, for "same as the last". */
  last: FloorSite | null;
  wrench: Wrench;
  onNext: () => void;
}) {
  const { job, record, set, edit } = floor;
  const target = siteTarget(site.id);
  const fields = record[target] ?? {};
  const [here, setHere] = useState(() => arrivedAt(site.id));
  // The next site takes over the panel as it stands: drawing all of it anew would make every change of site wait.
  if (here.site !== site.id) setHere(arrivedAt(site.id));
  const { active, typing, more, atWrench, faults } = here;
  const change = (part: Partial<Here>) => setHere((before) => ({ ...before, ...part }));
  const flip = (what: 'more' | 'atWrench') => setHere((before) => ({ ...before, [what]: !before[what] }));
  const put = (field: string, value: Json) => set(target, field, value);
  const activate = (field: SiteQuantity) => {
    change({ active: field, typing: true });
    edit(target, field);
  };
  const system = job.units;
  const units = personUnits(system);
  const quantity = (name: SiteQuantity): number | null => quantityIn(job, site.id, name, text(fields, name), units);
  const panel = useRef<HTMLDivElement>(null);
  const shownAt = useRef(site.id);
  useEffect(() => {
    if (shownAt.current === site.id) return;
    shownAt.current = site.id;
    // The next site begins at its top, where the eye looks for it.
    const { top = 0 } = panel.current?.getBoundingClientRect() ?? {};
    if (top < 0 || top > window.innerHeight / 2) panel.current?.scrollIntoView({ block: 'start' });
  }, [site.id]);
  const bare = job.sites.filter(
    (other) => other.id !== site.id && Object.keys(seenOf(record[siteTarget(other.id)] ?? {})).length === 0,
  );
  const setting = torqueSetting(job);
  const done = fields.done === true;

  const finish = () => {
    edit(null);
    const torque = text(fields, 'installedTorque') || setting;
    const over = { torqueMethod: fields.torqueMethod ?? 'wrench', installedTorque: torque };
    const found = siteFaultsIn(job, record, site.id, units, over);
    change({ faults: found });
    if (Object.keys(found).length > 0) return;
    put('torqueMethod', over.torqueMethod);
    if (over.torqueMethod === 'wrench') put('installedTorque', torque);
    put('done', true);
    onNext();
  };
  const kind = SITE_FIELDS[active].quantity;
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
  const padUnder = typing ? pad : null;
  const method = String(fields.torqueMethod ?? 'wrench');
  const words = done
    ? `Site ${site.name} is done`
    : method === 'wrench'
      ? `Torqued ${text(fields, 'installedTorque') || setting}`
      : method === 'angle'
        ? 'Tightened by angle'
        : 'Tightened by feel';
  return (
    <div className="site" ref={panel}>
      <div className="site-side">
        <h2>Site {site.name}</h2>
        <span className="site-where">
          {site.where}
          {done && ` · done by ${site.doneBy ?? 'you'}`}
        </span>
        {site.fittedWith && <div className="aside">When it was fitted: {site.fittedWith}.</div>}
        {site.redo && <Stop>Done under another sheet than the one in force: do it again, or have it released.</Stop>}
        <OldPlugDrawn
          fields={only(fields, OLD)}
          {...{
            site,
            put,
            job,
            active,
            activate,
            quantity,
            pad: padUnder,
            more,
            onMore: () => flip('more'),
            bare: bare.length,
            onAlike: () => {
              for (const other of bare) set(siteTarget(other.id), 'seen', fields.seen ?? null);
            },
          }}
          last={last ? seenOf(record[siteTarget(last.id)] ?? {}) : null}
        />
        <NewPlugDrawn fields={only(fields, NEW)} {...{ site, put, job, active, activate, quantity, pad: padUnder }} />
        <TighteningDrawn
          fields={only(fields, TIGHT)}
          {...{ site, put, job, active, activate, quantity, pad: padUnder, setting }}
          onWrench={() => flip('atWrench')}
        />
        <LotAndMore
          {...{ site, put, job, active, activate, quantity, pad: padUnder }}
          fields={only(fields, MORE)}
          before={last ? (record[siteTarget(last.id)] ?? {}) : {}}
        />
        <Remark
          value={text(fields, 'remark')}
          onChange={(value) => put('remark', value)}
          onFocus={() => edit(target, 'remark')}
        />
        <PhotoRow key={target} target={target} job={job} waiting={floor.photos} onAdd={floor.addPhoto} />
      </div>
      <div className="site-hand">
        {atWrench ? (
          <WrenchPanel
            wrench={wrench}
            job={curveJob(job)}
            curve={siteRecord(fields).curve}
            system={system}
            onDone={(curve) => {
              put('curve', curve);
              put('torqueMethod', 'wrench');
              put('installedTorque', inUnit(curve.peakNm, job));
            }}
            onStop={(curve) => put('curve', curve)}
          />
        ) : (
          <div className="pad-beside">{pad}</div>
        )}
        <div className="site-main">
          {Object.keys(faults).length > 0 && !done && (
            <div className="fault" role="alert">
              {Object.values(faults).map((fault) => (
                <div key={fault}>{fault}</div>
              ))}
            </div>
          )}
          {done ? (
            <Press main wide onPress={onNext}>
              {next ? `${words}. Next: ${next.name}` : words}
            </Press>
          ) : (
            <Press main wide onPress={finish}>
              {words}
              {next ? `, next: ${next.name}` : ', all sites done'}
            </Press>
          )}
        </div>
        {done && (
          <Box mt="2">
            <Press wide onPress={() => put('done', false)}>
              Take site {site.name} back
            </Press>
          </Box>
        )}
      </div>
    </div>
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
