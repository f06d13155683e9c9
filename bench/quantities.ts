import { readQuantity } from '@/core/units/read-quantity';

/* How many of the ways in which people write a figure are read, and read rightly. The truths are made here, from what is known
   of each unit; nothing of the readers is used for them. Run: npx tsx bench/quantities.ts [-v] */

type Kind = 'gap' | 'torque' | 'distance';
interface Written {
  readonly kind: Kind;
  readonly text: string;
  /** mm, N·m or km. */
  readonly truth: number;
}

const INCH = 25.4;
const FOOT_POUND = 1.3558179483;
const MILE = 1.609344;

const all = (kind: Kind, truth: number, texts: string): readonly Written[] =>
  texts.split('¦').map((text) => ({ kind, text: text.trim(), truth }));

/** How figures of one unit are spelled. */
const spelled = (kind: Kind, truth: number, figure: string, units: string): readonly Written[] =>
  all(kind, truth, units).flatMap(({ text }) => [
    { kind, truth, text: `${figure} ${text}` },
    { kind, truth, text: `${figure}${text}` },
  ]);

const GOOD: readonly Written[] = [
  ...spelled('torque', 28, '28', `Nm ¦ N·m ¦ N m ¦ N.m ¦ N-m ¦ nm ¦ NM ¦ Nm. ¦ newton metres ¦ newton-meters`),
  ...spelled(
    'torque',
    21 * FOOT_POUND,
    '21',
    `ft-lb ¦ ft lb ¦ ft.lb ¦ ft·lb ¦ ftlb ¦ ft-lbs ¦ ft lbs ¦ ft. lbs. ¦ ft.-lbs.`,
  ),
  ...spelled(
    'torque',
    21 * FOOT_POUND,
    '21',
    `lb-ft ¦ lb ft ¦ lb.ft ¦ lbft ¦ lbs ft ¦ lbf ft ¦ lbf·ft ¦ lbf.ft ¦ lb. ft.`,
  ),
  ...spelled(
    'torque',
    21 * FOOT_POUND,
    '21',
    `foot pounds ¦ foot-pounds ¦ pound-feet ¦ pounds feet ¦ foot lbs ¦ ft/lb ¦ lb/ft`,
  ),
  ...spelled(
    'torque',
    15 * FOOT_POUND,
    '180',
    `in-lb ¦ in lb ¦ in.lb ¦ inlb ¦ in-lbs ¦ in. lbs. ¦ inch pounds ¦ inch-pounds`,
  ),
  ...spelled(
    'torque',
    15 * FOOT_POUND,
    '180',
    `lb-in ¦ lb in ¦ lbf in ¦ lbf·in ¦ lbs in ¦ pound inches ¦ ins-lb ¦ lb ins ¦ in/lbs`,
  ),
  ...spelled('torque', 28, '28000', `N·mm ¦ Nmm ¦ N mm ¦ N.mm`),
  ...spelled('torque', 24.516625, '2.5', `kgf·m ¦ kgf m ¦ kgm ¦ kg-m ¦ kg m ¦ m·kgf ¦ mkg ¦ kpm`),
  ...spelled('torque', 25, '2.5', `daN·m ¦ daNm ¦ da N m`),
  ...spelled('gap', 0.8, '0.8', `mm ¦ mm. ¦ MM ¦ millimetres ¦ millimeters ¦ millimetre ¦ m/m`),
  ...spelled('gap', 0.031 * INCH, '0.031', `in ¦ in. ¦ ins ¦ ins. ¦ inch ¦ inches ¦ " ¦ ″ ¦ '' ¦ ”`),
  ...spelled('gap', 0.031 * INCH, '31', `thou ¦ thou. ¦ thous ¦ thousandths ¦ mil ¦ mils ¦ thousandths of an inch`),
  ...spelled('distance', 104_000, '104000', `km ¦ km. ¦ kms ¦ KM ¦ Km ¦ kilometres ¦ kilometers ¦ klm ¦ kays`),
  ...spelled('distance', 64_000 * MILE, '64000', `mi ¦ mi. ¦ miles ¦ Miles ¦ mile ¦ mls`),
  ...all(
    'torque',
    28,
    `28 Nm dry ¦ 28 Nm (dry) ¦ dry 28 Nm ¦ 28 Nm, dry ¦ 28 dry ¦ 28 Nm dry threads ¦ 28 Nm on dry threads
    ¦ dry: 28 Nm`,
  ),
  ...all(
    'torque',
    20,
    `20 Nm oiled ¦ 20 Nm (oiled) ¦ oiled: 20 Nm ¦ 20 Nm, lightly oiled ¦ 20 Nm lubricated ¦ 20 Nm greased
    ¦ 20 Nm with paste ¦ 20 Nm clean and dry`,
  ),
  ...all(
    'torque',
    28,
    `28 Nm / 21 lb-ft ¦ 28 Nm/21 lb-ft ¦ 28 Nm = 21 lb-ft ¦ 28 Nm, 21 lb-ft ¦ 28 Nm; 21 lb-ft
    ¦ 28 Nm | 21 lb-ft ¦ 28 Nm or 21 lb-ft ¦ 28 Nm - 21 lb-ft`,
  ),
  ...all(
    'torque',
    28,
    `28 Nm (21 lb-ft) ¦ 28 Nm [21 lb-ft] ¦ 28 Nm 21 lb-ft ¦ 28 Nm (= 21 lb-ft) ¦ 28 Nm (20.7 ft lbs)
    ¦ 28 Nm (248 lb in) ¦ 28 N m (21 lbf ft) ¦ 28Nm(21ftlb)`,
  ),
  ...all(
    'torque',
    21 * FOOT_POUND,
    `21 ft-lb (28 Nm) ¦ 21 ft-lb / 28 Nm ¦ 21 lb ft = 28 Nm ¦ 21 ft lbs, 28 Nm ¦ 21 ft-lb 28 Nm
    ¦ 21 ft-lb or 28 Nm ¦ 21 ft.lbs. (28 N.m) ¦ 21 ft-lb - 28 Nm`,
  ),
  ...all(
    'gap',
    0.8,
    `0.8 mm / 0.031 in ¦ 0.8 mm = 0.031" ¦ 0.8 mm, 0.031 in ¦ 0.8 mm; .031 in ¦ 0.8 mm (.031)
    ¦ 0.8 mm | 0.031 in ¦ 0.8 mm or .031 in ¦ 0.8 mm 31 thou ¦ 0.8mm/.031in`,
  ),
  ...all(
    'gap',
    0.031 * INCH,
    `.031 in (0.8 mm) ¦ .031" / 0.8 mm ¦ 31 thou = 0.79 mm ¦ .031 in, 0.79 mm ¦ 0.031 in. (0.79 mm)
    ¦ .031in/.79mm`,
  ),
  ...all(
    'distance',
    104_000,
    `104,000 km (64,623 mi) ¦ 104000 km / 64623 miles ¦ 104 000 km = 64 623 mi ¦ 104000 km, 64623 mi`,
  ),
  ...all(
    'torque',
    20.5 * FOOT_POUND,
    `20 1/2 ft-lb ¦ 20 1/2 lb ft ¦ 20½ lb-ft ¦ 20 ½ ft-lb ¦ 20-1/2 ft lbs ¦ 20.5 ft-lb ¦ 20,5 ft-lb`,
  ),
  ...all(
    'torque',
    22.5,
    `22 1/2 Nm ¦ 22½ Nm ¦ 22 ½ N·m ¦ 22.5 Nm ¦ 22,5 Nm ¦ 22·5 Nm ¦ 22. 5 Nm ¦ 22, 5 Nm ¦ 22 .5 Nm`,
  ),
  ...all('gap', (3 / 64) * INCH, `3/64 in ¦ 3/64" ¦ 3 / 64 in ¦ 3/64 inch ¦ 3/64ths in ¦ 3/64 ins`),
  ...all('gap', (1 / 32) * INCH, `1/32 in ¦ 1/32" ¦ 1 / 32" ¦ 1/32 of an inch ¦ 1/32 inch`),
  ...all(
    'gap',
    0.8,
    `8/10 mm ¦ 80/100 mm ¦ 0. 8 mm ¦ 0, 8 mm ¦ 0 .8 mm ¦ 0·8 mm ¦ 0·80 ¦ ·8 mm ¦ 0.80 ¦ .8 ¦ ,8 ¦ 0,80
    ¦ .80 mm`,
  ),
  ...all(
    'gap',
    0.8,
    `gap 0.8 mm ¦ gap: 0.8 ¦ Gap = 0.8 mm ¦ 0.8 mm gap ¦ 0.8 gap ¦ gap of 0.8 mm ¦ set to 0.8 mm
    ¦ set at 0.8 ¦ electrode gap 0.8 mm ¦ plug gap 0.8 mm ¦ gapped to 0.8 mm ¦ measured 0.8 mm`,
  ),
  ...all(
    'torque',
    28,
    `torque 28 Nm ¦ torque: 28 ¦ Torque = 28 Nm ¦ 28 Nm torque ¦ tq 28 Nm ¦ tighten to 28 Nm
    ¦ torqued to 28 Nm ¦ set to 28 Nm ¦ plug 28 Nm ¦ torque of 28 Nm ¦ T = 28 Nm ¦ wrench at 28 Nm`,
  ),
  ...all(
    'distance',
    104_000,
    `odo 104000 km ¦ odo: 104,000 km ¦ odometer 104 000 km ¦ Odometer: 104000 ¦ 104000 on clock
    ¦ 104000 on the clock ¦ 104,000 km on clock ¦ 104000 km on the clock ¦ clock 104000 km
    ¦ reading 104000 km ¦ mileage 104000 km ¦ 104000 km odo ¦ dash 104000 km ¦ 104000 km on the dash
    ¦ ODO 104000 ¦ 104000 km so far ¦ now 104000 km ¦ km 104000 ¦ km: 104,000`,
  ),
  ...all(
    'distance',
    64_000 * MILE,
    `odo 64,000 mi ¦ 64000 miles on clock ¦ 64,000 miles on the clock ¦ mileage 64,000 miles ¦ 64k miles
    ¦ 64 k miles ¦ 64K mi ¦ 64kmi ¦ 64 thousand miles ¦ 64 thou miles ¦ miles 64000 ¦ 64,000 miles odo`,
  ),
  ...all(
    'distance',
    104_000,
    `104 thousand km ¦ 104 thousand kilometres ¦ 104 tkm ¦ 104 t km ¦ 104k km ¦ 104 k km ¦ 104K km ¦ 104kkm
    ¦ 104.0 thousand km ¦ 0.104 million km`,
  ),
  ...all(
    'distance',
    1_200_000,
    `1.2 million km ¦ 1,2 million km ¦ 1.2M km ¦ 1.2 mio km ¦ 1 200 thousand km ¦ 1 200 000 km
    ¦ 1,200,000 km ¦ 1.200.000 km ¦ 1'200'000 km`,
  ),
  ...all(
    'distance',
    104_000,
    `104 000 ¦ 104,000 ¦ 104'000 ¦ 104’000 km ¦ 104_000 km ¦ 104 000 km ¦ 104 000 km ¦ 104,000.0 km
    ¦ 104.000,0 km ¦ 104000. ¦ 104000,0 km ¦ １０４０００ km ¦ 1.04e5 km ¦ 104,000km ¦ 104, 000 km`,
  ),
  ...all(
    'torque',
    28,
    `~28 Nm ¦ about 28 Nm ¦ approx 28 Nm ¦ approx. 28 Nm ¦ approximately 28 Nm ¦ ca. 28 Nm ¦ circa 28 Nm
    ¦ roughly 28 Nm ¦ 28 Nm approx ¦ 28 Nm approx. ¦ 28 Nm or so ¦ +28 Nm ¦ 28.0 Nm ¦ 28,0 Nm ¦ 2.8e1 Nm
    ¦ 28. Nm ¦ = 28 Nm ¦ 28 Nm!`,
  ),
  ...all(
    'gap',
    0.8,
    `~0.8 mm ¦ about 0.8 mm ¦ approx 0.8 ¦ ca 0.8 mm ¦ ≈ 0.8 mm ¦ 0.8 mm approx ¦ 800 µm ¦ 800 um
    ¦ 800 microns ¦ 0.08 cm ¦ 8e-1 mm ¦ 0.8 mm ok ¦ 0.8mm. ¦ (0.8 mm) ¦ "0.8 mm" ¦ 0.8 mm each ¦ 0.8 mm new`,
  ),
];

/** What must not be taken for a figure: read as one, each would be wrong. */
const BAD: readonly Written[] = [
  ...all(
    'torque',
    Number.NaN,
    `25-30 Nm ¦ 25 to 30 Nm ¦ 28 ± 2 Nm ¦ 1/2 turn ¦ 180° ¦ 28 Nm + 90° ¦ 28 Nm then 1/4 turn ¦ 28 mm
    ¦ 28 Nm (25 lb-ft) ¦ 28 Nm / 31 lb-ft ¦ 280 Nm ¦ 2O Nm ¦ 28 Nm or 32 Nm ¦ 28 x 10 ¦ not 28 Nm ¦ 28 ft
    ¦ M14 ¦ hand tight ¦ 28 Nm less 10 % ¦ 28 Nm + 5 ¦ 28/30 Nm ¦ wet 28 dry 30 ¦ 20 Nm oiled 28 Nm dry
    ¦ half of 28 Nm`,
  ),
  ...all(
    'gap',
    Number.NaN,
    `0.8-0.9 mm ¦ 0.7/0.8 mm ¦ 0.8 to 0.9 ¦ 8 mm ¦ 0.8 Nm ¦ 0.30 in ¦ 31 ¦ .031 mm ¦ 0.8 mm (0.041 in)
    ¦ 0.8 mm + 0.1 ¦ 0.8 0.9 mm ¦ 0.8 x 2 mm ¦ gap ¦ 1/0 in ¦ under 0.8 mm`,
  ),
  ...all(
    'distance',
    Number.NaN,
    `104000 km - 106000 km ¦ 100k ¦ 104 Nm ¦ 104000 m ¦ 104000 h ¦ -5 km ¦ 104000 km / 80000 mi
    ¦ 104000 km since plugs ¦ 104000 km to go ¦ 60 000 km service ¦ 104000 km ago ¦ 104OOO km ¦ 12 km/l
    ¦ 104000 km + 300 ¦ 104000 104300 km ¦ every 60000 km`,
  ),
];

const SLACK = 1e-4;
let [refused, wrong, asked] = [0, 0, 0];
const told: string[] = [];
for (const { kind, text, truth } of GOOD) {
  const reading = readQuantity({ kind, text });
  if (reading.verdict === 'ok' && Math.abs(reading.valueSi - truth) > SLACK * truth) {
    wrong += 1;
    told.push(`wrong   ${kind} ${text}: ${reading.valueSi}, not ${truth}`);
  }
  if (reading.verdict === 'ask') asked += 1;
  if (reading.verdict === 'refuse') refused += 1;
  if (reading.verdict !== 'ok') told.push(`${reading.verdict}  ${kind} ${text}: ${reading.message}`);
}
let taken = 0;
for (const { kind, text } of BAD) {
  const reading = readQuantity({ kind, text });
  if (reading.verdict !== 'ok') continue;
  taken += 1;
  told.push(`taken   ${kind} ${text}: ${reading.valueSi}`);
}
if (process.argv.includes('-v')) console.log(told.join('\n'));
console.log(
  `${GOOD.length} good forms: ${refused} refused, ${asked} asked, ${wrong} wrong; ${BAD.length} that are no figure: ${taken} taken`,
);
