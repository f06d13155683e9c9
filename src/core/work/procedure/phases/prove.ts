import type { Ask } from '../../ask';
import { MINUTES } from '../minutes';
import { choice, type Draft, draft, isGas, isIsolated, type ProcedureInput } from '../step';
import { itemsOff } from '../visit';
import { wayOn } from './way';

/** How long an engine idles to learn anew. Source: general trade guidance; the service information wins. */
const RELEARN_MINUTES = 10;

const odometer = (key: string, what: string): Ask => ({ key, what, kind: 'odometer' });

/** What shows that the engine runs right. */
export function prove(input: ProcedureInput): readonly Draft[] {
  return [
    start(input),
    ...(isIsolated(input) ? [relearn()] : []),
    ...wayOn(input, 'after_start'),
    draft(
      'prove',
      'codes_after',
      'Read the codes, clear what was kept, read again',
      'What comes back after clearing is there now.',
      MINUTES.codes,
      { tools: ['code reader'], asks: [{ key: 'after', what: 'codes after', kind: 'codes' }] },
    ),
    sweep(input),
    draft(
      'prove',
      'road',
      'Road test with load; note anything that is not as it should be',
      'A weak spark shows under load, not at idle.',
      MINUTES.road,
      {
        caution: 'On the public road one drives and another reads.',
        asks: [
          odometer('from', 'odometer before the road test'),
          odometer('to', 'odometer after it'),
          choice('drive', 'how it drives', ['as it should', 'not as it should: noted']),
        ],
      },
    ),
    draft(
      'prove',
      'recheck',
      'Put down when it is looked at again',
      'A plug that settles or a boot that creeps shows after some hundred km.',
      MINUTES.recheck,
      { asks: [{ key: 'recheck', what: 'a follow-up by day or distance, or why none is needed', kind: 'follow_up' }] },
    ),
  ];
}

/** What was taken off is looked for once more, from the same list. */
function sweep(input: ProcedureInput): Draft {
  const off = itemsOff(input).map(({ what }) => what);
  return draft(
    'prove',
    'sweep',
    `Look round once more: wipers, caps, grommets, hoses${off.length > 0 ? `; ${off.join(', ')}` : ''}`,
    'What is forgotten is found by the next driver.',
    MINUTES.sweep,
    {
      tools: ['lamp'],
      asks: [choice('sweep', 'as found', ['nothing left, all home', 'something found and put right'])],
    },
  );
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
    MINUTES.start,
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
    RELEARN_MINUTES + 1,
    {
      caution:
        'Ventilate the bay, keep clear of belts and fan. Still uneven after that: wait no longer, read the codes and look for air drawn in.',
      asks: [
        { key: 'learnt', what: 'idling', kind: 'wait', minutes: RELEARN_MINUTES },
        choice('settled', 'idle after that', ['even', 'still uneven'], ['even']),
      ],
      isFixed: true,
    },
  );
