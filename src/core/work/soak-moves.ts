import type { SoakTimes } from './procedure/soak';

/** A seized plug on its way out. */
export interface Soaking {
  readonly site: string;
  /** When penetrant went in, ms; null: not prepared yet. */
  readonly soakedAt: number | null;
}

export type NextMove =
  | { readonly kind: 'prepare'; readonly site: string }
  | { readonly kind: 'remove'; readonly site: string }
  /** Until then nothing is to be done at these. */
  | { readonly kind: 'wait'; readonly site: string; readonly untilMs: number };

interface SoakMove {
  /** Null: none is seized. */
  readonly next: NextMove | null;
  /** When the last will be out, ms. */
  readonly doneMs: number;
  /** What is left of each soak, minutes; 0: it may come out. */
  readonly left: readonly { readonly site: string; readonly minutes: number | null }[];
}

const MINUTE_MS = 60_000;

/**
 * What one person does next where several plugs are seized: a soak that is over comes out first only when none is left to be
 * prepared, since every well that is filled soaks beside the others.
 *
 * @param nowMs as `soakedAt`, ms
 * @param times minutes
 */
export function nextSoakMove(sites: readonly Soaking[], times: SoakTimes, nowMs: number): SoakMove {
  const dry = sites.filter(({ soakedAt }) => soakedAt === null);
  const readyAt = (soakedAt: number): number => soakedAt + times.soak * MINUTE_MS;
  const soaking = sites
    .flatMap(({ site, soakedAt }) => (soakedAt === null ? [] : [{ site, readyMs: readyAt(soakedAt) }]))
    .sort((a, b) => a.readyMs - b.readyMs);
  const next = nextMove(dry[0], soaking[0], nowMs);
  const prepared = nowMs + dry.length * times.prepare * MINUTE_MS;
  const ready = [
    ...soaking.map(({ readyMs }) => readyMs),
    ...dry.map((_, i) => nowMs + ((i + 1) * times.prepare + times.soak) * MINUTE_MS),
  ].sort((a, b) => a - b);
  const doneMs = ready.reduce((free, at) => Math.max(free, at) + times.remove * MINUTE_MS, prepared);
  return {
    next,
    doneMs: sites.length === 0 ? nowMs : doneMs,
    left: sites.map(({ site, soakedAt }) => ({
      site,
      minutes: soakedAt === null ? null : Math.max(0, Math.ceil((readyAt(soakedAt) - nowMs) / MINUTE_MS)),
    })),
  };
}

function nextMove(
  toPrepare: Soaking | undefined,
  first: { readonly site: string; readonly readyMs: number } | undefined,
  nowMs: number,
): NextMove | null {
  if (toPrepare) return { kind: 'prepare', site: toPrepare.site };
  if (!first) return null;
  return first.readyMs <= nowMs
    ? { kind: 'remove', site: first.site }
    : { kind: 'wait', site: first.site, untilMs: first.readyMs };
}

/** What a seized plug takes by general trade guidance, minutes; a shop's own times win. */
export const USUAL_SOAK: SoakTimes = { prepare: 4, soak: 30, remove: 8 };
/** So much penetrant goes into a well and no more, ml: what runs past the thread has to come out of the cylinder again. */
export const MAX_PENETRANT_ML = 5;
