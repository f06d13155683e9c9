import type { TaskAction, TaskComponent } from '../work/task';
import type { Cause, Hypothesis, SuspectPart } from './misfire-case';

/** The work that cures a cause, as a visit takes it. */
interface RemedyTask {
  readonly action: TaskAction;
  readonly component: TaskComponent;
  /** Null: all that the engine has of it, or the one of the whole engine. */
  readonly cylinders: readonly number[] | null;
}

const WHOLE: Readonly<Partial<Record<Cause, TaskComponent>>> = { cap: 'cap', rotor: 'rotor', coil_lead: 'lead_set' };
const AT: Readonly<Partial<Record<Cause, TaskComponent>>> = {
  coil: 'coil',
  pack: 'coil',
  rail: 'rail',
  boot: 'boot',
  lead: 'lead',
  plug: 'plug',
};

/** The task for a cause; null: it is none of the parts of the ignition, and others look after it. */
export function remedyTask({ cause, cylinders }: Hypothesis): RemedyTask | null {
  const whole = WHOLE[cause];
  if (whole) return { action: 'replace', component: whole, cylinders: null };
  // What is crossed is traced and put on right.
  if (cause === 'crossed_leads') return { action: 'inspect', component: 'lead', cylinders };
  // What is loose is cleaned and pressed on, and looked at with its coil.
  if (cause === 'connector' || cause === 'crossed_connectors')
    return { action: 'inspect', component: 'coil', cylinders };
  if (cause === 'set') return { action: 'replace', component: 'plug', cylinders };
  const component = AT[cause];
  if (!component) return null;
  // The one coil of a distributor fires all of them.
  return { action: 'replace', component, cylinders: cause === 'coil' && cylinders.length > 2 ? null : cylinders };
}

const SUSPECTS: Readonly<Partial<Record<TaskComponent, SuspectPart>>> = {
  coil: 'coil',
  rail: 'coil',
  lead: 'lead',
  lead_set: 'coil_lead',
  boot: 'boot',
  plug: 'plug',
  cap: 'cap',
  rotor: 'rotor',
};

/** The part of a misfire that a task is for; null: none of those. */
export const suspectOf = (component: TaskComponent): SuspectPart | null => SUSPECTS[component] ?? null;
