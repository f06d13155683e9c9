'use client';

import { chakra } from '@chakra-ui/react';

/** Cold to hot by life used. */
function rampOf(lifeUsed: number): string {
  const steps = [0.5, 0.75, 0.9, 1, 1.2];
  const at = steps.findIndex((step) => lifeUsed < step);
  return `ramp.${at < 0 ? 5 : at}`;
}

/** Life used as an arc; a dot inside says that it is over the limit; dashed where the history is only assumed. */
export function LifeRing({ lifeUsed, assumed }: { lifeUsed: number | null; assumed: boolean }) {
  const radius = 8;
  const round = 2 * Math.PI * radius;
  const share = Math.min(1, lifeUsed ?? 0);
  return (
    <chakra.svg width="22px" height="22px" viewBox="0 0 22 22" aria-hidden="true" flexShrink="0" display="inline-block">
      <chakra.circle cx="11" cy="11" r={radius} fill="none" stroke="hair" strokeWidth="4" />
      {lifeUsed !== null && (
        <chakra.circle
          cx="11"
          cy="11"
          r={radius}
          fill="none"
          stroke={rampOf(lifeUsed)}
          strokeWidth="4"
          strokeDasharray={assumed ? '2 3' : `${share * round} ${round}`}
          transform="rotate(-90 11 11)"
        />
      )}
      {lifeUsed !== null && lifeUsed >= 1 && <chakra.circle cx="11" cy="11" r="3" fill={rampOf(lifeUsed)} />}
    </chakra.svg>
  );
}
