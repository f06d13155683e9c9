'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useId, useRef, useState } from 'react';
import { cylinderText } from '@/core/engine/layout';
import { capital } from '@/core/shared/capital';
import { personUnits } from '@/core/units/person-units';
import type { Fields } from '@/core/work/entry';
import type { FloorPlace, FloorPlug, FloorTask } from '@/core/work/job-record';
import { isNewAt, quantityIn } from '@/core/work/order-model';
import { placeFaultsIn } from '@/core/work/order-rules';
import { type PlaceField, type PlaceQuantity, placeRecord, quantityField } from '@/core/work/place-fields';
import { sayPlaces } from '@/core/work/say-places';
import type { Floor } from '../sync/use-floor';
import { curveJob, type Hand, only, plugAt, SHOWN, seenOf, settingText, targetNmOf, text, wrenchInHand } from './hand';
import { InspectionResult } from './inspection-result';
import { LeaveIt } from './leave-it';
import { NewPart } from './new-part';
import { NumberPad } from './number-pad';
import { OldPart } from './old-part';
import { FieldHead, Press, Stop } from './parts';
import { PhotoRow } from './photo-row';
import { jumpTo, SavePlace } from './save-place';
import { LotAndMore, Tightening } from './tightening';
import { type Wrench, WrenchPanel } from './wrench-panel';

/** What a person opened and chose at the place in hand. */
interface Opened {
  readonly target: string;
  readonly active: PlaceQuantity | null;
  /** The person went to a field: a phone shows the pad under it. */
  readonly typing: boolean;
  readonly more: boolean;
  readonly atWrench: boolean;
  /** Saving was tried: what is missing is shown until it is there. */
  readonly tried: boolean;
}
const arrivedAt = ({ target, component }: FloorPlace): Opened => ({
  target,
  active: component === 'plug' ? 'removedGap' : null,
  typing: false,
  more: false,
  atWrench: false,
  tried: false,
});

/** Where a person is at the place in hand. The next place takes over the panel as it is: drawing it anew would wait. */
function useOpened(place: FloorPlace) {
  const [opened, setOpened] = useState(() => arrivedAt(place));
  if (opened.target !== place.target) setOpened(arrivedAt(place));
  return {
    ...opened,
    change: (part: Partial<Opened>) => setOpened((before) => ({ ...before, ...part })),
    flip: (what: 'more' | 'atWrench') => setOpened((before) => ({ ...before, [what]: !before[what] })),
  };
}

/** The next place begins at its top, where the eye looks for it. */
function useTopOf(target: string) {
  const panel = useRef<HTMLDivElement>(null);
  const shownAt = useRef(target);
  useEffect(() => {
    if (shownAt.current === target) return;
    shownAt.current = target;
    const { top = 0 } = panel.current?.getBoundingClientRect() ?? {};
    if (top < 0 || top > window.innerHeight / 2) panel.current?.scrollIntoView({ block: 'start' });
  }, [target]);
  return panel;
}

interface PlaceProps {
  readonly floor: Floor;
  readonly place: FloorPlace;
  readonly task: FloorTask;
  /** What comes after it, as a person calls it; null: nothing is left. */
  readonly next: string | null;
  /** The target of the plug that was described last, for "same as the last". */
  readonly last: string | null;
  readonly wrench: Wrench;
  readonly onNext: () => void;
}

/** One place: the old part out and described, the new one in and tightened. One button says what it does and where it goes. */
export function PlacePanel(props: PlaceProps) {
  const { floor, place, task, wrench, onNext } = props;
  const { job, record, set, edit } = floor;
  const { target } = place;
  const opened = useOpened(place);
  const fields = record[target] ?? {};
  const units = personUnits(job.units);
  const plug = plugAt(job, place);
  const put = (field: PlaceField, value: Parameters<Hand['put']>[1]) => set(target, field, value);
  const pad = <Pad {...{ floor, place, active: opened.active }} />;
  const hand: Hand = {
    job,
    place,
    task,
    fields,
    put,
    active: opened.active,
    activate: (field) => {
      opened.change({ active: field, typing: true });
      edit(target, field);
    },
    quantity: (name) => quantityIn(job, target, name, text(fields, name), units),
    pad: opened.typing ? pad : null,
  };
  const { over, faults } = savingOf(props);
  const save = () => {
    edit(null);
    const [missing] = Object.keys(faults());
    opened.change({ tried: missing !== undefined });
    if (missing !== undefined) return jumpTo(missing);
    for (const [field, value] of Object.entries(over))
      if (value && (over.torqueMethod === 'wrench' || !BY_WRENCH.includes(field))) set(target, field, value);
    put('done', true);
    onNext();
  };
  return (
    <div className="site" ref={useTopOf(target)}>
      <Side {...{ ...props, opened, hand }} />
      <div className="site-hand">
        {opened.atWrench && plug ? (
          <AtWrench {...{ hand, plug, wrench }} />
        ) : (
          opened.active && <div className="pad-beside">{pad}</div>
        )}
        <Finish {...props} over={over} faults={opened.tried ? faults() : {}} onSave={save} />
      </div>
    </div>
  );
}

function Pad({ floor, place, active }: Pick<PlaceProps, 'floor' | 'place'> & Pick<Opened, 'active'>) {
  if (!active) return null;
  const { job, record, set, edit } = floor;
  const { target, component } = place;
  const { quantity, unit } = quantityField(component, active);
  return (
    <NumberPad
      at={`${target}/${active}`}
      kind={quantity}
      value={text(record[target] ?? {}, active)}
      unit={unit ?? personUnits(job.units)[quantity]}
      onChange={(value) => {
        edit(target, active);
        set(target, active, value);
      }}
    />
  );
}

/** What is read and noted of one place, from the old part to the pictures. */
function Side({
  floor,
  place,
  task,
  last,
  opened,
  hand,
}: PlaceProps & { opened: ReturnType<typeof useOpened>; hand: Hand }) {
  const { job, record, set } = floor;
  const { target, component } = place;
  const { fields } = hand;
  const seenAt = (at: string) => seenOf(record[at] ?? {});
  const isPlug = component === 'plug';
  const bare = job.places.filter(
    (other) =>
      isPlug &&
      other.component === 'plug' &&
      !other.moved &&
      other.target !== target &&
      Object.keys(seenAt(other.target)).length === 0,
  );
  const alike = () => {
    for (const other of bare) set(other.target, 'seen', fields.seen ?? null);
  };
  const shown = (names: readonly string[]): Hand => ({ ...hand, fields: only(fields, names) });
  const isNew = isNewAt(job, record, place);
  return (
    <div className="site-side">
      <h2>{isPlug ? capital(cylinderText(place.name)) : sayPlaces([place])}</h2>
      <span className="site-where">
        {isPlug && job.sites.find(({ id }) => id === place.id)?.where}
        {fields.done === true && ` · done by ${place.doneBy ?? 'you'}`}
      </span>
      {place.fittedWith && <div className="aside">When it was fitted: {place.fittedWith}.</div>}
      {place.redo && <Stop>Done under another sheet than the one in force: do it again, or have it released.</Stop>}
      <OldPart
        hand={shown(SHOWN.out)}
        last={isPlug && last ? seenAt(last) : null}
        bare={bare.length}
        more={opened.more}
        onMore={() => opened.flip('more')}
        onAlike={alike}
      />
      {task.action !== 'replace' && <InspectionResult floor={floor} place={place} />}
      {isNew && <NewPart hand={shown(SHOWN.in)} />}
      {(isPlug || isNew) && <Tightening hand={shown(SHOWN.tight)} onWrench={() => opened.flip('atWrench')} />}
      {task.rules.component === 'plug' && (
        <LotAndMore hand={shown(SHOWN.more)} rules={task.rules} before={last ? (record[last] ?? {}) : {}} />
      )}
      <LeaveIt floor={floor} place={place} />
      <Remark floor={floor} target={target} />
      <PhotoRow key={target} target={target} job={job} waiting={floor.photos} onAdd={floor.addPhoto} />
    </div>
  );
}

const AtWrench = ({
  hand: { fields, job, place, put },
  plug,
  wrench,
}: {
  hand: Hand;
  plug: FloorPlug;
  wrench: Wrench;
}) => (
  <WrenchPanel
    wrench={wrench}
    job={curveJob(plug)}
    curve={placeRecord(fields).curve}
    system={job.units}
    onDone={(curve) => {
      put('curve', curve);
      put('torqueMethod', 'wrench');
      put('installedTorque', settingText(curve.peakNm, place, job));
    }}
    onStop={(curve) => put('curve', curve)}
  />
);

/** Written with the one button only where a wrench was used. */
const BY_WRENCH: readonly string[] = ['installedTorque', 'wrench'];

/** What the one button would write, and whether it may. */
function savingOf({ floor: { job, record }, place, task }: PlaceProps) {
  const fields = record[place.target] ?? {};
  const plug = plugAt(job, place);
  const { torqueNm } = task.rules;
  const isTightened = torqueNm !== null && (plug !== null || isNewAt(job, record, place));
  const over: Fields = isTightened
    ? {
        ...(plug && { start: fields.start ?? 'by hand' }),
        torqueMethod: fields.torqueMethod ?? 'wrench',
        installedTorque: text(fields, 'installedTorque') || settingText(targetNmOf(plug, task, torqueNm), place, job),
        ...(plug && { wrench: wrenchInHand(job, fields, plug.rules.torqueNm).name }),
      }
    : {};
  return { over, faults: () => placeFaultsIn(job, record, place.target, personUnits(job.units), over) };
}

const METHOD_WORDS: Readonly<Record<string, string>> = { angle: 'tightened by angle', feel: 'tightened by feel' };
const RESULT_WORDS = { good: 'Good, back in', bad: 'Bad, still in', replaced: 'New one in' } as const;

/** What saving writes, in words. */
function savedWords({ floor: { record }, place, task }: PlaceProps, { torqueMethod, installedTorque }: Fields): string {
  if (place.component === 'plug')
    return `Started by hand, ${METHOD_WORDS[String(torqueMethod)] ?? `torqued ${installedTorque}`}`;
  const result = record[place.target]?.result;
  const done = task.action === 'replace' ? 'New one in' : (RESULT_WORDS[result as 'good'] ?? 'Looked at');
  return torqueMethod === 'wrench' ? `${done}, screw ${installedTorque}` : done;
}

/** Saves the place; a plug that bound early is stopped first. */
function Finish({
  over,
  faults,
  onSave,
  ...props
}: PlaceProps & { over: Fields; faults: Parameters<typeof SavePlace>[0]['faults']; onSave: () => void }) {
  const { floor, place, next, onNext } = props;
  const isPlug = place.component === 'plug';
  const done = floor.record[place.target]?.done === true;
  const bound = over.start === 'bound early';
  const after = next ? `next: ${next}` : `all ${isPlug ? 'cylinders done' : 'done here'}`;
  return (
    <>
      <SavePlace
        name={isPlug ? cylinderText(place.name) : place.name}
        words={done ? after : `${savedWords(props, over)}, ${after}`}
        done={done}
        faults={faults}
        onSave={onSave}
        onNext={onNext}
        onTakeBack={() => floor.set(place.target, 'done', false)}
      />
      {isPlug && !done && (
        <BoundEarly bound={bound} onPress={() => floor.set(place.target, 'start', bound ? 'by hand' : 'bound early')} />
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

function Remark({ floor: { record, set, edit }, target }: { floor: Floor; target: string }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id}>
        <FieldHead name="Remark" />
      </label>
      <textarea
        id={id}
        className="remark"
        value={text(record[target] ?? {}, 'remark')}
        rows={1}
        onFocus={() => edit(target, 'remark')}
        onChange={(event) => set(target, 'remark', event.target.value)}
      />
    </div>
  );
}
