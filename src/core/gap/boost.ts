import { readRange, writtenAs } from '../units/read-range';
import { roundTo } from '../units/round';
import type { GapSpec } from './check';

/** A gap at an intake pressure, as somebody states it. */
export interface BoostBand extends GapSpec {
  /** Absolute intake pressure up to which it holds, kPa. */
  readonly upToKpa: number;
  /** As it stands in its source. */
  readonly asTyped: string;
}

type Read =
  | { readonly ok: true; readonly value: readonly BoostBand[] }
  | { readonly ok: false; readonly error: string };

const wrong = (error: string): Read => ({ ok: false, error });

/**
 * Reads gaps by absolute intake pressure, "150 kPa: 0.60 to 0.70 mm | 180 kPa: 0.50 to 0.60 mm", entries separated by a vertical
 * bar, in any order.
 *
 * @returns the bands by rising pressure, gaps in mm; or in words what is wrong with the first that cannot be
 */
export function boostFromText(text: string): Read {
  const bands: BoostBand[] = [];
  for (const entry of text
    .split('|')
    .map((part) => part.trim())
    .filter(Boolean)) {
    const [pressure = '', gap = ''] = entry.split(':');
    const kpa = Number(/^\s*(\d{2,3})\s*kPa\s*$/i.exec(pressure)?.[1] ?? Number.NaN);
    if (!(kpa >= 50 && kpa <= 500)) return wrong(`“${entry}” cannot be read. Write 180 kPa: 0.50 to 0.60 mm`);
    const range = readRange({ kind: 'gap', text: gap, personUnit: 'mm' });
    if (!range.ok) return wrong(`at ${kpa} kPa: ${range.message}`);
    if (bands.some(({ upToKpa }) => upToKpa === kpa)) return wrong(`${kpa} kPa stands there twice`);
    bands.push({
      upToKpa: kpa,
      minMm: roundTo(range.minSi, 4),
      maxMm: roundTo(range.maxSi, 4),
      asTyped: gap.trim(),
      written: writtenAs(gap.trim()),
    });
  }
  return { ok: true, value: bands.sort((a, b) => a.upToKpa - b.upToKpa) };
}

/** The text that `boostFromText` reads back. */
export const boostText = (bands: readonly BoostBand[]): string =>
  bands.map(({ upToKpa, asTyped }) => `${upToKpa} kPa: ${asTyped}`).join(' | ');
