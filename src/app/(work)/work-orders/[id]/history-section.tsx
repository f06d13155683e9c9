import { undoAction } from '@/app/undo-action';
import { cylinderText } from '@/core/engine/layout';
import { builtOn, undoableKind } from '@/core/shared/undo';
import { isPlaceField, PLACE_FIELDS } from '@/core/work/place-fields';
import { TASK_COMPONENTS } from '@/core/work/task';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';
import { workOrderActionWords } from '@/text/audit-words';
import { instantText } from '@/text/format';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { Section } from '@/ui/primitives/page';

/** Who did what when, and what stood before where something was corrected. */
export function HistorySection({ view: { history }, mayUndo }: { view: WorkOrderView; mayUndo: boolean }) {
  return (
    <Section id="history" title="What happened" aside="lines are added, never changed">
      <ul className="soft small">
        {history.map((entry) => (
          <li key={entry.id}>
            {instantText(entry.at)}: {entry.who} {workOrderActionWords(entry.action)}
            {historyDetail(entry.changes)}
            {corrected(entry.changes)}
            {mayUndo && undoableKind('work-order', entry.action) && !builtOn('work-order', entry, history) && (
              <PressForm action={undoAction} quiet>
                <input type="hidden" name="undo" value={entry.id} />
                <SubmitButton>Undo</SubmitButton>
              </PressForm>
            )}
          </li>
        ))}
      </ul>
    </Section>
  );
}

function historyDetail(changes: unknown): string {
  if (typeof changes !== 'object' || changes === null) return '';
  const at = changes as Readonly<Record<string, unknown>>;
  const told = [
    at.site && at.reason ? `${at.site}: ${at.reason}` : at.site && cylinderText(String(at.site)),
    ...TASK_COMPONENTS.map((component) => at[component] && `${component.replace('_', ' ')} ${at[component]}`),
    Array.isArray(at.tasks) && at.tasks.join('; '),
    at.task && `${at.task}: ${at.reason}`,
    Array.isArray(at.places) && `${at.places.join(', ')} ${at.to ? `to ${at.to}` : `from ${at.from}`}: ${at.reason}`,
    at.gate && `${at.gate}${at.place ? `, ${at.place}` : ''}: ${at.reason}`,
    at.way,
    at.count,
    at.photo,
    at.moment && `${at.moment}: ${at.what}`,
    at.step && `${at.step}: ${at.state}`,
    at.day && `${at.day} ${at.start}`,
    at.odometer,
    at.finding,
    at.what,
    at.reason,
  ].find(Boolean);
  return told ? ` ${String(told).replace('not_done', 'not done')}` : '';
}

/** Figures and words that were changed once they stood: the new one, and what it was. */
function corrected(changes: unknown): string {
  if (typeof changes !== 'object' || changes === null) return '';
  const { from, to } = changes as Readonly<Record<string, unknown>>;
  if (typeof from !== 'object' || typeof to !== 'object' || !from || !to) return '';
  const before = from as Readonly<Record<string, unknown>>;
  const told = Object.entries(to).flatMap(([field, now]) => {
    const was = before[field];
    const isText = (value: unknown): boolean => typeof value === 'string' || typeof value === 'number';
    if (!isPlaceField(field) || !isText(was) || was === '' || !(isText(now) || now === null)) return [];
    return [`${PLACE_FIELDS[field].says} ${now === null || now === '' ? 'taken back' : now}, was ${was}`];
  });
  return told.length > 0 ? `: ${told.join('; ')}` : '';
}
