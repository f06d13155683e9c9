import { memo } from 'react';
import { siteTarget } from '@/core/work/targets';
import { EngineDrawing, type SiteMark } from '../../drawings/engine-drawing';
import type { Floor } from '../sync/use-floor';
import { ENGINE, placesAt, stateAt } from './places-at';

/** The engine with what is done and left at each site; larger and with its leads while cap, rotor or leads are in hand. */
export function JobEngine({ floor, here }: { floor: Floor; here: string }) {
  const isEngine = here === ENGINE;
  const marks = marksOf(floor, here);
  return (
    <Engine
      layout={floor.job.layout}
      marks={isEngine ? withoutFigures(marks) : marks}
      title="Engine: choose a cylinder"
      maxH={isEngine ? '340px' : '250px'}
      ignition={isEngine}
    />
  );
}

/** Figures beside the sites would lie under the leads. */
const withoutFigures = (marks: Readonly<Record<string, SiteMark>>): Readonly<Record<string, SiteMark>> =>
  Object.fromEntries(Object.entries(marks).map(([id, { lines: _, ...mark }]) => [id, mark]));

/** Drawn again only when a mark has changed, and with its leads where cap or leads are in hand: most presses change neither. */
const Engine = memo(
  EngineDrawing,
  (before, after) =>
    before.layout === after.layout &&
    before.ignition === after.ignition &&
    JSON.stringify(before.marks) === JSON.stringify(after.marks),
);

function marksOf({ job, record }: Floor, here: string): Record<string, SiteMark> {
  return Object.fromEntries(
    job.sites.flatMap(({ id }) => {
      const places = placesAt(job, id);
      const served = job.places.filter(({ sites, moved }) => !moved && sites.includes(id));
      if (served.length === 0) return [];
      const left = served.every((place) => stateAt(record, place) !== 'open') ? ('done' as const) : ('todo' as const);
      const fields = record[siteTarget(id)] ?? {};
      const torque = fields.done === true ? String(fields.installedTorque ?? '') : '';
      const gap = fields.removedGap ? ['old gap', String(fields.removedGap)] : [];
      const lines = [...gap, ...(torque === '' ? [] : [torque])];
      const state = id === here ? ('now' as const) : left;
      const href = places.length > 0 ? `#sites-${id}` : undefined;
      return [[id, { state, lines: id === here ? [] : lines, href }] as const];
    }),
  );
}
