import { type Coil, type EngineModel, type SiteKey, siteId } from './model';

/** A model whose coils and distributor have yet to be said. */
export type ModelWithoutIgnition = Omit<EngineModel, 'coils' | 'distributor'>;

const positionsOf = ({ plugsPerCylinder }: ModelWithoutIgnition): readonly SiteKey['position'][] =>
  plugsPerCylinder === 2 ? ['A', 'B'] : ['A'];

const sitesOf = (model: ModelWithoutIgnition, cylinder: number): readonly SiteKey[] =>
  positionsOf(model).map((position) => ({ cylinder, position }));

const allSites = (model: ModelWithoutIgnition): readonly SiteKey[] =>
  [...model.firingOrder].sort((a, b) => a - b).flatMap((cylinder) => sitesOf(model, cylinder));

/**
 * Cylinders that share a waste-spark coil: n/2 apart in the firing order, so that one fires while the other exhausts.
 *
 * @returns pairs in firing order; empty for an odd number of cylinders, which cannot have them
 */
export function companions(firingOrder: readonly number[]): readonly (readonly [number, number])[] {
  const half = firingOrder.length / 2;
  if (!Number.isInteger(half)) return [];
  return firingOrder.slice(0, half).flatMap((first, i) => {
    const second = firingOrder[i + half];
    return second === undefined ? [] : [[first, second] as const];
  });
}

/** The coils that an engine of this ignition has unless its maker chose otherwise. */
export function standardCoils(model: ModelWithoutIgnition): readonly Coil[] {
  const { ignition, firingOrder, banks } = model;
  switch (ignition) {
    case 'coil_on_plug':
    case 'coil_per_cylinder':
      return [...firingOrder]
        .sort((a, b) => a - b)
        .map((cylinder) => ({ name: String(cylinder), fires: sitesOf(model, cylinder) }));
    case 'coil_rail':
      return banks.map((bank) => ({
        name: banks.length === 1 ? 'rail' : `${bank.place} rail`,
        fires: bank.cylinders.flatMap((cylinder) => sitesOf(model, cylinder)),
      }));
    case 'waste_spark':
      return companions(firingOrder).map(([a, b]) => ({
        name: `${Math.min(a, b)}+${Math.max(a, b)}`,
        fires: [...sitesOf(model, a), ...sitesOf(model, b)],
      }));
    case 'distributor':
      return [{ name: 'coil', fires: allSites(model) }];
  }
}

/** What is wrong with the ignition of a model whose cylinders are consistent. */
export function ignitionFaults(model: EngineModel): readonly string[] {
  return [
    ...coverFaults(model),
    ...companionFaults(model),
    ...distributorFaults(model),
    ...terminalFaults(model),
    ...connectorRailFaults(model),
  ];
}

function coverFaults(model: EngineModel): readonly string[] {
  const wanted = new Set(allSites(model).map(siteId));
  const times = new Map<string, number>();
  for (const site of model.coils.flatMap((coil) => coil.fires))
    times.set(siteId(site), (times.get(siteId(site)) ?? 0) + 1);
  const name = (id: string): string => (model.plugsPerCylinder === 1 ? id.slice(0, -1) : id);
  const unfired = [...wanted].filter((id) => !times.has(id));
  const twice = [...times].filter(([, n]) => n > 1).map(([id]) => id);
  const unknown = [...times.keys()].filter((id) => !wanted.has(id));
  return [
    ...(unfired.length > 0 ? [`no coil fires plug ${unfired.map(name).join(', ')}`] : []),
    ...(twice.length > 0 ? [`plug ${twice.map(name).join(', ')} is fired by more than one coil`] : []),
    ...(unknown.length > 0 ? [`a coil fires plug ${unknown.join(', ')}, which this engine does not have`] : []),
  ];
}

function companionFaults({ ignition, firingOrder, coils }: EngineModel): readonly string[] {
  if (ignition !== 'waste_spark') return [];
  const pairs = companions(firingOrder);
  if (pairs.length === 0) return ['waste spark pairs cylinders, so their number must be even'];
  // A unit may hold one pair or several: both cylinders of a pair lie in the same one.
  const wrong = coils.filter((coil) => {
    const cylinders = new Set(cylindersOf(coil));
    return pairs.some(([a, b]) => cylinders.has(a) !== cylinders.has(b));
  });
  if (wrong.length === 0) return [];
  return [
    `companions lie half a firing order apart: ${pairs.map((pair) => pair.join('+')).join(', ')}; coil ${wrong.map((coil) => coil.name).join(', ')} parts a pair`,
  ];
}

export const cylindersOf = (coil: Coil): readonly number[] => [...new Set(coil.fires.map((site) => site.cylinder))];

function distributorFaults({ ignition, distributor, firingOrder }: EngineModel): readonly string[] {
  if (ignition !== 'distributor')
    return distributor ? ['only distributor ignition has a rotation and a tower of cylinder 1'] : [];
  if (!distributor) return ['say which way the rotor turns and which tower is of cylinder 1'];
  const { towerOfCylinder1: tower } = distributor;
  return Number.isInteger(tower) && tower >= 1 && tower <= firingOrder.length
    ? []
    : [`the tower of cylinder 1 lies between 1 and ${firingOrder.length}, got ${tower}`];
}

function terminalFaults({ coils }: EngineModel): readonly string[] {
  const wrong = coils.filter(
    ({ fires, terminals }) =>
      terminals && (terminals.length !== fires.length || new Set(terminals).size !== terminals.length),
  );
  return wrong.map(({ name }) => `say one terminal for each plug of coil ${name}, each another`);
}

function connectorRailFaults({ ignition, connectorRail }: EngineModel): readonly string[] {
  return !connectorRail || ignition === 'coil_on_plug'
    ? []
    : ['only separate coils over their plugs have a connector rail'];
}

/** The coil that fires a site. */
export const coilOf = (model: EngineModel, site: SiteKey): Coil | undefined =>
  model.coils.find((coil) => coil.fires.some((fired) => siteId(fired) === siteId(site)));

/** The terminal of its coil that serves a site; null where nobody has said. */
export function terminalOf(model: EngineModel, site: SiteKey): string | null {
  const coil = coilOf(model, site);
  const at = coil?.fires.findIndex((fired) => siteId(fired) === siteId(site)) ?? -1;
  return coil?.terminals?.[at] ?? null;
}

/** "upper terminal of coil 3"; empty where nobody has said. */
export function terminalWords(model: EngineModel, site: SiteKey): string {
  const terminal = terminalOf(model, site);
  return terminal ? `${terminal} terminal of coil ${coilOf(model, site)?.name}` : '';
}

/**
 * Coils as a person lists them: groups of plugs, separated by commas or bars, each group one coil.
 * "1, 2, 3" is a coil each; "1 4, 2 3" pairs; "1 4 2 3" one housing; "1A 1B, 2A 2B" a coil over two plugs. A cylinder alone
 * means all its plugs. A word after a plug is the terminal that serves it: "1A upper 1B lower".
 *
 * @returns null where a group is not a list of plugs; whether the list is right is for `modelFaults` to say
 */
export function coilsFromText(model: ModelWithoutIgnition, text: string): readonly Coil[] | null {
  const coils: Coil[] = [];
  const groups = text.split(/[,;|]/);
  for (const group of groups) {
    const tokens = group
      .trim()
      .split(/[\s+]+/)
      .filter(Boolean);
    const fires: SiteKey[] = [];
    const terminals: string[] = [];
    for (const token of tokens) {
      if (fires.length > 0 && /^[a-z]{2,12}$/i.test(token)) {
        terminals[fires.length - 1] = token.toLowerCase();
        continue;
      }
      const match = /^(\d{1,2})([ab])?$/i.exec(token);
      if (!match) return null;
      const cylinder = Number(match[1]);
      const position = match[2]?.toUpperCase();
      fires.push(
        ...(position === 'A' || position === 'B' ? [{ cylinder, position } as const] : sitesOf(model, cylinder)),
      );
    }
    if (fires.length === 0) return null;
    const name = nameOf(fires, groups.length);
    coils.push(
      terminals.length > 0 ? { name, fires, terminals: fires.map((_, i) => terminals[i] ?? '') } : { name, fires },
    );
  }
  return coils;
}

/** By its cylinders; a single unit over more than two of them is the pack. */
function nameOf(fires: readonly SiteKey[], units: number): string {
  const cylinders = [...new Set(fires.map(({ cylinder }) => cylinder))];
  return units === 1 && cylinders.length > 2 ? 'pack' : cylinders.join('+');
}

/** The list that `coilsFromText` reads back. */
export const coilsText = (model: Pick<EngineModel, 'coils' | 'plugsPerCylinder'>): string =>
  model.coils
    .map(({ fires, terminals }) =>
      fires
        .flatMap((site, i) => [
          model.plugsPerCylinder === 1 ? String(site.cylinder) : siteId(site),
          ...(terminals?.[i] ? [terminals[i]] : []),
        ])
        .join(' '),
    )
    .join(', ');
