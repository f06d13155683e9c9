'use client';

import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { useId, useState } from 'react';
import { partKey } from '@/core/fitment/match';
import type { Fields, Json } from '@/core/floor/entry';
import { siteTarget } from '@/core/floor/fields';
import type { FloorJob, FloorSite } from '@/core/floor/job';
import {
  type Faults,
  readSiteQuantity,
  SITE_QUANTITIES,
  type SiteQuantity,
  type SiteTexts,
  siteFaults,
} from '@/core/procedure/site-done';
import type { KeptCurve } from '@/core/torque/kept-curve';
import { LotAndMore, NewPlugDrawn, TighteningDrawn } from './new-plug';
import { unitsOf } from './number-field';
import { NumberPad } from './number-pad';
import { OldPlugDrawn } from './old-plug';
import { FieldHead, Press, Stop } from './parts';
import { PhotoRow } from './photo-row';
import { curveJob, inUnit, MORE, NEW, OLD, only, seenOf, TIGHT, text, torqueSetting } from './site-parts';
import type { Floor } from './use-floor';
import { type Wrench, WrenchPanel } from './wrench-panel';

/** Texts of a site as the rules read them. */
const textsOf = (fields: Fields): SiteTexts => fields as unknown as SiteTexts;

/** Why a site cannot be done yet, worked out on the device. */
function faultsAt(job: FloorJob, board: Floor['board'], site: FloorSite, over: Fields = {}): Faults {
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
}: {
  floor: Floor;
  site: FloorSite;
  next: FloorSite | null;
  /** The site that was described last, for "same as the last". */
  last: FloorSite | null;
  wrench: Wrench;
  onNext: () => void;
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
