'use client';

import { Box } from '@chakra-ui/react';
import { memo } from 'react';
import type { Nm } from '@/core/shared/kinds';
import { isTorqueInRange } from '@/core/torque/at-vehicle';
import { breakawayFelt, expectedBreakaway } from '@/core/torque/breakaway';
import { saySmallTorque, saySmallTorques } from '@/core/units/say';
import type { Fields } from '@/core/work/entry';
import type { PlugRules } from '@/core/work/place-done';
import { placeRecord } from '@/core/work/place-fields';
import { rangeTexts, torqueText } from '@/text/format';
import { curveJob, type Hand, looksAlike, plugAt, SHOWN, settingText, targetNmOf, text, wrenchInHand } from './hand';
import { Press } from './parts';
import { QuantityInput, TextInput } from './place-inputs';
import { CurveShape } from './wrench-panel';

function torqueVerdict(nm: Nm, range: PlugRules['torqueNm']) {
  if (isTorqueInRange(nm, range)) return { words: 'in range', good: true };
  return { words: nm < range.min ? 'too little' : 'too much', good: false };
}

const METHODS = [
  ['wrench', 'torque wrench'],
  ['angle', 'turn angle'],
  ['feel', 'by feel, graded lower'],
] as const;

/** How the part is tightened, and to what: a plug, or the small screw of another part. */
function Tighten({ hand, onWrench }: { hand: Hand; onWrench: () => void }) {
  const { job, place, task, fields, put } = hand;
  const { torqueNm } = task.rules;
  if (!torqueNm) return null;
  const plug = plugAt(job, place);
  const torque = hand.quantity('installedTorque');
  const method = String(fields.torqueMethod ?? 'wrench');
  const curve = placeRecord(fields).curve;
  const targetNm = targetNmOf(plug, task, torqueNm);
  return (
    <>
      <Target hand={hand} targetNm={targetNm} range={torqueNm} />
      <div className="press-row" data-close data-field="torqueMethod">
        {METHODS.filter(([value]) => plug || value !== 'angle').map(([value, label]) => (
          <Press key={value} chosen={method === value} onPress={() => put('torqueMethod', value)}>
            {label}
          </Press>
        ))}
        {plug && job.demo && <Press onPress={onWrench}>measuring wrench…</Press>}
      </div>
      {method === 'wrench' && plug && <WrenchInHand hand={hand} range={torqueNm} />}
      {method === 'wrench' && (
        <QuantityInput
          hand={hand}
          field="installedTorque"
          name={plug ? 'Installed torque, if other than set' : 'Torque of the screw, if other than set'}
          known={`wrench set to ${settingText(targetNm, place, job)}`}
          verdict={torque === null ? null : torqueVerdict(torque, torqueNm)}
          sheet={torqueNm}
        />
      )}
      {curve && plug && <CurveShape points={curve.points} job={curveJob(plug)} />}
    </>
  );
}

function Target({ hand, targetNm, range }: { hand: Hand; targetNm: Nm; range: PlugRules['torqueNm'] }) {
  const { job, place, task } = hand;
  const plug = plugAt(job, place);
  const [text, other] = rangeTexts(range.min, range.max, job.units, 'torque');
  return (
    <Box borderLeft="4px solid" borderColor="action" pl="3" mt="4" fontSize="18px">
      <div>
        {plug ? (
          <>
            Torque <strong>{torqueText(targetNm, job.units)}</strong>,{' '}
            {plug.rules.lubricant === 'dry' ? 'dry thread' : 'thread with compound'}
            {plug.seat === 'gasket' ? ', new gasket' : ', conical seat'}
          </>
        ) : (
          <>
            Screw <strong>{saySmallTorque(targetNm)}</strong>
          </>
        )}
      </div>
      <div className="aside">
        {plug ? `start by hand · ${text} · ${other}` : `${saySmallTorques(range)}, never the torque of a plug`} ·{' '}
        {plug?.source ?? task.source}
      </div>
    </Box>
  );
}

/** The shop's wrenches for this torque: the one that is proposed first, and why another may not. */
function WrenchInHand({ hand: { fields, put, job }, range }: { hand: Hand; range: PlugRules['torqueNm'] }) {
  const { checked, name } = wrenchInHand(job, fields, range);
  if (checked.length === 0) return null;
  const chosen = checked.find(({ wrench }) => wrench.name === name);
  return (
    <Box as="details" mt="1" fontSize="16px">
      <summary>
        {chosen
          ? `${chosen.wrench.name}${chosen.setting ? `, set to ${chosen.setting.value} ${chosen.setting.unit}` : ''}`
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
      {chosen && !chosen.ok && <div className="fault">{chosen.says.join(' ')}</div>}
    </Box>
  );
}

export const Tightening = memo(Tighten, ({ hand: before }, { hand: after }) => looksAlike(before, after));

const FELT = {
  easy: 'less than expected',
  expected: 'as expected',
  hard: 'harder than expected',
  seized: 'seized',
} as const;

/** What is to be expected, and what was measured beside it. */
function breakawaySaid(torqueNm: PlugRules['torqueNm'], measured: Nm | null, { job }: Hand): string {
  const { min, max } = expectedBreakaway(torqueNm);
  const felt = measured === null ? '' : `${FELT[breakawayFelt(measured, torqueNm)]}; `;
  return `${felt}expected about ${rangeTexts(min, max, job.units, 'torque')[0]}; says nothing about how it was tightened`;
}

/** The lot and batch of a plug that a fault is traced by, and what is seldom known: shut unless it is wanted. */
export function LotAndMore({
  hand,
  rules,
  before,
}: {
  hand: Hand;
  rules: PlugRules;
  /** The place described last: a lot seldom changes within an engine. */
  before: Fields;
}) {
  const written = SHOWN.more.flatMap((name) => text(hand.fields, name) || []);
  const asLast = (name: string) => ({ offer: text(before, name) || null, offered: 'as the last:' });
  return (
    <Box as="details" mt="3">
      <summary>Lot, batch, breakaway torque{written.length > 0 ? `: ${written.join('; ')}` : ''}</summary>
      <TextInput
        hand={hand}
        field="newLot"
        label="Lot on the box"
        known="what a fault is traced by"
        {...asLast('newLot')}
      />
      <TextInput hand={hand} field="compoundBatch" label="Batch of the compound" {...asLast('compoundBatch')} />
      <TextInput
        hand={hand}
        field="believedNumber"
        label="What someone says the old plug is"
        known="kept apart from what was read"
      />
      <TextInput
        hand={hand}
        field="adapter"
        label="Crowfoot on the wrench, mm"
        known="square drive to plug; it changes the setting"
      />
      <QuantityInput
        hand={hand}
        field="breakawayTorque"
        name="Breakaway torque, if measured"
        known={breakawaySaid(rules.torqueNm, hand.quantity('breakawayTorque'), hand)}
      />
      <QuantityInput
        hand={hand}
        field="wrenchSetting"
        name="Wrench setting, as read off it"
        known="compared with the torque and the adapter"
      />
    </Box>
  );
}
