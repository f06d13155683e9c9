import type { PolicyChoice } from '@/core/policy/policies';
import type { ComponentSheet } from '@/db/queries/catalogue';

/** What a spec sheet itself says on the questions that divide the trade. */
export function sheetChoices(
  sheet: Pick<ComponentSheet, 'lubricant' | 'regap' | 'engineTemperature' | 'sourceDocument' | 'revision'>,
): readonly PolicyChoice[] {
  const why = `${sheet.sourceDocument}, revision ${sheet.revision}`;
  const said = (policy: PolicyChoice['policy'], option: string): PolicyChoice => ({
    policy,
    scope: 'sheet',
    scopeKey: null,
    option,
    why,
  });
  return [
    ...(sheet.lubricant ? [said('thread_compound', 'by_sheet')] : []),
    ...(sheet.regap ? [said('new_gaps', sheet.regap === 'never' ? 'return' : 'measure_adjust')] : []),
    ...(sheet.engineTemperature ? [said('engine_temperature', sheet.engineTemperature)] : []),
  ];
}
