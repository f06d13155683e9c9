'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { cylinderText } from '@/core/engine/layout';
import type { Nm } from '@/core/shared/kinds';
import { SEIZING_FACTOR } from '@/core/torque/curve';
import type { UnitSystem } from '@/core/units/person-units';
import { MAX_PENETRANT_ML, type NextMove, nextSoakMove, USUAL_SOAK } from '@/core/work/soak-moves';
import { torqueText } from '@/text/format';
import { Caution } from '../../primitives/page';
import { Press } from './parts';

interface SoakSite {
  readonly id: string;
  readonly name: string;
  /** It did not give; else it soaks because the method in force says so. */
  readonly seized: boolean;
  readonly soakedAt: string | null;
}

const clock = (ms: number): string => new Date(ms).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
const TICK_MS = 5_000;

/** The branch for seized plugs: conducts the soaks of several wells side by side, with the limits at each step. */
export function SoakPanel({
  sites,
  here,
  targetNm,
  system,
  onSoak,
  onGo,
  onFree,
}: {
  sites: readonly SoakSite[];
  here: string;
  targetNm: Nm;
  system: UnitSystem;
  onSoak: (id: string, at: string | null) => void;
  onGo: (id: string) => void;
  onFree: (id: string) => void;
}) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  if (sites.length === 0) return null;
  const { next, doneMs, left } = nextSoakMove(
    sites.map(({ id, soakedAt }) => ({ site: id, soakedAt: soakedAt === null ? null : Date.parse(soakedAt) })),
    USUAL_SOAK,
    now,
  );
  const nameOf = (id: string): string => sites.find((site) => site.id === id)?.name ?? id;
  const words = next ? moveWords(next, nameOf(next.site)) : '';
  const mine = sites.find(({ id }) => id === here);
  return (
    <Box my="3" role="group" aria-label="Soaks">
      <Caution>
        Stop at {torqueText(SEIZING_FACTOR * targetNm, system)}, twice what it was tightened to, or when it squeaks and
        does not give: it breaks or takes the thread with it. Penetrant in a cylinder is cleared with the plugs out,
        before anything is cranked. Eye protection, no flame.
      </Caution>
      <Box fontSize="18px" fontWeight="650" mt="2" role="status">
        {words} All out at about {clock(doneMs)}.
      </Box>
      <Flex gap="2" wrap="wrap" mt="2">
        {left.map(({ site, minutes }) => (
          <Press key={site} chosen={site === here} onPress={() => onGo(site)}>
            {nameOf(site)}: {leftWords(minutes)}
          </Press>
        ))}
      </Flex>
      {mine && (
        <Flex gap="2" wrap="wrap" mt="2">
          {mine.soakedAt === null ? (
            <Press onPress={() => onSoak(mine.id, new Date().toISOString())}>Penetrant is in, start the soak</Press>
          ) : (
            <Press onPress={() => onSoak(mine.id, new Date().toISOString())}>Again: penetrant, new soak</Press>
          )}
          {mine.seized ? (
            <Press onPress={() => onFree(mine.id)}>It is out</Press>
          ) : (
            <Box alignSelf="center">Then say below how it came loose.</Box>
          )}
        </Flex>
      )}
    </Box>
  );
}

function moveWords(move: NextMove, site: string): string {
  switch (move.kind) {
    case 'prepare':
      return `Next: ${cylinderText(site)}, back off an eighth of a turn, then penetrant, ${MAX_PENETRANT_ML} ml at most.`;
    case 'remove':
      return `Next: ${cylinderText(site)} has soaked. To and fro, a quarter turn at a time.`;
    case 'wait':
      return `Nothing to force: the soak of ${cylinderText(site)} ends at ${clock(move.untilMs)}.`;
  }
}

/** @param minutes null: no penetrant yet */
function leftWords(minutes: number | null): string {
  if (minutes === null) return 'dry';
  return minutes === 0 ? 'soaked' : `${minutes} min`;
}
