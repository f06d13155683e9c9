import { Box } from '@chakra-ui/react';
import { siteId } from '@/core/engine/model';
import { standsAt } from '@/core/engine/places';
import { pickWords } from '@/core/stock/pick';
import { planTorque } from '@/core/torque/plan';
import type { UnitSystem } from '@/core/units/person-units';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { gapText, turnText } from '@/text/format';
import { EngineDrawing } from '@/ui/drawings/engine-drawing';
import { TextLink } from '@/ui/primitives/links';
import { Section } from '@/ui/primitives/page';
import { SpecLines } from '@/ui/work-orders/spec-lines';
import { PartLines } from './part-lines';

interface Props {
  readonly view: WorkOrderView;
  readonly live: boolean;
}

/** What is fitted, by which sheet, and what is on the shelf. */
export function PartsSection({ view, live, system }: Props & { readonly system: UnitSystem }) {
  const { vehicle, plug, tasks, family } = view;
  const others = tasks.filter(({ row, sheet }) => row.component !== 'plug' && sheet);
  const released = [...new Set(tasks.flatMap(({ row }) => row.releaseReason ?? []))];
  return (
    <Section
      id="parts"
      title="Parts and spec"
      aside={<TextLink href={`/vehicles/${vehicle.id}`}>the vehicle</TextLink>}
    >
      {plug && (
        <SpecLines
          spec={plug.spec}
          quantity={plug.replaced}
          system={system}
          angle={angleOf(plug.spec, family.headMaterial)}
          threads={plug.threads}
          current={plug.current}
        />
      )}
      {live && plug?.pick && (
        <Box mt="2" color={plug.pick.kind === 'short' ? 'wrong.ink' : undefined}>
          <strong>On the shelf.</strong> {pickWords(plug.pick)}
        </Box>
      )}
      {others.map(({ row, sheet, rules, places }) => (
        <PartLines key={row.id} task={row} sheet={sheet} rules={rules} places={places} />
      ))}
      {!plug && others.length === 0 && (
        <Box color="soft">Nothing goes in by a sheet: it is looked at and measured.</Box>
      )}
      {released.map((reason) => (
        <Box key={reason} color="caution.ink" mt="2">
          Released despite its sheet: {reason}
        </Box>
      ))}
    </Section>
  );
}

function angleOf(
  { part: { thread, seat }, torqueMinNm, torqueMaxNm }: PlugView['spec'],
  head: WorkOrderView['family']['headMaterial'],
): string {
  const { angleDeg } = planTorque({
    specNm: { min: torqueMinNm, max: torqueMaxNm },
    thread,
    seat,
    gasket: 'new',
    head,
    lubricant: 'dry',
    on: '2000-01-01',
  });
  return turnText(angleDeg);
}

type PlugView = NonNullable<WorkOrderView['plug']>;

/** The engine with what is done at each plug site: its own, and that of the parts above it. */
export function EngineSection({ view: { order, tasks, sites, layout, vehicle }, live }: Props) {
  const gaps = new Map(sites.map((site) => [siteId(site), site.doneAt ? site.newGapMm : null]));
  const marks = Object.fromEntries(
    layout.sites.flatMap((site) => {
      const states = tasks
        .flatMap(({ places }) => places)
        .filter(({ place, state }) => state !== 'moved' && standsAt(layout, place.component, place, site))
        .map(({ state }) => state);
      if (states.length === 0) return [];
      const gap = gaps.get(siteId(site)) ?? null;
      return [
        [
          siteId(site),
          {
            state: states.includes('open') ? ('todo' as const) : ('done' as const),
            lines: gap === null ? [] : ['new gap', gapText(gap, 'metric').split(' · ')[0] ?? ''],
            href: live ? `/work-orders/${order.id}/floor#sites-${siteId(site)}` : undefined,
          },
        ] as const,
      ];
    }),
  );
  return (
    <Section title="Engine">
      <EngineDrawing
        layout={layout}
        marks={marks}
        title={`Engine of unit ${vehicle.unitNumber}, seen from the front of the vehicle`}
      />
    </Section>
  );
}
