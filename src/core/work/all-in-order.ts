import type { PersonUnits } from '../units/person-units';
import type { Ask } from './ask';
import type { JobRecord, Json } from './entry';
import type { FloorStep } from './job-record';
import { countsIn, fieldsOf, type OrderModel, shortTitle, stepStateIn } from './order-model';
import { checkBench } from './order-rules';
import type { Phase } from './procedure/step';
import { answerField, countTarget, stepTarget } from './targets';

/* One press for a phase in which all is as it should be: what it says is named beside it, and it says nothing that has to be read
   off, photographed or signed. */

/** One field that the press writes. */
interface SaidField {
  readonly target: string;
  readonly field: string;
  readonly value: Json;
}

interface InOrder {
  /** Steps that it answers, in their order. */
  readonly steps: readonly FloorStep[];
  readonly fields: readonly SaidField[];
  /** What it says of them: "engine temperature: cold". */
  readonly says: readonly string[];
}

/** What a follow-up is where nothing was noticed. */
const USUAL_RECHECK = 'none needed, the usual interval';

interface Said {
  readonly fields: readonly SaidField[];
  readonly says: readonly string[];
}
const NOTHING: Said = { fields: [], says: [] };

/**
 * What one press says of the open steps of a phase. A step that asks for more than a word that is normal, or a count that is
 * known, is left to be answered by itself.
 */
export function phaseInOrder(
  model: Omit<OrderModel, 'steps'> & { readonly steps: readonly FloorStep[] },
  record: JobRecord,
  phase: Phase,
  units: PersonUnits,
): InOrder {
  const open = model.steps.filter(
    (step) => !step.perSite && (step.phase ?? 'prepare') === phase && stepStateIn(record, step.key) === 'open',
  );
  const entries = open.flatMap((step) => {
    const stepEntries = stepSaid(model, record, step, units);
    return stepEntries ? [{ step, ...stepEntries }] : [];
  });
  return {
    steps: entries.map(({ step }) => step),
    fields: entries.flatMap(({ step, fields }) => [
      ...fields,
      { target: stepTarget(step.key), field: 'state', value: 'done' },
    ]),
    says: entries.flatMap(({ step, says }) => (says.length > 0 ? says : [shortTitle(step).toLowerCase()])),
  };
}

/** What is normal for a step; null: it asks for something that no press can say. */
function stepSaid(model: OrderModel, record: JobRecord, step: FloorStep, units: PersonUnits): Said | null {
  const answers = step.asks.map((ask) => askSaid(model, record, step.key, ask, units));
  if (answers.some((answer) => answer === null)) return null;
  return {
    fields: answers.flatMap((answer) => answer?.fields ?? []),
    says: answers.flatMap((answer) => answer?.says ?? []),
  };
}

function askSaid(model: OrderModel, record: JobRecord, step: string, ask: Ask, units: PersonUnits): Said | null {
  if (ask.optional) return NOTHING;
  const target = stepTarget(step);
  const field = answerField(ask.key);
  const given = String(fieldsOf(record, target)[field] ?? '');
  switch (ask.kind) {
    case 'choice': {
      // What was said otherwise is not said over.
      const accepted = ask.accepts ?? ask.choices ?? [];
      const answer = given || accepted[0];
      if (!answer || !accepted.includes(answer)) return null;
      return { fields: given ? [] : [{ target, field, value: answer }], says: [`${ask.what}: ${answer}`] };
    }
    case 'each': {
      const all = (ask.choices ?? []).join(' ');
      return { fields: given === all ? [] : [{ target, field, value: all }], says: [`${ask.what}: ${all}`] };
    }
    case 'count':
      return countSaid(model, record, ask);
    case 'codes':
      return model.codesKept.includes(ask.key) || given ? NOTHING : null;
    case 'parts': {
      const { missing, wrong } = checkBench(model, record, units);
      return missing.length + wrong.length > 0
        ? null
        : { fields: [], says: ['every new part read and measured, right number, gap in range'] };
    }
    case 'follow_up':
      if (given || model.followUps > 0) return NOTHING;
      return { fields: [{ target, field, value: USUAL_RECHECK }], says: [`looked at again: ${USUAL_RECHECK}`] };
    case 'text':
    case 'torque':
    case 'odometer':
    case 'clock':
    case 'celsius':
    case 'wait':
      return given ? NOTHING : null;
    case 'photo':
      return given || model.photos.some((photo) => photo.target === target) ? NOTHING : null;
  }
}

/** As many as there should be out, and as many back as went out. */
function countSaid(model: OrderModel, record: JobRecord, { key, what }: Ask): Said | null {
  const [side, row = ''] = key.split(':');
  const count = countsIn(model, record).find((counted) => counted.key === row);
  if (!count) return NOTHING;
  const made = side === 'back' ? count.back : count.out;
  const number = side === 'back' ? (count.out ?? count.expected) : count.expected;
  if (made !== null) return NOTHING;
  if (number === null) return null;
  return {
    fields: [{ target: countTarget(row), field: side === 'back' ? 'back' : 'out', value: number }],
    says: [`${number} ${what}`],
  };
}
