'use client';

import type { Layout } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import type { Advice } from '@/core/misfire/advice';
import { percentText } from '@/text/format';
import { EngineDrawing } from '../drawings/engine-drawing';

/** Less than that is drawn as none. */
const MIN_FIGURE = 0.01;

/** The engine with the suspicion on each cylinder as shade, lines and figure. */
export function SuspicionDrawing({
  layout,
  byCylinder,
  maxH,
}: {
  layout: Layout;
  byCylinder: Advice['byCylinder'];
  maxH?: string;
}) {
  const shares = new Map(byCylinder.map(({ cylinder, share }) => [cylinder, share]));
  const marks = Object.fromEntries(
    layout.sites.map((site) => {
      const share = shares.get(site.cylinder) ?? 0;
      const isFirst = site.position === 'A';
      return [
        siteId(site),
        { state: 'plain' as const, share, figure: isFirst && share >= MIN_FIGURE ? percentText(share) : '' },
      ];
    }),
  );
  const most = [...byCylinder].sort((a, b) => b.share - a.share)[0];
  return (
    <EngineDrawing
      layout={layout}
      marks={marks}
      title={
        most && most.share >= 0.01
          ? `Suspicion by cylinder, most on ${most.cylinder}: ${percentText(most.share)}`
          : 'No suspicion on any cylinder yet'
      }
      maxH={maxH}
    />
  );
}
