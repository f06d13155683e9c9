import { cylindersOf } from '@/core/engine/coils';
import { type Layout, siteId } from '@/core/engine/layout';
import type { Coil, EngineModel } from '@/core/engine/model';
import { towerMap } from '@/core/wiring/firing-map';

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

export interface CoilShape {
  readonly name: string;
  readonly box: Box;
  /** Sits over its plugs, so that they are drawn on it; else it stands apart and leads run to them. */
  readonly over: boolean;
}

export interface LeadShape {
  readonly from: Point;
  readonly to: Point;
  /** Bends away from the straight line by this much. */
  readonly bend: number;
  readonly name: string;
}

export interface TowerShape extends Point {
  readonly tower: number;
  readonly cylinder: number;
}

export interface IgnitionShapes {
  readonly coils: readonly CoilShape[];
  readonly leads: readonly LeadShape[];
  readonly distributor: {
    readonly centre: Point;
    readonly radius: number;
    readonly towers: readonly TowerShape[];
    readonly clockwise: boolean;
  } | null;
}

/** Space that coils and leads beside the engine need, at its right. */
export const BESIDE = 190;
const OVER = 34;
const CAP_RADIUS = 56;
const TOWER_RADIUS = 42;

/**
 * Where coils, leads and distributor are drawn, given where the plugs are.
 *
 * @param at the plugs, by site id, in drawing units
 */
export function ignitionShapes(layout: Layout, at: ReadonlyMap<string, Point>): IgnitionShapes {
  const { model } = layout;
  if (model.ignition === 'coil_on_plug' || model.ignition === 'coil_rail')
    return { coils: model.coils.map((coil) => overPlugs(coil, at)), leads: [], distributor: null };
  const around = boxOf([...at.values()]);
  return model.ignition === 'distributor' ? withDistributor(model, at, around) : withLeads(model, at, around);
}

const pointsOf = (coil: Coil, at: ReadonlyMap<string, Point>): readonly Point[] =>
  coil.fires.flatMap((site) => at.get(siteId(site)) ?? []);

export function boxOf(points: readonly Point[], margin = 0): Box {
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return {
    left: Math.min(...xs) - margin,
    top: Math.min(...ys) - margin,
    right: Math.max(...xs) + margin,
    bottom: Math.max(...ys) + margin,
  };
}

const overPlugs = (coil: Coil, at: ReadonlyMap<string, Point>): CoilShape => ({
  name: coil.name,
  box: boxOf(pointsOf(coil, at), OVER),
  over: true,
});

/** Coils in a column beside the engine, each level with the plugs it fires, none over another. */
function withLeads(model: EngineModel, at: ReadonlyMap<string, Point>, around: Box): IgnitionShapes {
  const height = 38;
  const middle = (coil: Coil): number => mean(pointsOf(coil, at).map((p) => p.y));
  const apart = model.coils.length > 3 ? 46 : 62;
  const start = (around.top + around.bottom) / 2 - ((model.coils.length - 1) * apart) / 2;
  const column = [...model.coils].sort((a, b) => middle(a) - middle(b));
  const left = around.right + 110;
  const coils = column.map((coil, i): CoilShape => {
    const y = start + i * apart;
    return {
      name: coil.name,
      over: false,
      box: { left, right: left + 62, top: y - height / 2, bottom: y + height / 2 },
    };
  });
  const leads = column.flatMap((coil, i) => {
    const box = coils[i]?.box ?? around;
    return coil.fires.flatMap((site, n) => {
      const to = at.get(siteId(site));
      const from = { x: box.left, y: box.top + ((n + 1) * height) / (coil.fires.length + 1) };
      return to ? [{ from, to, bend: n % 2 === 0 ? -14 : 14, name: siteId(site) }] : [];
    });
  });
  return { coils, leads, distributor: null };
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

function withDistributor(model: EngineModel, at: ReadonlyMap<string, Point>, around: Box): IgnitionShapes {
  const centre = { x: around.right + 120, y: (around.top + around.bottom) / 2 };
  const map = model.distributor ? towerMap(model.firingOrder, model.distributor) : [];
  const towers = map.map(({ tower, cylinder }) => ({ tower, cylinder, ...towerAt(centre, tower, map.length) }));
  const leads = towers.flatMap((tower): LeadShape[] => {
    const to = at.get(`${tower.cylinder}A`);
    return to ? [{ from: tower, to, bend: tower.y < centre.y ? -18 : 18, name: String(tower.cylinder) }] : [];
  });
  const coilTop = centre.y + CAP_RADIUS + 46;
  const coil: CoilShape = {
    name: 'coil',
    over: false,
    box: { left: centre.x - 31, right: centre.x + 31, top: coilTop, bottom: coilTop + 38 },
  };
  const coilLead: LeadShape = { from: centre, to: { x: centre.x, y: coilTop }, bend: 66, name: 'coil lead' };
  const clockwise = model.distributor?.rotation !== 'counterclockwise';
  return { coils: [coil], leads: [...leads, coilLead], distributor: { centre, radius: CAP_RADIUS, towers, clockwise } };
}

/** Tower 1 stands at the top; they count clockwise. */
function towerAt(centre: Point, tower: number, n: number): Point {
  const angle = ((tower - 1) / n) * 2 * Math.PI - Math.PI / 2;
  return { x: centre.x + TOWER_RADIUS * Math.cos(angle), y: centre.y + TOWER_RADIUS * Math.sin(angle) };
}

/** Whether anything stands beside the engine. */
export const standsBeside = (model: EngineModel): boolean =>
  model.coils.some((coil) => cylindersOf(coil).length > 0) &&
  (model.ignition === 'distributor' || model.ignition === 'waste_spark' || model.ignition === 'coil_per_cylinder');
