import { sayTorques } from '../../../units/say';
import { MAX_PENETRANT_ML, USUAL_SOAK } from '../../soak-moves';
import { isSeizing, type Removal, removalOf } from '../removal';
import { pipelineMinutes, soakPipeline } from '../soak';
import { choice, type Draft, draft, type ProcedureInput } from '../step';

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
        { caution: `${stop} ${fluid}`, consumables: ['penetrant'], weight: 1 },
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
      {
        caution: `${stop} ${fluid}`,
        tools: ['long extension', 'torque wrench that shows its peak', 'extraction kit for broken shells, at hand'],
        consumables: ['penetrant'],
        asks: [choice('method', 'how they came out', ['all by the long method', 'one broke: work stopped'])],
        fixedMinutes: minutes,
      },
    ),
  ];
}

/** The plugs themselves: out, read, new ones in. */
export function plugs(input: ProcedureInput): readonly Draft[] {
  const { layout, plug, torqueNm, threads, policies, access, weakPoints, earlier } = input;
  const { removal, because } = removalOf(isSeizing(weakPoints), earlier);
  const n = layout.sites.length;
  const blind = access.some((bank) => bank.access === 'by_feel' || bank.access === 'under_intake');
  const one = policies.opening === 'one' || (policies.opening !== 'bank' && blind);
  const washer = plug.seat === 'gasket' ? 'One gasket out, one gasket in, at each site.' : 'Conical seat: no gasket.';
  const power =
    policies.power_tools === 'run_out'
      ? 'Power tools only to run out a plug that is loose already.'
      : 'No power tools.';
  return [
    ...loosen(removal, because, n),
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
          `torque wrench for ${sayTorques(torqueNm)}`,
          'tray with numbered places',
        ],
        consumables: threads.compound ? [`a little ${threads.compound} compound`] : [],
        perSite: true,
        weight: n,
      },
    ),
  ];
}
