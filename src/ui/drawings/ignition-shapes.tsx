'use client';

import type { Box, Point } from '@/core/engine/drawing';
import { paint } from '@/ui/theme/paint';
import type { CoilShape, IgnitionShapes, LeadShape, TowerShape } from './ignition-geometry';

/** Coils: a plate under the plugs it sits on, or a block beside the engine. */
export function CoilsUnder({ coils }: { coils: readonly CoilShape[] }) {
  return coils.map(({ name, over, box }) => (
    <g key={name}>
      <rect
        x={box.left}
        y={box.top}
        width={box.right - box.left}
        height={box.bottom - box.top}
        rx={over ? 14 : 6}
        fill={paint(over ? 'tint' : 'sheet')}
        stroke={paint('action')}
        strokeWidth={1.5}
      />
      {!over && (
        <text
          x={(box.left + box.right) / 2}
          y={(box.top + box.bottom) / 2 + 5}
          textAnchor="middle"
          fill={paint('ink')}
          style={{ fontSize: '14px' }}
        >
          {name}
        </text>
      )}
    </g>
  ));
}

/** The strip over the coils of a bank that holds their connectors. */
export function ConnectorRails({ rails }: { rails: readonly Box[] }) {
  return rails.map((rail) => (
    <rect
      key={`${rail.left} ${rail.top}`}
      x={rail.left}
      y={rail.top}
      width={rail.right - rail.left}
      height={rail.bottom - rail.top}
      rx={4}
      fill={paint('isobar')}
      stroke={paint('ink')}
      strokeWidth={1}
    />
  ));
}

export function Leads({ leads }: { leads: readonly LeadShape[] }) {
  return leads.map((lead) => (
    <path key={lead.name} d={pathOf(lead)} fill="none" stroke={paint('ramp.2')} strokeWidth={2.5} />
  ));
}

function pathOf({ from, leave, via, arrive, to }: LeadShape): string {
  const start = `M${from.x} ${from.y} C${leave.x} ${leave.y}`;
  const end = `${arrive.x} ${arrive.y} ${to.x} ${to.y}`;
  if (!via) return `${start} ${end}`;
  return `${start} ${via.x + 44} ${via.y} ${via.x} ${via.y} C${via.x - 26} ${via.y} ${end}`;
}

/** The cap from above: towers numbered by the cylinder their lead runs to, and the way the rotor turns. */
export function Distributor({ centre, radius, towers, clockwise }: NonNullable<IgnitionShapes['distributor']>) {
  return (
    <g>
      <circle cx={centre.x} cy={centre.y} r={radius} fill={paint('sheet')} stroke={paint('ink')} strokeWidth={2} />
      {towers.map((tower) => (
        <Tower key={tower.tower} {...tower} />
      ))}
      <Turn centre={centre} clockwise={clockwise} />
    </g>
  );
}

function Tower({ x, y, cylinder, tower }: TowerShape) {
  return (
    <g>
      <circle
        cx={x}
        cy={y}
        r={13}
        fill={paint('paper')}
        stroke={paint(tower === 1 ? 'action' : 'ink')}
        strokeWidth={1.5}
      />
      <text x={x} y={y + 5} textAnchor="middle" fill={paint('ink')} style={{ fontSize: '14px', fontWeight: '700' }}>
        {cylinder}
      </text>
    </g>
  );
}

function Turn({ centre: { x, y }, clockwise }: { centre: Point; clockwise: boolean }) {
  const side = clockwise ? 1 : -1;
  return (
    <path
      d={`M${x - side * 15} ${y - 8} A17 17 0 0 ${clockwise ? 1 : 0} ${x + side * 15} ${y - 8} m${-side * 9} ${-1} l${side * 9} 1 l${side * 1} ${-9}`}
      fill="none"
      stroke={paint('soft')}
      strokeWidth={2}
    />
  );
}
