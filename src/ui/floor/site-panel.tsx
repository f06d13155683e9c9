'use client';

import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { memo, type ReactNode, useId, useState } from 'react';
import { partKey } from '@/core/fitment/match';
import { type Fields, type Json, sameJson } from '@/core/floor/entry';
import { allWell, siteTarget } from '@/core/floor/fields';
import type { FloorJob, FloorSite } from '@/core/floor/job';
import { gaugeSteps } from '@/core/floor/next-site';
import { gapGrowth, gapTarget } from '@/core/gap/check';
import {
  type Faults,
  gapFault,
  readSiteQuantity,
  SITE_QUANTITIES,
  type SiteQuantity,
  type SiteTexts,
  siteFaults,
} from '@/core/procedure/site-done';
import { BREAKAWAY_FEELS } from '@/core/reading/vocabulary';
import type { CurveJob } from '@/core/torque/curve';
import type { KeptCurve } from '@/core/torque/kept-curve';
import { fromSi } from '@/core/units/unit';
import { gapText, rangeTexts, torqueText } from '../format/format';
import { NumberField, unitsOf } from './number-field';
import { NumberPad } from './number-pad';
import { Observations, type Seen } from './observations';
import { FieldHead, Press, Stop } from './parts';
import { PhotoRow } from './photo-row';
import type { Floor } from './use-floor';
import { CurveShape, type Wrench, WrenchPanel } from './wrench-panel';

const FEEL_WORDS: Readonly<Record<string, string>> = {
  loose: 'loose',
  normal: 'normal',
  tight: 'tight',
  seized: 'seized',
  unknown: 'not noticed',
};

const text = (fields: Fields, name: string): string => String(fields[name] ?? '');
const seenOf = (fields: Fields): Seen => (fields.seen ?? {}) as Seen;

/** Texts of a site as the rules read them. */
export const textsOf = (fields: Fields): SiteTexts => fields as unknown as SiteTexts;

/** Why a site cannot be done yet, worked out on the device. */
export function faultsAt(job: FloorJob, board: Floor['board'], site: FloorSite, over: Fields = {}): Faults {
  const fields = { ...board[siteTarget(site.id)], ...over };
  const units = unitsOf(job.units);
  const si = (name: SiteQuantity): number | null => {
    const read = readSiteQuantity(name, text(fields, name), units);
    return read.ok ? read.value : null;
  };
  const fitted = job.sites.flatMap((other) => {
    const at = board[siteTarget(other.id)];
    return other.id !== site.id && at?.done && at.newNumber ? [partKey(String(at.newNumber))] : [];
  });
  return siteFaults(
    textsOf(fields),
    { newGapMm: si('newGap'), installedTorqueNm: si('installedTorque') },
    job.rules,
    fitted,
  );
}

/** One site: the old plug out and read, the new one in and tightened. One button says what it does and where it goes. */
export function SitePanel({
  floor,
  site,
  next,
  last,
  wrench,
  onNext,
  onSeized,
}: {
  floor: Floor;
  site: FloorSite;
  next: FloorSite | null;
  /** The site that was described last, for "same as the last". */
  last: FloorSite | null;
  wrench: Wrench;
  onNext: () => void;
  onSeized: () => void;
}) {
  const { job, board, set, hold } = floor;
  const target = siteTarget(site.id);
  const fields = board[target] ?? {};
  const [active, setActive] = useState<SiteQuantity>('removedGap');
  const [more, setMore] = useState(false);
  const [atWrench, setAtWrench] = useState(false);
  const [faults, setFaults] = useState<Faults>({});
  const put = (field: string, value: Json) => set(target, field, value);
  const activate = (field: SiteQuantity) => {
    setActive(field);
    hold(target, field);
  };
  const system = job.units;
  const units = unitsOf(system);
  const quantity = (name: SiteQuantity): number | null => {
    const read = readSiteQuantity(name, text(fields, name), units);
    return read.ok ? read.value : null;
  };
  const setting = torqueSetting(job);
  const done = fields.done === true;

  const finish = () => {
    hold(null);
    const torque = text(fields, 'installedTorque') || setting;
    const over = { torqueMethod: fields.torqueMethod ?? 'wrench', installedTorque: torque };
    const found = faultsAt(job, board, site, over);
    setFaults(found);
    if (Object.keys(found).length > 0) return;
    put('torqueMethod', over.torqueMethod);
    if (over.torqueMethod === 'wrench') put('installedTorque', torque);
    put('done', true);
    onNext();
  };
  const kind = SITE_QUANTITIES[active].kind;
  const pad = (
    <NumberPad
      kind={kind}
      value={text(fields, active)}
      unit={units[kind]}
      onChange={(value) => {
        hold(target, active);
        put(active, value);
      }}
    />
  );
  const method = String(fields.torqueMethod ?? 'wrench');
  const words = done
    ? `Site ${site.name} is done`
    : method === 'wrench'
      ? `Torqued ${text(fields, 'installedTorque') || setting}`
      : method === 'angle'
        ? 'Tightened by angle'
        : 'Tightened by feel';
  return (
    <Grid
      templateColumns={{ base: 'minmax(0, 1fr)', md: 'minmax(0, 5fr) minmax(0, 3fr)' }}
      gap={{ base: 3, md: 5 }}
      mt="4"
      pb={{ base: '90px', md: 0 }}
    >
      <Box minW="0">
        <Flex align="baseline" gap="3" wrap="wrap">
          <chakra.h2 fontSize="26px" fontWeight="700">
            Site {site.name}
          </chakra.h2>
          <Box color="soft" fontSize="18px">
            {site.where}
            {done && ` · done by ${site.doneBy ?? 'you'}`}
          </Box>
        </Flex>
        {site.fittedWith && <Box color="soft">When it was fitted: {site.fittedWith}.</Box>}
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
            pad,
            more,
            onMore: () => setMore((shown) => !shown),
            onSeized,
          }}
          last={last ? seenOf(board[siteTarget(last.id)] ?? {}) : null}
        />
        <NewPlugDrawn fields={only(fields, NEW)} {...{ site, put, job, active, activate, quantity, pad }} />
        <TighteningDrawn
          fields={only(fields, TIGHT)}
          {...{ site, put, job, active, activate, quantity, pad, setting }}
          onWrench={() => setAtWrench((at) => !at)}
        />
        <LotAndMore
          {...{ site, put, job, active, activate, quantity, pad }}
          fields={only(fields, MORE)}
          before={last ? (board[siteTarget(last.id)] ?? {}) : {}}
        />
        <Remark
          value={text(fields, 'remark')}
          onChange={(value) => put('remark', value)}
          onFocus={() => hold(target, 'remark')}
        />
        <PhotoRow target={target} job={job} waiting={floor.photosWaiting} onAdd={floor.addPhoto} />
      </Box>
      <Box minW="0" position={{ md: 'sticky' }} top="2" alignSelf="start">
        {atWrench ? (
          <WrenchPanel
            wrench={wrench}
            job={curveJob(job)}
            curve={(fields.curve ?? null) as unknown as KeptCurve | null}
            system={system}
            onDone={(curve) => {
              put('curve', curve as unknown as Json);
              put('torqueMethod', 'wrench');
              put('installedTorque', inUnit(curve.peakNm, job));
            }}
            onStop={(curve) => put('curve', curve as unknown as Json)}
          />
        ) : (
          <Box display={{ base: 'none', md: 'block' }}>{pad}</Box>
        )}
        {Object.keys(faults).length > 0 && !done && (
          <Box role="alert" color="wrong.ink" mt="2" fontSize="16px">
            {Object.values(faults).map((fault) => (
              <div key={fault}>{fault}</div>
            ))}
          </Box>
        )}
        <Box
          mt="3"
          position={{ base: 'fixed', md: 'static' }}
          bottom="0"
          left="0"
          right="0"
          p={{ base: 2, md: 0 }}
          bg={{ base: 'paper', md: 'transparent' }}
          zIndex="1"
        >
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
        </Box>
        {done && (
          <Box mt="2">
            <Press wide onPress={() => put('done', false)}>
              Take site {site.name} back
            </Press>
          </Box>
        )}
      </Box>
    </Grid>
  );
}

const OLD = ['observedNumber', 'removedGap', 'seen', 'breakawayFeel'] as const;
const NEW = ['newNumber', 'newGap', 'compound'] as const;
const TIGHT = ['torqueMethod', 'installedTorque', 'curve'] as const;
const MORE = ['newLot', 'compound', 'compoundBatch', 'believedNumber', 'breakawayTorque', 'wrenchSetting'] as const;
const only = (fields: Fields, names: readonly string[]): Fields =>
  Object.fromEntries(names.map((name) => [name, fields[name] ?? null]));

/**
 * Whether a part of the site looks as before. Its functions are made anew each time and mean the same as long as the site
 * is the same; what they read of other parts they read from the record.
 */
const looksAlike = (
  before: Part & { readonly last?: Seen | null; readonly more?: boolean },
  after: Part & { readonly last?: Seen | null; readonly more?: boolean },
): boolean =>
  before.site.id === after.site.id &&
  before.active === after.active &&
  before.more === after.more &&
  sameJson(before.fields, after.fields) &&
  sameJson((before.last ?? null) as Json, (after.last ?? null) as Json) &&
  JSON.stringify(before.job.rules) === JSON.stringify(after.job.rules);

/** What the wrench is set to, in the person's unit. */
export const torqueSetting = (job: FloorJob): string => inUnit(job.targetNm, job);
const inUnit = (nm: number, job: FloorJob): string => {
  const unit = unitsOf(job.units).torque;
  return `${Number(fromSi(nm, unit).toFixed(1))} ${unit}`;
};

const curveJob = (job: FloorJob): CurveJob => ({
  direction: 'in',
  seating: job.seat === 'gasket' ? 'new_gasket' : 'conical',
  targetNm: job.rules.torqueNm,
  runInDeg: null,
});

interface Part {
  readonly site: FloorSite;
  readonly fields: Fields;
  readonly job: FloorJob;
  readonly put: (field: string, value: Json) => void;
  readonly active: SiteQuantity;
  readonly activate: (field: SiteQuantity) => void;
  readonly quantity: (name: SiteQuantity) => number | null;
  readonly pad: ReactNode;
}

function OldPlug({
  site,
  fields,
  put,
  job,
  active,
  activate,
  quantity,
  pad,
  last,
  more,
  onMore,
  onSeized,
}: Part & { last: Seen | null; more: boolean; onMore: () => void; onSeized: () => void }) {
  const seen = seenOf(fields);
  const found = text(fields, 'observedNumber');
  const expected = site.expectedNumber;
  const oldMm = quantity('removedGap');
  const growth =
    oldMm !== null && site.fittedGapMm !== null && site.sinceKm !== null
      ? gapGrowth(site.fittedGapMm, oldMm, site.sinceKm)
      : null;
  const steps = gaugeSteps(site.fittedGapMm ?? job.rules.gap.maxMm, { below: 0, above: 7 });
  const well = allWell(job.seat);
  return (
    <>
      <NumberRead
        label="Number read off the old plug"
        value={found}
        known={expected ? `the record says ${expected}` : 'the record names none'}
        offer={expected}
        verdict={
          found === '' || expected === null
            ? null
            : partKey(found) === partKey(expected)
              ? { words: 'as recorded', well: true }
              : { words: 'not what the record says', well: false }
        }
        onChange={(value) => put('observedNumber', value)}
      />
      <NumberField
        field="removedGap"
        name="Old gap"
        known={
          site.fittedGapMm === null
            ? 'gap when fitted is not known'
            : `fitted at ${gapText(site.fittedGapMm, job.units)}`
        }
        value={text(fields, 'removedGap')}
        system={job.units}
        active={active === 'removedGap'}
        verdict={
          growth === null
            ? null
            : { words: `${growth >= 0 ? '+' : ''}${growth.toFixed(1)} µm per 1,000 km`, well: true }
        }
        pad={pad}
        onActive={() => activate('removedGap')}
        onChange={(value) => put('removedGap', value)}
      />
      <GaugeRow
        steps={steps}
        job={job}
        value={oldMm}
        label="By wire gauge, the old"
        onPick={(value) => put('removedGap', value)}
      />
      <FieldHead name="What you see" known="press again: beyond doubt, just visible" />
      <Flex gap="2" wrap="wrap">
        <Press
          chosen={
            Object.keys(well).every((word) => word in seen) && Object.keys(seen).length === Object.keys(well).length
          }
          onPress={() => {
            put('seen', well as unknown as Json);
            if (!fields.breakawayFeel) put('breakawayFeel', 'normal');
          }}
        >
          All well: tan, sharp, dry, clean
        </Press>
        {last && Object.keys(last).length > 0 && (
          <Press onPress={() => put('seen', last as unknown as Json)}>Same as the last</Press>
        )}
        <Press chosen={more} onPress={onMore}>
          {more ? 'Fewer' : 'Describe it'}
        </Press>
      </Flex>
      {!more && Object.keys(seen).length > 0 && (
        <Box mt="2" fontSize="16px">
          {Object.keys(seen).join(', ')}
        </Box>
      )}
      {more && (
        <Observations
          seen={seen}
          gapMm={oldMm}
          seat={job.seat}
          onChange={(value) => put('seen', value as unknown as Json)}
        />
      )}
      <FieldHead name="How it came loose" />
      <Flex gap="2" wrap="wrap">
        {BREAKAWAY_FEELS.map((feel) => (
          <Press
            key={feel}
            chosen={fields.breakawayFeel === feel}
            onPress={() => {
              put('breakawayFeel', fields.breakawayFeel === feel ? null : feel);
              if (feel === 'seized') onSeized();
            }}
          >
            {FEEL_WORDS[feel]}
          </Press>
        ))}
      </Flex>
    </>
  );
}

const OldPlugDrawn = memo(OldPlug, looksAlike);

/** One press for what a wire gauge says; the pad is there for what lies between. */
function GaugeRow({
  steps,
  job,
  value,
  label,
  onPick,
}: {
  steps: readonly number[];
  job: FloorJob;
  value: number | null;
  label: string;
  onPick: (text: string) => void;
}) {
  const unit = unitsOf(job.units).gap;
  const decimals = unit === 'mm' ? 2 : 3;
  return (
    <Flex gap="1.5" wrap="wrap" mt="2" role="group" aria-label={label}>
      {steps.map((mm) => {
        const shown = fromSi(mm, unit).toFixed(decimals);
        return (
          <Press
            key={mm}
            chosen={value !== null && Math.abs(value - mm) < 0.003}
            onPress={() => onPick(`${shown} ${unit}`)}
          >
            {shown}
          </Press>
        );
      })}
    </Flex>
  );
}

function NewPlug({ fields, put, job, active, activate, quantity, pad }: Part) {
  const number = text(fields, 'newNumber');
  const gap = quantity('newGap');
  const fault = gap === null ? null : gapFault(gap, job.rules);
  const [range, other] = rangeTexts(job.rules.gap.minMm, job.rules.gap.maxMm, job.units, 'gap');
  const right = job.rules.accepted.some((same) => same.includes(partKey(number)));
  const { minMm, maxMm } = job.rules.gap;
  const steps = [...new Set([minMm, gapTarget(job.rules.gap), maxMm])];
  return (
    <>
      <NumberRead
        label="Number on the new plug"
        value={number}
        known={`this engine takes ${job.rules.partNumber}`}
        offer={job.rules.partNumber}
        verdict={
          number === '' ? null : right ? { words: 'right', well: true } : { words: 'not for this engine', well: false }
        }
        onChange={(value) => put('newNumber', value)}
      />
      <NumberField
        field="newGap"
        name="New gap"
        known={`spec ${range} · ${other}`}
        value={text(fields, 'newGap')}
        system={job.units}
        active={active === 'newGap'}
        verdict={
          gap === null ? null : fault ? { words: 'out of range', well: false } : { words: 'in range', well: true }
        }
        pad={pad}
        onActive={() => activate('newGap')}
        onChange={(value) => put('newGap', value)}
      />
      {fault && (
        <Box color="wrong.ink" fontSize="15px" mt="1">
          {fault}
        </Box>
      )}
      <GaugeRow
        steps={steps}
        job={job}
        value={gap}
        label="By wire gauge, the new"
        onPick={(value) => put('newGap', value)}
      />
      {(job.rules.lubricant === 'anti_seize' || text(fields, 'compound') !== '') && (
        <NumberRead
          label="Compound on the threads"
          value={text(fields, 'compound')}
          known={job.rules.threadsSay}
          offer="nickel compound"
          verdict={null}
          onChange={(value) => put('compound', value)}
        />
      )}
    </>
  );
}

const NewPlugDrawn = memo(NewPlug, looksAlike);

function Tightening({
  fields,
  put,
  job,
  active,
  activate,
  quantity,
  pad,
  setting,
  onWrench,
}: Part & { setting: string; onWrench: () => void }) {
  const torque = quantity('installedTorque');
  const { min, max } = job.rules.torqueNm;
  const method = String(fields.torqueMethod ?? 'wrench');
  const [range, other] = rangeTexts(min, max, job.units, 'torque');
  const curve = (fields.curve ?? null) as unknown as KeptCurve | null;
  return (
    <>
      <Box borderLeft="4px solid" borderColor="action" pl="3" mt="4">
        <Box fontSize="18px">
          Torque <strong>{torqueText(job.targetNm, job.units)}</strong>,{' '}
          {job.rules.lubricant === 'dry' ? 'dry thread' : 'thread with compound'}
          {job.seat === 'gasket' ? ', new gasket' : ', conical seat'}
        </Box>
        <Box color="soft" fontSize="15px">
          start by hand · {range} · {other} · {job.source}
        </Box>
      </Box>
      <Flex gap="2" wrap="wrap" mt="2">
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
        <Press onPress={onWrench}>measuring wrench…</Press>
      </Flex>
      {method === 'wrench' && (
        <NumberField
          field="installedTorque"
          name="Installed torque, if other than set"
          known={`wrench set to ${setting}`}
          value={text(fields, 'installedTorque')}
          system={job.units}
          active={active === 'installedTorque'}
          verdict={
            torque === null
              ? null
              : torque >= min - 0.05 && torque <= max + 0.05
                ? { words: 'in range', well: true }
                : { words: torque < min ? 'too little' : 'too much', well: false }
          }
          pad={pad}
          onActive={() => activate('installedTorque')}
          onChange={(value) => put('installedTorque', value)}
        />
      )}
      {curve && <CurveShape points={curve.points} job={curveJob(job)} />}
    </>
  );
}

const TighteningDrawn = memo(Tightening, looksAlike);

/** The lot and batch that a fault is traced by, and what is seldom known: shut unless it is wanted. */
function LotAndMore({
  fields,
  put,
  job,
  active,
  activate,
  pad,
  before,
}: Part & { /** The site described last: a lot seldom changes within an engine. */ before: Fields }) {
  const written = MORE.flatMap((name) => text(fields, name) || []);
  const rows = [
    ['newLot', 'Lot on the box', 'what a fault is traced by'],
    ['compoundBatch', 'Batch of the compound', ''],
    ['believedNumber', 'What someone says the old plug is', 'kept apart from what was read'],
  ] as const;
  return (
    <Box as="details" mt="3">
      <summary>Lot, batch, breakaway torque{written.length > 0 ? `: ${written.join('; ')}` : ''}</summary>
      {rows.map(([name, label, known]) => (
        <NumberRead
          key={name}
          label={label}
          value={text(fields, name)}
          known={known}
          offer={name === 'believedNumber' ? null : text(before, name) || null}
          offered="as the last:"
          verdict={null}
          onChange={(value) => put(name, value)}
        />
      ))}
      {(['breakawayTorque', 'wrenchSetting'] as const).map((name) => (
        <NumberField
          key={name}
          field={name}
          name={
            name === 'breakawayTorque' ? 'Breakaway torque, if measured' : 'Wrench setting, if another than the torque'
          }
          known={name === 'breakawayTorque' ? 'says nothing about how it was tightened' : 'as with an adapter'}
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

/** A number as it is read off the part: typed, or pressed when it reads as it should. */
function NumberRead({
  label,
  value,
  known,
  offer,
  offered = 'reads',
  verdict,
  onChange,
}: {
  label: string;
  value: string;
  known: string;
  offer: string | null;
  /** Before the number that is offered. */
  offered?: string;
  verdict: { readonly words: string; readonly well: boolean } | null;
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <Box>
      <label htmlFor={id}>
        <FieldHead name={label} known={known} />
      </label>
      <Flex gap="2" wrap="wrap" align="center">
        <chakra.input
          id={id}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          flex="1 1 160px"
          minW="0"
          minH="52px"
          px="3"
          bg="sheet"
          border="1px solid"
          borderColor="line"
          rounded="sm"
          fontSize="20px"
          fontFamily="mono"
        />
        {offer && value === '' && (
          <Press mono onPress={() => onChange(offer)}>
            {offered} {offer}
          </Press>
        )}
        {verdict && (
          <Box fontSize="15px" fontWeight="650" color={verdict.well ? 'action' : 'wrong.ink'}>
            {verdict.well ? '✓ ' : '✕ '}
            {verdict.words}
          </Box>
        )}
      </Flex>
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
    <Box>
      <label htmlFor={id}>
        <FieldHead name="Remark" />
      </label>
      <chakra.textarea
        id={id}
        value={value}
        rows={1}
        onFocus={onFocus}
        onChange={(event) => onChange(event.target.value)}
        w="100%"
        minH="48px"
        p="2.5"
        bg="sheet"
        border="1px solid"
        borderColor="line"
        rounded="sm"
        fontSize="17px"
      />
    </Box>
  );
}
