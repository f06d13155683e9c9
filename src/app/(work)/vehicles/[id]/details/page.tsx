import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { Section } from '@/ui/primitives/page';
import { PoliciesSection } from '../policies-section';
import { vehiclePage } from '../vehicle-page';
import { WhatItIs } from '../what-it-is';

export default vehiclePage(({ view, actor }) => (
  <div className="halves">
    <WhatItIs view={view} actor={actor} />
    <div>
      <Section title="Engine" aside="seen from the front of the vehicle">
        <EngineDrawing
          layout={view.layout}
          title={`Engine ${view.family.code}: ${view.layout.sites.length} plug sites`}
          ignition
        />
      </Section>
      <PoliciesSection view={view} />
    </div>
  </div>
));
