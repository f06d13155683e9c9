'use client';

import { chakra } from '@chakra-ui/react';
import { type Layout, type Site, siteId, siteName } from '@/core/engine/layout';

export interface SiteMark {
  readonly state: 'plain' | 'done' | 'now' | 'todo';
  /** Short lines beside the site. */
  readonly lines?: readonly string[];
  readonly href?: string;
}

const STEP = 124;
const RADIUS = 24;
const MARGIN = 54;

/**
 * The engine from above as the technician stands, drawn from its layout: the front of the vehicle is at the bottom.
 * Done is ticked, the site in hand is filled, what is to do is dashed: colour is not the only sign.
 */
export function EngineDrawing({
  layout,
  marks = {},
  title,
}: {
  layout: Layout;
  marks?: Readonly<Record<string, SiteMark>>;
  title: string;
}) {
  const twin = layout.model.plugsPerCylinder === 2;
  const transverse = layout.model.mounting === 'transverse';
  const [alongX, alongY] = transverse ? [STEP, twin ? 104 : 64] : [twin ? 168 : 140, 70];
  const at = (site: Site) => ({ x: site.x * alongX, y: site.y * alongY });
  const points = layout.sites.map(at);
  const [left, right] = [
    Math.min(...points.map((p) => p.x)) - MARGIN,
    Math.max(...points.map((p) => p.x)) + MARGIN + 34,
  ];
  const [top, bottom] = [
    Math.min(...points.map((p) => p.y)) - MARGIN + 8,
    Math.max(...points.map((p) => p.y)) + MARGIN + 18,
  ];
  const [width, height] = [right - left, bottom - top];
  return (
    <chakra.svg
      viewBox={`${left} ${top} ${width} ${height}`}
      width="100%"
      maxH="330px"
      role="group"
      aria-label={title}
      color="ink"
      css={{ '& text': { fontFamily: 'body' } }}
    >
      {layout.model.banks.map((bank) => (
        <BankShape
          key={bank.place}
          name={bank.place}
          points={layout.sites.filter((s) => bank.cylinders.includes(s.cylinder)).map(at)}
        />
      ))}
      {layout.sites.map((site) => (
        <SiteShape
          key={siteId(site)}
          name={siteName(layout, site)}
          {...at(site)}
          mark={marks[siteId(site)] ?? { state: 'plain' }}
        />
      ))}
      <chakra.text x={(left + right) / 2 - 8} y={bottom - 6} textAnchor="middle" fontSize="13px" fill="soft">
        ▼ front of the vehicle
      </chakra.text>
    </chakra.svg>
  );
}

function BankShape({ name, points }: { name: string; points: readonly { x: number; y: number }[] }) {
  const [x, y] = [Math.min(...points.map((p) => p.x)) - 40, Math.min(...points.map((p) => p.y)) - 34];
  const [right, bottom] = [Math.max(...points.map((p) => p.x)) + 70, Math.max(...points.map((p) => p.y)) + 34];
  return (
    <g>
      <chakra.rect
        x={x}
        y={y}
        width={right - x}
        height={bottom - y}
        rx={12}
        fill="sheet"
        stroke="isobar"
        strokeWidth={1.5}
      />
      {name !== 'only' && (
        <chakra.text x={x + 8} y={y - 5} fontSize="11px" fill="soft">
          {name}
        </chakra.text>
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

function SiteShape({ name, x, y, mark }: { name: string; x: number; y: number; mark: SiteMark }) {
  const look = LOOKS[mark.state];
  const lines = mark.state === 'done' ? ['✓', ...(mark.lines ?? [])] : (mark.lines ?? []);
  const shape = (
    <>
      <chakra.circle
        cx={x}
        cy={y}
        r={RADIUS}
        fill={look.fill}
        stroke={look.stroke}
        strokeWidth={2}
        strokeDasharray={look.dash}
      />
      <chakra.text x={x} y={y + 6.5} textAnchor="middle" fontSize="19px" fontWeight="700" fill={look.ink}>
        {name}
      </chakra.text>
      {lines.map((line, i) => (
        <chakra.text
          key={line}
          x={x + RADIUS + 5}
          y={y + 4 + (i - (lines.length - 1) / 2) * 13}
          fontSize="11.5px"
          fill="soft"
        >
          {line}
        </chakra.text>
      ))}
    </>
  );
  if (!mark.href) return <g>{shape}</g>;
  return (
    <a
      href={mark.href}
      aria-label={`Site ${name}, ${{ plain: 'open', done: 'done', now: 'in hand', todo: 'to do' }[mark.state]}`}
    >
      {shape}
    </a>
  );
}
