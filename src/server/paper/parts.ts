import type { Content, TableCell } from 'pdfmake/interfaces';
import { personUnits, type UnitSystem } from '@/core/units/person-units';
import { saySmallTorques } from '@/core/units/say';
import { fromSi, UNITS } from '@/core/units/unit';
import { othersInForce } from '@/text/catalogue-words';
import { rangeTexts } from '@/text/format';
import { PLACE_STATE_WORDS, taskText } from '@/text/task-words';
import { partPlaces, type WorkOrderView } from '../work-orders/view-work-order';

/* What several sheets share. */

/** A measured quantity in the units of whoever prints; empty where nothing was measured. */
export function measured(si: number | null, kind: 'gap' | 'torque', system: UnitSystem): string {
  const unit = personUnits(system)[kind];
  return si === null ? '' : `${fromSi(si, unit).toFixed(UNITS[unit].decimals)} ${unit}`;
}

/** A range in the units of whoever prints, the others in brackets. */
function rangeLine(min: number, max: number, system: UnitSystem, kind: 'gap' | 'torque'): string {
  const [text, other] = rangeTexts(min, max, system, kind);
  return `${text} (${other})`;
}

export const headOf = (view: WorkOrderView, name: string): Content => {
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

export const table = (
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

export const specLines = ({ plug, tasks }: WorkOrderView, system: UnitSystem): Content => ({
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
  ...othersInForce(spec.others).map((text) => ({ text, style: 'soft' })),
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

/** Room to write for every part that is no plug. */
export function partRows(view: WorkOrderView): Content[] {
  const here = partPlaces(view).filter(({ state }) => state !== 'moved');
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
