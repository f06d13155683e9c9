import { describe, expect, it } from 'vitest';
import { answersTo } from './answer';
import { CAUSES } from './finding';

const sites = [{ cylinder: 3, position: 'A' as const }];

describe('answersTo', () => {
  it('names the part at fault where it stands, as far as this engine has it', () => {
    const coilOnPlug = (component: string) => ['coil', 'boot', 'plug'].includes(component);
    expect(answersTo({ cause: 'coil_cracked', sites }, coilOnPlug)).toEqual([
      { action: 'replace', component: 'coil', places: ['3A'] },
    ]);
    expect(answersTo({ cause: 'boot_spring', sites }, coilOnPlug).map(({ component }) => component)).toEqual(['boot']);
    expect(answersTo({ cause: 'cap_burnt', sites: [] }, () => true)).toEqual([
      { action: 'replace', component: 'cap', places: 'all' },
      { action: 'replace', component: 'rotor', places: 'all' },
    ]);
  });

  it('never replaces a part of an engine that is healthy, or whose fault lies elsewhere', () => {
    for (const cause of ['healthy', 'bank_rich', 'detonation', 'leads_crossed', 'coil_terminal_corroded'] as const)
      expect(answersTo({ cause, sites }, () => true)).toEqual([]);
    for (const cause of CAUSES)
      for (const { places } of answersTo({ cause, sites }, () => true)) expect(places.length).toBeGreaterThan(0);
  });
});
