import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { partKey } from '@/core/catalogue/match';
import { isAnotherPart } from '@/core/catalogue/same-part';
import { NORMAL, REGIONS_OF } from '@/core/inspection/vocabulary';
import { isTorqueInRange } from '@/core/torque/at-vehicle';
import { personUnits } from '@/core/units/person-units';
import { roundTo } from '@/core/units/round';
import { sayOhmRange, saySmallTorque, saySmallTorques } from '@/core/units/say';
import { fromSi } from '@/core/units/unit';
import type { Fields } from '@/core/work/entry';
import type { FloorPlace, FloorTask } from '@/core/work/job-record';
import { isNewAt, quantityIn } from '@/core/work/order-model';
import { placeFaultsIn } from '@/core/work/order-rules';
import { isResistanceInRange, ohmRange, type PartRules } from '@/core/work/place-done';
import { GRADES, hasField, normalFor, type PlaceQuantity, quantityField } from '@/core/work/place-fields';
import { PART_WORDS, sayPlaces } from '@/core/work/say-places';
import type { Floor } from '../sync/use-floor';
import { InspectionResult } from './inspection-result';
import { Leads } from './leads';
import { LeaveIt } from './leave-it';
import { NumberField } from './number-field';
import { NumberPad } from './number-pad';
import { NumberRead } from './number-read';
import { Words } from './observations';
import { FieldHead, Press, Stop } from './parts';
import { PhotoRow } from './photo-row';
import { jumpTo, SavePlace } from './save-place';
import { seenOf, text } from './site-parts';

interface PartProps {
  readonly floor: Floor;
  readonly place: FloorPlace;
  readonly task: FloorTask & { readonly rules: PartRules };
  /** What comes after it, as a person calls it; null: nothing is left. */
  readonly next: string | null;
  readonly onNext: () => void;
}

/** One part that is no plug: what came out and what it shows, what it measures, what went in. One button says what it does. */
export function PartPanel(props: PartProps) {
  const { floor, place, task } = props;
  const { job, record, set, edit } = floor;
  const { target, component } = place;
  const fields = record[target] ?? {};
  const [active, setActive] = useState<PlaceQuantity | null>(null);
  const put = (field: string, value: Parameters<typeof set>[2]) => set(target, field, value);
  const isNew = isNewAt(job, record, place);
  const kind = active && quantityField(component, active);
  return (
    <div className="site">
      <div className="site-side">
        <h2>{sayPlaces([place])}</h2>
        <span className="site-where">
          {place.fittedWith && `When it was fitted: ${place.fittedWith}. `}
          {fields.done === true && `done by ${place.doneBy ?? 'you'}`}
        </span>
        {place.redo && <Stop>Done under another sheet than the one in force: do it again, or have it released.</Stop>}
        <CameOut {...props} put={put} />
        <Looked {...props} put={put} />
        <Measured {...props} active={active} onActive={setActive} />
        {task.action !== 'replace' && <InspectionResult floor={floor} place={place} />}
        {isNew && <WentIn {...props} put={put} />}
        {isNew && task.rules.leads.length > 0 && (
          <Leads
            leads={task.rules.leads}
            on={text(fields, 'leadsOn')}
            system={job.units}
            onChange={(value) => put('leadsOn', value)}
          />
        )}
        {isNew && task.rules.torqueNm && <Screw {...props} put={put} active={active} onActive={setActive} />}
        <LeaveIt floor={floor} place={place} />
        <NumberRead
          field="remark"
          label="Remark"
          value={text(fields, 'remark')}
          known=""
          offer={null}
          verdict={null}
          onChange={(value) => {
            edit(target, 'remark');
            put('remark', value);
          }}
        />
        <PhotoRow key={target} target={target} job={job} waiting={floor.photos} onAdd={floor.addPhoto} />
      </div>
      <div className="site-hand">
        {active && kind && (
          <div className="pad-beside">
            <NumberPad
              at={`${target}/${active}`}
              kind={kind.quantity}
              value={text(fields, active)}
              unit={kind.unit ?? personUnits(job.units)[kind.quantity]}
              onChange={(value) => {
                edit(target, active);
                put(active, value);
              }}
            />
          </div>
        )}
        <Finish {...props} />
      </div>
    </div>
  );
}

type Put = { readonly put: (field: string, value: Parameters<Floor['set']>[2]) => void };

/** The old part: number and serial, as the record has them or as they are read. */
function CameOut({ floor: { record }, place, put }: PartProps & Put) {
  const { component, target, expectedNumber, expectedKeys, expectedTag } = place;
  const fields = record[target] ?? {};
  const observed = text(fields, 'observedNumber');
  const another = isAnotherPart(observed || null, expectedKeys);
  const serial = text(fields, 'tagOut');
  return (
    <>
      <NumberRead
        field="observedNumber"
        label={`Number on the old ${PART_WORDS[component]}`}
        value={observed}
        known={expectedNumber ? `the record says ${expectedNumber}` : 'the record names none'}
        offer={expectedNumber}
        verdict={
          another === null ? null : { words: another ? 'not what the record says' : 'as recorded', good: !another }
        }
        onChange={(value) => put('observedNumber', value)}
      />
      {hasField(component, 'tagOut') && (
        <NumberRead
          field="tagOut"
          label="Serial of the old one"
          value={serial}
          known={expectedTag ? `the record says ${expectedTag}` : 'no serial on record'}
          offer={expectedTag}
          verdict={
            serial === '' || !expectedTag
              ? null
              : {
                  words: serial === expectedTag ? 'as recorded' : 'not what the record says',
                  good: serial === expectedTag,
                }
          }
          onChange={(value) => put('tagOut', value)}
        />
      )}
    </>
  );
}

/** What it shows, in words; one press where nothing is wrong. */
function Looked({ floor: { record }, place: { component, target }, put }: PartProps & Put) {
  const fields = record[target] ?? {};
  const seen = seenOf(fields);
  const [more, setMore] = useState(false);
  const good = normalFor(component);
  const words = Object.keys(seen);
  const isGood = words.length > 0 && words.every((word) => NORMAL.has(word));
  return (
    <>
      <FieldHead name="What you see" known="press again: beyond doubt, just visible" />
      <div className="press-row">
        <Press chosen={isGood} onPress={() => put('seen', good)}>
          All sound
        </Press>
        <Press chosen={more} onPress={() => setMore(!more)}>
          {more ? 'Fewer' : 'Describe it'}
        </Press>
      </div>
      {!more && words.length > 0 && <div>{words.join(', ')}</div>}
      {more && <Words seen={seen} regions={REGIONS_OF[component]} onChange={(value) => put('seen', value)} />}
      {more && (
        <>
          <FieldHead name="Grade" known="1 as new to 5 failed; else the words say it" />
          <div className="press-row">
            {GRADES.map((grade) => (
              <Press
                key={grade}
                chosen={fields.grade === grade}
                onPress={() => put('grade', fields.grade === grade ? null : grade)}
              >
                {grade}
              </Press>
            ))}
          </div>
        </>
      )}
    </>
  );
}

const OHMS = [
  ['primaryOhm', 'Primary resistance', 'primaryOhm'],
  ['secondaryOhm', 'Secondary resistance', 'secondaryOhm'],
  ['ohm', 'Resistance end to end', 'ohm'],
] as const;

interface Active {
  readonly active: PlaceQuantity | null;
  readonly onActive: (field: PlaceQuantity) => void;
}

/** What a meter says, against the sheet. "OL" where nothing conducts. Shut where no test is asked for. */
function Measured({ floor, place, task, active, onActive }: PartProps & Active) {
  const { job, record, edit, set } = floor;
  const { component, target } = place;
  const fields = record[target] ?? {};
  const fields2 = OHMS.filter(([field]) => hasField(component, field));
  if (fields2.length === 0) return null;
  const written = fields2.some(([field]) => text(fields, field) !== '');
  return (
    <Box as="details" mt="3" {...(task.action === 'test' || written ? { open: true } : {})}>
      <summary>Resistance</summary>
      {fields2.map(([field, name, rule]) => {
        const range = rule === 'ohm' ? ohmRange(task.rules, place.lengthMm) : task.rules[rule];
        const si = quantityIn(job, target, field, text(fields, field), personUnits(job.units));
        const good = si === null ? null : isResistanceInRange(si, range);
        return (
          <NumberField
            key={field}
            component={component}
            field={field}
            name={name}
            known={range ? `sheet ${sayOhmRange(range)}` : 'no sheet gives a range; OL is an answer too'}
            value={text(fields, field)}
            system={job.units}
            active={active === field}
            verdict={good === null ? null : { words: good ? 'in range' : 'out of range', good }}
            onActive={() => {
              onActive(field);
              edit(target, field);
            }}
            onChange={(value) => set(target, field, value)}
          />
        );
      })}
    </Box>
  );
}

/** The new part: the number read off it, its serial and lot. */
function WentIn({ floor: { record }, place: { component, target }, task: { rules }, put }: PartProps & Put) {
  const fields = record[target] ?? {};
  const number = text(fields, 'newNumber');
  const right = rules.accepted.some((same) => same.includes(partKey(number)));
  return (
    <>
      <NumberRead
        field="newNumber"
        label={`Number on the new ${PART_WORDS[component]}`}
        value={number}
        known={rules.partNumber ? `this engine takes ${rules.partNumber}` : 'no sheet says which'}
        offer={rules.partNumber}
        verdict={number === '' ? null : { words: right ? 'right' : 'not for this engine', good: right }}
        onChange={(value) => put('newNumber', value)}
      />
      {hasField(component, 'tagIn') && (
        <NumberRead
          field="tagIn"
          label="Serial of the new one"
          value={text(fields, 'tagIn')}
          known="scanned or typed; it follows the part"
          offer={null}
          verdict={null}
          onChange={(value) => put('tagIn', value)}
        />
      )}
      <NumberRead
        field="newLot"
        label="Lot on the box"
        value={text(fields, 'newLot')}
        known="what a fault is traced by"
        offer={null}
        verdict={null}
        onChange={(value) => put('newLot', value)}
      />
    </>
  );
}

/** Its screw: a small torque, never that of a plug. */
function Screw({ floor, place, task, put, active, onActive }: PartProps & Put & Active) {
  const { job, record, edit } = floor;
  const { component, target } = place;
  const fields = record[target] ?? {};
  const { torqueNm } = task.rules;
  if (!torqueNm) return null;
  const method = String(fields.torqueMethod ?? 'wrench');
  const si = quantityIn(job, target, 'installedTorque', text(fields, 'installedTorque'), personUnits(job.units));
  return (
    <>
      <Box borderLeft="4px solid" borderColor="action" pl="3" mt="4" fontSize="18px">
        <div>
          Screw <strong>{saySmallTorque(task.targetNm ?? torqueNm.min)}</strong>
        </div>
        <div className="aside">
          {saySmallTorques(torqueNm)}, never the torque of a plug · {task.source}
        </div>
      </Box>
      <div className="press-row" data-close>
        {(
          [
            ['wrench', 'torque wrench'],
            ['feel', 'by feel, graded lower'],
          ] as const
        ).map(([value, label]) => (
          <Press key={value} chosen={method === value} onPress={() => put('torqueMethod', value)}>
            {label}
          </Press>
        ))}
      </div>
      {method === 'wrench' && (
        <NumberField
          component={component}
          field="installedTorque"
          name="Torque of the screw, if other than set"
          known={`wrench set to ${setting(task, floor)}`}
          value={text(fields, 'installedTorque')}
          system={job.units}
          active={active === 'installedTorque'}
          verdict={si === null ? null : screwVerdict(isTorqueInRange(si, torqueNm))}
          sheet={torqueNm}
          onActive={() => {
            onActive('installedTorque');
            edit(target, 'installedTorque');
          }}
          onChange={(value) => put('installedTorque', value)}
        />
      )}
    </>
  );
}

const screwVerdict = (good: boolean) => ({ words: good ? 'in range' : 'out of range', good });

/** What the small wrench is set to: pound-inches where the person works in pounds. */
function setting({ targetNm }: FloorTask, { job }: Floor): string {
  const unit = job.units === 'us' ? 'lbf·in' : 'N·m';
  return `${roundTo(fromSi(targetNm ?? 0, unit), unit === 'N·m' ? 1 : 0)} ${unit}`;
}

const DONE_WORDS = { good: 'Good, back in', bad: 'Bad, still in', replaced: 'New one in' } as const;

/** Saves the place: what was looked at is good or bad, or what is new sits in it. */
function Finish({ floor, place, task, next, onNext }: PartProps) {
  const { job, record, set, edit } = floor;
  const { target } = place;
  const fields = record[target] ?? {};
  const [tried, setTried] = useState(false);
  const done = fields.done === true;
  const isNew = isNewAt(job, record, place);
  const torqued = isNew && task.rules.torqueNm !== null;
  const method = fields.torqueMethod ?? 'wrench';
  const torque = text(fields, 'installedTorque') || setting(task, floor);
  const over: Fields = torqued ? { torqueMethod: method, installedTorque: torque } : {};
  const faults = () => placeFaultsIn(job, record, target, personUnits(job.units), over);
  const finish = () => {
    edit(null);
    const [missing] = Object.keys(faults());
    setTried(missing !== undefined);
    if (missing !== undefined) return jumpTo(missing);
    if (torqued) {
      set(target, 'torqueMethod', method);
      if (method === 'wrench') set(target, 'installedTorque', torque);
    }
    set(target, 'done', true);
    onNext();
  };
  const screw = torqued && method === 'wrench' ? `, screw ${torque}` : '';
  const words =
    task.action === 'replace' ? `New one in${screw}` : `${DONE_WORDS[fields.result as 'good'] ?? 'Looked at'}${screw}`;
  const after = next ? `next: ${next}` : 'all done here';
  return (
    <SavePlace
      name={place.name}
      words={done ? after : `${words}, ${after}`}
      done={done}
      faults={tried ? faults() : {}}
      onSave={finish}
      onNext={onNext}
      onTakeBack={() => set(target, 'done', false)}
    />
  );
}
