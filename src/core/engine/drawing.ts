import type { Layout } from './layout';
import { siteId } from './model';

/* Where each site stands when an engine is drawn from above, the front of the vehicle at the bottom; on screens and on paper. */

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** What holds all points. @param margin round them, in their units */
export function boxOf(points: readonly Point[], margin = 0): Box {
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return {
    left: Math.min(...xs) - margin,
    top: Math.min(...ys) - margin,
    right: Math.max(...xs) + margin,
    bottom: Math.max(...ys) + margin,
  };
}

/** A plug is drawn as a circle of this radius, drawing units. */
export const SITE_RADIUS = 24;

/** The middle of each plug by its site, drawing units. @param withLines leaves room for short lines beside each */
export function sitePoints(layout: Layout, withLines = false): ReadonlyMap<string, Point> {
  const twin = layout.model.plugsPerCylinder === 2;
  const transverse = layout.model.mounting === 'transverse';
  const along = withLines ? 124 : 84;
  const across = withLines ? 140 : 112;
  const [alongX, alongY] = transverse ? [along, twin ? 104 : 66] : [twin ? 168 : across, twin ? 72 : 70];
  return new Map(layout.sites.map((site) => [siteId(site), { x: site.x * alongX, y: site.y * alongY }]));
}
