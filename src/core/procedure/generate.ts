import { type AccessClass, type BankAccess, type Fastener, tighteningOrder } from '../engine/access';
import type { Layout } from '../engine/layout';
import type { Bank, BankPlace, Ignition } from '../engine/model';
import type { PolicyId } from '../policy/policies';
import type { Ask, Counted } from './ask';

export const PHASES = ['prepare', 'open', 'plugs', 'close', 'prove'] as const;
export type Phase = (typeof PHASES)[number];

/** One step of a procedure. */
export interface Step {
  readonly key: string;
  readonly phase: Phase;
  readonly title: string;
  /** Why it is done, and done here. */
  readonly why: string;
  /** The hazard at this very step, and the control. */
  readonly caution: string | null;
  readonly tools: readonly string[];
  readonly consumables: readonly string[];
  /** What has to be written down before it can be ticked. */
  readonly asks: readonly Ask[];
  readonly minutes: number;
  /** Done site by site on the cylinder entry, not ticked on its own. */
  readonly perSite: boolean;
}

export interface ProcedureInput {
  readonly layout: Layout;
  /** By bank, in the order of the layout's banks; a bank without one counts as open. */
  readonly access: readonly BankAccess[];
  readonly fasteners: readonly Fastener[];
  readonly hybrid: boolean;
  readonly fuel: string | null;
  readonly headMaterial: 'aluminium' | 'iron';
  readonly plug: {
    readonly number: string;
    readonly seat: 'gasket' | 'conical';
    readonly socket: string | null;
    readonly gapMm: { readonly min: number; readonly max: number };
  };
  /** As it will be set, lubricant allowed for, N·m. */
  readonly torqueNm: { readonly min: number; readonly max: number };
  /** What goes on the threads: in words, and which compound if any. */
  readonly threads: { readonly says: string; readonly compound: string | null };
  readonly weakPoints: readonly string[];
  /** The school in force of each policy. */
  readonly schools: Readonly<Partial<Record<PolicyId, string>>>;
  /** Minutes for the whole job. */
  readonly minutes: number;
}

export interface Procedure {
  readonly steps: readonly Step[];
  readonly counts: readonly Counted[];
}

const LEAD_WORDS: Readonly<Record<Ignition, string>> = {
  coil_on_plug: 'coil',
  coil_per_cylinder: 'lead',
  coil_rail: 'coil rail',
  waste_spark: 'lead',
  distributor: 'lead',
};

const SIDE: Readonly<Record<BankPlace, string>> = {
  only: '',
  left: ' of the left bank',
  right: ' of the right bank',
  front: ' of the front bank',
  rear: ' of the rear bank',
};

/** Shares of the job's time by phase. Source: trade guidance, coarse; a shop's own times win. */
const SHARE: Readonly<Record<Phase, number>> = { prepare: 0.15, open: 0.2, plugs: 0.35, close: 0.15, prove: 0.15 };

/**
 * The steps of a plug service on this engine in the order of work, from its layout, access, ignition, fuel, sheet and the
 * shop's schools, and what is counted out and in.
 *
 * Source: general trade practice. The manufacturer's service information, local codes and licensed practice come first.
 */
export function plugServiceProcedure(input: ProcedureInput): Procedure {
  const counts = counted(input);
  const drafts = [...prepare(input), ...open(input), ...plugs(input), ...close(input), ...prove(input)].map((step) => ({
    ...step,
    asks: [...step.asks, ...countsAt(counts, step.key)],
  }));
  return { steps: withMinutes(drafts, input.minutes), counts };
}

type Draft = Omit<Step, 'minutes'> & { readonly weight: number };

const draft = (
  phase: Phase,
  key: string,
  title: string,
  why: string,
  over: Partial<Omit<Draft, 'phase' | 'key' | 'title' | 'why'>> = {},
): Draft => ({
  phase,
  key,
  title,
  why,
  caution: null,
  tools: [],
  consumables: [],
  asks: [],
  perSite: false,
  weight: 1,
  ...over,
});

const text = (key: string, what: string): Ask => ({ key, what, kind: 'text' });
const choice = (key: string, what: string, choices: readonly string[], accepts?: readonly string[]): Ask => ({
  key,
  what,
  kind: 'choice',
  choices,
  ...(accepts ? { accepts } : {}),
});
/** The counts that are made at a step, as its asks. */
const countsAt = (counts: readonly Counted[], step: string): readonly Ask[] =>
  counts.flatMap(({ key, what, out, back }): readonly Ask[] => [
    ...(out === step ? [{ key: `out:${key}`, what: `${what}, out`, kind: 'count' as const }] : []),
    ...(back === step ? [{ key: `back:${key}`, what: `${what}, back`, kind: 'count' as const }] : []),
  ]);

/** The job's minutes over its steps by phase and weight; whole minutes, one at least. */
function withMinutes(drafts: readonly Draft[], minutes: number): readonly Step[] {
  const weightOf = (phase: Phase): number =>
    drafts.filter((step) => step.phase === phase).reduce((sum, step) => sum + step.weight, 0);
  return drafts.map(({ weight, ...step }) => ({
    ...step,
    minutes: Math.max(1, Math.round((minutes * SHARE[step.phase] * weight) / weightOf(step.phase))),
  }));
}

const isGas = (fuel: string | null): boolean => fuel === 'lpg' || fuel === 'cng';
const intakeOff = (access: readonly BankAccess[]): boolean => access.some((bank) => bank.access === 'under_intake');
const range = ({ min, max }: { readonly min: number; readonly max: number }, decimals: number): string =>
  `${min.toFixed(decimals)} to ${max.toFixed(decimals)}`;

function prepare({ layout, plug, hybrid, fuel, schools, access, headMaterial }: ProcedureInput): readonly Draft[] {
  const n = layout.sites.length;
  const cold = schools.engine_temperature !== 'warm';
  const isolates = hybrid || schools.battery === 'always' || intakeOff(access);
  return [
    draft(
      'prepare',
      'safe',
      'Hood propped, wheels chocked, bystanders away; safety shoes and eye protection on',
      'Most injuries at this job are not from the engine.',
      {
        caution: 'A hood that falls, a fan that starts and a splinter in the eye are the common ones.',
        tools: ['hood prop', 'eye protection'],
      },
    ),
    draft(
      'prepare',
      'codes_before',
      schools.scan_codes === 'lamp_only'
        ? 'Read and keep the codes if the engine lamp is on'
        : 'Read the codes and keep them',
      'What was there before is the only proof of what the work changed. Keep them before anything is cleared.',
      { tools: ['code reader'], asks: [{ key: 'before', what: 'codes before', kind: 'codes' }] },
    ),
    draft(
      'prepare',
      'parts',
      `Lay out ${n} × ${plug.number} and measure every gap before anything is opened`,
      'A kit can hold one wrong or one too many. All present, right number, right reach, gasket on, gap measured: else do not start.',
      {
        caution: 'A wrong reach can strike the piston: compare a new plug with the first one out.',
        tools: ['wire or feeler gauge'],
        asks: [
          { key: 'parts', what: `number and gap of each new plug, within ${range(plug.gapMm, 2)} mm`, kind: 'parts' },
        ],
        weight: 2,
      },
    ),
    draft(
      'prepare',
      'cold',
      cold ? 'Check that the engine is cold to the touch' : 'Engine warm, not hot: the bulletin in force asks for it',
      headMaterial === 'aluminium'
        ? 'Threads in a hot aluminium head tear, and a torque is given for one temperature.'
        : 'A torque is given for one temperature.',
      {
        caution: cold ? 'Hot metal burns.' : 'Hot metal burns: gloves, and clear of exhaust and fan.',
        asks: [
          choice('temperature', 'engine temperature', ['cold', 'warm', 'hot'], cold ? ['cold'] : ['warm', 'cold']),
        ],
      },
    ),
    hybrid
      ? draft(
          'prepare',
          'isolate',
          'Isolate the traction system and the 12 V battery; keep the key away',
          'A hybrid starts its engine when it likes.',
          {
            caution:
              'The engine can start by itself and traction voltage kills: qualified people only. Orange cables stay untouched.',
            tools: ['insulated gloves', 'lock for the isolator'],
            asks: [text('isolated', 'isolated by, at')],
          },
        )
      : draft(
          'prepare',
          'isolate',
          isolates
            ? 'Ignition off, key out; isolate the battery'
            : 'Ignition off, key out; isolate the battery where modules are moved',
          'Nothing may spark or crank while hands and open holes are there.',
          { caution: 'Ignition high voltage: never pull a coil or lead with the ignition on.' },
        ),
    ...(isGas(fuel)
      ? [
          draft(
            'prepare',
            'gas',
            'Close the gas tank valve and run the line empty',
            'Gas in the line finds every spark.',
            {
              caution:
                'Flammable gas, heavier than air if it is LPG: ventilate, no flame, no pit. Licensed people only where the law says so.',
              asks: [text('valve', 'valve closed by, at')],
            },
          ),
        ]
      : []),
  ];
}

const INTAKE = /intake|duct|manifold/i;

/** Getting to the plugs of one bank. @param n the bank's number, from 1 */
function openBank(bank: Bank, n: number, access: AccessClass, gas: boolean, weak: readonly string[]): readonly Draft[] {
  const side = SIDE[bank.place];
  switch (access) {
    case 'open':
      return [];
    case 'cover':
      return [
        draft(
          'open',
          `open_${n}`,
          `Take the cover${side} off; lay its screws in their order`,
          'Screws differ in length; a long one in a short hole cracks the cover.',
        ),
      ];
    case 'side':
      return [
        draft(
          'open',
          `open_${n}`,
          `Make way to the plugs${side} from the side`,
          'They are reached past the wheel arch or frame, not from above.',
          { tools: ['flexible extension', 'lamp'] },
        ),
      ];
    case 'by_feel':
      return [
        draft(
          'open',
          `open_${n}`,
          `Set lamp and mirror for the plugs${side}: they are reached by feel`,
          'What cannot be seen is cross-threaded and dropped more easily.',
          {
            tools: ['mirror', 'swivel socket', 'short extension'],
            caution: 'Reach in with the engine cold and the fan isolated.',
          },
        ),
      ];
    case 'under_intake':
      return [
        draft(
          'open',
          `open_${n}`,
          `Take the intake manifold off the plugs${side}: unplug, unclamp, then its screws from the outside inward`,
          'A manifold warps when its middle is freed first under load.',
          {
            caution: [
              gas
                ? 'Gas in the line: it must be empty. Eye protection.'
                : 'Fuel under pressure may spray: relieve it, catch it, no flame. Eye protection.',
              ...weak.map((point) => `Known here: ${point}.`),
            ].join(' '),
            tools: ['tray for screws, in their order'],
            consumables: ['new manifold gaskets'],
            weight: 4,
          },
        ),
        draft(
          'open',
          `rags_${n}`,
          `Cover every open intake port${side} with a clean rag, and count them`,
          'A nut in a port wrecks the engine.',
          {
            caution: 'Count them: a rag left in a port is found by the valve.',
            consumables: [`${bank.cylinders.length} clean rags`],
          },
        ),
      ];
  }
}

function open({ layout, access, weakPoints, schools, fuel }: ProcedureInput): readonly Draft[] {
  const intake = weakPoints.filter((point) => INTAKE.test(point));
  const brittle = weakPoints.filter((point) => /brittle/i.test(point) && !INTAKE.test(point));
  const banks = layout.model.banks.flatMap((bank, i) =>
    openBank(bank, i + 1, access[i]?.access ?? 'open', isGas(fuel), intake),
  );
  const lead = LEAD_WORDS[layout.model.ignition];
  const coils = layout.model.coils.length;
  const onPlug = layout.model.ignition === 'coil_on_plug' || layout.model.ignition === 'coil_rail';
  const stays = onPlug && schools.coil_connectors === 'leave';
  return [
    ...banks,
    draft(
      'open',
      'clean',
      'Blow out and wipe the wells and the surface round them',
      'Whatever lies in the well falls into the cylinder when the plug comes out.',
      {
        caution:
          'Eye protection on before compressed air or solvent, never blow by mouth. No flame or spark near vapour. A spray can of air leaves water when it is tilted: a compressor is better.',
        tools: ['compressed air, low pressure', 'long brush'],
        consumables: ['lint-free cloth'],
      },
    ),
    draft(
      'open',
      'leads',
      onPlug
        ? `${stays ? 'Leave the connectors plugged and free the harness' : 'Unplug each connector by its tab'}, then lift each ${lead} with a twist (${coils} on this engine)`
        : `Mark every lead with its cylinder, then pull each by its boot with a twist, never by the cable (${coils} coil${coils === 1 ? '' : 's'} on this engine)`,
      onPlug
        ? 'A boot that is stuck tears when it is pulled straight.'
        : 'Two leads that change places fire at the wrong moment: backfire, and a ruined catalyst.',
      {
        caution: brittle.length > 0 ? `Brittle here: ${brittle.join('; ')}. Warm and ease, do not force.` : null,
        tools: onPlug ? ['boot puller'] : ['boot pliers', 'lead markers'],
        asks: onPlug
          ? [choice('boots', 'boots and tabs as found', ['all sound', 'something found, noted at its site'])]
          : [{ key: 'routing', what: 'where each lead ran', kind: 'photo' }],
        weight: 2,
      },
    ),
    draft(
      'open',
      'wells',
      'Look into every well: oil, water, coolant, debris; clean again',
      'What stands there says where it came from, and it is gone once the plug is out.',
      {
        tools: ['lamp', 'suction pipe'],
        asks: [choice('wells', 'wells as found', ['all dry and clean', 'something found, noted at its site'])],
      },
    ),
  ];
}

function plugs({ layout, plug, torqueNm, threads, schools, access }: ProcedureInput): readonly Draft[] {
  const n = layout.sites.length;
  const blind = access.some((bank) => bank.access === 'by_feel' || bank.access === 'under_intake');
  const one = schools.opening === 'one' || (schools.opening !== 'bank' && blind);
  const washer = plug.seat === 'gasket' ? 'One gasket out, one gasket in, at each site.' : 'Conical seat: no gasket.';
  const power =
    schools.power_tools === 'run_out' ? 'Power tools only to run out a plug that is loose already.' : 'No power tools.';
  return [
    draft(
      'plugs',
      'sites',
      `At each of ${n} sites, ${one ? 'one at a time' : 'bank by bank'}: old plug out and read, thread looked at, new plug in by hand, then torque`,
      one
        ? `With one hole open nothing falls in elsewhere and nothing is mixed up. ${threads.says}`
        : `Laid out in order on the tray a bank can be compared at a glance. ${threads.says}`,
      {
        caution: `Start every plug by hand; stop if it binds early. ${power} ${washer} A dropped part in an open port wrecks the engine: cover open holes.`,
        tools: [
          plug.socket ? `plug socket ${plug.socket}` : 'plug socket',
          'extension',
          `torque wrench for ${range(torqueNm, 1)} N·m`,
          'tray with numbered places',
        ],
        consumables: threads.compound ? [`a little ${threads.compound} compound`] : [],
        perSite: true,
        weight: n,
      },
    ),
  ];
}

function close(input: ProcedureInput): readonly Draft[] {
  const { layout, access, fasteners, schools } = input;
  const lead = LEAD_WORDS[layout.model.ignition];
  const torques = fasteners.filter((f) => /coil|rail/i.test(f.what)).map((f) => `${f.what} ${f.torqueNm} N·m`);
  const first = schools.first_start === 'before_covers';
  const covers = layout.model.banks.flatMap((bank, i): Draft[] => {
    const kind = access[i]?.access ?? 'open';
    const side = SIDE[bank.place];
    if (kind === 'under_intake') {
      const bolts = fasteners.find((f) => /intake|manifold/i.test(f.what));
      const order = bolts
        ? `, ${bolts.count} ${bolts.size} to ${bolts.torqueNm} N·m in the order ${tighteningOrder(bolts.count, bolts.order).join(' ')}`
        : ', from the centre outward';
      return [
        draft(
          'close',
          `close_${i + 1}`,
          `Rags out and counted; intake manifold${side} on with new gaskets${order}`,
          'A manifold that bridges draws air: lean, and a misfire at idle.',
          {
            caution:
              'Rags out equals rags in, before the manifold covers the ports. Every clamp, hose, module and ground screw back and tight: air drawn in runs lean.',
            consumables: ['new manifold gaskets'],
            weight: 3,
          },
        ),
      ];
    }
    if (kind === 'cover')
      return [
        draft(
          'close',
          `close_${i + 1}`,
          `Refit the cover${side}, every screw where it was`,
          'A cover that rattles lets water into the wells.',
        ),
      ];
    return [];
  });
  const manifold = covers.filter((step) => step.title.startsWith('Rags out'));
  const lids = covers.filter((step) => !manifold.includes(step));
  const onPlug = layout.model.ignition === 'coil_on_plug' || layout.model.ignition === 'coil_rail';
  return [
    draft(
      'close',
      'refit',
      `A little dielectric grease in each boot; refit each ${lead}: boot home, connector clicks${torques.length > 0 ? `, ${torques.join(', ')}` : ''}`,
      'Grease insulates and lets the boot come off next time; it belongs in the boot, never on a bare contact.',
      {
        caution: [
          'These are small torques: inch-pounds or single newton metres, never those of the plug; in plastic turn by turn, side to side.',
          ...(onPlug
            ? []
            : ['Leads as in the picture, clear of exhaust and moving parts: two that change places backfire.']),
        ].join(' '),
        consumables: ['dielectric grease'],
        asks: [
          choice('clicks', onPlug ? 'connectors' : 'leads on their terminals', [
            'every one clicks',
            'one does not lock: secured, follow-up made',
          ]),
        ],
        weight: 2,
      },
    ),
    ...manifold,
    draft(
      'close',
      'count',
      'Count tools, rags, fasteners and gaskets: out equals in',
      'While a count is open the engine is not started.',
      {
        caution: 'A rag or tool left in the bay is found by the fan.',
      },
    ),
    ...(first ? [] : lids),
  ];
}

function prove({ layout, access, schools, hybrid, fuel }: ProcedureInput): readonly Draft[] {
  const lids = layout.model.banks.flatMap((bank, i) =>
    (access[i]?.access ?? 'open') === 'cover' ? [SIDE[bank.place]] : [],
  );
  const first = schools.first_start === 'before_covers';
  return [
    draft(
      'prove',
      'start',
      `Start, listen, look round every boot${isGas(fuel) ? '; gas valve open again, sniff every joint' : ''}`,
      first
        ? 'With the covers off a leak or a loose boot can still be seen.'
        : 'It must run evenly from the first minute.',
      {
        caution: hybrid
          ? 'De-isolate by the same person who isolated. Keep clear of belts and fan; ventilate the bay.'
          : 'Keep clear of belts and fan; ventilate the bay. A flashing lamp: stop, a misfire ruins the catalyst.',
        asks: [choice('idle', 'idle', ['even', 'uneven', 'does not start'], ['even'])],
      },
    ),
    ...(first
      ? lids.map((side, i) =>
          draft(
            'prove',
            `lids_${i + 1}`,
            `Refit the cover${side}, every screw where it was`,
            'A cover that rattles lets water into the wells.',
          ),
        )
      : []),
    draft(
      'prove',
      'codes_after',
      'Read the codes, clear what was kept, read again',
      'What comes back after clearing is there now.',
      { tools: ['code reader'], asks: [{ key: 'after', what: 'codes after', kind: 'codes' }] },
    ),
    draft(
      'prove',
      'road',
      'Road test with load; note anything that is not as it should be',
      'A weak spark shows under load, not at idle.',
      {
        caution: 'On the public road one drives and another reads.',
        asks: [text('road', 'distance, load, what was noticed')],
        weight: 3,
      },
    ),
    draft(
      'prove',
      'recheck',
      'Put down when it is looked at again',
      'A plug that settles or a boot that creeps shows after some hundred km.',
      { asks: [{ key: 'recheck', what: 'a follow-up by day or distance, or why none is needed', kind: 'follow_up' }] },
    ),
  ];
}

/** What is counted out and in, with the steps at which it is. A captive screw stays in its part. */
function counted({ layout, access, fasteners, plug, schools }: ProcedureInput): readonly Counted[] {
  const loose = fasteners.filter((f) => !f.captive);
  const banks = layout.model.banks.map((bank, i) => ({ bank, n: i + 1, access: access[i]?.access ?? 'open' }));
  const covered = banks.filter((b) => b.access === 'cover');
  const under = banks.filter((b) => b.access === 'under_intake');
  const lidsLast = schools.first_start === 'before_covers';
  const screws = loose.map((f, i): Counted => {
    const lid = /cover|cowl/i.test(f.what) ? covered[0] : undefined;
    const manifold = /intake|manifold|duct/i.test(f.what) ? under[0] : undefined;
    const at = manifold ?? lid;
    return {
      key: `screws_${i + 1}`,
      what: `${f.what} ${f.size}`,
      count: f.count,
      out: at ? `open_${at.n}` : 'leads',
      back: manifold ? `close_${manifold.n}` : lid ? (lidsLast ? 'lids_1' : `close_${lid.n}`) : 'refit',
    };
  });
  return [
    { key: 'tools', what: 'tools in the bay', count: null, out: 'parts', back: 'count' },
    ...screws,
    ...under.flatMap(({ bank, n }): readonly Counted[] => [
      {
        key: `hoses_${n}`,
        what: `hoses and plugs parted${SIDE[bank.place]}`,
        count: null,
        out: `open_${n}`,
        back: `close_${n}`,
      },
      {
        key: `rags_${n}`,
        what: `rags in ports${SIDE[bank.place]}`,
        count: bank.cylinders.length,
        out: `rags_${n}`,
        back: `close_${n}`,
      },
    ]),
    ...(plug.seat === 'gasket'
      ? [
          {
            key: 'gaskets',
            what: 'gaskets: off the old plugs, on with the new',
            count: layout.sites.length,
            out: 'count',
            back: 'count',
          },
        ]
      : []),
  ];
}
