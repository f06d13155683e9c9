import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Candidate, match, matcher, partKey, releaseBlockers, SOURCE_RANKS } from './match';
import { ANY_VEHICLE, KEYS, keyFits, scopeWords, type VehicleKeys } from './scope';

const sheet = (id: string, over: Partial<Candidate> = {}): Candidate => ({
  id,
  engineFamilyId: 'PW-38',
  variant: null,
  modelYearFrom: null,
  modelYearTo: null,
  builtFrom: null,
  builtTo: null,
  serialFrom: null,
  serialTo: null,
  fuel: null,
  induction: null,
  market: null,
  sourceKind: 'service_information',
  sourceDated: '2024-01-01',
  revision: 1,
  expired: false,
  ...over,
});
const vehicle: VehicleKeys = { ...ANY_VEHICLE, engineFamilyId: 'PW-38', modelYear: 2021 };
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
      choices: ['up to 2018', '2019 on'],
    });
  });

  it.each([
    ['built-on', { builtTo: '2020-06-30' }, { builtFrom: '2020-07-01' }, { builtOn: '2020-07-01' }],
    ['serial', { serialTo: 123_999 }, { serialFrom: 124_000 }, { serial: 124_000 }],
    ['fuel', { fuel: 'petrol' }, { fuel: 'lpg' }, { fuel: 'lpg' }],
    ['induction', { induction: 'natural' }, { induction: 'turbo' }, { induction: 'turbo' }],
    ['market', { market: 'island' }, { market: 'mainland' }, { market: 'mainland' }],
  ])('splits by %s', (key, first, second, answer) => {
    const two = [sheet('a', first), sheet('b', second)];
    expect(match(vehicle, two, [])).toMatchObject({ kind: 'needs-answer', key });
    expect(match({ ...vehicle, ...answer }, two, [])).toMatchObject({ kind: 'match', spec: { id: 'b' } });
  });

  it('asks the one question that leaves fewest candidates', () => {
    const four = ['petrol', 'lpg', 'e85'].map((fuel) => sheet(fuel, { fuel, variant: variants[0] ?? null }));
    expect(match(vehicle, four, variants)).toMatchObject({ kind: 'needs-answer', key: 'fuel' });
  });

  it('takes the newest valid of the highest rank, and never memory', () => {
    const rivals = [
      sheet('box', { sourceKind: 'box', sourceDated: '2026-01-01' }),
      sheet('old'),
      sheet('new', { sourceDated: '2025-06-01' }),
      sheet('gone', { sourceDated: '2026-06-01', expired: true }),
      sheet('m', { sourceKind: 'memory' }),
    ];
    expect(match(vehicle, rivals, [])).toMatchObject({ kind: 'match', spec: { id: 'new' } });
    expect(match(vehicle, rivals.slice(4), [])).toEqual({ kind: 'no-spec', reason: 'only-memory' });
  });

  it('prefers the narrower sheet, but never a narrower one of a lower rank', () => {
    const wide = sheet('wide');
    const narrow = sheet('narrow', { modelYearFrom: 2020, modelYearTo: 2022 });
    expect(match(vehicle, [wide, narrow], [])).toMatchObject({ kind: 'match', spec: { id: 'narrow' } });
    const box = { ...narrow, sourceKind: 'box' as const };
    expect(match(vehicle, [wide, box], [])).toMatchObject({ kind: 'match', spec: { id: 'wide' } });
  });

  it('lets a person resolve what no key tells apart', () => {
    const crossing = [
      sheet('years', { modelYearFrom: 2020, modelYearTo: 2023 }),
      sheet('more', { modelYearFrom: 2018, modelYearTo: 2021 }),
    ];
    expect(match(vehicle, crossing, [])).toMatchObject({ kind: 'needs-answer', key: 'sheet' });
    expect(match({ ...vehicle, chosenSheetId: 'more' }, crossing, [])).toMatchObject({
      kind: 'match',
      spec: { id: 'more' },
    });
    expect(match({ ...vehicle, chosenSheetId: 'elsewhere' }, crossing, []).kind).toBe('needs-answer');
  });

  it('does not fit where nothing is known', () => {
    expect(match({ ...vehicle, engineFamilyId: null }, [sheet('a')], [])).toMatchObject({
      kind: 'needs-answer',
      key: 'engine-family',
    });
    expect(match(vehicle, [], [])).toEqual({ kind: 'no-spec', reason: 'no-sheet' });
  });

  const anySheet: fc.Arbitrary<Candidate> = fc.record({
    id: fc.uuid(),
    engineFamilyId: fc.constantFrom('PW-38', 'AG-18'),
    variant: fc.constantFrom(null, ...variants),
    modelYearFrom: fc.constantFrom(null, 2015, 2020),
    modelYearTo: fc.constantFrom(null, 2020, 2024),
    builtFrom: fc.constantFrom(null, '2020-07-01'),
    builtTo: fc.constantFrom(null, '2022-01-01'),
    serialFrom: fc.constantFrom(null, 5000),
    serialTo: fc.constantFrom(null, 9000),
    fuel: fc.constantFrom(null, null, 'petrol', 'lpg'),
    induction: fc.constantFrom(null, null, 'turbo'),
    market: fc.constant(null),
    sourceKind: fc.constantFrom(...SOURCE_RANKS),
    sourceDated: fc.constantFrom(null, '2020-01-01', '2024-01-01'),
    revision: fc.integer({ min: 1, max: 3 }),
    expired: fc.boolean(),
  });
  const answers = {
    variant: variants,
    modelYear: [2014, 2018, 2020, 2022],
    builtOn: ['2019-01-01', '2021-01-01', '2023-01-01'],
    serial: [100, 6000, 9500],
    fuel: ['petrol', 'lpg'],
    induction: ['natural', 'turbo'],
  } as const;
  const anyVehicle: fc.Arbitrary<VehicleKeys> = fc.record({
    engineFamilyId: fc.constantFrom('PW-38', 'AG-18'),
    variant: fc.constantFrom(null, ...answers.variant),
    modelYear: fc.constantFrom(null, ...answers.modelYear),
    builtOn: fc.constantFrom(null, ...answers.builtOn),
    serial: fc.constantFrom(null, ...answers.serial),
    fuel: fc.constantFrom(null, ...answers.fuel),
    induction: fc.constantFrom(null, ...answers.induction),
    market: fc.constant(null),
    chosenSheetId: fc.constant(null),
  });
  const someSheets = fc.uniqueArray(anySheet, { maxLength: 7, selector: (s) => s.id });

  it('never matches while an answer not yet given could change it', () => {
    const completed = fc.record({
      variant: fc.constantFrom(...answers.variant),
      modelYear: fc.constantFrom(...answers.modelYear),
      builtOn: fc.constantFrom(...answers.builtOn),
      serial: fc.constantFrom(...answers.serial),
      fuel: fc.constantFrom(...answers.fuel),
      induction: fc.constantFrom(...answers.induction),
    });
    fc.assert(
      fc.property(anyVehicle, someSheets, completed, (v, sheets, rest) => {
        const found = match(v, sheets, variants);
        if (found.kind !== 'match') return;
        const known = Object.fromEntries(Object.entries(v).filter(([, value]) => value !== null));
        expect(match({ ...v, ...rest, ...known }, sheets, variants)).toEqual(found);
      }),
      { numRuns: 2000 },
    );
  });

  it('matches only a sheet that covers the vehicle on every key, is not from memory and has no higher rival', () => {
    fc.assert(
      fc.property(anyVehicle, someSheets, (v, sheets) => {
        const found = match(v, sheets, variants);
        if (found.kind !== 'match') return;
        expect(found.spec.engineFamilyId).toBe(v.engineFamilyId);
        expect(KEYS.every((key) => keyFits(key, v, found.spec))).toBe(true);
        expect(found.spec.sourceKind).not.toBe('memory');
        const rank = (c: Candidate): number => SOURCE_RANKS.indexOf(c.sourceKind);
        const surelyHigher = sheets.filter(
          (s) =>
            rank(s) < rank(found.spec) &&
            s.engineFamilyId === v.engineFamilyId &&
            KEYS.every((key) => keyFits(key, v, s) === true),
        );
        expect(surelyHigher).toEqual([]);
      }),
      { numRuns: 2000 },
    );
  });

  it('does not depend on the order of sheets, nor on whether one vehicle or many are asked', () => {
    fc.assert(
      fc.property(anyVehicle, someSheets, (v, sheets) => {
        const found = match(v, sheets, variants);
        const turned = match(v, [...sheets].reverse(), variants);
        expect(turned.kind).toBe(found.kind);
        if (found.kind === 'match') expect(turned).toEqual(found);
        const many = matcher(sheets, new Map(['PW-38', 'AG-18'].map((id) => [id, variants])));
        expect(many(v)).toEqual(found);
      }),
    );
  });

  it('asks only what is not answered, and an answer leaves fewer candidates', () => {
    fc.assert(
      fc.property(anyVehicle, someSheets, (v, sheets) => {
        const found = match(v, sheets, variants);
        if (found.kind !== 'needs-answer' || found.key === 'sheet' || found.key === 'engine-family') return;
        expect(found.choices.length).toBeGreaterThan(0);
        const field = { 'model-year': 'modelYear', 'built-on': 'builtOn' }[found.key as string] ?? found.key;
        expect(v[field as keyof VehicleKeys]).toBeNull();
      }),
    );
  });
});

describe('scopeWords', () => {
  it('says whom a sheet is for', () => {
    expect(scopeWords(sheet('a'))).toBe('every vehicle of the family');
    expect(scopeWords(sheet('a', { variant: 'turbo', modelYearFrom: 2019, serialTo: 400 }))).toBe(
      'turbo, 2019 on, serial up to 400',
    );
    expect(scopeWords(sheet('a', { builtFrom: '2020-01-01', builtTo: '2020-12-31' }))).toBe(
      'built 2020-01-01 to 2020-12-31',
    );
  });
});

describe('releaseBlockers', () => {
  it('block an unchecked, expired or disputed sheet', () => {
    expect(releaseBlockers({ checkedBy: 'M. Vane', expired: false, makersDisagree: false })).toEqual([]);
    expect(releaseBlockers({ checkedBy: null, expired: true, makersDisagree: true })).toEqual([
      'unchecked',
      'expired',
      'makers-disagree',
    ]);
  });
});

describe('partKey', () => {
  it('ignores case, spaces and hyphens, but keeps 0 apart from O', () => {
    expect(partKey('em 4-120r')).toBe(partKey('EM4120R'));
    expect(partKey('EM-O')).not.toBe(partKey('EM-0'));
  });
});
