import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Candidate, match, partKey, SOURCE_RANKS } from './match';

const sheet = (id: string, over: Partial<Candidate> = {}): Candidate => ({
  id,
  engineFamilyId: 'PW-38',
  variant: null,
  modelYearFrom: null,
  modelYearTo: null,
  sourceKind: 'service_information',
  sourceDated: '2024-01-01',
  revision: 1,
  ...over,
});
const vehicle = { engineFamilyId: 'PW-38', variant: null, modelYear: 2021 };
const variants = ['with deactivation', 'without deactivation'];
const pair = variants.map((variant, i) => sheet(`s${i}`, { variant }));

describe('match', () => {
  it('matches a single sheet', () => {
    expect(match(vehicle, [sheet('a')], [])).toMatchObject({ kind: 'match', spec: { id: 'a' } });
  });

  it('asks for the variant that splits look-alike engines, and matches once it is known', () => {
    expect(match(vehicle, pair, variants)).toMatchObject({ kind: 'needs-answer', key: 'variant', choices: variants });
    expect(match({ ...vehicle, variant: 'without deactivation' }, pair, variants)).toMatchObject({
      kind: 'match',
      spec: { id: 's1' },
    });
  });

  it('asks even when the only sheet is for one variant', () => {
    expect(match(vehicle, pair.slice(0, 1), variants).kind).toBe('needs-answer');
    expect(match({ ...vehicle, variant: 'without deactivation' }, pair.slice(0, 1), variants)).toEqual({
      kind: 'no-spec',
      reason: 'no-sheet',
    });
  });

  it('splits by model year, and asks for it where it is unknown', () => {
    const years = [sheet('old', { modelYearTo: 2018 }), sheet('new', { modelYearFrom: 2019 })];
    expect(match(vehicle, years, [])).toMatchObject({ kind: 'match', spec: { id: 'new' } });
    expect(match({ ...vehicle, modelYear: null }, years, [])).toMatchObject({
      kind: 'needs-answer',
      key: 'model-year',
    });
  });

  it('takes the newest valid of the highest rank, and never memory', () => {
    const rivals = [
      sheet('box', { sourceKind: 'box', sourceDated: '2026-01-01' }),
      sheet('old'),
      sheet('new', { sourceDated: '2025-06-01' }),
      sheet('m', { sourceKind: 'memory' }),
    ];
    expect(match(vehicle, rivals, [])).toMatchObject({ kind: 'match', spec: { id: 'new' } });
    expect(match(vehicle, rivals.slice(3), [])).toEqual({ kind: 'no-spec', reason: 'only-memory' });
  });

  it('does not fit where nothing is known', () => {
    expect(match({ ...vehicle, engineFamilyId: null }, [sheet('a')], [])).toMatchObject({
      kind: 'needs-answer',
      key: 'engine-family',
    });
    expect(match(vehicle, [], [])).toEqual({ kind: 'no-spec', reason: 'no-sheet' });
  });

  it('never matches while two different scopes remain, and never depends on the order of sheets', () => {
    const anySheet = fc.record({
      id: fc.uuid(),
      engineFamilyId: fc.constantFrom('PW-38', 'AG-18'),
      variant: fc.constantFrom(null, ...variants),
      modelYearFrom: fc.constantFrom(null, 2015, 2020),
      modelYearTo: fc.constantFrom(null, 2019, 2024),
      sourceKind: fc.constantFrom(...SOURCE_RANKS),
      sourceDated: fc.constantFrom(null, '2020-01-01', '2024-01-01'),
      revision: fc.integer({ min: 1, max: 3 }),
    });
    const anyVehicle = fc.record({
      engineFamilyId: fc.constantFrom('PW-38', 'AG-18'),
      variant: fc.constantFrom(null, ...variants),
      modelYear: fc.constantFrom(null, 2018, 2021),
    });
    fc.assert(
      fc.property(anyVehicle, fc.uniqueArray(anySheet, { maxLength: 6, selector: (s) => s.id }), (v, sheets) => {
        const found = match(v, sheets, variants);
        const turned = match(v, [...sheets].reverse(), variants);
        expect(turned.kind).toBe(found.kind);
        if (found.kind !== 'match') return;
        expect(turned).toEqual(found);
        expect(found.spec.sourceKind).not.toBe('memory');
        const rivals = sheets.filter(
          (s) =>
            s.sourceKind !== 'memory' &&
            s.engineFamilyId === v.engineFamilyId &&
            s.variant === found.spec.variant &&
            (v.modelYear === null || ((s.modelYearFrom ?? 0) <= v.modelYear && v.modelYear <= (s.modelYearTo ?? 9999))),
        );
        expect(new Set(rivals.map((s) => `${s.modelYearFrom}/${s.modelYearTo}`)).size).toBe(1);
      }),
    );
  });
});

describe('partKey', () => {
  it('ignores case, spaces and hyphens, but keeps 0 apart from O', () => {
    expect(partKey('em 4-120r')).toBe(partKey('EM4120R'));
    expect(partKey('EM-O')).not.toBe(partKey('EM-0'));
  });
});
