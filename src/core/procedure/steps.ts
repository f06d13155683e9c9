import type { Layout } from '../engine/layout';

export interface Step {
  readonly key: string;
  readonly title: string;
  /** The hazard at this very step, and the control. */
  readonly caution: string | null;
  /** The step is done site by site on the cylinder entry, not ticked on its own. */
  readonly perSite: boolean;
}

export interface ProcedureInput {
  readonly layout: Layout;
  readonly hybrid: boolean;
  readonly plugNumber: string;
  readonly seat: 'gasket' | 'conical';
}

const MANY_WORDS: Readonly<Record<Layout['model']['ignition'], string>> = {
  coil_on_plug: 'coil',
  coil_per_cylinder: 'coil lead',
  coil_rail: 'coil rail',
  waste_spark: 'lead',
  distributor: 'lead',
};

/**
 * The steps of a plug service on this engine, in the order of work.
 *
 * Source: general trade practice. The manufacturer's service information, local codes and licensed practice come first.
 */
export function plugServiceSteps({ layout, hybrid, plugNumber, seat }: ProcedureInput): readonly Step[] {
  const sites = layout.sites.length;
  const coils = layout.model.coils.length;
  const lead = MANY_WORDS[layout.model.ignition];
  const washer = seat === 'gasket' ? ' One gasket out, one gasket in, at each site.' : ' Conical seat: no gasket.';
  const step = (key: string, title: string, caution: string | null = null, perSite = false): Step => ({
    key,
    title,
    caution,
    perSite,
  });
  return [
    step(
      'parts',
      `Lay out ${sites} × ${plugNumber} and measure every gap before anything is opened`,
      'A wrong reach can strike the piston: compare a new plug with the first one out.',
    ),
    step(
      'cold',
      'Check that the engine is cold to the touch',
      'Hot metal burns, and threads in a hot aluminium head tear.',
    ),
    ...(hybrid
      ? [
          step(
            'isolate',
            'Isolate the traction system and the 12 V battery; keep the key away',
            'The engine can start by itself and traction voltage kills: qualified people only. Orange cables stay untouched.',
          ),
        ]
      : [
          step(
            'isolate',
            'Ignition off, key out; isolate the battery where modules are moved',
            'Ignition high voltage: never pull a coil or lead with the ignition on.',
          ),
        ]),
    step(
      'clean',
      'Clean the wells and the surface round them',
      'Eye protection on before compressed air or solvent. No flame or spark near vapour.',
    ),
    step(
      'leads',
      `Free each ${lead} by its connector and boot, never by the cable (${coils} coil${coils === 1 ? '' : 's'} on this engine)`,
      null,
    ),
    step(
      'sites',
      `At each of ${sites} sites: old plug out and read, new plug in by hand, then torque`,
      `Start every plug by hand; no power tools. Stop if it binds early.${washer} A dropped part in an open port wrecks the engine: cover open holes.`,
      true,
    ),
    step('refit', `Refit each ${lead}: boot home, connector clicks, fasteners to their own small torque`, null),
    step(
      'count',
      'Count tools, rags, fasteners and gaskets: out equals in',
      'A rag or tool left in the bay is found by the fan.',
    ),
    step('start', 'Start, listen, and read the codes', 'Keep clear of belts and fan; ventilate the bay.'),
    step('road', 'Road test; note anything that is not as it should be', null),
  ];
}

export interface SiteProgress {
  readonly name: string;
  readonly done: boolean;
}

export interface StepProgress {
  readonly title: string;
  readonly perSite: boolean;
  readonly state: 'open' | 'done' | 'not_done';
}

/** What still stands between a work order and its close, in words. Empty: it can be closed. */
export function closingBlockers(sites: readonly SiteProgress[], steps: readonly StepProgress[]): readonly string[] {
  const open = sites.filter((site) => !site.done).map((site) => site.name);
  const unsaid = steps.filter((step) => !step.perSite && step.state === 'open');
  return [
    ...(open.length > 0 ? [`${open.length === 1 ? 'Site' : 'Sites'} ${open.join(', ')} not done yet.`] : []),
    ...unsaid.map((step) => `Neither done nor marked as not done: ${step.title}.`),
  ];
}
