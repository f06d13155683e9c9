import { type Layout, siteName } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';

/* The engine as it is drawn on the screen, in black on paper: which cylinder is where. */

const RADIUS = 15;
const MARGIN = 24;

/** @returns an SVG with the front of the vehicle at the bottom, and its width in points */
export function engineSvg(layout: Layout): { readonly svg: string; readonly width: number } {
  const transverse = layout.model.mounting === 'transverse';
  const twin = layout.model.plugsPerCylinder === 2;
  const [alongX, alongY] = transverse ? [52, twin ? 62 : 48] : [twin ? 84 : 66, 44];
  const at = new Map(layout.sites.map((site) => [siteId(site), { x: site.x * alongX, y: site.y * alongY }]));
  const points = [...at.values()];
  const [left, right] = [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))];
  const [top, bottom] = [Math.min(...points.map((p) => p.y)), Math.max(...points.map((p) => p.y))];
  const width = right - left + 2 * MARGIN;
  const height = bottom - top + 2 * MARGIN + 14;
  const banks = layout.model.banks.map(({ place, cylinders }) => {
    const own = layout.sites.filter(({ cylinder }) => cylinders.includes(cylinder)).map((site) => at.get(siteId(site)));
    const xs = own.flatMap((p) => p?.x ?? []);
    const ys = own.flatMap((p) => p?.y ?? []);
    const [x, y] = [Math.min(...xs) - 19, Math.min(...ys) - 19];
    const name = place === 'only' ? '' : `<text x="${x}" y="${y - 2}" font-size="8">${place}</text>`;
    return `<rect x="${x}" y="${y}" width="${Math.max(...xs) - x + 19}" height="${Math.max(...ys) - y + 19}" rx="8" fill="none" stroke="#777"/>${name}`;
  });
  const sites = layout.sites.map((site) => {
    const { x, y } = at.get(siteId(site)) ?? { x: 0, y: 0 };
    return `<circle cx="${x}" cy="${y}" r="${RADIUS}" fill="none" stroke="#000" stroke-width="1.2"/><text x="${x}" y="${y + 4.5}" font-size="13" font-weight="bold" text-anchor="middle">${siteName(layout, site)}</text>`;
  });
  const front = `<text x="${(left + right) / 2}" y="${bottom + MARGIN + 8}" font-size="9" text-anchor="middle">front of the vehicle</text>`;
  const box = `${left - MARGIN} ${top - MARGIN - 4} ${width} ${height}`;
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" font-family="Text" viewBox="${box}">${banks.join('')}${sites.join('')}${front}</svg>`,
    width: Math.min(width, 250),
  };
}
