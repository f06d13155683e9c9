import type { CaseState } from '@/core/misfire/case-state';
import type { DrivingAdvice, DrivingReason } from '@/core/misfire/driving';
import type {
  Cause,
  DoneTest,
  FoundWord,
  Hypothesis,
  MisfireCase,
  MisfireEngine,
  MisfireTest,
  SuspectPart,
  Swap,
  SwapOutcome,
  Symptom,
  TestOutcome,
} from '@/core/misfire/misfire-case';
import { partOn } from '@/core/misfire/misfire-case';
import type { NextStep } from '@/core/misfire/next-step';
import type { Reason } from '@/core/misfire/reasons';
import { remedyTask } from '@/core/misfire/remedy-task';
import { isCrossed, type RecordFactor } from '@/core/misfire/states';
import { moneyText, percentText } from './format';

/* A misfire in words. */

type Ignition = MisfireEngine['ignition'];

export const CASE_STATE_WORDS: Readonly<Record<CaseState, string>> = {
  open: 'Being narrowed down',
  mending: 'A visit is to cure it',
  referred: 'Referred',
  watching: 'Watched',
  closed: 'Closed',
};

export const SYMPTOM_WORDS: Readonly<Record<Symptom, string>> = {
  idle: 'at idle',
  load: 'under load, uphill',
  cold: 'when cold',
  hot: 'when hot',
  after_a_while: 'after a while of driving',
  wet: 'in the wet',
  always: 'all the time',
  rich_smell: 'smell of raw fuel',
  knocking: 'knocking',
};

export const LAMP_WORDS: Readonly<Record<MisfireCase['lamp'], string>> = {
  off: 'engine lamp off',
  on: 'engine lamp on, steady',
  flashing: 'engine lamp flashing',
};

export const FOUND_WORDS_TEXT: Readonly<Record<FoundWord, string>> = {
  boot_tracked: 'burnt track on boot or insulator',
  well_wet: 'well is wet or oily',
  nose_sooty: 'plug nose black with soot',
  nose_white: 'plug nose white',
  nose_wet: 'plug nose wet with fuel',
  insulator_cracked: 'insulator cracked',
  connector_loose: 'connector loose',
};

/** "1", "1 and 4", "1, 3 and 5". */
export function cylindersText(cylinders: readonly number[]): string {
  const [last, ...before] = [...cylinders].reverse();
  return before.length > 0 ? `${before.reverse().join(', ')} and ${last}` : String(last ?? '');
}

const OF_ONE: Readonly<Record<Cause, string>> = {
  coil: 'coil of',
  plug: 'plug of',
  boot: 'boot of',
  lead: 'lead of',
  pack: 'coil pack of',
  rail: 'coil rail at',
  cap: 'cap tower of',
  rotor: 'rotor at',
  coil_lead: 'coil lead at',
  injector: 'injector of',
  mechanical: 'valve or ring of',
  wiring: 'wiring or driver of',
  connector: 'connector of',
  mixture_bank: 'mixture at',
  mixture_all: 'mixture at',
  fuel: 'fuel at',
  relearn: 'idle at',
  crossed_leads: 'crossed leads of',
  crossed_connectors: 'crossed connectors of',
  set: 'gaps or part number of the plugs of',
};
const OF_ALL: Readonly<Partial<Record<Cause, string>>> = {
  coil: 'coil',
  cap: 'distributor cap',
  rotor: 'rotor',
  coil_lead: 'coil lead',
  mixture_all: 'mixture of the whole engine',
  fuel: 'old or wrong fuel',
  relearn: 'idle not learnt again yet',
};

/** What may be wrong, where: "coil of 2", "mixture at 1, 3 and 5". */
export function causeText(hypothesis: Hypothesis): string {
  const { cause, cylinders } = hypothesis;
  return (cylinders.length > 2 && OF_ALL[cause]) || `${OF_ONE[cause]} ${cylindersText(cylinders)}`;
}

/** A part by its name on this engine: a coil over its plug has a boot, and no lead. */
const suspectWord = (part: SuspectPart, ignition: Ignition): string => partOn({ ignition }, part).replace('_', ' ');

/** "coils", "coils and boots". */
export const partList = (parts: readonly SuspectPart[], ignition: Ignition): string =>
  parts.map((part) => `${suspectWord(part, ignition)}s`).join(' and ');

/** What a test is, as somebody is told to do it. */
function testText(test: MisfireTest, ignition: Ignition): string {
  if (test.test === 'swap') return `Swap the ${partList(test.moved, ignition)} of ${test.from} and ${test.to}`;
  const at = test.cylinder === null ? '' : ` of ${test.cylinder}`;
  const part = test.component && suspectWord(test.component, ignition);
  switch (test.test) {
    case 'look':
      if (test.component === 'plug') return `Take the plug${at} out and read it`;
      return part ? `Look at the ${part}${at}` : `Look at connector, boot and well${at}`;
    case 'resistance':
      return `Measure the resistance of the ${part ?? 'coil'}${at}`;
    case 'compression':
      return `Measure the compression${at}`;
    case 'smoke':
      return 'Look for an air leak with smoke';
    case 'fuel_pressure':
      return 'Measure the fuel pressure under load';
    case 'clear_and_drive':
      return 'Clear the codes, let it learn its idle, and drive';
    case 'replace':
      return `Replace the ${part ?? 'part'}${at}`;
  }
}

const OUTCOME_WORDS: Readonly<Record<TestOutcome, string>> = {
  found: 'something is found',
  not_found: 'nothing is found',
  in_range: 'in range',
  high: 'too high',
  open: 'open circuit',
  low: 'too low',
  normal: 'normal',
  back: 'it misfires again',
  cured: 'no misfire',
  not_cured: 'it still misfires',
};

/** What is seen when a test came out so. */
export function outcomeText(test: MisfireTest, outcome: SwapOutcome | TestOutcome): string {
  if (test.test !== 'swap') return OUTCOME_WORDS[outcome as TestOutcome];
  const { from, to } = test;
  return {
    moved: `${to} misfires, ${from} runs normally`,
    stayed: `${from} still misfires`,
    both: `${from} and ${to} misfire`,
    gone: 'nothing misfires',
  }[outcome as SwapOutcome];
}

/** A test that was done, with what came of it. */
export const doneText = (done: DoneTest, ignition: Ignition): string =>
  done.outcome === null
    ? `${testText(done, ignition)}: changed places, no drive yet`
    : `${testText(done, ignition)}: ${outcomeText(done, done.outcome)}`;

/** What a swap by itself would and would not tell. */
export const swapSays = (moved: readonly SuspectPart[], ignition: Ignition): string =>
  moved.length > 1
    ? `Both together: what goes with them is ${moved.map((part) => suspectWord(part, ignition)).join(' or ')}, and which of them is not told.`
    : `One part at a time: only the ${suspectWord(moved[0] ?? 'coil', ignition)} changes its place. Mark both before they move.`;

/** The presses that say a swap is made: with coils on plugs, whether their boots went along. */
export const swapPresses = (
  { moved, from, to }: Pick<Swap, 'moved' | 'from' | 'to'>,
  ignition: Ignition,
): readonly { readonly text: string; readonly bootsStayed: boolean }[] =>
  ignition === 'coil_on_plug' && moved.includes('coil') && !moved.includes('boot')
    ? [
        { text: 'Swapped, the boots with the coils', bootsStayed: false },
        { text: 'Swapped, the boots stayed on the plugs', bootsStayed: true },
      ]
    : [{ text: swappedText({ moved, from, to }, ignition), bootsStayed: false }];

/** What has changed places. @example // The coils of 2 and 4 are swapped */
export const swappedText = ({ moved, from, to }: Pick<Swap, 'moved' | 'from' | 'to'>, ignition: Ignition): string =>
  `The ${partList(moved, ignition)} of ${from} and ${to} are swapped`;

/** What is to be done next, as a heading. */
export function stepText({ action, test, cause, cylinders }: NextStep, ignition: Ignition): string {
  if (test) return testText(test, ignition);
  if (cause === null || action === 'watch') return 'Clear the codes and watch it';
  const what = causeText({ cause, cylinders });
  // Parts beyond the ignition are not put on a visit here.
  if (action === 'refer' || !remedyTask({ cause, cylinders })) return `Refer it: ${what}`;
  if (isCrossed({ cause })) return `Put right: ${what}`;
  return cause === 'connector' ? `Clean and press on the ${what}` : `Replace the ${what}`;
}

/** Minutes of a step, with what each tells. */
export const stepCost = ({ minutes, informationBits, test }: NextStep): string =>
  test && minutes > 0 ? `${minutes} min, ${(informationBits / minutes).toFixed(3)} bits a minute` : `${minutes} min`;

const REMEDY_WHY: Readonly<Record<Exclude<NextStep['action'], 'test'>, string>> = {
  replace: 'Mending it costs less than knowing more.',
  refer: 'It is beyond the parts of the ignition: others look after it, with what was found.',
  watch: 'It is expected to go by itself.',
};

/** Why a step is the one to take. @param currency null: money without a sign */
export function stepWhy(step: NextStep, currency: string | null): string {
  const { action, cause, cylinders } = step;
  if (action !== 'test') {
    const isOurs = cause !== null && remedyTask({ cause, cylinders }) !== null;
    return `${percentText(step.probability)} likely. ${REMEDY_WHY[action === 'replace' && !isOurs ? 'refer' : action]}`;
  }
  if (step.saves <= 0)
    return `Tells ${step.informationBits.toFixed(1)} bits, and is not worth its time: replacing costs less.`;
  const saves = currency ? moneyText(step.saves, currency) : Math.round(step.saves);
  return `Tells ${step.informationBits.toFixed(1)} bits. The cure is expected to cost ${saves} less than replacing by suspicion.`;
}

const FACTOR_WORDS: Readonly<Record<RecordFactor, readonly [more: string, less: string]>> = {
  age: ['old, by its interval', 'new, by its interval'],
  work: ['worked on within 500 km', 'not worked on lately'],
  lot: ['others of its lot failed', 'its lot holds'],
  failures: ['coils failed here before', 'new coils failed here too'],
  rest: ['rests at part load', 'never rests'],
  weak: ['a weak point of this engine', 'no weak point'],
};

const uncapped = (text: string): string => `${text[0]?.toLowerCase() ?? ''}${text.slice(1)}`;

/** Why a vehicle is not driven on, in words. */
function drivingReason(reason: DrivingReason): string {
  switch (reason.kind) {
    case 'lamp':
      return 'the engine lamp flashes';
    case 'counts':
      return `cylinder ${reason.cylinder} misfires ${Math.round(reason.per1000)} times in 1,000`;
    case 'symptom':
      return SYMPTOM_WORDS[reason.symptom];
    case 'found':
      return `${FOUND_WORDS_TEXT[reason.word]}, cylinder ${reason.cylinder}`;
    case 'finding':
      return 'what the removed parts show stops the work';
  }
}

/** What whoever drives it is told, in a few words. */
export const DRIVING_ORDERS = { stop: 'Do not drive on', to_the_shop: 'No load, straight to the workshop' } as const;

/** Whether it may be driven on, with the reasons where there are any; null: nothing speaks against it. */
export function drivingText({ driving, reasons }: DrivingAdvice): string | null {
  if (driving === 'free') return null;
  const order = DRIVING_ORDERS[driving];
  const why = reasons.length > 0 ? `: ${reasons.map(drivingReason).join('; ')}` : '';
  return `${order}${why}.${driving === 'stop' ? ' Fuel that does not burn in the engine burns in the catalyst.' : ''}`;
}

/** How to see what a swap has changed: a vehicle that must not be driven runs in the bay. */
export const afterSwapText = ({ driving }: Pick<DrivingAdvice, 'driving'>): string =>
  driving === 'stop'
    ? 'Clear the codes. Do not drive: run it in the bay, at idle and at raised speed, until a cylinder misfires, five minutes at most.'
    : 'Clear the codes and drive, ten minutes, with load and at idle.';

/** One reason for a cause, or against it. */
export function reasonWords({ about, bits }: Reason, ignition: Ignition): string {
  switch (about.kind) {
    case 'codes':
      return about.codes.length > 0 ? about.codes.join(' ') : 'the codes';
    case 'counts': {
      const most = [...about.counts].sort((a, b) => b.per1000 - a.per1000)[0];
      return most ? `most misfires counted on ${most.cylinder}` : 'the counts';
    }
    case 'symptom':
      return SYMPTOM_WORDS[about.symptom];
    case 'found':
      return `${FOUND_WORDS_TEXT[about.word]}, ${about.cylinder}`;
    case 'test':
      return uncapped(doneText(about.test, ignition));
    case 'record':
      return FACTOR_WORDS[about.factor][bits > 0 ? 0 : 1];
  }
}
