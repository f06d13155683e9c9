import type { AccessClass } from '../../../engine/access';
import { allPlaces } from '../../../engine/places';
import { saySmallTorques, sayTorques } from '../../../units/say';
import { PART_WORDS } from '../../say-places';
import { MAX_PENETRANT_ML, USUAL_SOAK } from '../../soak-moves';
import { TASK_COMPONENTS, type TaskAction } from '../../task';
import { MINUTES, partMinutes } from '../minutes';
import { isSeizing, type Removal, removalOf } from '../removal';
import { pipelineMinutes, soakPipeline } from '../soak';
import { choice, type Draft, draft, type PlugWork, type ProcedureInput } from '../step';
import { banksOpened, placesWith, sitesReached } from '../visit';

/** What a plug that breaks takes. Source: general trade guidance, coarse: a supervisor decides, and who does it. */
const BROKEN = [
  'porcelain only: sucked out, about 1 h',
  'shell broke in the head: extractor kit, 2 to 4 h',
  'thread came out with it: insert kit, about 3 h',
] as const;

function loosen(removal: Removal, because: string, sites: number): readonly Draft[] {
  const stop = `Stop at twice the torque they were fitted with, or when one squeaks and does not give: a shell that breaks in the head costs a day.`;
  const fluid = `${MAX_PENETRANT_ML} ml of penetrant a well at most: what runs past the thread is cleared with the plugs out, before anything is cranked. Eye protection, no flame.`;
  if (removal === 'usual') return [];
  if (removal === 'short')
    return [
      draft(
        'plugs',
        'loosen_short',
        'Short method: ease each plug an eighth of a turn and back, a drop of penetrant, a few minutes, then out in one go',
        because,
        MINUTES.loosenShort + sites,
        { caution: `${stop} ${fluid}`, consumables: ['penetrant'] },
      ),
    ];
  const names = Array.from({ length: sites }, (_, i) => String(i));
  const minutes = pipelineMinutes(soakPipeline(names, USUAL_SOAK));
  return [
    draft(
      'plugs',
      'loosen_long',
      `Long method, cold engine: back each plug off an eighth of a turn, penetrant into its well, soak ${USUAL_SOAK.soak} minutes, then to and fro a quarter turn at a time`,
      `${because} Well after well is filled while the others soak: about ${minutes} minutes for ${sites} instead of ${sites * (USUAL_SOAK.prepare + USUAL_SOAK.soak + USUAL_SOAK.remove)}.`,
      minutes,
      {
        caution: `${stop} ${fluid}`,
        tools: ['long extension', 'torque wrench that shows its peak', 'extraction kit for broken shells, at hand'],
        consumables: ['penetrant'],
        asks: [
          choice('method', 'how they came out', ['all by the long method', ...BROKEN], ['all by the long method']),
        ],
        isFixed: true,
      },
    ),
  ];
}

/** What is done at the vehicle's parts: out, read, new ones in. */
export function plugs(input: ProcedureInput): readonly Draft[] {
  const { plug, weakPoints, earlier } = input;
  const n = placesWith(input, 'plug').length;
  const { removal, because } = removalOf(isSeizing(weakPoints), earlier);
  return [
    ...(n > 0 ? loosen(removal, because, n) : []),
    ...(sitesReached(input).length > 0 ? [plug && n > 0 ? plugSites(input, plug, n) : otherPlaces(input)] : []),
    ...distributor(input),
  ];
}

/** At each cylinder, where plugs come out. */
function plugSites(input: ProcedureInput, plug: PlugWork, n: number): Draft {
  const { policies, access, tasks } = input;
  const { torqueNm, threads, method } = plug;
  const blind = access.some((bank) => bank.access === 'by_feel' || bank.access === 'under_intake');
  const oneByOne = policies.opening === 'one' || (policies.opening !== 'bank' && blind);
  const washer =
    plug.seat === 'gasket' ? 'One gasket out, one gasket in, at each cylinder.' : 'Conical seat: no gasket.';
  const power =
    policies.power_tools === 'run_out'
      ? 'Power tools only to run out a plug that is loose already.'
      : 'No power tools.';
  const others = otherWork(input);
  const isLook = tasks.every(({ component, action }) => component !== 'plug' || action !== 'replace');
  const work = isLook
    ? 'plug out, read and measured, back in by hand or a new one, then torque'
    : 'old plug out and read, thread looked at, new plug in by hand, then torque';
  return draft(
    'plugs',
    'sites',
    `At each of ${n} cylinders, ${oneByOne ? 'one at a time' : 'bank by bank'}: ${work}${others ? `. Here too: ${others}` : ''}`,
    oneByOne
      ? `With one hole open nothing falls in elsewhere and nothing is mixed up. ${threads.says}`
      : `Laid out in order on the tray a bank can be compared at a glance. ${threads.says}`,
    siteMinutes(input),
    {
      caution: `${method ? `Out: ${method}. ` : ''}Start every plug by hand; stop if it binds early. ${power} ${washer} A dropped part in an open port wrecks the engine: cover open holes.`,
      tools: [
        plug.socket ? `plug socket ${plug.socket}` : 'plug socket',
        ...reachTools(input),
        `torque wrench for ${sayTorques(torqueNm)}`,
        'tray with numbered places',
        ...smallWrench(input),
      ],
      consumables: threads.compound ? [`a little ${threads.compound} compound`] : [],
      perSite: true,
    },
  );
}

/** What is done at the cylinders besides plugs: "coil 3 replaced; leads tested". */
function otherWork({ tasks, layout }: ProcedureInput): string {
  return tasks
    .filter(({ component }) => component !== 'plug' && component !== 'cap' && component !== 'rotor')
    .map(({ action, component, places }) => {
      const all = places.length === allPlaces(layout, component).length;
      const which = component === 'lead_set' || all ? '' : ` ${places.map(({ cylinder }) => cylinder).join(', ')}`;
      return `${PART_WORDS[component]}${which} ${DONE[action]}`;
    })
    .join('; ');
}

const DONE: Readonly<Record<TaskAction, string>> = { replace: 'replaced', inspect: 'looked at', test: 'tested' };

const smallWrench = ({ tasks }: ProcedureInput): readonly string[] => {
  const [screw] = tasks.flatMap(({ torqueNm, component }) => (torqueNm && component !== 'plug' ? [torqueNm] : []));
  return screw ? [`small torque wrench for ${saySmallTorques(screw)}`] : [];
};

/** At each cylinder, where the plugs stay in. */
function otherPlaces(input: ProcedureInput): Draft {
  const measured = input.tasks.some(({ action }) => action === 'test');
  return draft(
    'plugs',
    'sites',
    `At each place: ${otherWork(input)}`,
    'What comes out keeps its cylinder: its serial and its place are read before it is laid down.',
    siteMinutes(input),
    {
      caution:
        'Ignition off: a coil that fires in the hand throws it. The well stays covered while the coil is out. Leads and boots go back to the cylinder they came from.',
      tools: [...smallWrench(input), ...(measured ? ['resistance meter'] : []), 'tray with numbered places'],
      perSite: true,
    },
  );
}

/** What reaches a plug, by how its bank is reached. Source: general trade guidance. */
const REACH: Readonly<Record<AccessClass, readonly string[]>> = {
  open: ['extension 150 mm'],
  cover: ['extension 250 mm'],
  side: ['extension 250 mm', 'flexible joint'],
  by_feel: ['two short extensions stacked', 'swivel joint', 'mirror', 'magnet'],
  under_intake: ['extension 250 mm', 'lamp'],
};

const reachTools = (input: ProcedureInput): readonly string[] => {
  const opened = banksOpened(input);
  const classes = input.layout.model.banks.flatMap((_, i) =>
    opened.has(i + 1) ? [input.access[i]?.access ?? ('open' as const)] : [],
  );
  return [...new Set([...classes.flatMap((access) => REACH[access]), 'socket that grips the plug, its rubber whole'])];
};

/** Of what is done at the cylinders. */
const siteMinutes = (input: ProcedureInput): number =>
  Math.max(
    1,
    Math.round(
      partMinutes(
        input,
        TASK_COMPONENTS.filter((component) => component !== 'cap' && component !== 'rotor'),
      ),
    ),
  );

/** Cap and rotor, once for the engine. */
function distributor(input: ProcedureInput): readonly Draft[] {
  const work = (['cap', 'rotor'] as const).filter((component) => placesWith(input, component).length > 0);
  if (work.length === 0) return [];
  return [
    draft(
      'plugs',
      'distributor',
      `Distributor: ${work.map((component) => PART_WORDS[component]).join(' and ')}, leads moved over one by one in their order`,
      'Two leads that change towers backfire. One at a time, held beside the picture, cannot be mixed.',
      Math.max(1, Math.round(partMinutes(input, ['cap', 'rotor']))),
      {
        caution:
          'Screws of the cap turn by turn, side to side: it cracks when one is drawn down first. The rotor goes home on its key, or the engine fires against its own stroke.',
        tools: ['lead markers', ...smallWrench(input)],
        perSite: true,
      },
    ),
  ];
}
