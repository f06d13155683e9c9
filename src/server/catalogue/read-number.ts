import { partKey } from '@/core/catalogue/match';
import {
  checkSuffix,
  readSuffix,
  recordedOf,
  type SuffixCheck,
  type SuffixCode,
  type SuffixReading,
  suffixForGap,
} from '@/core/catalogue/suffix';
import { checkGaps, type GapVerdict } from '@/core/gap/check';
import type { FleetId, Mm } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { loadNumberCodes, type PartRow, type SpecSheet } from '@/db/queries/catalogue';
import { useCase } from '../use-case';
import { gapSpecOf } from './fitment-of';

/** The makers' tables of number codes. */
export const listNumberCodes = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    return ok(await loadNumberCodes(deps.db, actor.fleetId));
  },
});

/** How the gap as sold stands to one sheet, and which suffix would be sold right. */
interface GapAsSold {
  readonly sheet: SpecSheet;
  readonly asSoldMm: Mm;
  readonly verdict: GapVerdict;
  readonly askFor: string | null;
}

export type ReadNumber =
  | {
      readonly kind: 'read';
      readonly reading: SuffixReading;
      /** The part under the number without its suffix, where it is in the catalogue. */
      readonly base: PartRow | null;
      /** Against the part itself, or, of a number that is not in the catalogue, against the base. */
      readonly checks: readonly SuffixCheck[];
      readonly gaps: readonly GapAsSold[];
    }
  | { readonly kind: 'unclear'; readonly readings: readonly SuffixReading[] }
  | { readonly kind: 'unknown'; readonly maker: string; readonly base: PartRow | null; readonly rest: string };

/** What a number says of itself by its maker's table. Null: it has no suffix, or no table tells. */
export async function readNumberOf(
  q: Querier,
  fleetId: FleetId,
  number: string,
  part: PartRow | null,
  here: { readonly byKey: ReadonlyMap<string, PartRow>; readonly sheetsOf: (base: PartRow) => readonly SpecSheet[] },
): Promise<ReadNumber | null> {
  const all = await loadNumberCodes(q, fleetId);
  const codes = part ? all.filter((code) => code.maker === part.maker) : all;
  const suffix = readSuffix(number, codes);
  const baseOf = (parsed: { maker: string; base: string }): PartRow | null => {
    const base = here.byKey.get(partKey(parsed.base));
    return base?.maker === parsed.maker ? base : null;
  };
  switch (suffix.kind) {
    case 'no-table':
    case 'bare':
      return null;
    case 'unclear':
      return suffix;
    case 'unknown': {
      const base = baseOf(suffix);
      // Without a known base this is most likely another number altogether, not a suffix.
      return base && !part ? { kind: 'unknown', maker: suffix.maker, base, rest: suffix.rest } : null;
    }
    case 'read': {
      const base = baseOf(suffix);
      const against = part ?? base;
      return {
        kind: 'read',
        reading: suffix,
        base,
        checks: checkSuffix(suffix.values, recordedOf(against ?? {})),
        gaps: base ? gapsAsSold(suffix, codes, base, here.sheetsOf(base)) : [],
      };
    }
  }
}

function gapsAsSold(
  reading: SuffixReading,
  codes: readonly SuffixCode[],
  base: PartRow,
  sheets: readonly SpecSheet[],
): readonly GapAsSold[] {
  const asSoldMm = reading.values.preGapMm;
  const { electrode } = base;
  // What may be bent depends on the electrode: where it is not known, nothing is said.
  if (asSoldMm === undefined || electrode === null) return [];
  return sheets.flatMap((sheet) => {
    const spec = gapSpecOf(sheet);
    const [verdict] = checkGaps(spec, electrode, sheet.regap ?? 'adjust', [asSoldMm]).plugs;
    if (!verdict) return [];
    return [
      {
        sheet,
        asSoldMm,
        verdict,
        askFor: verdict.action === 'accept' ? null : suffixForGap({ ...reading, base: base.number }, codes, spec),
      },
    ];
  });
}
