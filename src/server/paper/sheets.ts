import type { Content, TableCell } from 'pdfmake/interfaces';
import QRCode from 'qrcode';
import { siteId } from '@/core/engine/model';
import { socketsFor } from '@/core/engine/tools';
import { pickWords } from '@/core/stock/pick';
import { personUnits, type UnitSystem } from '@/core/units/person-units';
import { saySmallTorques } from '@/core/units/say';
import { fromSi, UNITS } from '@/core/units/unit';
import type { Ask } from '@/core/work/ask';
import { GATE_TABLE, STAGE_WORDS, STAGES } from '@/core/work/gate-table';
import { PHASES, type Phase } from '@/core/work/procedure/step';
import { CAUSE_WORDS } from '@/text/cause-words';
import { distanceText, rangeTexts } from '@/text/format';
import { PLACE_STATE_WORDS, taskText } from '@/text/task-words';
import type { WorkOrderView } from '../work-orders/view-work-order';
import { engineSvg } from './engine-svg';

/* What goes on paper, as plain content; making a file of it is `pdf.ts`. */

export const SHEETS = ['job-card', 'pick-list', 'tray-label', 'record'] as const;
export type Sheet = (typeof SHEETS)[number];

/** A measured quantity in the units of whoever prints; empty where nothing was measured. */
function measured(si: number | null, kind: 'gap' | 'torque', system: UnitSystem): string {
  const unit = personUnits(system)[kind];
  return si === null ? '' : `${fromSi(si, unit).toFixed(UNITS[unit].decimals)} ${unit}`;
}

/** A range in the units of whoever prints, the others in brackets. */
function rangeLine(min: number, max: number, system: UnitSystem, kind: 'gap' | 'torque'): string {
  const [own, other] = rangeTexts(min, max, system, kind);
  return `${own} (${other})`;
}
const STEP_WORDS = { open: 'open', done: 'done', not_done: 'NOT DONE' } as const;

const dayOf = (at: Date | null): string => at?.toISOString().slice(0, 16).replace('T', ' ') ?? '';

const headOf = (view: WorkOrderView, name: string): Content => {
  const { order, vehicle, family, row } = view;
  return [
    { text: `${name}: unit ${vehicle.unitNumber} ${vehicle.name}`, style: 'h1' },
    {
      text: [
        `Work order ${order.number} · ${family.code}, ${family.name}`,
        row.startsAt
          ? ` · ${row.startsAt.replace('T', ' ')}, ${row.depot} ${row.bay}, ${row.person}`
          : ` · ${row.depot}`,
      ],
      margin: [0, 0, 0, 6],
    },
  ];
};

const table = (
  heads: readonly string[],
  rows: readonly (readonly TableCell[])[],
  widths?: (string | number)[],
): Content => ({
  table: {
    headerRows: 1,
    widths: widths ?? heads.map(() => 'auto'),
    body: [heads.map((text) => ({ text, bold: true })), ...rows.map((row) => [...row])],
  },
  layout: 'lightHorizontalLines',
});

const specLines = ({ plug, tasks }: WorkOrderView, system: UnitSystem): Content => ({
  style: 'large',
  stack: [...(plug ? plugLines(plug, system) : []), ...tasks.flatMap(partLine)],
});

const plugLines = ({ spec, threads, replaced }: NonNullable<WorkOrderView['plug']>, system: UnitSystem): Content[] => [
  { text: [{ text: spec.part.number, style: 'code', bold: true }, ` × ${replaced}, ${spec.part.maker}`] },
  `Gap ${rangeLine(spec.gapMinMm, spec.gapMaxMm, system, 'gap')}`,
  `Torque ${rangeLine(threads.torqueNm.min, threads.torqueNm.max, system, 'torque')}. ${threads.says}`,
  {
    text: `${spec.sourceDocument}, revision ${spec.revision}; ${spec.checkedBy ? `checked by ${spec.checkedBy}` : 'not checked by anyone else yet'}`,
    style: 'soft',
  },
];

/** The part of a task that is no plug, with the torque of its screw. */
function partLine({ row, sheet, rules, places }: WorkOrderView['tasks'][number]): Content[] {
  if (row.component === 'plug') return [];
  const here = places.filter(({ state }) => state !== 'moved' && state !== 'left');
  const screw = rules.torqueNm ? `; screw ${saySmallTorques(rules.torqueNm)}` : '';
  return [
    {
      text: [
        `${taskText(row.action, row.component, here.length)} ${here.map(({ id }) => id.replace(/A$/, '')).join(' ')}: `,
        { text: sheet?.part.number ?? 'no sheet', style: 'code', bold: true },
        `${sheet && row.action === 'replace' ? ` × ${here.length}` : ''}${screw}`,
      ],
    },
  ];
}

const INDENT: [number, number, number, number] = [18, 0, 0, 0];

/** What goes in, where, and how, with room to write, to be carried to the vehicle. */
export function jobCard(view: WorkOrderView, system: UnitSystem): Content {
  const { steps, layout } = view;
  const engine = engineSvg(layout);
  return [
    headOf(view, 'Job card'),
    { columns: [specLines(view, system), { svg: engine.svg, width: engine.width }], columnGap: 12 },
    ...siteRows(view, system),
    ...partRows(view),
    ...gateRows(view),
    ...PHASES.flatMap((phase) => phaseSteps(view, phase)),
  ];
}

const BOX = '[  ]';
const DONE_BOX = '[x]';

/** What has to be so before the next thing is done: a box for each, and room for whoever lifts one. */
function gateRows({ gates }: WorkOrderView): Content[] {
  const stages = STAGES.flatMap((stage) => {
    const own = gates.filter(({ gate }) => GATE_TABLE[gate].before === stage);
    return own.length === 0 ? [] : [{ stage, own }];
  });
  const said = ({ gate, state }: (typeof gates)[number]): string =>
    // Held together, so that a box never stands at the end of a line by itself.
    `${state === 'open' ? DONE_BOX : BOX} ${GATE_TABLE[gate].says}`.replaceAll(' ', '\u00a0');
  return [
    { text: 'Gates: nothing of a line before every box of it is ticked', style: 'h2' },
    {
      fontSize: 9,
      stack: [
        table(
          ['Before', 'Has to be so', 'Lifted by, why'],
          stages.map(({ stage, own }) => [
            { text: STAGE_WORDS[stage], bold: true },
            own.map(said).join('   '),
            own.flatMap(({ lift }) => (lift ? [`${lift.by}: ${lift.reason}`] : [])).join('; ') || ' ',
          ]),
          [104, '*', 110],
        ),
      ],
    },
  ];
}

const PHASE_HEADS: Readonly<Record<Phase, string>> = {
  prepare: 'Prepare',
  open: 'Open',
  plugs: 'At each place',
  close: 'Close',
  prove: 'Prove',
};

/** The steps of one phase in two columns, so that a V6 fits two pages: read at the bench and at arm's length. */
function phaseSteps(view: WorkOrderView, phase: Phase): Content[] {
  const own = view.steps.flatMap((step, i) =>
    (step.phase ?? 'prepare') === phase
      ? [{ length: step.title.length + (step.caution?.length ?? 0) + 60, lines: stepLines(view, step, i + 1) }]
      : [],
  );
  if (own.length === 0) return [];
  const head: Content = { text: PHASE_HEADS[phase], bold: true, margin: [0, 3, 0, 1] };
  const column = (part: typeof own): Content => ({ stack: part.map(({ lines }) => lines) });
  // The head stays with the first step: it never ends a page.
  const [first, ...rest] = own.map(({ lines }) => lines);
  const headed = (end: number): Content => ({
    stack: [{ stack: [head, first ?? ''], unbreakable: true }, ...rest.slice(0, end - 1)],
  });
  const cut = fairCut(own.map(({ length }) => length));
  if (own.length < 3) return [headed(own.length)];
  const beside: Content = { stack: [{ text: ' ', margin: [0, 3, 0, 1] }, column(own.slice(cut))] };
  return [{ columns: [headed(cut), beside], columnGap: 14 }];
}

/** After how many of some lengths the two sides are nearest to even. */
function fairCut(lengths: readonly number[]): number {
  const all = lengths.reduce((sum, length) => sum + length, 0);
  const sums = lengths.map((_, i) => lengths.slice(0, i + 1).reduce((sum, length) => sum + length, 0));
  const off = sums.map((sum) => Math.abs(2 * sum - all));
  return off.indexOf(Math.min(...off)) + 1;
}

function stepLines(view: WorkOrderView, step: WorkOrderView['steps'][number], number: number): Content {
  const asked = (step.asks ?? []).map((ask) => `${ask.what}:\u00a0${answerOf(view, step, ask) ?? '________'}`);
  return {
    margin: [0, 0, 0, 1.5],
    unbreakable: true,
    fontSize: 7.5,
    lineHeight: 1.05,
    stack: [
      { text: `${step.state === 'done' ? DONE_BOX : BOX} ${number}. ${step.title}`, fontSize: 8.5 },
      ...(step.caution ? [{ text: `Caution: ${step.caution}`, style: 'caution', margin: INDENT }] : []),
      ...(asked.length > 0 ? [{ text: asked.join('   '), margin: INDENT }] : []),
    ],
  };
}

/** What was written down or counted; null: nothing yet. */
function answerOf(
  { counts }: Pick<WorkOrderView, 'counts'>,
  { answers }: WorkOrderView['steps'][number],
  { kind, key }: Ask,
): string | null {
  if (kind === 'wait') return answers[key]?.slice(11, 16) ?? null;
  if (kind !== 'count') return answers[key] ?? null;
  const [side, row] = key.split(':');
  const count = counts.find((one) => one.key === row);
  const made = side === 'back' ? count?.back : count?.out;
  return made == null ? null : String(made);
}

function siteRows({ sites }: WorkOrderView, system: UnitSystem): Content[] {
  if (sites.length === 0) return [];
  return [
    { text: 'Sites', style: 'h2' },
    {
      fontSize: 9,
      stack: [
        table(
          ['Site', 'Where', 'On record', 'Read off', 'Old gap', 'New gap', 'Torque', 'Done'],
          sites.map((site) => [
            { text: site.name, fontSize: 12, bold: true },
            site.where,
            { text: site.expectedNumber ?? 'unknown', style: 'code' },
            { text: site.observedNumber ?? ' ', style: 'code' },
            site.removedGapAsTyped ?? ' ',
            site.newGapAsTyped ?? ' ',
            measured(site.installedTorqueNm, 'torque', system),
            site.doneAt ? 'x' : '[  ]',
          ]),
          ['auto', 140, 'auto', '*', 44, 44, 48, 'auto'],
        ),
      ],
    },
  ];
}

/** Room to write for every part that is no plug. */
function partRows({ tasks }: WorkOrderView): Content[] {
  const places = tasks.flatMap(({ row, places: own }) => (row.component === 'plug' ? [] : own));
  const here = places.filter(({ state }) => state !== 'moved');
  if (here.length === 0) return [];
  return [
    { text: 'Other parts', style: 'h2' },
    table(
      ['Part', 'Record says', 'Serial out', 'Seen, measured', 'Number in', 'Serial in', 'Done'],
      here.map(({ place, name, state }) => [
        { text: name, bold: true },
        { text: [place.expectedNumber, place.expectedTag].filter(Boolean).join(', ') || 'unknown', style: 'code' },
        { text: place.tagOut ?? ' ', style: 'code' },
        [place.conditions?.join(', '), place.primaryOhmAsTyped, place.secondaryOhmAsTyped, place.ohmAsTyped]
          .filter(Boolean)
          .join(', ') || ' ',
        { text: place.newNumber ?? ' ', style: 'code' },
        { text: place.tagIn ?? ' ', style: 'code' },
        state === 'open' ? '[  ]' : PLACE_STATE_WORDS[state],
      ]),
      ['auto', 'auto', 60, '*', 60, 60, 'auto'],
    ),
  ];
}

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
            text: plug.pick ? pickWords(plug.pick) : 'Every new plug has been read at its site.',
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
              ? `First plug: site ${order.trayFirst}`
              : 'First plug: site ______ (write it down before it is laid)',
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
  const { order, sites, steps, findings, codes, counts, followUps, handedOverName } = view;
  const moments = ['before', 'after'] as const;
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
    { text: 'By site', style: 'h2' },
    table(
      ['Site', 'Found', 'Old gap', 'Seen', 'Fitted', 'Gap', 'Torque', 'By'],
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
    { text: 'What the removed parts say', style: 'h2' },
    ...(findings.length === 0 ? ['Nothing was described.'] : []),
    ...findings.map(
      ({ cause, evidence, said }) =>
        `${CAUSE_WORDS[cause]}: ${evidence.map((e) => `${siteId(e)} ${e.words}`).join('; ')}${said ? ` (${said.verdict.verdict} by ${said.who})` : ' (nobody has said anything to it)'}`,
    ),
    { text: 'Codes', style: 'h2' },
    ...moments.map((moment) => {
      const read = codes.filter((row) => row.moment === moment);
      const words = read.map((row) => row.codes.map(({ code }) => code).join(' ') || 'none').join('; then ');
      return `${moment}: ${read.length === 0 ? 'not read' : words}`;
    }),
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
