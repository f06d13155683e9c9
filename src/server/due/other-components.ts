import { and, eq, isNull, ne } from 'drizzle-orm';
import { match } from '@/core/catalogue/match';
import type { Installed, Odometer } from '@/core/due/due';
import { type Companion, companions, type OtherComponent } from '@/core/due/other-components';
import { layoutOf } from '@/core/engine/layout';
import { allPlaces } from '@/core/engine/places';
import { quantityOf } from '@/core/engine/quantities';
import { groupBy } from '@/core/shared/group-by';
import type { Querier } from '@/db/client';
import { type EngineFamily, loadSheets } from '@/db/queries/catalogue';
import type { loadVehicleKeys } from '@/db/queries/due-inputs';
import { fittedComponents } from '@/db/schema';
import type { DueView } from './list-due';

type Vehicle = Awaited<ReturnType<typeof loadVehicleKeys>>[number];

/** Other components of the engine that have an interval, held against the day of the plugs. */
export async function companionsOf(
  q: Querier,
  today: string,
  vehicle: Vehicle,
  family: EngineFamily,
  item: Pick<DueView, 'due' | 'odometerKm' | 'odometerOn' | 'useRate' | 'forecast'>,
): Promise<readonly Companion[]> {
  if (item.odometerKm === null || item.odometerOn === null) return [];
  const odometer: Odometer = { on: item.odometerOn, km: item.odometerKm };
  const sheets = (await loadSheets(q, vehicle.fleetId, today, { familyIds: [family.id] })).filter(
    (sheet) => sheet.component !== 'plug',
  );
  const fitted = groupBy(
    await q
      .select()
      .from(fittedComponents)
      .where(
        and(
          eq(fittedComponents.vehicleId, vehicle.id),
          ne(fittedComponents.component, 'plug'),
          isNull(fittedComponents.removedOn),
        ),
      ),
    (row) => row.component,
  );
  const layout = layoutOf(family.model);
  const others = [...groupBy(sheets, (sheet) => sheet.component)].flatMap(([component, rows]): OtherComponent[] => {
    const fitment = match(vehicle, rows, family.variants);
    if (fitment.kind !== 'match') return [];
    const { spec } = fitment;
    const distanceKm = (vehicle.severeDuty ? spec.intervalSevereKm : null) ?? spec.intervalKm;
    if (distanceKm === null && spec.intervalMonths === null) return [];
    const here = fitted.get(component) ?? [];
    // Where one of them has no record, that one speaks for them: it is as old as the vehicle until someone knows better.
    const whole = here.length >= allPlaces(layout, component).length;
    const [oldest] = whole ? [...here].sort((a, b) => a.installedKm - b.installedKm) : [];
    const installed: Installed = oldest
      ? { on: oldest.installedOn, km: oldest.installedKm }
      : { on: vehicle.inServiceOn, km: 0 };
    return [
      {
        component,
        partNumber: spec.part.number,
        quantity: quantityOf(layout, component),
        limits: { distanceKm, months: spec.intervalMonths },
        installed,
        certainty: oldest?.installedKmCertainty ?? 'assumed',
      },
    ];
  });
  const { useRate: rate, forecast } = item;
  return companions(item.due, others, { today, odometer, rate, forecast }, family.access ?? []);
}
