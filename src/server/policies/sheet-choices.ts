import type { MethodField, OtherInForce } from '@/core/catalogue/others-in-force';
import type { PolicyChoice } from '@/core/policy/policies';
import type { ComponentSheet } from '@/db/queries/catalogue';

/** What a spec sheet itself says on the questions that divide the trade. */
export function sheetChoices(
  sheet: Pick<ComponentSheet, 'lubricant' | 'regap' | 'engineTemperature' | 'sourceDocument' | 'revision'> & {
    readonly others?: readonly OtherInForce[];
  },
): readonly PolicyChoice[] {
  const saidBy = (field: MethodField): string => {
    const newer = sheet.others?.find((one) => one.for === field);
    const own = `${sheet.sourceDocument}, revision ${sheet.revision}`;
    return newer ? `${newer.document}, newer than ${own}` : own;
  };
  const said = (policy: PolicyChoice['policy'], option: string, field: MethodField): PolicyChoice => ({
    policy,
    scope: 'sheet',
    scopeKey: null,
    option,
    why: saidBy(field),
  });
  return [
    ...(sheet.lubricant ? [said('thread_compound', 'by_sheet', 'lubricant')] : []),
    ...(sheet.regap ? [said('new_gaps', sheet.regap === 'never' ? 'return' : 'measure_adjust', 'regap')] : []),
    ...(sheet.engineTemperature ? [said('engine_temperature', sheet.engineTemperature, 'engineTemperature')] : []),
  ];
}
