import { siteId } from '../engine/model';
import { isOfEngine } from '../engine/places';
import type { TaskAction, TaskComponent } from '../work/task';
import type { Cause, Finding } from './finding';

/** The task that answers a finding once a person has confirmed it. */
export interface Answer {
  readonly action: TaskAction;
  readonly component: TaskComponent;
  /** Plug sites that its parts serve; all: a part of the whole engine. */
  readonly places: readonly string[] | 'all';
}

type Replaced = readonly TaskComponent[];

/** What is replaced where a cause is confirmed: the part at fault, before the one that it stands on. */
const REPLACES: Readonly<Partial<Record<Cause, Replaced>>> = {
  oil_outside: ['seal'],
  tracked: ['boot'],
  boot_spent: ['boot'],
  boot_spent_by_oil: ['seal', 'boot'],
  boot_spring: ['boot'],
  boot_left: ['boot'],
  coil_cracked: ['coil', 'rail'],
  coil_overheated: ['coil', 'rail'],
  coil_tower_tracked: ['coil', 'rail', 'boot'],
  coil_primary_out: ['coil', 'rail'],
  coil_secondary_out: ['coil', 'rail'],
  starved_by_coil: ['coil', 'rail'],
  lead_burnt: ['lead'],
  lead_chafed: ['lead'],
  lead_boot_torn: ['lead'],
  lead_tracked: ['lead'],
  lead_loose: ['lead'],
  lead_high: ['lead'],
  starved_by_lead: ['lead'],
  leads_aged: ['lead_set'],
  seal_leaks: ['seal'],
  seal_hard: ['seal'],
  cap_cracked: ['cap', 'rotor'],
  cap_tracked: ['cap'],
  cap_burnt: ['cap', 'rotor'],
  cap_burnt_by_gaps: ['cap', 'rotor'],
  cap_oxidised: ['cap', 'rotor'],
  cap_button: ['cap', 'rotor'],
  rotor_burnt: ['rotor', 'cap'],
  rotor_cracked: ['rotor'],
  rotor_worn: ['rotor', 'cap'],
  rotor_corroded: ['rotor'],
  rotor_resistance: ['rotor'],
};

/**
 * The tasks that would answer a finding, of the parts that this engine has; none where it wants a look and no part.
 *
 * @param has whether this engine has such a part
 */
export const answersTo = (
  { cause, sites }: Pick<Finding, 'cause' | 'sites'>,
  has: (component: TaskComponent) => boolean,
): readonly Answer[] =>
  (REPLACES[cause] ?? []).filter(has).flatMap((component): readonly Answer[] => {
    if (isOfEngine(component)) return [{ action: 'replace', component, places: 'all' }];
    return sites.length === 0 ? [] : [{ action: 'replace', component, places: sites.map(siteId) }];
  });
