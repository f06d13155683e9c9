import { describe, expect, it } from 'vitest';
import { inline4, transverseV6 as v6 } from '../engine/any-engine.fixture';
import type { EngineReading, Observation } from './finding';
import { readEngine } from './findings';
import {
  bad,
  flat4,
  inline3,
  oily,
  RESTS,
  reading,
  rest,
  type Shown,
  soot,
  told,
  trace,
  twin4,
  unseen,
  v8,
  washed,
  wasteSpark4,
  wasteSparkV6,
  white,
  worn,
} from './reading.fixture';

describe('readEngine finds the cause by where a condition stands', () => {
  it.each<[string, EngineReading, readonly string[]]>([
    ['a healthy set', reading(inline4, {}), ['healthy all 1 2 3 4']],
    ['soot on all of four', reading(inline4, rest(soot)), ['rich_or_weak_spark all 1 2 3 4']],
    ['soot on all of a V8', reading(v8, rest(soot)), ['rich_or_weak_spark all 1 2 3 4 5 6 7 8']],
    ['soot on the rear bank', reading(v6, { 1: soot, 3: soot, 5: soot }), ['bank_rich bank 1 3 5']],
    ['soot on the right of a V8', reading(v8, { 2: soot, 4: soot, 6: soot, 8: soot }), ['bank_rich bank 2 4 6 8']],
    ['soot on one side of a flat four', reading(flat4, { 2: soot, 4: soot }), ['bank_rich bank 2 4']],
    ['soot on one', reading(v6, { 4: soot }), ['cylinder_rich one 4']],
    ['soot on two of a bank of three', reading(v6, { 1: soot, 3: soot }), ['bank_rich bank 1 3']],
    ['soot on all but one', reading(inline4, { 1: soot, 2: soot, 3: soot }), ['rich_or_weak_spark all 1 2 3']],
    ['soot on two of a bank of four', reading(v8, { 1: soot, 3: soot }), ['cylinder_rich neighbours 1 3']],
    ['soot on three of a bank of four', reading(v8, { 1: soot, 3: soot, 7: soot }), ['bank_rich bank 1 3 7']],
    ['soot across the banks', reading(v6, { 1: soot, 2: soot }), ['cylinder_rich some 1 2']],
    [
      'soot on the resting cylinders',
      reading(v8, { 1: soot, 4: soot, 6: soot, 7: soot }, { deactivated: RESTS }),
      ['rests_at_part_load deactivated 1 4 6 7'],
    ],
    [
      'oil on the resting cylinders',
      reading(v8, { 1: oily, 4: oily, 6: oily, 7: oily }, { deactivated: RESTS }),
      ['rests_at_part_load deactivated 1 4 6 7'],
    ],
    [
      'soot on one that does not rest besides',
      reading(v8, { 1: soot, 4: soot, 6: soot, 7: soot, 8: soot }, { deactivated: RESTS }),
      ['cylinder_rich one 8', 'rests_at_part_load deactivated 1 4 6 7'],
    ],
    [
      'the same four where none rests',
      reading(v8, { 1: soot, 4: soot, 6: soot, 7: soot }),
      ['cylinder_rich some 1 4 6 7'],
    ],
    [
      'soot on row B of twin plugs',
      reading(twin4, { '1B': soot, '2B': soot, '3B': soot, '4B': soot }),
      ['one_position_weak position 1 2 3 4'],
    ],
    ['soot on both plugs of one cylinder', reading(twin4, { 2: soot }), ['cylinder_rich one 2 2']],
    ['soot on one plug of a pair', reading(twin4, { '3A': soot }), ['cylinder_rich one 3']],
    ['one oily nose', reading(v6, { 5: oily }), ['oil_inside one 5']],
    ['oily noses on all', reading(inline4, rest(oily)), ['oil_everywhere all 1 2 3 4']],
    ['oily noses on one bank', reading(v6, { 2: oily, 4: oily, 6: oily }), ['oil_everywhere bank 2 4 6']],
    ['oil outside only', reading(v6, { 3: bad('nose tan', 'insulator oily') }), ['oil_outside one 3']],
    [
      'oil in two wells',
      reading(v6, { 3: bad('nose tan', 'oil in well'), 5: bad('nose tan', 'oil in well') }),
      ['oil_outside neighbours 3 5'],
    ],
    [
      'oil inside and out',
      reading(v6, { 3: bad('nose black oily', 'insulator oily') }),
      ['oil_inside one 3', 'oil_outside one 3'],
    ],
    ['neighbours with a coloured trace', reading(inline4, { 2: trace, 3: trace }), ['coolant_between neighbours 2 3']],
    [
      'neighbours washed clean',
      reading(v8, { 3: bad('nose washed clean'), 5: bad('nose washed clean') }),
      ['coolant_between neighbours 3 5'],
    ],
    ['a trace across the banks', reading(v8, { 3: trace, 4: trace }), ['coolant_in_one some 3 4']],
    ['a trace on two that are not neighbours', reading(inline4, { 1: trace, 3: trace }), ['coolant_in_one some 1 3']],
    ['a trace on both ends of a row', reading(inline4, { 1: trace, 4: trace }), ['coolant_in_one ends 1 4']],
    ['a trace on one', reading(inline3, { 2: trace }), ['coolant_in_one one 2']],
    ['a trace on all alike', reading(inline4, rest(trace)), ['coloured_by_fuel all 1 2 3 4']],
    [
      'every nose washed clean',
      reading(inline4, rest(bad('nose washed clean', 'no deposits'))),
      ['washed_alike all 1 2 3 4'],
    ],
    [
      'some washed clean, the others with a trace',
      reading(inline4, { 1: trace, 2: trace, 3: bad('nose washed clean'), 4: bad('nose washed clean') }),
      ['coolant_between all 1 2 3 4'],
    ],
    ['white on all', reading(inline4, rest(white)), ['lean_or_hot all 1 2 3 4']],
    ['white on one bank', reading(v6, { 1: white, 3: white, 5: white }), ['bank_lean bank 1 3 5']],
    ['white at the ends of the row', reading(inline4, { 1: white, 4: white }), ['runner_leak ends 1 4']],
    [
      'white at all four ends of a V8',
      reading(v8, { 1: white, 7: white, 2: white, 8: white }),
      ['runner_leak ends 1 2 7 8'],
    ],
    ['white on one', reading(inline4, { 3: bad('nose blistered') }), ['cylinder_hot one 3']],
    [
      'white on one that came out loose',
      reading(inline4, { 3: { ...bad('nose white', 'seat sooted'), breakaway: 'loose' } }),
      ['loose_plug one 3'],
    ],
    ['loose without soot at the seat', reading(inline4, { 3: { breakaway: 'loose' } }), ['loose_plug one 3']],
    ['a sooted seat that was tight', reading(inline4, { 3: bad('nose tan', 'seat sooted') }), ['seat_leaked one 3']],
    [
      'white, and a sooted seat that was tight',
      reading(inline4, { 3: bad('nose white', 'seat sooted') }),
      ['cylinder_hot one 3', 'seat_leaked one 3'],
    ],
    ['all loose', reading(inline4, rest({ breakaway: 'loose' })), ['loose_plug all 1 2 3 4']],
    ['peppered', reading(v6, { 6: bad('electrodes peppered') }), ['detonation one 6']],
    [
      'melted and white',
      reading(v6, { 6: bad('electrodes melted', 'nose white') }),
      ['detonation one 6', 'cylinder_hot one 6'],
    ],
    ['a track on the insulator', reading(v6, { 2: bad('nose tan', 'carbon track') }), ['tracked one 2']],
    ['a track in the boot alone', reading(v6, { 2: bad('nose tan', 'boot tracked') }), ['tracked one 2']],
    ['rust on the shell', reading(inline3, { 1: bad('nose tan', 'threads rusted') }), ['water_in_well one 1']],
    ['water in the well', reading(inline3, { 1: bad('nose tan', 'water in well') }), ['water_in_well one 1']],
    ['coolant in the well', reading(v6, { 3: bad('nose tan', 'coolant in well') }), ['coolant_in_well one 3']],
    ['one eroded', reading(inline4, { 2: bad('nose tan', 'electrodes eroded') }), ['electrodes_worn one 2']],
    [
      'one eroded whose gap is over the limit',
      reading(inline4, { 2: { ...bad('nose tan', 'electrodes eroded'), gap: 1.6 } }),
      ['gap_worn_in_one one 2'],
    ],
    ['another number than on record', reading(inline4, { 2: { differs: true } }), ['other_part one 2']],
    ['a whole set of another number', reading(inline4, rest({ differs: true })), ['other_part all 1 2 3 4']],
    ['one gap over the limit', reading(inline4, { 2: worn }), ['gap_worn_in_one one 2']],
    ['all gaps over the limit', reading(inline4, rest(worn)), ['gap_worn_out all 1 2 3 4']],
    ['gaps at the limit', reading(inline4, rest({ gap: 1.4 })), ['healthy all 1 2 3 4']],
    [
      'one of each waste-spark pair worn',
      reading(wasteSpark4, { 1: worn, 2: worn }),
      ['partner_polarity partners 1 2', 'gap_worn_out partners 1 2'],
    ],
    [
      'the other of each pair eroded',
      reading(wasteSpark4, { 4: bad('nose tan', 'electrodes eroded'), 3: bad('nose tan', 'electrodes eroded') }),
      ['partner_polarity partners 3 4'],
    ],
    ['both of one pair worn', reading(wasteSpark4, { 1: worn, 4: worn }), ['gap_worn_out ends 1 4']],
    ['one of one pair worn', reading(wasteSpark4, { 1: worn }), ['gap_worn_in_one one 1']],
    ['two worn where each has its own coil', reading(inline4, { 1: worn, 2: worn }), ['gap_worn_out neighbours 1 2']],
    [
      'one bank that wears twice as fast',
      reading(v6, { 1: { grownMm: 0.26 }, 3: { grownMm: 0.3 }, 5: { grownMm: 0.28 }, rest: { grownMm: 0.13 } }),
      ['bank_wears_faster bank 1 3 5'],
    ],
    [
      'one that wears faster',
      reading(inline4, { 2: { grownMm: 0.3 }, rest: { grownMm: 0.12 } }),
      ['wears_faster one 2'],
    ],
    [
      'two of a bank that wear faster',
      reading(v6, { 1: { grownMm: 0.3 }, 3: { grownMm: 0.3 }, rest: { grownMm: 0.12 } }),
      ['wears_faster neighbours 1 3'],
    ],
    [
      'one of each waste-spark pair wears faster',
      reading(wasteSpark4, { 1: { grownMm: 0.3 }, 2: { grownMm: 0.3 }, rest: { grownMm: 0.14 } }),
      ['partner_polarity partners 1 2'],
    ],
    ['all wear alike', reading(v6, rest({ grownMm: 0.25 })), ['healthy all 1 2 3 4 5 6']],
    [
      'gaps that a gauge cannot tell apart',
      reading(v6, { 1: { grownMm: 0.08 }, 3: { grownMm: 0.08 }, 5: { grownMm: 0.08 }, rest: { grownMm: 0.04 } }),
      ['healthy all 1 2 3 4 5 6'],
    ],
    ['galled threads', reading(inline4, { 1: bad('nose tan', 'threads galled') }), ['threads_hurt one 1']],
    ['one that had seized', reading(inline4, { 1: { breakaway: 'seized' } }), ['threads_hurt one 1']],
    ['one that was tight', reading(inline4, { 1: { breakaway: 'tight' } }), ['healthy all 1 2 3 4']],
    ['a cracked insulator', reading(inline4, { 1: bad('nose tan', 'insulator cracked') }), ['cracked one 1']],
    ['a gasket missing', reading(inline4, { 1: bad('nose tan', 'gasket missing') }), ['wrong_gaskets one 1']],
    ['bridged', reading(inline4, { 1: bad('bridged') }), ['bridged one 1']],
    ['glazed on all', reading(inline4, rest(bad('glazed'))), ['glazed all 1 2 3 4']],
    ['ash on all', reading(inline4, rest(bad('nose tan', 'ash'))), ['ash all 1 2 3 4']],
    [
      'ash on the resting ones',
      reading(v8, { 1: bad('ash'), 4: bad('ash'), 6: bad('ash'), 7: bad('ash') }, { deactivated: RESTS }),
      ['rests_at_part_load deactivated 1 4 6 7'],
    ],
    ['a swollen boot', reading(inline4, { 1: bad('nose tan', 'boot swollen') }), ['boot_spent one 1']],
    ['a broken tab', reading(inline4, { 1: bad('nose tan', 'connector tab broken') }), ['connector_broken one 1']],
    ['debris in the wells', reading(inline4, rest(bad('nose tan', 'debris in well'))), ['debris all 1 2 3 4']],
    ['nothing looked at', reading(inline4, rest(unseen)), []],
    ['half a bank seen, and sooty', reading(v6, { 1: soot, 3: soot, 5: unseen }), ['bank_rich bank 1 3']],
    ['one seen, and sooty', reading(v6, { 1: soot, rest: unseen }), ['cylinder_rich one 1']],
    [
      'a sooty bank whose direction nobody declared',
      reading(v6, { 1: soot, 3: soot, 5: soot }, { directionKnown: false }),
      ['bank_rich bank '],
    ],
    [
      'neighbours with a trace, direction not declared',
      reading(inline4, { 2: trace, 3: trace }, { directionKnown: false }),
      ['coolant_between neighbours 2 3'],
    ],
  ])('%s', (_, engineReading, expected) => {
    expect(told(readEngine(engineReading))).toEqual(expected);
  });

  it.each<[string, EngineReading, string]>([
    ['three in a row', reading(inline4, { 1: trace, 2: trace, 3: trace }), 'neighbours'],
    ['a pair and a third elsewhere', reading(v8, { 1: trace, 3: trace, 8: trace }), 'apart'],
    ['a pair in each bank', reading(v8, { 1: trace, 3: trace, 6: trace, 8: trace }), 'pairs'],
    ['a whole bank washed clean', reading(v6, { 1: washed, 3: washed, 5: washed }), 'bank'],
    ['a pair in a tray without direction', reading(inline4, { 3: trace, 4: trace }, { directionKnown: false }), 'pair'],
    [
      'all with a trace and washed clean',
      reading(inline4, rest(bad('nose coloured trace', 'nose washed clean'))),
      'all',
    ],
    ['all that were looked at, when only some were', reading(v6, { 1: trace, 3: trace, rest: unseen }), 'seen'],
  ])('coolant in neighbours stops the work: %s', (_, engineReading) => {
    expect(readEngine(engineReading)[0]).toMatchObject({ cause: 'coolant_between', urgency: 'stop' });
  });

  it.each<[string, EngineReading, readonly string[]]>([
    [
      'resting cylinders oily beside soot elsewhere',
      reading(v8, { 1: oily, 4: oily, 6: oily, 7: oily, 3: soot }, { deactivated: RESTS }),
      ['cylinder_rich one 3', 'rests_at_part_load deactivated 1 4 6 7'],
    ],
    [
      'an oily nose with oil in that well',
      reading(v6, { 5: bad('nose black oily', 'oil in well') }),
      ['oil_inside one 5', 'oil_outside one 5'],
    ],
    [
      'a track and the soot of the same plug',
      reading(v6, { 5: bad('carbon track', 'nose black dry') }),
      ['tracked one 5'],
    ],
    [
      'a cracked nose and its soot, beside soot of another cylinder',
      reading(v6, { 2: bad('insulator cracked', 'nose black dry'), 5: soot }),
      ['cylinder_rich one 5', 'cracked one 2'],
    ],
    [
      'white noses in one row of two',
      reading(twin4, { '1A': white, '2A': white, '3A': white, '4A': white }),
      ['one_position_weak position 1 2 3 4'],
    ],
    [
      'a worn bank whose plugs are each one of a pair',
      reading(wasteSparkV6, {
        1: { grownMm: 0.3 },
        3: { grownMm: 0.3 },
        5: { grownMm: 0.28 },
        rest: { grownMm: 0.13 },
      }),
      ['partner_polarity partners 1 3 5'],
    ],
    [
      'gaps far over the limit, one of each pair',
      reading(wasteSpark4, { 1: { gap: 1.9 }, 2: { gap: 1.9 } }),
      ['gap_worn_out partners 1 2', 'partner_polarity partners 1 2'],
    ],
    [
      'one plug over its limit in a bank that wears',
      reading(v6, {
        1: { grownMm: 0.45, gap: 1.45 },
        3: { grownMm: 0.3 },
        5: { grownMm: 0.28 },
        rest: { grownMm: 0.13 },
      }),
      ['bank_wears_faster bank 1 3 5', 'gap_worn_in_one one 1'],
    ],
  ])('nothing drops out: %s', (_, engineReading, expected) => {
    expect(told(readEngine(engineReading))).toEqual(expected);
  });

  it('says of how many a set is healthy, and what speaks against a cause', () => {
    const [healthy] = readEngine(reading(v6, { 5: unseen, 6: unseen }));
    expect(healthy).toMatchObject({ cause: 'healthy', looked: 4, of: 6, confidence: 'medium' });
    const [bank] = readEngine(reading(v8, { 1: soot, 3: soot, 7: soot }));
    expect(bank?.against).toEqual([{ cylinder: 5, position: 'A', words: 'nose tan' }]);
  });

  it('tells the loudest first', () => {
    const both = reading(inline4, {
      1: bad('electrodes melted'),
      3: { differs: true },
      4: bad('nose tan', 'insulator oily'),
    });
    expect(readEngine(both).map(({ urgency }) => urgency)).toEqual(['stop', 'soon', 'note']);
  });

  it('is less sure of faint signs, of scatter and of half a set', () => {
    const sure = (engineReading: EngineReading) => readEngine(engineReading)[0]?.confidence;
    const bank = (severity: Observation['severity'], last: Shown = { conditions: ['nose black dry'], severity }) =>
      reading(v6, { 1: { ...soot, severity }, 3: { ...soot, severity }, 5: last });
    expect(sure(bank(2))).toBe('high');
    expect(sure(bank(1))).toBe('medium');
    expect(sure(reading(v6, { 1: soot, 3: soot, 5: unseen, 2: unseen }))).toBe('medium');
    expect(sure(reading(v6, { 1: { ...soot, severity: 1 }, 2: { ...soot, severity: 1 } }))).toBe('low');
  });
});

describe('how urgent and how sure', () => {
  const first = (one: EngineReading, cause: string) => readEngine(one).find((finding) => finding.cause === cause);

  it('takes oil at resting cylinders as urgent, and soot there as a note', () => {
    const resting = (shown: Shown) =>
      first(reading(v8, { 1: shown, 4: shown, 6: shown, 7: shown }, { deactivated: RESTS }), 'rests_at_part_load');
    expect(resting(oily)).toMatchObject({
      urgency: 'soon',
      next: [expect.stringContaining('oil use'), expect.anything(), expect.anything()],
    });
    expect(resting(soot)?.urgency).toBe('note');
  });

  it('is never unsure of a gap that was measured over its limit', () => {
    const over = reading(wasteSpark4, { 1: { gap: 1.45 }, 2: { gap: 1.45 } }, { directionKnown: false });
    expect(first(over, 'gap_worn_out')?.confidence).not.toBe('low');
  });

  it('names the soot that a track explains', () => {
    const words = first(reading(v6, { 5: bad('carbon track', 'nose black dry') }), 'tracked')?.evidence[0]?.words;
    expect(words).toBe('carbon track; nose black dry, which this explains');
  });
});

describe('a tray whose direction nobody declared', () => {
  const turned = { directionKnown: false };

  it('names no bank, and says what to declare', () => {
    const sooty: readonly Readonly<Record<string, Shown>>[] = [
      { 1: soot, 3: soot, 5: soot },
      { 2: soot, 4: soot, 6: soot },
    ];
    for (const shown of sooty) {
      const [finding] = readEngine(reading(v6, shown, turned));
      expect(finding).toMatchObject({ cause: 'bank_rich', shape: 'bank', sites: [], evidence: [], against: [] });
      expect(finding?.next[0]).toContain('One of the banks');
      expect(JSON.stringify(finding)).not.toMatch(/"cylinder"/);
    }
  });

  it('says the same of either bank, and names the bank once the direction is declared', () => {
    const oneBank = { 1: soot, 3: soot, 5: soot };
    const other = { 2: soot, 4: soot, 6: soot };
    expect(readEngine(reading(v6, oneBank, turned))).toEqual(readEngine(reading(v6, other, turned)));
    expect(told(readEngine(reading(v6, oneBank)))).toEqual(['bank_rich bank 1 3 5']);
  });

  it('still names what one row or all show', () => {
    expect(told(readEngine(reading(inline4, { 2: soot }, turned)))).toEqual(['cylinder_rich one 2']);
    expect(told(readEngine(reading(v6, rest(soot), turned)))).toEqual(['rich_or_weak_spark all 1 2 3 4 5 6']);
  });
});
