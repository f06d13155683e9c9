import { boxOf, SITE_RADIUS, sitePoints } from '@/core/engine/drawing';
import { type Layout, siteName } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';

/* The engine as it is drawn on the screen, in black on paper: which cylinder is where. */

const MARGIN = 40;
const FRONT = 26;
/** Points a drawing unit, and the most that it may take of a page. */
const SCALE = 0.62;
const MAX_WIDTH = 250;

/** @returns an SVG with the front of the vehicle at the bottom, and its width in points */
export function engineSvg(layout: Layout): { readonly svg: string; readonly width: number } {
  const at = sitePoints(layout);
  const whole = boxOf([...at.values()], MARGIN);
  const [width, height] = [whole.right - whole.left, whole.bottom - whole.top + FRONT];
  const banks = layout.model.banks.map(({ place, cylinders }) => {
    const sites = layout.sites.filter(({ cylinder }) => cylinders.includes(cylinder));
    const { left, top, right, bottom } = boxOf(
      sites.flatMap((site) => at.get(siteId(site)) ?? []),
      30,
    );
    const name = place === 'only' ? '' : `<text x="${left}" y="${top - 3}" font-size="13">${place}</text>`;
    return `<rect x="${left}" y="${top}" width="${right - left}" height="${bottom - top}" rx="12" fill="none" stroke="#777"/>${name}`;
  });
  const sites = layout.sites.map((site) => {
    const { x, y } = at.get(siteId(site)) ?? { x: 0, y: 0 };
    return `<circle cx="${x}" cy="${y}" r="${SITE_RADIUS}" fill="none" stroke="#000" stroke-width="2"/><text x="${x}" y="${y + 7}" font-size="21" font-weight="bold" text-anchor="middle">${siteName(layout, site)}</text>`;
  });
  const front = `<text x="${whole.left + width / 2}" y="${whole.bottom + FRONT - 10}" font-size="14" text-anchor="middle">front of the vehicle</text>`;
  const box = `${whole.left} ${whole.top - 4} ${width} ${height}`;
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" font-family="Text" viewBox="${box}">${banks.join('')}${sites.join('')}${front}</svg>`,
    width: Math.min(width * SCALE, MAX_WIDTH),
  };
}
