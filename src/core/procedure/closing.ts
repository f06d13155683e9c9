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
