import type { Grade } from '@/core/inspection/trainer';

/** What a grade is called, and what it points to. */
export const GRADE_WORDS: Readonly<Record<Grade, string>> = {
  normal: 'Normal',
  sooted: 'Dry soot: rich, or a weak spark',
  oil_inside: 'Oil from inside: rings, guides, ventilation',
  oil_outside: 'Oil from outside: cover or tube seal',
  hot_or_lean: 'Hot or lean',
  detonation: 'Detonation: stop',
  coolant: 'Coolant',
  tracked: 'Tracked: plug and boot together',
  water: 'Water in the well',
  worn_out: 'Worn out',
  threads_hurt: 'Threads hurt',
  cracked: 'Insulator cracked',
  part_normal: 'Nothing wrong with it',
  coil_fault: 'The coil itself',
  boot_fault: 'The boot alone: the coil stays',
  oil_first: 'Oil first: seal or cover, then its boot',
  connector_fault: 'The connector of the harness',
  lead_fault: 'The lead',
  cap_fault: 'The cap, and its rotor',
  rotor_fault: 'The rotor',
};
