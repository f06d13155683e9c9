import type { Content } from 'pdfmake/interfaces';
import QRCode from 'qrcode';
import { sayCode } from '@/core/engine/fault-code';
import { socketsFor } from '@/core/engine/tools';
import { pickWords } from '@/core/stock/pick';
import type { UnitSystem } from '@/core/units/person-units';
import { GATE_TABLE } from '@/core/work/gate-table';
import { CAUSE_WORDS } from '@/text/cause-words';
import { findingEvidence, findingPlaces } from '@/text/finding-words';
import { distanceText } from '@/text/format';
import type { WorkOrderView } from '../work-orders/view-work-order';
import { engineSvg } from './engine-svg';
import { headOf, measured, partRows, specLines, table } from './parts';

/* What goes on paper, as plain content; making a file of it is `pdf.ts`. */

export const SHEETS = ['job-card', 'pick-list', 'tray-label', 'record'] as const;
export type Sheet = (typeof SHEETS)[number];

const STEP_WORDS = { open: 'open', done: 'done', not_done: 'NOT DONE' } as const;

const dayOf = (at: Date | null): string => at?.toISOString().slice(0, 16).replace('T', ' ') ?? '';

/** Parts, consumables and tools for the job. */
export function pickList(view: WorkOrderView): Content {
  const { plug, steps, family } = view;
  const once = (items: readonly string[]): readonly string[] => [...new Set(items)];
  const tools = once(steps.flatMap((step) => step.tools ?? []));
  const uses = once(steps.flatMap((step) => step.consumables ?? []));
  const lines = pickLines(view);
  return [
    headOf(view, 'Pick list'),
    { text: 'Parts', style: 'h2' },
    table(
      ['', 'Part', 'Count', 'Lot on the box', 'Socket'],
      lines.map(({ number: part, count, socket }) => [
        '[  ]',
        { text: part, style: 'code', bold: true },
        String(count),
        ' ',
        socket,
      ]),
      ['auto', 'auto', 'auto', '*', 'auto'],
    ),
    ...(plug
      ? [
          {
            text: plug.pick ? pickWords(plug.pick) : 'Every new plug has been read at its cylinder.',
            margin: [0, 4, 0, 0] as [number, number, number, number],
          },
          ...(plug.current.kind === 'replaced' ? plug.current.notes : []),
        ]
      : []),
    {
      text: plug
        ? 'Read every number, compare thread, reach and seat with the record, measure every gap.'
        : 'Read every number, compare plug-in, length and screw holes with the old part.',
      margin: [0, 4, 0, 0],
    },
    ...wayLines(view),
    { text: 'Uses up', style: 'h2' },
    ...uses.map((item) => `[  ] ${item}`),
    { text: 'Tools', style: 'h2' },
    ...tools.map((item) => `[  ] ${item}`),
    ...(family.weakPoints?.length
      ? [
          {
            text: `Known to break on ${family.code}: ${family.weakPoints.map(({ says }) => says).join('; ')}. Have it at hand.`,
            style: 'caution',
            margin: [0, 8, 0, 0] as [number, number, number, number],
          },
        ]
      : []),
  ];
}

/** Seals and likely breakages of the way in: on the kit, or ordered before the day. */
const wayLines = ({ way }: WorkOrderView): Content[] =>
  way.parts.length === 0
    ? []
    : [
        { text: 'For the way in', style: 'h2' },
        ...way.parts.map(
          ({ what, number, why, item, chance }) =>
            `[  ] ${[what, number].filter(Boolean).join(' ')} (${item}: ${why === 'seal_new' ? 'new at any rate' : `wanted in about ${Math.round(chance * 100)} of 100 visits`})`,
        ),
      ];

/** What to take off the shelf: of plugs box by box, of other parts by their number. */
function pickLines({ plug, kit }: WorkOrderView) {
  const socket = plug?.spec.part.hexMm ? socketsFor(plug.spec.part.hexMm) : '';
  const boxes = plug?.pick && 'lines' in plug.pick ? plug.pick.lines : [];
  return [
    ...boxes.map(({ number, count }) => ({ number, count, socket })),
    ...kit
      .filter(({ component }) => component !== 'plug' || boxes.length === 0)
      .map(({ partNumber: number, quantity: count, component }) => ({
        number,
        count,
        socket: component === 'plug' ? socket : '',
      })),
  ];
}

/** A label for the tray of removed plugs, with the way back to the record. */
export async function trayLabel(view: WorkOrderView, address: string): Promise<Content> {
  const { order, vehicle, sites, layout } = view;
  const banks = layout.model.banks.map(
    (bank) => `${bank.place === 'only' ? '' : `${bank.place}: `}${bank.cylinders.join(' ')}`,
  );
  return {
    columns: [
      { svg: await QRCode.toString(`${address}/work-orders/${order.id}/tray`, { type: 'svg', margin: 1 }), width: 120 },
      {
        margin: [14, 4, 0, 0],
        stack: [
          { text: `Unit ${vehicle.unitNumber} ${vehicle.name}`, style: 'h1' },
          { text: `Work order ${order.number}`, style: 'large' },
          {
            text: order.trayFirst
              ? `First plug: cylinder ${order.trayFirst}`
              : 'First plug: cylinder ______ (write it down before it is laid)',
            style: 'large',
            bold: true,
          },
          { text: banks.join(' · '), style: 'large' },
          { text: `${sites.length} places`, style: 'soft' },
        ],
      },
      { svg: engineSvg(layout).svg, width: 130 },
    ],
  };
}

/** What was stored before and after, in the words of this engine. */
function codeLines({ codes, layout }: WorkOrderView): Content[] {
  const codeText = (code: string): string => [code, sayCode(layout, code)].filter(Boolean).join(' ');
  return [
    { text: 'Codes', style: 'h2' },
    ...(['before', 'after'] as const).map((moment) => {
      const read = codes.filter((row) => row.moment === moment);
      const words = read.map((row) => row.codes.map(({ code }) => codeText(code)).join(', ') || 'none').join('; then ');
      return `${moment}: ${read.length === 0 ? 'not read' : words}`;
    }),
  ];
}

/** Gates that a supervisor lifted: who, and why. */
const liftLines = ({ lifts }: WorkOrderView): Content[] =>
  lifts.length === 0
    ? []
    : [
        { text: 'Gates that were lifted', style: 'h2' },
        ...lifts.map(
          ({ gate, target, by, at, reason }) =>
            `${GATE_TABLE[gate].says}${target ? `, ${target}` : ''}: ${by}, ${dayOf(new Date(at))} UTC. ${reason}`,
        ),
      ];

/** The finished record: what was found, fitted and said, by whom. */
export function finishedRecord(view: WorkOrderView, system: UnitSystem): Content {
  const { order, layout, sites, steps, findings, counts, followUps, handedOverName } = view;
  return [
    headOf(view, order.state === 'closed' ? 'Service record' : 'Service record, not closed yet'),
    {
      text: [
        order.closedOn
          ? `Closed ${order.closedOn} at ${distanceText(order.closedKm, system)} (typed “${order.closedKmAsTyped}”). `
          : '',
        handedOverName ? `Work by ${handedOverName}, ${dayOf(order.handedOverAt)} UTC. ` : '',
        order.minutesWorked === null
          ? `Estimated ${order.minutes} min.`
          : `${order.minutesWorked} min worked, ${order.minutes} estimated.`,
      ],
    },
    specLines(view, system),
    { text: 'By cylinder', style: 'h2' },
    table(
      ['Cylinder', 'Found', 'Old gap', 'Seen', 'Fitted', 'Gap', 'Torque', 'By'],
      sites.map((site) => [
        { text: site.name, bold: true },
        {
          text: `${site.observedNumber ?? 'not read'}${site.differs ? ' (not on record)' : ''}`,
          style: 'code',
          fontSize: 9,
        },
        measured(site.removedGapMm, 'gap', system),
        { text: [site.conditions?.join(', ') ?? 'not looked at', site.remark].filter(Boolean).join('. '), fontSize: 9 },
        {
          text: [site.newNumber ?? '', site.newLot ? `lot ${site.newLot}` : ''].filter(Boolean).join(', '),
          style: 'code',
          fontSize: 9,
        },
        measured(site.newGapMm, 'gap', system),
        measured(site.installedTorqueNm, 'torque', system) || (site.torqueMethod ?? ''),
        { text: site.doneAt ? dayOf(site.doneAt).slice(0, 10) : 'not done', fontSize: 9 },
      ]),
      ['auto', 'auto', 'auto', '*', 'auto', 'auto', 'auto', 'auto'],
    ),
    ...partRows(view),
    { text: 'Findings', style: 'h2' },
    ...(findings.length === 0 ? ['Nothing was described.'] : []),
    ...findings.map(
      ({ verdict, ...finding }) =>
        `${CAUSE_WORDS[finding.cause]}: ${[findingPlaces(layout, finding), findingEvidence(layout, finding)].filter(Boolean).join(', ')}${verdict ? ` (${verdict.verdict.verdict} by ${verdict.who})` : ' (nobody has said anything to it)'}`,
    ),
    ...codeLines(view),
    ...liftLines(view),
    { text: 'Counted out and back', style: 'h2' },
    ...counts.map(({ what, out, back }) => `${what}: ${out ?? 'not counted'} out, ${back ?? 'not counted'} back`),
    { text: 'Steps', style: 'h2' },
    ...steps
      .filter(({ perSite }) => !perSite)
      .map((step) => {
        const answers = (step.asks ?? []).flatMap((ask) =>
          step.answers[ask.key] ? [`${ask.what}: ${step.answers[ask.key]}`] : [],
        );
        return `${STEP_WORDS[step.state]}: ${step.title}${answers.length > 0 ? ` (${answers.join('; ')})` : ''}`;
      }),
    ...(followUps.length > 0
      ? [
          { text: 'Follow-ups', style: 'h2' } as Content,
          ...followUps.map(
            ({ followUp, owner }) => `${followUp.what}: ${owner}, ${followUp.dueOn ?? followUp.dueKmAsTyped ?? ''}`,
          ),
        ]
      : []),
    {
      text: 'Signed (did the work): ______________________     Signed (verified): ______________________',
      margin: [0, 24, 0, 0],
    },
  ];
}
