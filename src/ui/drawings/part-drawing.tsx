import type { ReactNode } from 'react';
import type { TaskComponent } from '@/core/work/task';

/* What came out besides plugs, drawn from the words: a coil with its boot, a lead, a cap seen from inside, a rotor. Every mark has a
   word beside the drawing, so that colour never stands alone. */

type Seen = Readonly<Record<string, number>>;
type Drawn = Exclude<TaskComponent, 'plug'>;

const BODY = '#4A5357';
const STEEL = '#B9C0C2';
const RUBBER = '#2E3133';
const BRASS = '#C79A45';
const FAULT = '#A3143F';
const OIL = '#8A6A2C';

const has = (seen: Seen, ...words: readonly string[]): boolean => words.some((word) => word in seen);

/** One part, 120 by 150 units. @param seen what was seen, 1 to 3; nothing: not looked at, drawn dotted */
export function PartDrawing({
  component,
  seen,
  title,
  towers = 6,
  height = '180px',
  quiet = false,
}: {
  component: Drawn;
  seen: Seen;
  title: string;
  /** Of a cap. */
  towers?: number;
  height?: string;
  /** Does not say in words what it shows: for the trainer. */
  quiet?: boolean;
}) {
  const words = Object.keys(seen);
  const isUnseen = words.length === 0;
  return (
    <svg
      viewBox="0 0 120 150"
      width="100%"
      style={{ maxHeight: height }}
      role="img"
      aria-label={quiet ? title : `${title}: ${isUnseen ? 'nothing described yet' : words.join(', ')}`}
      strokeLinejoin="round"
    >
      <g
        stroke="currentColor"
        strokeWidth="1.6"
        strokeDasharray={isUnseen ? '4 3' : undefined}
        fillOpacity={isUnseen ? 0.25 : undefined}
      >
        {shapeOf(component, seen, towers)}
      </g>
    </svg>
  );
}

function shapeOf(component: Drawn, seen: Seen, towers: number): ReactNode {
  switch (component) {
    case 'coil':
      return <Coil seen={seen} />;
    case 'rail':
      return <Rail seen={seen} />;
    case 'boot':
      return <Boot seen={seen} at={60} />;
    case 'lead':
    case 'lead_set':
      return <Lead seen={seen} />;
    case 'cap':
      return <Cap seen={seen} towers={towers} />;
    case 'rotor':
      return <Rotor seen={seen} />;
    case 'seal':
      return <Seal seen={seen} />;
  }
}

/** Brass, unless one of the words says otherwise. */
const colourOf = (seen: Seen, colours: readonly (readonly [string, string])[]): string =>
  colours.find(([word]) => has(seen, word))?.[1] ?? BRASS;

const Crack = ({ d }: { d: string }) => <path d={d} fill="none" stroke={FAULT} strokeWidth="2.4" />;
const Track = ({ d }: { d: string }) => <path d={d} fill="none" stroke="#111" strokeWidth="2.4" />;

/** Head with its connector, tower, and the boot below. */
function Coil({ seen }: { seen: Seen }) {
  const swollen = has(seen, 'coil swollen');
  const melted = has(seen, 'coil melted');
  return (
    <>
      <path d={swollen ? 'M30 12q30-12 60 0l6 20-6 22q-30 10-60 0l-6-22Z' : 'M32 10h56v44H32Z'} fill={BODY} />
      {melted && <path d="M40 54q4 12 8 0q6 16 12 0q6 12 12 0" fill={BODY} />}
      <path d="M88 20h18v18H88Z" fill={has(seen, 'connector tab broken') ? 'none' : STEEL} />
      {has(seen, 'connector tab broken') && <Crack d="M90 22l14 14M104 22 90 36" />}
      <path d="M52 54h16v18H52Z" fill={has(seen, 'coil terminal corroded') ? '#6E9A6A' : STEEL} />
      {has(seen, 'coil body cracked') && <Crack d="M38 14l12 14-6 8 14 16" />}
      {has(seen, 'coil tower tracked') && <Track d="M60 54c-5 5 5 8 0 18" />}
      {has(seen, 'coil oily', 'oil in well') && <path d="M32 42h56v12H32Z" fill={OIL} opacity="0.75" stroke="none" />}
      {has(seen, 'coil stuck in the well') && <Crack d="M40 74v66M80 74v66" />}
      <Boot seen={seen} at={60} from={72} />
    </>
  );
}

/** One housing over four plugs. */
function Rail({ seen }: { seen: Seen }) {
  return (
    <>
      <path d="M6 24h108v26H6Z" fill={BODY} />
      {[20, 46, 74, 100].map((x) => (
        <path key={x} d={`M${x - 6} 50h12v58h-12Z`} fill={RUBBER} />
      ))}
      {has(seen, 'coil body cracked') && <Crack d="M30 26l12 8-6 6 14 9" />}
      {has(seen, 'coil tower tracked', 'boot tracked') && <Track d="M46 52c-4 12 4 20 0 50" />}
      {has(seen, 'boot torn') && <Crack d="M14 84l12 6M14 92l12-6" />}
    </>
  );
}

/** A rubber tube with a spring in it. */
function Boot({ seen, at, from = 20 }: { seen: Seen; at: number; from?: number }) {
  const wide = has(seen, 'boot swollen', 'lead boot swollen') ? 17 : 11;
  const to = from + 68;
  return (
    <>
      <path
        d={`M${at - 11} ${from}L${at - wide} ${from + 34}L${at - 9} ${to}h18L${at + wide} ${from + 34}L${at + 11} ${from}Z`}
        fill={RUBBER}
      />
      <path
        d={[0, 1, 2, 3].map((i) => `M${at - 5} ${to - 4 - i * 6}l10 3`).join('')}
        fill="none"
        stroke={has(seen, 'boot spring corroded') ? '#A7653A' : STEEL}
        strokeWidth="2"
      />
      {has(seen, 'boot torn') && <Crack d={`M${at - 13} ${from + 30}l12 8-8 8 14 6`} />}
      {has(seen, 'boot tracked') && <Track d={`M${at + 4} ${from + 6}c-8 14 6 24-2 50`} />}
      {has(seen, 'boot left on the plug') && <Crack d={`M${at - 14} ${from + 4}h28`} />}
    </>
  );
}

/** A lead in a bow, with a boot at each end. */
function Lead({ seen }: { seen: Seen }) {
  return (
    <>
      <path d="M24 30C10 90 110 60 96 120" fill="none" stroke={RUBBER} strokeWidth="9" />
      <path d="M16 12h16v24H16Z" fill={RUBBER} />
      <path d="M88 114h16v26H88Z" fill={RUBBER} />
      <path d="M20 6h8v8h-8Z" fill={has(seen, 'lead terminal loose') ? 'none' : BRASS} />
      {has(seen, 'lead terminal loose') && <Crack d="M18 12h12" />}
      {has(seen, 'lead burnt') && <path d="M52 74q8-8 16 0q-8 12-16 0Z" fill="#111" stroke={FAULT} strokeWidth="2" />}
      {has(seen, 'lead chafed') && <path d="M36 74l10 8M42 70l10 8" stroke={STEEL} strokeWidth="3" fill="none" />}
      {has(seen, 'lead boot torn') && <Crack d="M86 122l20 8" />}
      {has(seen, 'lead tracked') && <Track d="M92 112c-8 8 8 16 4 26" />}
      {has(seen, 'lead of another cylinder') && <Crack d="M100 20l14 14M114 20l-14 14" />}
    </>
  );
}

/** Seen from inside: the terminals in a ring, the centre button in the middle. */
function Cap({ seen, towers }: { seen: Seen; towers: number }) {
  const terminal = colourOf(seen, [
    ['cap terminals burnt', '#111'],
    ['cap terminals oxidised', '#DDE7DC'],
  ]);
  return (
    <>
      <circle cx="60" cy="74" r="54" fill={BODY} />
      <circle cx="60" cy="74" r="44" fill="#6A7479" />
      {Array.from({ length: towers }, (_, i) => {
        const turn = (2 * Math.PI * i) / towers - Math.PI / 2;
        const [x, y] = [60 + 34 * Math.cos(turn), 74 + 34 * Math.sin(turn)];
        return <circle key={turn} cx={x} cy={y} r="6" fill={terminal} />;
      })}
      <circle cx="60" cy="74" r={has(seen, 'cap centre button worn') ? 3.5 : 7} fill="#2B2A28" />
      {has(seen, 'cap wet inside') && (
        <path d="M34 96q6-10 12 0q-6 10-12 0ZM70 52q6-10 12 0q-6 10-12 0Z" fill="#7FB4D6" stroke="none" />
      )}
      {has(seen, 'cap tracked') && <Track d="M60 74c10-8 4-18 16-28" />}
      {has(seen, 'cap cracked') && <Crack d="M10 60l20 8-4 8 22 10" />}
    </>
  );
}

/** From above: hub, arm and tip. */
function Rotor({ seen }: { seen: Seen }) {
  const tip = colourOf(seen, [
    ['rotor tip burnt', '#111'],
    ['rotor corroded', '#6E9A6A'],
  ]);
  return (
    <>
      <circle cx="60" cy="96" r="34" fill={BODY} />
      <circle cx="60" cy="96" r="12" fill="#6A7479" />
      <path d={has(seen, 'rotor worn') ? 'M52 96 56 40h8l4 56Z' : 'M50 96 52 30h16l2 66Z'} fill={BRASS} />
      <path d={has(seen, 'rotor worn') ? 'M54 42h12v-6H54Z' : 'M48 32h24V18H48Z'} fill={tip} />
      {has(seen, 'rotor cracked') && <Crack d="M30 92l16 6-4 8 18 10" />}
    </>
  );
}

/** A ring with a lip. */
function Seal({ seen }: { seen: Seen }) {
  return (
    <>
      <circle cx="60" cy="74" r="46" fill={RUBBER} />
      <circle cx="60" cy="74" r="28" fill="none" stroke={STEEL} strokeWidth="3" />
      {has(seen, 'seal weeping') && <path d="M84 104q10-14 18 2q-8 14-18-2Z" fill={OIL} stroke="none" />}
      {has(seen, 'seal hard') && <Crack d="M20 62l16 4M24 92l14-4M96 50l-12 8" />}
    </>
  );
}
