'use client';

import { Box } from '@chakra-ui/react';
import { memo } from 'react';
import { partKey } from '@/core/catalogue/match';
import { bendFault, gapsFromText, sayBends } from '@/core/gap/bends';
import { gapTarget } from '@/core/gap/check';
import type { Mm, Nm } from '@/core/shared/kinds';
import { isTorqueInRange, readAdapterMm, wrenchesFor } from '@/core/torque/at-vehicle';
import { breakawayFelt, expectedBreakaway } from '@/core/torque/breakaway';
import type { Fields } from '@/core/work/entry';
import { type BendRules, bendRulesFor, gapFault, type PlugRules } from '@/core/work/place-done';
import { COMPOUNDS, placeRecord } from '@/core/work/place-fields';
import { rangeTexts, torqueText } from '@/text/format';
import { NumberField } from './number-field';
import { GaugeRow, NumberRead } from './number-read';
import { Press } from './parts';
import { curveJob, looksAlike, MORE, type Part, text } from './site-parts';
import { CurveShape } from './wrench-panel';

const gapVerdict = (inRange: boolean) =>
  inRange ? { words: 'in range', good: true } : { words: 'out of range', good: false };
const numberVerdict = (right: boolean) =>
  right ? { words: 'right', good: true } : { words: 'not for this engine', good: false };

function torqueVerdict(nm: Nm, range: PlugRules['torqueNm']) {
  if (isTorqueInRange(nm, range)) return { words: 'in range', good: true };
  return { words: nm < range.min ? 'too little' : 'too much', good: false };
}

/** The plug that goes in: its number and gap, and what is on its threads. */
function NewPlug({ fields, put, job, plug, active, activate, quantity, pad }: Part) {
  const { rules } = plug;
  const number = text(fields, 'newNumber');
  const gap = quantity('newGap');
  const bentFrom = gapsFromText(text(fields, 'bentFrom'));
  const fault = gap === null ? null : gapFault(gap, rules, number, bentFrom);
  const [range, other] = rangeTexts(rules.gap.minMm, rules.gap.maxMm, job.units, 'gap');
  const right = rules.accepted.some((same) => same.includes(partKey(number)));
  const { minMm, maxMm } = rules.gap;
  const steps = [...new Set([minMm, gapTarget(rules.gap), maxMm])];
  return (
    <>
      <NumberRead
        field="newNumber"
        label="Number on the new plug"
        value={number}
        known={`this engine takes ${rules.partNumber}`}
        offer={rules.partNumber}
        verdict={number === '' ? null : numberVerdict(right)}
        onChange={(value) => put('newNumber', value)}
      />
      <NumberField
        field="newGap"
        name="New gap"
        known={`spec ${range} · ${other}`}
        value={text(fields, 'newGap')}
        system={job.units}
        active={active === 'newGap'}
        verdict={gap === null ? null : gapVerdict(fault === null)}
        pad={pad}
        onActive={() => activate('newGap')}
        onChange={(value) => put('newGap', value)}
      />
      {fault && <div className="fault">{fault}</div>}
      <Bends gap={gap} bentFrom={bentFrom} isOff={fault !== null} rules={bendRulesFor(rules, number)} put={put} />
      <GaugeRow
        steps={steps}
        job={job}
        value={gap}
        label="By wire gauge, the new"
        onPick={(value) => put('newGap', value)}
      />
      <Dropped fields={fields} put={put} />
      {(rules.lubricant === 'anti_seize' || fields.compound) && (
        <fieldset className="press-row" aria-label="Compound on the threads" data-field="compound">
          <div className="aside">Compound on the threads. {rules.threadsSay}</div>
          {COMPOUNDS.map((compound) => (
            <Press
              key={compound}
              chosen={fields.compound === compound}
              onPress={() => put('compound', fields.compound === compound ? null : compound)}
            >
              {compound}
            </Press>
          ))}
        </fieldset>
      )}
    </>
  );
}

/** Each bend is logged by the gap before it, so that its direction is known and none is bent too far or to and fro. */
function Bends({
  gap,
  bentFrom,
  isOff,
  rules: { electrode, reversals },
  put,
}: Pick<Part, 'put'> & { gap: Mm | null; bentFrom: readonly Mm[]; isOff: boolean; rules: BendRules }) {
  const log = sayBends([...bentFrom, ...(gap === null ? [] : [gap])]);
  const again = (gaps: readonly Mm[]): void => {
    put('bentFrom', gaps.join(' '));
    put('newGap', '');
  };
  return (
    <>
      {log !== '' && <div className="aside">Bent: {log}</div>}
      {((isOff && gap !== null) || bentFrom.length > 0) && (
        <div className="press-row">
          {isOff && gap !== null && bendFault([...bentFrom, gap], electrode, reversals) === null && (
            <Press onPress={() => again([...bentFrom, gap])}>Bent: measure again</Press>
          )}
          <Press onPress={() => again([])}>Another plug taken</Press>
        </div>
      )}
    </>
  );
}

/** A plug that fell may have a closed gap and a cracked insulator: both are looked at again. */
function Dropped({ fields, put }: Pick<Part, 'fields' | 'put'>) {
  const isDropped = fields.dropped === 'dropped';
  return (
    <div className="press-row">
      {isDropped ? (
        <>
          <div className="fault">Dropped: measure its gap again, and look at the insulator.</div>
          <Press onPress={() => put('dropped', 'insulator sound')}>Insulator sound</Press>
        </>
      ) : (
        <Press
          onPress={() => {
            put('dropped', 'dropped');
            put('newGap', '');
          }}
        >
          {fields.dropped ? 'Dropped again' : 'It was dropped'}
        </Press>
      )}
    </div>
  );
}

export const NewPlugDrawn = memo(NewPlug, looksAlike);

/** How it is tightened, and to what. */
function Tightening({
  fields,
  put,
  job,
  plug,
  active,
  activate,
  quantity,
  pad,
  setting,
  onWrench,
}: Part & { setting: string; onWrench: () => void }) {
  const torque = quantity('installedTorque');
  const { min, max } = plug.rules.torqueNm;
  const method = String(fields.torqueMethod ?? 'wrench');
  const [range, other] = rangeTexts(min, max, job.units, 'torque');
  const curve = placeRecord(fields).curve;
  return (
    <>
      <Box borderLeft="4px solid" borderColor="action" pl="3" mt="4" fontSize="18px">
        <div>
          Torque <strong>{torqueText(plug.targetNm, job.units)}</strong>,{' '}
          {plug.rules.lubricant === 'dry' ? 'dry thread' : 'thread with compound'}
          {plug.seat === 'gasket' ? ', new gasket' : ', conical seat'}
        </div>
        <div className="aside">
          start by hand · {range} · {other} · {plug.source}
        </div>
      </Box>
      <div className="press-row" data-close data-field="torqueMethod">
        {(
          [
            ['wrench', 'torque wrench'],
            ['angle', 'turn angle'],
            ['feel', 'by feel, graded lower'],
          ] as const
        ).map(([value, label]) => (
          <Press key={value} chosen={method === value} onPress={() => put('torqueMethod', value)}>
            {label}
          </Press>
        ))}
        {job.demo && <Press onPress={onWrench}>measuring wrench…</Press>}
      </div>
      {method === 'wrench' && <WrenchInHand fields={fields} put={put} job={job} plug={plug} />}
      {method === 'wrench' && (
        <NumberField
          field="installedTorque"
          name="Installed torque, if other than set"
          known={`wrench set to ${setting}`}
          value={text(fields, 'installedTorque')}
          system={job.units}
          active={active === 'installedTorque'}
          verdict={torque === null ? null : torqueVerdict(torque, plug.rules.torqueNm)}
          sheet={plug.rules.torqueNm}
          pad={pad}
          onActive={() => activate('installedTorque')}
          onChange={(value) => put('installedTorque', value)}
        />
      )}
      {curve && <CurveShape points={curve.points} job={curveJob(plug)} />}
    </>
  );
}

/** The shop's wrenches for this torque: the one that is proposed first, and why another may not. */
function WrenchInHand({ fields, put, job, plug }: Pick<Part, 'fields' | 'put' | 'job' | 'plug'>) {
  const adapterMm = readAdapterMm(text(fields, 'adapter'));
  const checked = wrenchesFor(job.wrenches, plug.rules.torqueNm, adapterMm, job.today);
  const [best] = checked;
  if (!best) return null;
  const name = text(fields, 'wrench') || (best.ok ? best.wrench.name : '');
  const now = checked.find(({ wrench }) => wrench.name === name);
  return (
    <Box as="details" mt="1" fontSize="16px">
      <summary>
        {now
          ? `${now.wrench.name}${now.setting ? `, set to ${now.setting.value} ${now.setting.unit}` : ''}`
          : 'No wrench of the shop suits'}
      </summary>
      <div className="press-row">
        {checked.map(({ wrench, ok }) => (
          <Press key={wrench.name} chosen={wrench.name === name} onPress={() => put('wrench', wrench.name)}>
            {wrench.name}
            {!ok && ' ✕'}
          </Press>
        ))}
      </div>
      {now && !now.ok && <div className="fault">{now.says.join(' ')}</div>}
    </Box>
  );
}

export const TighteningDrawn = memo(Tightening, looksAlike);

const FELT = {
  easy: 'less than expected',
  expected: 'as expected',
  hard: 'harder than expected',
  seized: 'seized',
} as const;

/** What is to be expected, and what was measured beside it. */
function breakawaySaid(torqueNm: PlugRules['torqueNm'], measured: Nm | null, units: Part['job']['units']): string {
  const { min, max } = expectedBreakaway(torqueNm);
  const felt = measured === null ? '' : `${FELT[breakawayFelt(measured, torqueNm)]}; `;
  return `${felt}expected about ${rangeTexts(min, max, units, 'torque')[0]}; says nothing about how it was tightened`;
}

/** The lot and batch that a fault is traced by, and what is seldom known: shut unless it is wanted. */
export function LotAndMore({
  fields,
  put,
  job,
  active,
  activate,
  pad,
  plug,
  quantity,
  before,
}: Part & { /** The site described last: a lot seldom changes within an engine. */ before: Fields }) {
  const breakaway = quantity('breakawayTorque');
  const written = MORE.flatMap((name) => text(fields, name) || []);
  const rows = [
    ['newLot', 'Lot on the box', 'what a fault is traced by'],
    ['compoundBatch', 'Batch of the compound', ''],
    ['believedNumber', 'What someone says the old plug is', 'kept apart from what was read'],
    ['adapter', 'Crowfoot on the wrench, mm', 'square drive to plug; it changes the setting'],
  ] as const;
  return (
    <Box as="details" mt="3">
      <summary>Lot, batch, breakaway torque{written.length > 0 ? `: ${written.join('; ')}` : ''}</summary>
      {rows.map(([name, label, known]) => (
        <NumberRead
          key={name}
          field={name}
          label={label}
          value={text(fields, name)}
          known={known}
          offer={name === 'believedNumber' || name === 'adapter' ? null : text(before, name) || null}
          offered="as the last:"
          verdict={null}
          onChange={(value) => put(name, value)}
        />
      ))}
      {(['breakawayTorque', 'wrenchSetting'] as const).map((name) => (
        <NumberField
          key={name}
          field={name}
          name={name === 'breakawayTorque' ? 'Breakaway torque, if measured' : 'Wrench setting, as read off it'}
          known={
            name === 'breakawayTorque'
              ? breakawaySaid(plug.rules.torqueNm, breakaway, job.units)
              : 'compared with the torque and the adapter'
          }
          value={text(fields, name)}
          system={job.units}
          active={active === name}
          pad={pad}
          onActive={() => activate(name)}
          onChange={(value) => put(name, value)}
        />
      ))}
    </Box>
  );
}
