import type { Layout } from './layout';

export const COMPONENTS = [
  'plug',
  'coil',
  'rail',
  'boot',
  'lead',
  'lead_set',
  'cap',
  'rotor',
  'seal',
  'consumable',
] as const;
export type Component = (typeof COMPONENTS)[number];

/** High-tension leads from coil or cap to plugs; the coil lead of a distributor is counted apart. */
function leadCount({ model, sites }: Layout): number {
  switch (model.ignition) {
    case 'distributor':
    case 'waste_spark':
    case 'coil_per_cylinder':
      return sites.length;
    case 'coil_on_plug':
    case 'coil_rail':
      return 0;
  }
}

/**
 * How many of a component the engine takes, by its own layout: plugs, coils, boots and leads are never assumed equal.
 * 0: this engine has none. A kit of leads for a distributor holds one more, the coil lead.
 */
export function quantityOf(layout: Layout, component: Component): number {
  const { model, sites } = layout;
  const distributor = model.ignition === 'distributor';
  switch (component) {
    case 'plug':
    case 'boot':
      return sites.length;
    case 'coil':
      return model.ignition === 'coil_rail' ? 0 : model.coils.length;
    case 'rail':
      return model.ignition === 'coil_rail' ? model.coils.length : 0;
    case 'lead':
      return leadCount(layout) + (distributor ? 1 : 0);
    case 'lead_set':
      return leadCount(layout) > 0 ? 1 : 0;
    case 'cap':
    case 'rotor':
      return distributor ? 1 : 0;
    case 'seal':
      return layout.cylinders;
    case 'consumable':
      return 1;
  }
}
