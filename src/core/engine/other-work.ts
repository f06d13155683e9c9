import type { Km } from '../shared/kinds';
import { err, ok, type Result } from '../shared/result';
import { toSi } from '../units/unit';
import { BANK_PLACES, type BankPlace } from './model';

/* Work on an engine that is not ignition and is done in the same visit: a belt, filters, fluids, gaskets. A person puts it down
   for the family, with its interval and the bank that it lies behind. */

export interface OtherWork {
  readonly what: string;
  /** Null: by time alone. One of the two is given. */
  readonly everyKm: Km | null;
  readonly everyMonths: number | null;
  /** Bay time that it adds, minutes. */
  readonly minutes: number;
  /** The bank that has to be open for it; null: it is in reach at any visit. */
  readonly behind: BankPlace | null;
}

const MAX_MINUTES = 600;

type Read = { -readonly [K in keyof OtherWork]: OtherWork[K] };

/** What a piece of an entry says; false: nothing that is known here. */
function readPiece(read: Read, piece: string): boolean {
  const distance = /^([\d., ]+) ?(km|mi)$/i.exec(piece);
  const months = /^(\d{1,3}) ?(months?|mo)$/i.exec(piece);
  const minutes = /^(\d{1,3}) ?min$/i.exec(piece);
  const bank = BANK_PLACES.find((place) => piece.toLowerCase() === `${place} bank`);
  if (distance) {
    const figure = Number((distance[1] ?? '').replace(/[., ]/g, ''));
    read.everyKm = distance[2]?.toLowerCase() === 'mi' ? Math.round(toSi(figure, 'mi')) : figure;
    return figure >= 100 && figure <= 1_000_000;
  }
  if (months) read.everyMonths = Number(months[1]);
  if (minutes) read.minutes = Number(minutes[1]);
  if (bank) read.behind = bank;
  return Boolean(months ?? minutes ?? bank);
}

/**
 * Other work as a person lists it: "air filter: 40000 km, 24 months, 10 min, front bank", entries separated by a bar.
 *
 * @returns an error in words that names the entry which cannot be read
 */
export function otherWorkFromText(text: string): Result<readonly OtherWork[], string> {
  const found: OtherWork[] = [];
  for (const entry of text
    .split('|')
    .map((one) => one.trim())
    .filter(Boolean)) {
    const cut = entry.lastIndexOf(':');
    const what = entry.slice(0, Math.max(0, cut)).trim();
    const read: Read = { what, everyKm: null, everyMonths: null, minutes: 0, behind: null };
    const pieces = entry
      .slice(cut + 1)
      .split(/,\s+/)
      .map((piece) => piece.trim());
    const unread = pieces.find((piece) => !readPiece(read, piece));
    const example = 'Write it like air filter: 40000 km, 24 months, 10 min, front bank';
    if (what === '' || unread !== undefined) return err(`“${unread ?? entry}” cannot be read. ${example}`);
    if (read.everyKm === null && read.everyMonths === null) return err(`“${what}” has no interval. ${example}`);
    if (read.minutes < 1 || read.minutes > MAX_MINUTES) return err(`“${what}” needs its minutes, 1 to ${MAX_MINUTES}`);
    if (found.some((one) => one.what === what)) return err(`“${what}” stands there twice`);
    found.push(read);
  }
  return ok(found);
}

/** The list that `otherWorkFromText` reads back. */
export const otherWorkText = (list: readonly OtherWork[]): string =>
  list
    .map(({ what, everyKm, everyMonths, minutes, behind }) => {
      const pieces = [
        everyKm === null ? null : `${everyKm} km`,
        everyMonths === null ? null : `${everyMonths} months`,
        `${minutes} min`,
        behind === null ? null : `${behind} bank`,
      ];
      return `${what}: ${pieces.filter((piece) => piece !== null).join(', ')}`;
    })
    .join(' | ');
