import { choice, type Draft, draft, isGas, isIsolated, type ProcedureInput, text } from '../step';
import { banksOpened } from '../visit';
import { coverOn } from './close';

/** How long an engine idles to learn anew. Source: general trade guidance; the service information wins. */
const RELEARN_MINUTES = 10;

/** What shows that the engine runs right. */
export function prove(input: ProcedureInput): readonly Draft[] {
  const { layout, access, policies } = input;
  const opened = banksOpened(input);
  const lidsLast = policies.first_start === 'before_covers';
  return [
    start(input),
    ...(isIsolated(input) ? [relearn()] : []),
    ...(lidsLast
      ? layout.model.banks
          .filter((_, i) => access[i]?.access === 'cover' && opened.has(i + 1))
          .map((bank, i) => coverOn('lids', bank.place, i + 1))
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

function start(input: ProcedureInput): Draft {
  const { policies, hybrid, fuel } = input;
  return draft(
    'prove',
    'start',
    `Start, listen, look round every boot${isGas(fuel) ? '; gas valve open again, sniff every joint' : ''}`,
    policies.first_start === 'before_covers'
      ? 'With the covers off a leak or a loose boot can still be seen.'
      : 'It must run evenly from the first minute.',
    {
      caution: hybrid
        ? 'De-isolate by the same person who isolated. Keep clear of belts and fan; ventilate the bay.'
        : 'Keep clear of belts and fan; ventilate the bay. A flashing lamp: stop, a misfire ruins the catalyst.',
      asks: [
        isIsolated(input)
          ? choice('idle', 'idle', ['even', 'uneven at first', 'does not start'], ['even', 'uneven at first'])
          : choice('idle', 'idle', ['even', 'uneven', 'does not start'], ['even']),
      ],
    },
  );
}

const relearn = (): Draft =>
  draft(
    'prove',
    'relearn',
    `Let it idle ${RELEARN_MINUTES} minutes, first without loads, then with them`,
    'Without its battery the control unit has forgotten its idle: uneven in the first minutes is no finding yet.',
    {
      caution:
        'Ventilate the bay, keep clear of belts and fan. Still uneven after that: wait no longer, read the codes and look for air drawn in.',
      asks: [
        { key: 'learnt', what: 'idling', kind: 'wait', minutes: RELEARN_MINUTES },
        choice('settled', 'idle after that', ['even', 'still uneven'], ['even']),
      ],
      weight: 3,
    },
  );
