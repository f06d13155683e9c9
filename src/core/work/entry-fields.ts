import type { Condition } from '../inspection/vocabulary';

/** Fields of a site as a device sends them. */
export const SITE_FIELDS = [
  'observedNumber',
  'believedNumber',
  'removedGap',
  'seen',
  'breakawayFeel',
  'breakawayTorque',
  'newNumber',
  'newGap',
  'newLot',
  'compound',
  'compoundBatch',
  'torqueMethod',
  'wrenchSetting',
  'installedTorque',
  'curve',
  'soakedAt',
  'remark',
  'done',
] as const;
export type SiteField = (typeof SITE_FIELDS)[number];

export const siteTarget = (id: string): string => `site ${id}`;
export const stepTarget = (key: string): string => `step ${key}`;
export const countTarget = (key: string): string => `count ${key}`;
export const ORDER_TARGET = 'order';

/** The kind of a target and which one it is. */
export function readTarget(target: string): { readonly kind: string; readonly key: string } {
  const at = target.indexOf(' ');
  return at < 0 ? { kind: target, key: '' } : { kind: target.slice(0, at), key: target.slice(at + 1) };
}

/** The answer to an ask, as a field of its step. */
export const answerField = (ask: string): string => `answer.${ask}`;

/** Everything as it should be, region by region: for the press that says so. No gasket on a conical seat. */
export function allNormal(seat: 'gasket' | 'conical'): Readonly<Record<string, 2>> {
  const words: readonly Condition[] = [
    'nose tan',
    'no deposits',
    'electrodes sharp',
    'threads clean',
    'gasket present',
    'insulator clean',
    'well dry',
    'boot sound',
    'connector locks',
  ];
  return Object.fromEntries(words.filter((word) => seat === 'gasket' || word !== 'gasket present').map((w) => [w, 2]));
}
