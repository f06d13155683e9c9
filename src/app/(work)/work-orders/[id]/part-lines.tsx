import { sayOhmRange, saySmallTorques } from '@/core/units/say';
import type { TaskRules } from '@/core/work/place-done';
import type { ComponentSheet } from '@/db/queries/catalogue';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { SOURCE_WORDS } from '@/text/order-words';
import { partsText } from '@/text/task-words';
import { Code, Facts } from '@/ui/primitives/page';

type Task = WorkOrderView['tasks'][number];

/** The part of a task other than a plug, the torque of its screw and what it may measure, with where that stands written. */
export function PartLines({
  task,
  sheet,
  rules,
  places,
}: {
  task: Task['row'];
  sheet: ComponentSheet | null;
  rules: TaskRules;
  places: Task['places'];
}) {
  if (!sheet || rules.component === 'plug') return null;
  const here = places.filter(({ state }) => state !== 'moved' && state !== 'left');
  const ranges = [
    ['Screw', rules.torqueNm && saySmallTorques(rules.torqueNm)],
    ['Primary', rules.primaryOhm && sayOhmRange(rules.primaryOhm)],
    ['Secondary', rules.secondaryOhm && sayOhmRange(rules.secondaryOhm)],
    ['Resistance', rules.ohm && sayOhmRange(rules.ohm)],
  ] as const;
  return (
    <Facts
      rows={[
        [
          partsText(task.component, here.length),
          <span key="part">
            <Code>{sheet.part.number}</Code>
            {task.action === 'replace' ? ` × ${here.length}` : ' if one is to be replaced'}, {sheet.part.maker}
          </span>,
        ],
        ...ranges.flatMap(([name, words]) => (words ? [[name, words] as const] : [])),
        [
          'Source',
          `${sheet.sourceDocument}, ${SOURCE_WORDS[sheet.sourceKind]}, revision ${sheet.revision}; ${sheet.checkedBy ? `checked by ${sheet.checkedBy}` : 'not checked by anyone else yet'}`,
        ],
      ]}
    />
  );
}
