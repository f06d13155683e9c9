import { type Box, boxOf, type Point, SITE_RADIUS } from '@/core/engine/drawing';
import type { Layout } from '@/core/engine/layout';
import type { Bank, Coil, EngineModel } from '@/core/engine/model';
import { siteId } from '@/core/engine/model';
import { towerMap } from '@/core/wiring/firing-map';

export interface CoilShape {
  readonly name: string;
  readonly box: Box;
  /** Sits over its plugs, so that they are drawn on it; else it stands apart and leads run to them. */
  readonly over: boolean;
}

/** A curve from coil or tower to the edge of a plug. */
export interface LeadShape {
  readonly name: string;
  readonly from: Point;
  readonly leave: Point;
  /** A point it passes level, so that it goes round what lies between. */
  readonly via?: Point;
  readonly arrive: Point;
  readonly to: Point;
}

export interface TowerShape extends Point {
  readonly tower: number;
  readonly cylinder: number;
}

export interface IgnitionShapes {
  readonly coils: readonly CoilShape[];
  /** Strips that hold the connectors of all coils of a bank. */
  readonly connectorRails: readonly Box[];
  readonly leads: readonly LeadShape[];
  readonly distributor: {
    readonly centre: Point;
    readonly radius: number;
    readonly towers: readonly TowerShape[];
    readonly clockwise: boolean;
  } | null;
}

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
    return {
      coils: model.coils.map((coil) => overPlugs(coil, at)),
      connectorRails: model.connectorRail ? model.banks.map((bank) => railOver(layout, bank, at)) : [],
      leads: [],
      distributor: null,
    };
  const around = boxOf([...at.values()]);
  if (model.ignition === 'coil_per_cylinder') return withOwnCoils(layout, at);
  return model.ignition === 'distributor' ? withDistributor(model, at, around) : withPack(model, at, around);
}

const pointsOf = (coil: Coil, at: ReadonlyMap<string, Point>): readonly Point[] =>
  coil.fires.flatMap((site) => at.get(siteId(site)) ?? []);

const overPlugs = (coil: Coil, at: ReadonlyMap<string, Point>): CoilShape => ({
  name: coil.name,
  box: boxOf(pointsOf(coil, at), OVER),
  over: true,
});

/** Along the middle of the plugs of a bank, from the first coil to the last. */
function railOver({ sites, model }: Layout, bank: Bank, at: ReadonlyMap<string, Point>): Box {
  const plugs = sites.filter(({ cylinder }) => bank.cylinders.includes(cylinder));
  const around = boxOf(plugs.flatMap((site) => at.get(siteId(site)) ?? []));
  const [x, y] = [(around.left + around.right) / 2, (around.top + around.bottom) / 2];
  return model.mounting === 'transverse'
    ? { left: around.left - OVER, right: around.right + OVER, top: y - RAIL_HALF, bottom: y + RAIL_HALF }
    : { left: x - RAIL_HALF, right: x + RAIL_HALF, top: around.top - OVER, bottom: around.bottom + OVER };
}

const RAIL_HALF = 7;
const COIL_HEIGHT = 38;
const COIL_WIDTH = 62;

/** A coil each outward of its own bank, level with its plugs, so that leads are short and never cross. */
function withOwnCoils(layout: Layout, at: ReadonlyMap<string, Point>): IgnitionShapes {
  const transverse = layout.model.mounting === 'transverse';
  const parts = layout.model.coils.map((coil) => {
    const plugs = pointsOf(coil, at);
    const place = layout.model.banks.find((bank) => bank.cylinders.includes(coil.fires[0]?.cylinder ?? 0))?.place;
    const out = place === 'left' || place === 'rear' ? -1 : 1;
    const edge = out < 0 ? Math.min : Math.max;
    const centre = transverse
      ? { x: mean(plugs.map((p) => p.x)), y: edge(...plugs.map((p) => p.y)) + out * 92 }
      : { x: edge(...plugs.map((p) => p.x)) + out * 112, y: mean(plugs.map((p) => p.y)) };
    const [halfWidth, halfHeight] = transverse ? [30, 16] : [COIL_WIDTH / 2, 17];
    const shape: CoilShape = {
      name: coil.name,
      over: false,
      box: {
        left: centre.x - halfWidth,
        right: centre.x + halfWidth,
        top: centre.y - halfHeight,
        bottom: centre.y + halfHeight,
      },
    };
    const leads = coil.fires.flatMap((site, n): LeadShape[] => {
      const plug = at.get(siteId(site));
      if (!plug) return [];
      // Side by side at the coil, and over the nearer plug to the further one.
      const aside = (n - (coil.fires.length - 1) / 2) * 14;
      const from = transverse
        ? { x: centre.x + aside, y: centre.y - out * halfHeight }
        : { x: centre.x - out * halfWidth, y: centre.y + aside };
      const inARow = Boolean(layout.model.holes);
      const beside = { x: plug.x + out * SITE_RADIUS, y: plug.y };
      const past = { x: plug.x, y: plug.y + (aside <= 0 ? -1 : 1) * SITE_RADIUS };
      const sideways = inARow ? beside : past;
      const to = transverse ? { x: plug.x, y: plug.y + out * SITE_RADIUS } : sideways;
      const leave = transverse ? { x: from.x, y: from.y - out * 14 } : { x: from.x - out * 30, y: from.y + aside };
      const arrive = transverse
        ? { x: to.x, y: to.y + out * 20 }
        : { x: to.x + out * (inARow ? 34 : 24), y: to.y + (inARow ? 0 : Math.sign(aside || -1) * 14) };
      return [{ name: siteId(site), from, leave, arrive, to }];
    });
    return { shape, leads };
  });
  return {
    coils: parts.map((p) => p.shape),
    connectorRails: [],
    leads: parts.flatMap((p) => p.leads),
    distributor: null,
  };
}

/** A pack beside the engine: leads leave it towards the engine and come down on their plugs from outside the banks. */
function withPack(model: EngineModel, at: ReadonlyMap<string, Point>, around: Box): IgnitionShapes {
  const middleY = (around.top + around.bottom) / 2;
  const apart = 56;
  const start = middleY - ((model.coils.length - 1) * apart) / 2;
  const left = around.right + 130;
  // One housing for several pairs is as tall as they would be apart.
  const half = (fires: number): number => (COIL_HEIGHT / 2) * Math.max(1, fires / (2 * model.plugsPerCylinder));
  const coils = model.coils.map((coil, i): CoilShape => {
    const y = start + i * apart;
    return {
      name: coil.name,
      over: false,
      box: { left, right: left + COIL_WIDTH, top: y - half(coil.fires.length), bottom: y + half(coil.fires.length) },
    };
  });
  const leads = model.coils.flatMap((coil, i) => {
    const box = coils[i]?.box ?? around;
    return coil.fires.flatMap((site, n): LeadShape[] => {
      const plug = at.get(siteId(site));
      if (!plug) return [];
      const from = { x: box.left, y: box.top + ((n + 1) * (box.bottom - box.top)) / (coil.fires.length + 1) };
      const side = plug.y <= middleY ? -1 : 1;
      // Round the bank from outside, the furthest plug on the outermost way, so that no lead passes behind a plug.
      const away = 12 + (around.right - plug.x) * 0.14;
      const rail = (side < 0 ? around.top - 40 : around.bottom + 40) + side * away;
      const to = { x: plug.x, y: plug.y + side * SITE_RADIUS };
      const via = { x: around.right + 26, y: rail };
      return [
        { name: siteId(site), from, leave: { x: from.x - 34, y: from.y }, via, arrive: { x: to.x, y: rail }, to },
      ];
    });
  });
  return { coils, connectorRails: [], leads, distributor: null };
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

function withDistributor(model: EngineModel, at: ReadonlyMap<string, Point>, around: Box): IgnitionShapes {
  const centre = { x: around.right + 150, y: (around.top + around.bottom) / 2 };
  const map = model.distributor ? towerMap(model.firingOrder, model.distributor) : [];
  const towers = map.map(({ tower, cylinder }) => ({ tower, cylinder, ...towerAt(centre, tower, map.length) }));
  const leads = towers.flatMap((tower): LeadShape[] => {
    const plug = at.get(`${tower.cylinder}A`);
    if (!plug) return [];
    const to = { x: plug.x + SITE_RADIUS, y: plug.y };
    const out = { x: tower.x + (tower.x - centre.x) * 1.1, y: tower.y + (tower.y - centre.y) * 1.1 };
    return [{ name: String(tower.cylinder), from: tower, leave: out, arrive: { x: to.x + 60, y: to.y }, to }];
  });
  const top = centre.y + CAP_RADIUS + 40;
  const coil: CoilShape = {
    name: 'coil',
    over: false,
    box: { left: centre.x - COIL_WIDTH / 2, right: centre.x + COIL_WIDTH / 2, top, bottom: top + COIL_HEIGHT },
  };
  const side = { x: centre.x + CAP_RADIUS + 30, y: centre.y };
  const coilLead: LeadShape = {
    name: 'coil lead',
    from: centre,
    leave: side,
    arrive: { x: side.x, y: top - 10 },
    to: { x: centre.x + 14, y: top },
  };
  return {
    coils: [coil],
    connectorRails: [],
    leads: [...leads, coilLead],
    distributor: { centre, radius: CAP_RADIUS, towers, clockwise: model.distributor?.rotation !== 'counterclockwise' },
  };
}

/** Tower 1 stands at the top; they count clockwise. */
function towerAt(centre: Point, tower: number, n: number): Point {
  const angle = ((tower - 1) / n) * 2 * Math.PI - Math.PI / 2;
  return { x: centre.x + TOWER_RADIUS * Math.cos(angle), y: centre.y + TOWER_RADIUS * Math.sin(angle) };
}

/** The space that everything drawn takes, with a margin for names. */
export function extentOf(shapes: IgnitionShapes | null, plugs: Box): Box {
  const cap = shapes?.distributor;
  const boxes = [
    plugs,
    ...(shapes?.coils.map((coil) => coil.box) ?? []),
    ...(cap ? [boxOf([cap.centre], cap.radius + 34)] : []),
    ...(shapes?.leads.map((lead) => boxOf([lead.arrive, lead.via ?? lead.arrive])) ?? []),
  ];
  return {
    left: Math.min(...boxes.map((box) => box.left)),
    top: Math.min(...boxes.map((box) => box.top)),
    right: Math.max(...boxes.map((box) => box.right)),
    bottom: Math.max(...boxes.map((box) => box.bottom)),
  };
}
