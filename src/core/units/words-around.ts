import { type QuantityKind, unitFromText } from './unit';

/* Words that people write beside a figure and that change nothing about it. A word that may change it ("max", "since", "half of")
   is not here: such a text is refused. */

const ANY =
  'exactly|now|new|current|currently|today|set|it|says|' +
  'measured|measures|reads?|reading|shows?|spec|specified|nominal';
/** What says that a figure is none exactly. */
const ABOUT = 'about|approx\\.?|approximately|around|roughly|circa|ca\\.?|or so';
const JOINING = 'of|is|to|at|on|the|and|with|so far|ok|okay|each';
/** The state of the threads that a torque is for. */
const STATE =
  'dry|clean|lightly|oiled|oil|lubricated|unlubricated|lubed|greased|grease|paste|threads?|anti-?seize|w\\/o?|without|no|non';
const OF_KIND: Readonly<Record<QuantityKind, string>> = {
  gap: 'electrodes?|plugs?|spark|side|gap|gaps|gapped|opened|closed|feeler|clearance',
  torque: `torque|torqued|tq|tighten|tightened|tightening|install|installation|final|wrench|plugs?|t|${STATE}`,
  distance: 'odo|odom|odometer|speedo|speedometer|clock|dash|dashboard|mileage|meter|total|counter|driven',
  resistance: 'coil|primary|secondary|lead|winding|resistance|r',
};
const wordsOf = (kind: QuantityKind): string => `(?:${ABOUT}|${ANY}|${JOINING}|${OF_KIND[kind]})`;
const patternsOf = (kind: QuantityKind) => ({
  before: new RegExp(`^(?:${wordsOf(kind)}(?:(?:[\\s:=@]|[.,](?!\\d)|-(?=\\s))+|(?=[\\d~])))+`, 'iu'),
  after: new RegExp(`(?:[\\s,;:([/-]+${wordsOf(kind)})+[)\\]\\s.!]*$`, 'iu'),
});
const PATTERNS: Readonly<Record<QuantityKind, ReturnType<typeof patternsOf>>> = {
  gap: patternsOf('gap'),
  torque: patternsOf('torque'),
  distance: patternsOf('distance'),
  resistance: patternsOf('resistance'),
};

const SCALES: ReadonlyArray<readonly [RegExp, string]> = [
  [/(\d)\s*(?:thousand|thou|k|t)\s*(?=(?:km|kilom|mi|$))/iu, '$1k '],
  [/(\d)\s*(?:[Mm]illion|[Mm]io\.?|M)\s*(?=(?:km|kilom|mi|$))/u, '$1M '],
];

/**
 * A figure and its unit without the words around them.
 *
 * @param text as `plainText` gives it; at most a line of 80 characters, as the patterns try many beginnings
 * @example bareText('distance', 'odo: 104 thousand km on the clock') === '104k km'
 * @example bareText('torque', '28 N·m (dry)') === '28 N·m'
 */
export function bareText(kind: QuantityKind, text: string): string {
  const { before, after } = PATTERNS[kind];
  const inside = /^\((.*)\)$|^"(.*)"$/u.exec(text);
  const alone = (inside?.[1] ?? inside?.[2] ?? text).replace(/^[=~@\s]+/u, '');
  const trimmed = alone
    .replace(before, '')
    .replace(/^[=~]\s*/u, '')
    .replace(after, '')
    .replace(/[\s!;]+$/u, '')
    .replace(/(\d)\s*\(([\p{L}·"]+)\)$/u, '$1 $2');
  const scaled =
    kind === 'distance' ? SCALES.reduce((all, [pattern, by]) => all.replace(pattern, by), trimmed).trim() : trimmed;
  return unitLast(scaled);
}

/** "km 104000" with its unit behind the figure. */
function unitLast(text: string): string {
  const match = /^([a-z]+)[\s:=]+([\d.,\s]+)$/iu.exec(text);
  return match?.[1] && unitFromText(match[1]) ? `${match[2]} ${match[1]}` : text;
}

/** Whether a figure is said to be about so much, or in whole thousands: "about 102,900 km", "104k km". */
export const isAbout = (text: string): boolean =>
  /[~≈]/u.test(text) || ABOUT_WORDS.test(text) || SCALES.some(([pattern]) => pattern.test(text));
const ABOUT_WORDS = new RegExp(`(?<![\\p{L}])(?:${ABOUT})(?![\\p{L}])`, 'iu');

/** Whether a torque is written with the state of its threads. */
export const saysState = (text: string): boolean => STATE_WORDS.test(text);
const STATE_WORDS = new RegExp(`\\b(?:${STATE})\\b`, 'iu');
