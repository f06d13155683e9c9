import { describe, expect, it } from 'vitest';
import { inline4 } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import type { Cause, EngineReading, SiteReading } from './finding';
import { readEngine } from './findings';
import { PART_RULES } from './part-rules';
import type { Condition } from './vocabulary';

/* What coils, boots, leads and the distributor say, alone and beside a plug. */

const layout = layoutOf(inline4);
type Told = Partial<Omit<SiteReading, 'seen'>> & { readonly words?: readonly Condition[] };

const reading = (told: Readonly<Record<number, Told>>, over: Partial<EngineReading> = {}): EngineReading => ({
  layout,
  deactivated: [],
  directionKnown: true,
  gapLimitMm: 1.3,
  sites: layout.sites.map(({ cylinder, position }) => {
    const { words, ...rest } = told[cylinder] ?? {};
    const seen = words?.map((condition) => ({ condition, severity: 2 as const })) ?? null;
    return { cylinder, position, seen, gapMm: null, breakaway: null, differs: null, wear: null, ...rest };
  }),
  ...over,
});
const causes = (told: Readonly<Record<number, Told>>, over: Partial<EngineReading> = {}): readonly Cause[] =>
  readEngine(reading(told, over)).map(({ cause }) => cause);
const sound = { words: ['nose tan', 'coil sound', 'boot sound'] } as const;
const engine = (...words: readonly Condition[]) => ({
  engine: { seen: words.map((condition) => ({ condition, severity: 2 as const })) },
});

describe('a part beside its plug', () => {
  it('is told as one cause where the plug is sooty because its coil or lead does not fire it', () => {
    const open = [{ measured: 'secondary' as const, words: 'secondary open circuit, sheet 8 to 12 kΩ' }];
    const found = causes({ 1: sound, 2: { words: ['nose black dry'], outOfRange: open }, 3: sound, 4: sound });
    expect(found).toContain('starved_by_coil');
    expect(found).toContain('coil_secondary_out');
    expect(found).not.toContain('cylinder_rich');
    expect(causes({ 2: { words: ['nose black dry', 'lead burnt'] }, 1: sound, 3: sound })).toContain('starved_by_lead');
    expect(causes({ 2: { words: ['nose black dry'] }, 1: sound, 3: sound, 4: sound })).toEqual(['cylinder_rich']);
  });

  it('is the victim where oil has swollen it: the leak comes first', () => {
    expect(causes({ 1: { words: ['boot swollen', 'oil in well'] }, 2: sound, 3: sound, 4: sound })).toEqual(
      expect.arrayContaining(['boot_spent_by_oil', 'oil_outside']),
    );
    expect(causes({ 1: { words: ['boot swollen'] }, 2: sound, 3: sound, 4: sound })).toEqual(['boot_spent']);
  });

  it('is a boot, spring or pin before it is a coil', () => {
    for (const [word, cause] of [
      ['boot spring corroded', 'boot_spring'],
      ['connector pins corroded', 'connector_pins'],
    ] as const)
      expect(causes({ 3: { words: [word] }, 1: sound })).toEqual([cause]);
  });

  it('speaks though nobody has looked at the plug', () => {
    const out = [{ measured: 'primary' as const, words: 'primary 0.1 Ω, sheet 0.6 to 0.8 Ω' }];
    const [finding] = readEngine(reading({ 3: { outOfRange: out } }));
    expect(finding).toMatchObject({ cause: 'coil_primary_out', shape: 'one', sites: [{ cylinder: 3 }] });
    expect(finding?.evidence[0]?.words).toContain('0.1 Ω');
  });
});

describe('leads', () => {
  it('of one set that age together are the set, not one', () => {
    const aged = { words: ['lead chafed'] } as const;
    const whole = { words: ['lead sound'] } as const;
    expect(causes({ 1: aged, 2: aged, 3: aged, 4: whole })).toEqual(['leads_aged']);
    expect(causes({ 1: aged, 2: whole, 3: whole, 4: whole })).toEqual(['lead_chafed']);
  });

  it('that have changed places come before anything is started', () => {
    const [finding] = readEngine(reading({ 2: { words: ['lead of another cylinder'] }, 3: { words: ['lead sound'] } }));
    expect(finding).toMatchObject({ cause: 'leads_crossed', urgency: 'before_return' });
  });
});

describe('cap and rotor', () => {
  it('speak for the engine and for no cylinder', () => {
    const [finding] = readEngine(reading({}, engine('cap cracked')));
    expect(finding).toMatchObject({ cause: 'cap_cracked', shape: 'engine', sites: [{ cylinder: 0 }] });
    expect(causes({}, engine('cap sound', 'rotor sound'))).toEqual([]);
  });

  it('burnt beside wide gaps have one cause with them', () => {
    const wide = { words: ['nose tan'], gapMm: 1.5 } as const;
    expect(causes({ 1: wide, 2: wide, 3: wide, 4: wide }, engine('cap terminals burnt'))).toContain(
      'cap_burnt_by_gaps',
    );
    const narrow = { words: ['nose tan'], gapMm: 1.0 } as const;
    expect(causes({ 1: narrow, 2: narrow, 3: narrow, 4: narrow }, engine('cap terminals burnt'))).toEqual([
      'cap_burnt',
    ]);
  });
});

describe('the rules for parts', () => {
  it('are many, each with a reason and something to do next', () => {
    const rules = Object.values(PART_RULES);
    expect(rules.length).toBeGreaterThanOrEqual(25);
    for (const { reason, next } of rules) expect([reason.length > 10, next.length > 0]).toEqual([true, true]);
  });
});
