'use client';

import type { Layout } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import type { Advice } from '@/core/misfire/advice';
import { percentText } from '@/text/format';
import { EngineDrawing } from '../drawings/engine-drawing';

function figureAt(
  at: number,
  share: number,
  codes: readonly { readonly code: string; readonly cylinders: readonly number[] }[],
): readonly string[] {
  const mine = codes.filter(({ cylinders }) => cylinders.length === 1 && cylinders[0] === at).map(({ code }) => code);
  return [...(share >= MIN_FIGURE ? [percentText(share)] : []), ...mine];
}

/** Less than that is drawn as none. */
const MIN_FIGURE = 0.01;

/** The engine with the suspicion on each cylinder as shade, lines and figure. */
export function SuspicionDrawing({
  layout,
  byCylinder,
  codes = [],
  maxH,
}: {
  layout: Layout;
  byCylinder: Advice['byCylinder'];
  /** With the cylinders that each names: one that names a single cylinder stands at its well. */
  codes?: readonly { readonly code: string; readonly cylinders: readonly number[] }[];
  maxH?: string;
}) {
  const shares = new Map(byCylinder.map(({ cylinder, share }) => [cylinder, share]));
  const marks = Object.fromEntries(
    layout.sites.map((site) => {
      const share = shares.get(site.cylinder) ?? 0;
      // Of two plugs of a cylinder B lies further out.
      const isOuter = site.position === (layout.model.plugsPerCylinder === 2 ? 'B' : 'A');
      return [
        siteId(site),
        { state: 'plain' as const, share, figure: isOuter ? figureAt(site.cylinder, share, codes) : [] },
      ];
    }),
  );
  const most = [...byCylinder].sort((a, b) => b.share - a.share)[0];
  return (
    <EngineDrawing
      layout={layout}
      marks={marks}
      title={
        most && most.share >= MIN_FIGURE
          ? `Suspicion by cylinder, most on ${most.cylinder}: ${percentText(most.share)}`
          : 'No suspicion on any cylinder yet'
      }
      maxH={maxH}
    />
  );
}
