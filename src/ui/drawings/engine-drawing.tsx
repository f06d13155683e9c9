'use client';

import { boxOf, type Point, SITE_RADIUS, sitePoints } from '@/core/engine/drawing';
import { cylinderText, type Layout, type Site, siteName } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { capital } from '@/core/shared/capital';
import { paint } from '@/ui/theme/paint';
import { extentOf, ignitionShapes } from './ignition-geometry';
import { CoilsUnder, ConnectorRails, Distributor, Leads } from './ignition-shapes';

export interface SiteMark {
  readonly state: 'plain' | 'done' | 'now' | 'todo';
  /** Short lines beside the site. */
  readonly lines?: readonly string[];
  readonly href?: string;
  /** How much of a suspicion lies on it, 0 to 1: drawn as shade, and as lines of equal suspicion round it. */
  readonly share?: number;
  /** The same as a figure, beyond the lines, and what else is said of it. */
  readonly figure?: readonly string[];
}

const MARGIN = 58;
/** What lines beside the last plug of a bank need more. */
const LINES_ROOM = 36;
/** What lines of suspicion and their figure need round an engine. */
const SUSPICION_ROOM = 56;

/**
 * The engine from above as the technician stands, drawn from its layout: the front of the vehicle is at the bottom.
 * Done is ticked, the site in hand is filled, what is to do is dashed: colour is not the only sign.
 *
 * @param ignition draws coils, leads and distributor too
 */
export function EngineDrawing({
  layout,
  marks = {},
  title,
  ignition = false,
  maxH = '330px',
}: {
  layout: Layout;
  marks?: Readonly<Record<string, SiteMark>>;
  title: string;
  ignition?: boolean;
  maxH?: string;
}) {
  const at = sitePoints(
    layout,
    Object.values(marks).some((mark) => mark.lines?.length),
  );
  const shapes = ignition ? ignitionShapes(layout, at) : null;
  const isSuspected = Object.values(marks).some(({ share }) => share !== undefined);
  const plugs = boxOf([...at.values()], MARGIN + (isSuspected ? SUSPICION_ROOM : 0));
  const room = linesWanted(marks) ? LINES_ROOM : 0;
  const space = extentOf(shapes, { ...plugs, right: plugs.right + room });
  const [width, height] = [space.right - space.left + 16, space.bottom - space.top + 34];
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no fieldset
    <svg
      viewBox={`${space.left - 8} ${space.top - 4} ${width} ${height}`}
      width="100%"
      style={{ maxWidth: Math.round(width * 1.15), maxHeight: maxH }}
      role="group"
      aria-label={title}
    >
      {layout.model.banks.map((bank) => (
        <BankShape
          key={bank.place}
          name={bank.place}
          room={room}
          points={layout.sites
            .filter((s) => bank.cylinders.includes(s.cylinder))
            .flatMap((s) => at.get(siteId(s)) ?? [])}
        />
      ))}
      {shapes && <CoilsUnder coils={shapes.coils} />}
      {shapes && <ConnectorRails rails={shapes.connectorRails} />}
      {shapes && <Leads leads={shapes.leads} />}
      {layout.sites.map((site) => (
        <SiteShape
          key={siteId(site)}
          name={siteName(layout, site)}
          {...(at.get(siteId(site)) ?? { x: 0, y: 0 })}
          mark={marks[siteId(site)] ?? { state: 'plain' }}
          figure={figureSide(layout, site)}
        />
      ))}
      {shapes?.distributor && <Distributor {...shapes.distributor} />}
      <text
        x={(plugs.left + plugs.right) / 2}
        y={space.bottom + 18}
        textAnchor="middle"
        fill={paint('soft')}
        style={{ fontSize: '14px' }}
      >
        ▼ front of the vehicle
      </text>
    </svg>
  );
}

const linesWanted = (marks: Readonly<Record<string, SiteMark>>): boolean =>
  Object.values(marks).some((mark) => (mark.lines?.length ?? 0) > 0 || mark.state === 'done');

function BankShape({ name, room, points }: { name: string; room: number; points: readonly Point[] }) {
  const { left, top, right, bottom } = boxOf(points, 40);
  return (
    <g>
      <rect
        x={left}
        y={top + 2}
        width={right - left + room}
        height={bottom - top - 4}
        rx={12}
        fill={paint('sheet')}
        stroke={paint('isobar')}
        strokeWidth={1.5}
      />
      {name !== 'only' && (
        <text x={left + 8} y={top - 3} fill={paint('soft')} style={{ fontSize: '12.5px' }}>
          {name}
        </text>
      )}
    </g>
  );
}

const LOOKS = {
  plain: { fill: 'paper', stroke: 'ink', dash: undefined, ink: 'ink' },
  done: { fill: 'tint', stroke: 'action', dash: undefined, ink: 'ink' },
  now: { fill: 'action', stroke: 'action', dash: undefined, ink: 'onAction' },
  todo: { fill: 'paper', stroke: 'soft', dash: '5 4', ink: 'ink' },
} as const;

/** Lines of equal suspicion: how many lie round a plug, and how dark it is. */
const LINES = [0.1, 0.25, 0.5] as const;
const LINE_STEP = 9;
/** How far the lines round a plug reach. */
const reachOf = (share: number): number => LINE_STEP * LINES.filter((least) => share >= least).length;
const heatOf = (share: number): number => Math.min(5, Math.round(share * 6));

function SuspicionLines({ x, y, share }: Point & { share: number }) {
  return LINES.filter((least) => share >= least).map((least, i) => (
    <circle
      key={least}
      cx={x}
      cy={y}
      r={SITE_RADIUS + LINE_STEP * (i + 1)}
      fill="none"
      stroke={paint(`ramp.${heatOf(share)}`)}
      strokeWidth={1.6 - i * 0.3}
    />
  ));
}

/** The darker the fill, the more it needs light figures on it. */
const suspectLook = (share: number) =>
  share >= LINES[0]
    ? ({
        fill: `ramp.${heatOf(share)}`,
        stroke: 'ink',
        dash: undefined,
        ink: share >= LINES[1] ? 'sheet' : 'ink',
      } as const)
    : LOOKS.plain;

const FIGURE_LINE = 17;

type Side = 'above' | 'below' | 'left' | 'right';

/** On which side of a plug there is room for its figure: away from the rest of the engine. */
function figureSide({ model }: Layout, { bank }: Site): Side {
  const place = model.banks[bank - 1]?.place;
  if (model.mounting === 'transverse') return place === 'front' ? 'below' : 'above';
  return place === 'left' ? 'left' : 'right';
}

/** The figure of a suspicion, beyond its lines. */
function ShareFigure({ x, y, share, side, lines }: Point & { share: number; side: Side; lines: readonly string[] }) {
  const out = SITE_RADIUS + reachOf(share) + 6;
  const { dx, dy, anchor } = {
    above: { dx: 0, dy: -out, anchor: 'middle' as const },
    below: { dx: 0, dy: out + 12, anchor: 'middle' as const },
    left: { dx: -out, dy: 6, anchor: 'end' as const },
    right: { dx: out, dy: 6, anchor: 'start' as const },
  }[side];
  return (
    <text textAnchor={anchor} fill={paint('ink')} style={{ fontSize: '16px', fontWeight: '600' }}>
      {lines.map((line, i) => (
        <tspan key={line} x={x + dx} y={y + dy + FIGURE_LINE * (side === 'above' ? i - lines.length + 1 : i)}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

function SiteShape({ name, x, y, mark, figure }: { name: string; x: number; y: number; mark: SiteMark; figure: Side }) {
  const look = mark.share === undefined ? LOOKS[mark.state] : suspectLook(mark.share);
  const lines = mark.state === 'done' ? ['✓', ...(mark.lines ?? [])] : (mark.lines ?? []);
  const shape = (
    <>
      {mark.share !== undefined && <SuspicionLines x={x} y={y} share={mark.share} />}
      <circle
        cx={x}
        cy={y}
        r={SITE_RADIUS}
        fill={paint(look.fill)}
        stroke={paint(look.stroke)}
        strokeWidth={2}
        strokeDasharray={look.dash}
      />
      <text x={x} y={y + 7} textAnchor="middle" fill={paint(look.ink)} style={{ fontSize: '20px', fontWeight: '700' }}>
        {name}
      </text>
      {mark.share !== undefined && mark.figure && (
        <ShareFigure x={x} y={y} share={mark.share} side={figure} lines={mark.figure} />
      )}
      {lines.map((line, i) => (
        <text
          key={line}
          x={x + SITE_RADIUS + 5}
          y={y + 4 + (i - (lines.length - 1) / 2) * 13}
          fill={paint('soft')}
          style={{ fontSize: '11.5px' }}
        >
          {line}
        </text>
      ))}
    </>
  );
  if (!mark.href) return <g>{shape}</g>;
  const reach = x + SITE_RADIUS + (lines.length > 0 ? 62 : 0);
  return (
    <a
      href={mark.href}
      aria-label={`${capital(cylinderText(name))}${{ plain: '', done: ', done', now: ', in hand', todo: ', to do' }[mark.state]}`}
    >
      {/* One target with the lines beside it, for a gloved finger. */}
      <polygon
        points={[
          [x - SITE_RADIUS, y - SITE_RADIUS],
          [reach, y - SITE_RADIUS],
          [reach, y + SITE_RADIUS],
          [x - SITE_RADIUS, y + SITE_RADIUS],
        ].join(' ')}
        fill="transparent"
      />
      {shape}
    </a>
  );
}
