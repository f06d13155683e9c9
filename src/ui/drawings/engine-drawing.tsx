'use client';

import { chakra } from '@chakra-ui/react';
import { type Layout, type Site, siteId, siteName } from '@/core/engine/layout';
import { BESIDE, boxOf, ignitionShapes, type Point, standsBeside } from './ignition-geometry';
import { CoilsUnder, Distributor, Leads } from './ignition-shapes';

export interface SiteMark {
  readonly state: 'plain' | 'done' | 'now' | 'todo';
  /** Short lines beside the site. */
  readonly lines?: readonly string[];
  readonly href?: string;
}

const RADIUS = 24;
const MARGIN = 58;

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
  const beside = shapes !== null && standsBeside(layout.model);
  const box = boxOf([...at.values()], MARGIN);
  const low = Math.max(box.bottom, ...(shapes?.coils.map((coil) => coil.box.bottom + 10) ?? []));
  const high = Math.min(box.top, ...(shapes?.coils.map((coil) => coil.box.top - 10) ?? []));
  const engineRight = box.right + 26;
  const [width, height] = [engineRight + (beside ? BESIDE - 20 : 0) - box.left, low + 26 - high];
  return (
    <chakra.svg
      viewBox={`${box.left} ${high} ${width} ${height}`}
      width="100%"
      maxH={maxH}
      role="group"
      aria-label={title}
      color="ink"
      css={{ '& text': { fontFamily: 'body' } }}
    >
      {layout.model.banks.map((bank) => (
        <BankShape
          key={bank.place}
          name={bank.place}
          points={layout.sites
            .filter((s) => bank.cylinders.includes(s.cylinder))
            .flatMap((s) => at.get(siteId(s)) ?? [])}
        />
      ))}
      {shapes && <CoilsUnder coils={shapes.coils} />}
      {shapes && <Leads leads={shapes.leads} />}
      {layout.sites.map((site) => (
        <SiteShape
          key={siteId(site)}
          name={siteName(layout, site)}
          {...(at.get(siteId(site)) ?? { x: 0, y: 0 })}
          mark={marks[siteId(site)] ?? { state: 'plain' }}
        />
      ))}
      {shapes?.distributor && <Distributor {...shapes.distributor} />}
      <chakra.text x={(box.left + engineRight) / 2 - 8} y={low + 18} textAnchor="middle" fontSize="14px" fill="soft">
        ▼ front of the vehicle
      </chakra.text>
    </chakra.svg>
  );
}

/** Drawing units of each plug; lines beside the plugs need room. */
function sitePoints(layout: Layout, withLines: boolean): ReadonlyMap<string, Point> {
  const twin = layout.model.plugsPerCylinder === 2;
  const transverse = layout.model.mounting === 'transverse';
  const along = withLines ? 124 : 84;
  const [alongX, alongY] = transverse ? [along, twin ? 104 : 66] : [twin ? 168 : withLines ? 140 : 112, twin ? 72 : 70];
  return new Map(layout.sites.map((site: Site) => [siteId(site), { x: site.x * alongX, y: site.y * alongY }]));
}

function BankShape({ name, points }: { name: string; points: readonly Point[] }) {
  const { left, top, right, bottom } = boxOf(points, 40);
  return (
    <g>
      <chakra.rect
        x={left}
        y={top + 2}
        width={right - left}
        height={bottom - top - 4}
        rx={12}
        fill="sheet"
        stroke="isobar"
        strokeWidth={1.5}
      />
      {name !== 'only' && (
        <chakra.text x={left + 8} y={top - 3} fontSize="12.5px" fill="soft">
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
      <chakra.text x={x} y={y + 7} textAnchor="middle" fontSize="20px" fontWeight="700" fill={look.ink}>
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
