import { type FastenerSize, tighteningOrder } from '../../../engine/access';
import type { AccessItem, AccessPart, Driver, ItemFasteners } from '../../../engine/access-items';
import { saySmallTorque, sayTorque } from '../../../units/say';
import { type Draft, draft, type ItemNote, isGas, type ProcedureInput } from '../step';
import { itemsOff } from '../visit';

/* The way to the plugs: off from the first item to the last, on from the last to the first. */

interface PartWords {
  readonly off: string;
  readonly on: string;
  /** Why with care, off and on. */
  readonly whyOff: string;
  readonly whyOn: string;
}

const PART_WORDS: Readonly<Record<AccessPart, PartWords>> = {
  cover: {
    off: 'Take off the',
    on: 'Refit the',
    whyOff: 'Screws differ in length, and a clip that is lifted askew breaks: even, and laid in their order.',
    whyOn: 'A cover that rattles lets water into the wells.',
  },
  cowl: {
    off: 'Take off the',
    on: 'Refit the',
    whyOff: 'Its clips are brittle in the cold, and what lies on it falls into the bay.',
    whyOn: 'A cowl that does not seal runs water onto the coils.',
  },
  duct: {
    off: 'Take off the',
    on: 'Refit the',
    whyOff: 'Loosen both clamps before it is pulled: a duct that is bent open tears in its folds.',
    whyOn: 'Air that is drawn in past a loose clamp is not metered: lean, and a misfire at idle.',
  },
  airbox: {
    off: 'Take out the',
    on: 'Put back the',
    whyOff: 'Out of its rubber feet it lifts straight up; a feed that is bent breaks.',
    whyOn: 'A box that is not home in its feet drums, and draws air past the filter.',
  },
  bracket: {
    off: 'Take off the',
    on: 'Refit the',
    whyOff: 'What hangs on it is tied up first.',
    whyOn: 'A bracket that is left loose shakes its neighbour to pieces.',
  },
  shield: {
    off: 'Take off the',
    on: 'Refit the',
    whyOff: 'Dirt lies behind it: brush it off before anything is open.',
    whyOn: 'Without it stones and salt water reach the boots.',
  },
  wheel: {
    off: 'Take off the',
    on: 'Put on the',
    whyOff: 'The plugs are reached through the arch.',
    whyOn: 'Crosswise, in two rounds, and again after the road test.',
  },
  servo: {
    off: 'Free and lay aside the',
    on: 'Bolt back the',
    whyOff: 'It stands before the last cylinder; its lines stay on it.',
    whyOn: 'Brakes come first: nothing moves before it is torqued and tried.',
  },
  cap: {
    off: 'Take out the',
    on: 'Put back the',
    whyOff: 'The hole it leaves is closed at once.',
    whyOn: 'A hole left open throws oil over the engine.',
  },
  connector: {
    off: 'Unplug the',
    on: 'Plug in the',
    whyOff: 'By its tab, never by the cable: the second lock first.',
    whyOn: 'It clicks and its second lock goes home, or it works loose on the road.',
  },
  clip: {
    off: 'Open the',
    on: 'Close the',
    whyOff: 'Cold plastic breaks: warm it with the hand first.',
    whyOn: 'What hangs free rubs through.',
  },
  hose: {
    off: 'Part the',
    on: 'Join the',
    whyOff: 'Mark both ends: two alike are easily changed over.',
    whyOn: 'A hose left off draws air, or leaks.',
  },
  harness: {
    off: 'Free and lay aside the',
    on: 'Lay back the',
    whyOff: 'With its connectors plugged nothing can be mixed up.',
    whyOn: 'In every clip, clear of exhaust and moving parts, its ground screw tight.',
  },
  fuel_line: {
    off: 'Part the',
    on: 'Join the',
    whyOff: 'Only with no pressure in it.',
    whyOn: 'New seals, a click that is felt, and a look for drops with the pump on.',
  },
  intake: {
    off: 'Take off the',
    on: 'Refit the',
    whyOff: 'It warps when its middle is freed first under load: from the outside inward.',
    whyOn: 'A manifold that bridges draws air: lean, and a misfire at idle.',
  },
};

/** Which of the items stay off until the engine has run: the outermost ones that it runs without. */
const LIDS: ReadonlySet<AccessPart> = new Set(['cover', 'cowl', 'shield']);

/** Keys of the items that go on after the first start. */
export function lidsOf(input: ProcedureInput): ReadonlySet<string> {
  if (input.policies.first_start !== 'before_covers') return new Set();
  const items = itemsOff(input);
  const inner = items.findIndex(({ part }) => !LIDS.has(part));
  return new Set((inner < 0 ? items : items.slice(0, inner)).map(({ key }) => key));
}

/** What holds an item that has no screws. */
const holdOf = (part: AccessPart): string => {
  if (part === 'duct' || part === 'hose') return 'clamp';
  return part === 'connector' || part === 'fuel_line' ? 'lock' : 'clip';
};

/** "8 screws M8, captive", "2 clamps" */
export function fastenersSaid(part: AccessPart, { count, size, captive }: ItemFasteners): string {
  const noun = size ? 'screw' : holdOf(part);
  return `${count} ${noun}${count === 1 ? '' : 's'}${size ? ` ${size}` : ''}${captive ? ', captive' : ''}`;
}

const SMALL: ReadonlySet<FastenerSize> = new Set(['M5', 'M6', 'M7']);

/** "8 screws M8 to 20 N·m (14.8 lbf·ft), in the order 4 5 3 6 2 7 1 8" */
function tightened(part: AccessPart, fasteners: ItemFasteners): string {
  const { count, size, torqueNm, order } = fasteners;
  const say = size && SMALL.has(size) ? saySmallTorque : sayTorque;
  return [
    fastenersSaid(part, fasteners),
    ...(torqueNm === null ? [] : [` to ${say(torqueNm)}`]),
    ...(order === 'any' ? [] : [`, in the order ${tighteningOrder(count, order).join(' ')}`]),
  ].join('');
}

const driverTool = (driver: Driver | null): readonly string[] => {
  if (driver === null || driver === 'hand') return [];
  if (driver.endsWith('mm')) return [`socket ${driver}`];
  if (driver.endsWith('hex')) return [`hex bit ${driver.replace(' hex', '')}`];
  if (driver === 'pliers') return ['clamp pliers'];
  return [driver.startsWith('T') ? `bit ${driver}` : `screwdriver, ${driver}`];
};

const sayBreaks = ({ breaks }: AccessItem): readonly string[] =>
  breaks ? [`Often breaks here: ${breaks.what}${breaks.number ? ` (${breaks.number})` : ''}.`] : [];

const GASKET_RULE = 'Look at the seal: pliable, proud of its groove and not cut, or a new one';

const FUEL = 'Fuel under pressure sprays: relieve it, catch it in a tray, no flame or spark, eye protection.';
const GAS = 'Gas in the line: it must be empty. No flame or spark, eye protection.';

/** What is off the way, in its order, with the ports that it leaves open. */
export function wayOff(input: ProcedureInput): readonly Draft[] {
  return itemsOff(input).flatMap((item) => [offStep(input, item), ...(item.part === 'intake' ? [rags(item)] : [])]);
}

function offStep({ fuel, weakPoints, notes }: ProcedureInput, item: AccessItem): Draft {
  const { key, part, what, fasteners, howOff, speaks } = item;
  const isFuel = part === 'intake' || part === 'fuel_line';
  const known = part === 'intake' ? weakPoints.filter(({ kind }) => kind === 'intake') : [];
  const cautions = [
    ...(item.caution ? [item.caution] : []),
    ...(isFuel ? [isGas(fuel) ? GAS : FUEL] : []),
    ...(part === 'servo' ? ['Never part a brake line for this.'] : []),
    ...known.map(({ says }) => `Known here: ${says}.`),
    ...sayBreaks(item),
  ];
  return draft(
    'open',
    'open',
    `${PART_WORDS[part].off} ${what}${fasteners ? `: ${fastenersSaid(part, fasteners)}` : ''}${howOff ? `${fasteners ? '; ' : ': '}${howOff}` : ''}`,
    [PART_WORDS[part].whyOff, ...(speaks ? [`${speaks}.`] : []), ...notesOn(notes, key)].join(' '),
    item.minutesOff,
    {
      part: key,
      caution: cautions.join(' ') || null,
      tools: [
        ...driverTool(fasteners?.driver ?? null),
        ...(fasteners?.size && !fasteners.captive ? ['tray for screws, in their order'] : []),
      ],
    },
  );
}

/** So many notes are shown at an item. */
const MAX_NOTES = 2;

const notesOn = (notes: readonly ItemNote[], key: string): readonly string[] =>
  notes
    .filter(({ item }) => item === key)
    .slice(0, MAX_NOTES)
    .map(({ says, by, unit }) => `Note of ${by}, unit ${unit}: ${says}.`);

const rags = ({ key, what, opens }: AccessItem): Draft =>
  draft(
    'open',
    'rags',
    `Cover every intake port that the ${what} leaves open with a clean rag, and count them`,
    'A nut in a port wrecks the engine.',
    2,
    {
      part: key,
      caution: 'Count them: a rag left in a port is found by the valve.',
      consumables: [`${opens.length} clean rags`],
    },
  );

/** What was taken off goes on again, the last first. @param when the covers that wait for the first start go on after it */
export function wayOn(input: ProcedureInput, when: 'before_start' | 'after_start'): readonly Draft[] {
  const lids = lidsOf(input);
  return itemsOff(input)
    .filter(({ key, minutesOn }) => minutesOn > 0 && lids.has(key) === (when === 'after_start'))
    .map((item) => onStep(item, when))
    .reverse();
}

function onStep(item: AccessItem, when: 'before_start' | 'after_start'): Draft {
  const { key, part, what, fasteners, howOn, seal } = item;
  const isIntake = part === 'intake';
  const gasket = seal ? ` with ${seal.rule === 'new' ? `new ${seal.what}` : `its ${seal.what}`}` : '';
  return draft(
    when === 'before_start' ? 'close' : 'prove',
    when === 'before_start' ? 'close' : 'lids',
    `${isIntake ? 'Rags out and counted. ' : ''}${PART_WORDS[part].on} ${what}${gasket}${fasteners ? `: ${tightened(part, fasteners)}` : ''}${howOn ? `; ${howOn}` : ''}`,
    PART_WORDS[part].whyOn,
    item.minutesOn,
    {
      part: key,
      caution:
        [
          ...(isIntake
            ? [
                'Rags out equals rags in, before the manifold covers the ports. Every clamp, hose, module and ground screw back and tight: air drawn in runs lean.',
              ]
            : []),
          ...(seal?.rule === 'if_sound' ? [`${GASKET_RULE}.`] : []),
          ...(part === 'servo' ? ['Try the brake with the engine running before the vehicle moves.'] : []),
        ].join(' ') || null,
      tools: [...driverTool(fasteners?.driver ?? null), ...(fasteners?.torqueNm ? ['small torque wrench'] : [])],
      asks:
        fasteners?.isRecorded && fasteners.torqueNm !== null
          ? [
              {
                key: 'torque',
                what: `torque of the ${fasteners.count} screws of the ${what}, as set`,
                kind: 'torque',
                torqueNm: fasteners.torqueNm,
              },
            ]
          : [],
      consumables: seal
        ? [`${seal.rule === 'new' ? 'new' : 'at hand:'} ${seal.what}${seal.number ? ` (${seal.number})` : ''}`]
        : [],
    },
  );
}
