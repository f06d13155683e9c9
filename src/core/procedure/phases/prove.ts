import { choice, type Draft, draft, isGas, type ProcedureInput, SIDE, text } from '../step';

/** What shows that it is well. */
export function prove({ layout, access, schools, hybrid, fuel }: ProcedureInput): readonly Draft[] {
  const lids = layout.model.banks.flatMap((bank, i) =>
    (access[i]?.access ?? 'open') === 'cover' ? [SIDE[bank.place]] : [],
  );
  const first = schools.first_start === 'before_covers';
  return [
    draft(
      'prove',
      'start',
      `Start, listen, look round every boot${isGas(fuel) ? '; gas valve open again, sniff every joint' : ''}`,
      first
        ? 'With the covers off a leak or a loose boot can still be seen.'
        : 'It must run evenly from the first minute.',
      {
        caution: hybrid
          ? 'De-isolate by the same person who isolated. Keep clear of belts and fan; ventilate the bay.'
          : 'Keep clear of belts and fan; ventilate the bay. A flashing lamp: stop, a misfire ruins the catalyst.',
        asks: [choice('idle', 'idle', ['even', 'uneven', 'does not start'], ['even'])],
      },
    ),
    ...(first
      ? lids.map((side, i) =>
          draft(
            'prove',
            `lids_${i + 1}`,
            `Refit the cover${side}, every screw where it was`,
            'A cover that rattles lets water into the wells.',
          ),
        )
      : []),
    draft(
      'prove',
      'codes_after',
      'Read the codes, clear what was kept, read again',
      'What comes back after clearing is there now.',
      { tools: ['code reader'], asks: [{ key: 'after', what: 'codes after', kind: 'codes' }] },
    ),
    draft(
      'prove',
      'road',
      'Road test with load; note anything that is not as it should be',
      'A weak spark shows under load, not at idle.',
      {
        caution: 'On the public road one drives and another reads.',
        asks: [text('road', 'distance, load, what was noticed')],
        weight: 3,
      },
    ),
    draft(
      'prove',
      'recheck',
      'Put down when it is looked at again',
      'A plug that settles or a boot that creeps shows after some hundred km.',
      { asks: [{ key: 'recheck', what: 'a follow-up by day or distance, or why none is needed', kind: 'follow_up' }] },
    ),
  ];
}
