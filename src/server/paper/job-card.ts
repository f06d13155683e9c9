import type { Content } from 'pdfmake/interfaces';
import type { UnitSystem } from '@/core/units/person-units';
import type { Ask } from '@/core/work/ask';
import { GATE_TABLE, STAGE_WORDS, STAGES } from '@/core/work/gate-table';
import { PHASES, type Phase } from '@/core/work/procedure/step';
import type { WorkOrderView } from '../work-orders/view-work-order';
import { engineSvg } from './engine-svg';
import { headOf, measured, partRows, specLines, table } from './parts';

/* The card that is carried to the vehicle: what goes in, its gates, and the engine's own steps. */

const INDENT: [number, number, number, number] = [18, 0, 0, 0];

/** What goes in, where, and how, with room to write, to be carried to the vehicle. */
export function jobCard(view: WorkOrderView, system: UnitSystem): Content {
  const engine = engineSvg(view.layout);
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
    const ofStage = gates.filter(({ gate }) => GATE_TABLE[gate].before === stage);
    return ofStage.length === 0 ? [] : [{ stage, gates: ofStage }];
  });
  const stateText = ({ gate, state }: (typeof gates)[number]): string =>
    // Held together, so that a box never stands at the end of a line by itself.
    `${state === 'open' ? DONE_BOX : BOX} ${GATE_TABLE[gate].says}`.replaceAll(' ', '\u00a0');
  return [
    { text: 'Gates: nothing of a line before every box of it is ticked', style: 'h2' },
    {
      fontSize: 9,
      stack: [
        table(
          ['Before', 'Has to be so', 'Lifted by, why'],
          stages.map(({ stage, gates }) => [
            { text: STAGE_WORDS[stage], bold: true },
            gates.map(stateText).join('   '),
            gates.flatMap(({ lift }) => (lift ? [`${lift.by}: ${lift.reason}`] : [])).join('; ') || ' ',
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
  const steps = view.steps.flatMap((step, i) =>
    (step.phase ?? 'prepare') === phase
      ? [{ length: step.title.length + (step.caution?.length ?? 0) + 60, lines: stepLines(view, step, i + 1) }]
      : [],
  );
  if (steps.length === 0) return [];
  const head: Content = { text: PHASE_HEADS[phase], bold: true, margin: [0, 3, 0, 1] };
  const column = (part: typeof steps): Content => ({ stack: part.map(({ lines }) => lines) });
  // The head stays with the first step: it never ends a page.
  const [first, ...rest] = steps.map(({ lines }) => lines);
  const headed = (end: number): Content => ({
    stack: [{ stack: [head, first ?? ''], unbreakable: true }, ...rest.slice(0, end - 1)],
  });
  const cut = fairCut(steps.map(({ length }) => length));
  if (steps.length < 3) return [headed(steps.length)];
  const beside: Content = { stack: [{ text: ' ', margin: [0, 3, 0, 1] }, column(steps.slice(cut))] };
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
  const count = counts.find((count) => count.key === row);
  const made = side === 'back' ? count?.back : count?.out;
  return made == null ? null : String(made);
}

function siteRows({ sites }: WorkOrderView, system: UnitSystem): Content[] {
  if (sites.length === 0) return [];
  return [
    { text: 'Cylinders', style: 'h2' },
    {
      fontSize: 9,
      stack: [
        table(
          ['Cylinder', 'Where', 'On record', 'Read off', 'Old gap', 'New gap', 'Torque', 'Done'],
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
