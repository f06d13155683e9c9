'use client';

import type { Mm } from '@/core/shared/kinds';

/* The removed plug as it was described: the firing end large, since it carries the message, the body small above it, and a
   break between. Every mark has a word in the legend beside the drawing, so that colour never stands alone. */

const NOSE: Readonly<Record<string, string>> = {
  'nose tan': '#C9A46B',
  'nose grey': '#A9A9A2',
  'nose white': '#FBFBF6',
  'nose blistered': '#F6F1E6',
  'nose black dry': '#2B2A28',
  'nose black oily': '#17130E',
  'nose coloured trace': '#D8C08D',
  'nose washed clean': '#EFEDE4',
};
const STEEL = '#B9C0C2';

type Seen = Readonly<Record<string, number>>;

const has = (seen: Seen, ...words: readonly string[]): boolean => words.some((word) => word in seen);
/** A fault that is beyond doubt is drawn stronger than one just visible. */
const strength = (seen: Seen, word: string): number => [0.45, 0.75, 1][(seen[word] ?? 1) - 1] ?? 0.75;

/**
 * One plug, 136 by 246 units, firing end at the bottom.
 *
 * @param seen what was seen and how strongly, 1 to 3; nothing: not looked at, drawn dotted
 * @param gapMm drawn to scale at the tip; null: not measured, drawn dotted
 */
export function PlugDrawing({
  seen,
  gapMm,
  seat,
  title,
  height = '246px',
  quiet = false,
  view = 'firing end',
}: {
  seen: Seen;
  gapMm: Mm | null;
  seat: 'gasket' | 'conical';
  title: string;
  height?: string;
  /** Does not say in words what it shows: for the trainer. */
  quiet?: boolean;
  /** What it is about: the body is then drawn alone, and large. */
  view?: 'firing end' | 'body';
}) {
  const unseen = Object.keys(seen).length === 0;
  const words = Object.keys(seen).join(', ');
  return (
    <svg
      viewBox={view === 'body' ? '14 -4 92 104' : '-8 0 136 246'}
      width="100%"
      style={{ maxHeight: height }}
      role="img"
      aria-label={quiet ? title : `${title}${unseen ? ': nothing described yet' : `: ${words}`}`}
      strokeLinejoin="round"
    >
      <g
        stroke="currentColor"
        strokeWidth={view === 'body' ? 1 : 2}
        transform={view === 'body' ? undefined : 'translate(30 0) scale(0.5)'}
      >
        <Body seen={seen} />
        <Seat seen={seen} seat={seat} />
      </g>
      {view === 'firing end' && (
        <g stroke="currentColor" strokeWidth="0.9" transform="translate(-39 -118) scale(1.65)">
          <Threads seen={seen} />
          <FiringEnd seen={seen} gapMm={gapMm} unseen={unseen} />
        </g>
      )}
    </svg>
  );
}

/** Terminal, insulator outside, hexagon: small. */
function Body({ seen }: { seen: Seen }) {
  const oily = has(seen, 'insulator oily', 'oil in well');
  return (
    <>
      <rect x="54" y="2" width="12" height="9" rx="2" fill={STEEL} />
      <path d="M50 11h20l3 36H47Z" fill="#F7F5EE" />
      {oily && <path d="M49 24h22l2 23H47Z" fill="#8A6A2C" opacity="0.7" stroke="none" />}
      {has(seen, 'carbon track', 'boot tracked') && (
        <path
          d="M60 12c-3 8 4 12 0 20s3 9 0 15"
          fill="none"
          stroke="#111"
          strokeWidth="2"
          opacity={strength(seen, 'carbon track')}
        />
      )}
      {has(seen, 'insulator cracked') && <path d="M49 20l9 6-5 5 12 7" fill="none" stroke="#A3143F" strokeWidth="2" />}
      {has(seen, 'boot torn', 'boot swollen') && (
        <path
          d="M46 12h-6v22h6"
          fill="none"
          stroke="#7A2A63"
          strokeDasharray={has(seen, 'boot torn') ? '3 3' : undefined}
          strokeWidth="2.4"
        />
      )}
      <path d="M40 47h40l3 7v12l-3 6H40l-3-6V54Z" fill={STEEL} />
      <path d="M50 47v25M70 47v25" />
      <InTheWell seen={seen} />
    </>
  );
}

/** What stands or lies round the hexagon. */
function InTheWell({ seen }: { seen: Seen }) {
  const pools = [
    ['water in well', '#6FA3BD'],
    ['coolant in well', '#6E9A6A'],
  ] as const;
  return (
    <>
      {pools.map(
        ([word, fill]) =>
          has(seen, word) && <path key={word} d="M26 62q34 8 68 0v13H26Z" fill={fill} opacity="0.75" stroke="none" />,
      )}
      {has(seen, 'debris in well') &&
        [28, 34, 83, 89, 94].map((x, i) => <circle key={x} cx={x} cy={i % 2 === 0 ? 74 : 69} r="3" fill="#4A4038" />)}
    </>
  );
}

/** Gasket or cone, and where the threads begin. */
function Seat({ seen, seat }: { seen: Seen; seat: 'gasket' | 'conical' }) {
  const doubled = has(seen, 'gasket doubled');
  const missing = has(seen, 'gasket missing');
  return (
    <>
      <path d="M44 80h32v14l-8 4-8-5-8 5-8-4Z" fill={STEEL} />
      {seat === 'gasket' && !missing && <rect x="38" y="73" width="44" height="6" rx="2" fill="#B4874E" />}
      {seat === 'gasket' && doubled && <rect x="38" y="80" width="44" height="6" rx="2" fill="#B4874E" />}
      {seat === 'gasket' && missing && (
        <rect x="38" y="73" width="44" height="6" rx="2" fill="none" strokeDasharray="3 3" stroke="#A3143F" />
      )}
      {seat === 'conical' && <path d="M40 72h40l-7 9H47Z" fill={STEEL} />}
      {has(seen, 'seat sooted') && (
        <rect x="38" y="71" width="44" height="10" fill="#111" opacity="0.55" stroke="none" />
      )}
    </>
  );
}

/** The last threads before the firing end, broken off above. */
function Threads({ seen }: { seen: Seen }) {
  const rust = has(seen, 'threads rusted', 'water in well');
  const galled = has(seen, 'threads galled');
  return (
    <>
      <path d="M44 130V106l8-4 8 5 8-5 8 4v24Z" fill={rust ? '#A7653A' : STEEL} />
      {[0, 1, 2, 3].map((i) => (
        <path
          key={i}
          d={galled ? `M44 ${112 + i * 5}l8 3 6-5 8 6 10-4` : `M44 ${113 + i * 5}l32 -4`}
          fill="none"
          strokeWidth="0.7"
          opacity="0.75"
        />
      ))}
    </>
  );
}

const CENTRE_TIP = 186;
/** Drawn units a millimetre of gap. */
const MM = 12;

/** Nose, electrodes and deposits: large. */
function FiringEnd({ seen, gapMm, unseen }: { seen: Seen; gapMm: Mm | null; unseen: boolean }) {
  const nose = Object.keys(NOSE).find((word) => word in seen);
  const gap = (gapMm ?? 0.9) * MM;
  const worn = has(seen, 'electrodes rounded', 'electrodes eroded');
  const melted = has(seen, 'electrodes melted');
  const strapY = CENTRE_TIP + gap;
  return (
    <>
      <path
        d="M44 130h32l-2 10-4 34H50l-4-34Z"
        fill={unseen ? 'none' : (NOSE[nose ?? ''] ?? '#EFE9DA')}
        strokeDasharray={unseen ? '4 3' : undefined}
      />
      {has(seen, 'nose blistered') &&
        [52, 60, 66].map((x, i) => <circle key={x} cx={x} cy={146 + i * 8} r="2.6" fill="#fff" strokeWidth="1" />)}
      {has(seen, 'nose coloured trace') && (
        <path
          d="M48 148c8-4 16 4 24 0"
          fill="none"
          stroke="#3E8E6A"
          strokeWidth="4"
          opacity={strength(seen, 'nose coloured trace')}
        />
      )}
      {has(seen, 'nose black oily') && (
        <path d="M52 150q5 8 0 16M66 146q4 8 0 18" fill="none" stroke="#6E5A36" strokeWidth="3" />
      )}
      {has(seen, 'nose cracked') && <path d="M52 140l8 9-6 7 11 10" fill="none" stroke="#A3143F" strokeWidth="2" />}
      {has(seen, 'ash') &&
        [50, 56, 64, 69].map((x, i) => (
          <circle key={x} cx={x} cy={140 + ((i * 11) % 30)} r="3.4" fill="#DAD6CC" strokeWidth="0.8" />
        ))}
      {has(seen, 'glazed') && <path d="M49 142l5 30M71 142l-5 30" stroke="#C7A33A" strokeWidth="3" opacity="0.8" />}
      <rect x="54" y="174" width="12" height={CENTRE_TIP - 174} rx={worn ? 5 : 0} fill="#8C9598" />
      {melted && <path d="M52 182q8 8 16-2" fill="#8C9598" />}
      <path
        d={`M76 132v${strapY - 132 + 9}H52v-9h15V132Z`}
        fill={STEEL}
        strokeDasharray={gapMm === null ? '4 3' : undefined}
      />
      {has(seen, 'electrodes eroded') && <path d={`M52 ${strapY}q6 5 12 0`} fill="#F5F3EC" />}
      {has(seen, 'electrodes peppered') &&
        [55, 59, 63, 70, 72].map((x, i) => (
          <circle key={x} cx={x} cy={178 + ((i * 7) % 22)} r="1.5" fill="#111" stroke="none" />
        ))}
      {has(seen, 'bridged') && <rect x="55" y={CENTRE_TIP} width="10" height={gap} fill="#6A5A46" />}
      {gapMm !== null && (
        <g strokeWidth="0.7">
          <path
            d={`M40 ${CENTRE_TIP}h12M40 ${strapY}h12M44 ${CENTRE_TIP}V${strapY}`}
            fill="none"
            stroke="currentColor"
          />
          <text
            x="38"
            y={CENTRE_TIP + gap / 2 + 3}
            textAnchor="end"
            fill="currentColor"
            stroke="none"
            style={{ fontSize: '8.5px' }}
          >
            {gapMm.toFixed(2)}
          </text>
        </g>
      )}
      {has(seen, 'oil in well', 'water in well', 'coolant in well', 'debris in well') && (
        <path d="M34 120q4-10 0-14M86 120q-4-10 0-14" fill="none" stroke="#44688F" strokeWidth="1.6" />
      )}
    </>
  );
}

/** The same plug as it went in, to be held beside the removed one. @param gapMm as it was fitted, or as the sheet wants it */
export function NewPlugDrawing(shown: Pick<Parameters<typeof PlugDrawing>[0], 'gapMm' | 'seat' | 'height' | 'view'>) {
  return <PlugDrawing seen={{ 'as new': 1 }} title="Fitted new" {...shown} />;
}
