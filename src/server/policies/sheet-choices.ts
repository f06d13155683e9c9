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
    const newer = sheet.others?.find((other) => other.for === field);
    const source = `${sheet.sourceDocument}, revision ${sheet.revision}`;
    return newer ? `${newer.document}, newer than ${source}` : source;
  };
  const choiceOf = (policy: PolicyChoice['policy'], option: string, field: MethodField): PolicyChoice => ({
    policy,
    scope: 'sheet',
    scopeKey: null,
    option,
    why: saidBy(field),
  });
  return [
    ...(sheet.lubricant ? [choiceOf('thread_compound', 'by_sheet', 'lubricant')] : []),
    ...(sheet.regap ? [choiceOf('new_gaps', sheet.regap === 'never' ? 'return' : 'measure_adjust', 'regap')] : []),
    ...(sheet.engineTemperature ? [choiceOf('engine_temperature', sheet.engineTemperature, 'engineTemperature')] : []),
  ];
}
