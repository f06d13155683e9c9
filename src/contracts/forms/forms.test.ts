import { describe, expect, it } from 'vitest';
import {
  absenceForm,
  costsForm,
  decideForm,
  deferForm,
  deliveryForm,
  depotForm,
  reportForm,
  resolveReadingsForm,
} from '.';
import { type FormInput, texts } from './form-input';

const ID = '0d1f6c52-43a1-4c7e-9d51-8f1f6c5243a1';
const OTHER = '1d1f6c52-43a1-4c7e-9d51-8f1f6c5243a2';

/** What the use-case of a form is given, from fields as a browser sends them; else the messages by field. */
function sent({ schema, read = (typed) => typed }: FormInput, fields: readonly (readonly [string, string])[]) {
  const data = new FormData();
  for (const [name, value] of fields) data.append(name, value);
  const parsed = schema.safeParse(read(texts(data), data));
  if (parsed.success) return { input: parsed.data };
  return { faults: Object.fromEntries(parsed.error.issues.map(({ path, message }) => [path.join('.'), message])) };
}

const COSTS = [
  ...[
    ['currency', 'eur'],
    ['failureCost', '800'],
    ['wearCostPerPercent', '1'],
    ['labourPerHour', '60'],
  ],
  ...[
    ['downtimePerVisit', '150'],
    ['hourCost', '15'],
    ['moveCost', '20'],
    ['breakMinutes', '30'],
    ['bayPercent', '40'],
  ],
] as [string, string][];
const DEPOT = [
  ...[
    ['depotId', ID],
    ['timeZone', 'UTC'],
    ['opens', '08:00'],
    ['closes', '16:00'],
    ['deliveryFrom', ' '],
  ],
  ...[
    ['workingDays', '1'],
    ['workingDays', '2'],
    ['deliveryDays', '5'],
  ],
] as [string, string][];

describe('what a form sends', () => {
  it('is costs with those of duty groups that have their own', () => {
    const groups = [
      ['groups.road-gritters', '2400'],
      ['groups.library', ' '],
    ] as const;
    expect(sent(costsForm, [...COSTS, ...groups])).toMatchObject({
      input: { currency: 'EUR', bayPercent: 40, groups: { 'road-gritters': 2400 } },
    });
    expect(sent(costsForm, [...COSTS, ['groups.library', 'much']]).faults).toHaveProperty('groups.library');
  });

  it('is a depot with its days, its ways to others, and no hour of delivery where none is typed', () => {
    expect(sent(depotForm, [...DEPOT, [`ways.${OTHER}`, '35']])).toMatchObject({
      input: { workingDays: [1, 2], deliveryDays: [5], deliveryFrom: null, ways: { [OTHER]: 35 } },
    });
    expect(sent(depotForm, [...DEPOT, [`ways.${OTHER}`, 'soon']]).faults).toEqual({
      [`ways.${OTHER}`]: 'Give minutes.',
    });
    const closed = DEPOT.map(([name, value]): [string, string] => [name, name === 'closes' ? '07:00' : value]);
    expect(sent(depotForm, closed).faults).toEqual({ closes: 'It closes after it opens.' });
  });

  it('is an absence of whom it names, once or every week, by a rule of its own or by ticked days', () => {
    const fields = [
      ['who', `person ${ID}`],
      ['what', 'course'],
      ['from', '2026-12-07'],
    ] as const;
    expect(sent(absenceForm, fields)).toMatchObject({ input: { of: 'person', ofId: ID, to: '', rule: '' } });
    const weekly = [
      ['weekdays', 'MO'],
      ['weekdays', 'TH'],
      ['until', '2027-06-30'],
    ] as const;
    expect(sent(absenceForm, [...fields, ...weekly])).toMatchObject({
      input: { rule: 'FREQ=WEEKLY;BYDAY=MO,TH;UNTIL=20270630' },
    });
    expect(sent(absenceForm, [...fields, ...weekly, ['rule', 'FREQ=DAILY']])).toMatchObject({
      input: { rule: 'FREQ=DAILY' },
    });
    expect(sent(absenceForm, fields.slice(1)).faults).toHaveProperty('of');
    expect(['of', 'ofId', 'what'].map(absenceForm.fieldName)).toEqual(['who', 'who', 'what']);
  });

  it('is several vehicles or readings where several are ticked', () => {
    const until = [
      ['until', '2026-12-31'],
      ['reason', 'ferry strike'],
      ['component', ''],
    ] as const;
    expect(sent(deferForm, [['ids', `${ID},${OTHER}`], ...until])).toMatchObject({
      input: { vehicleIds: [ID, OTHER], component: undefined },
    });
    expect(sent(deferForm, [['ids', ''], ...until]).faults).toEqual({ vehicleIds: 'Choose at least one vehicle.' });
    const items = [
      ['item', `${ID}|2026-11-02|41310`],
      ['item', `${OTHER}|2026-11-03|22010.5`],
      ['how', 'accept'],
    ] as const;
    expect(sent(resolveReadingsForm, items)).toMatchObject({
      input: { items: [{ vehicleId: ID, readOn: '2026-11-02', odometerKm: 41_310 }, { odometerKm: 22_010.5 }] },
    });
  });

  it('is a delivery with every difference from the sample', () => {
    const box = [
      ...[
        ['orderedNumber', 'NL-3811'],
        ['orderedQuantity', '4'],
        ['deliveredNumber', 'NL-3811'],
        ['quantity', '4'],
      ],
      ...[
        ['source', 'Ferry Parts Store'],
        ['differsFromSample', 'boot'],
        ['differsFromSample', 'marking'],
      ],
    ] as [string, string][];
    expect(sent(deliveryForm, box)).toMatchObject({
      input: { orderedQuantity: 4, quantity: 4, differsFromSample: ['boot', 'marking'] },
    });
    expect(sent(deliveryForm, [...box, ['differsFromSample', 'colour of the van']]).faults).toBeDefined();
  });

  it('is a report of a misfire, its faults at the fields that a person sees', () => {
    const report = [
      ['unitNumber', '104'],
      ['lamp', 'flashing'],
      ['cylinders', '3, 4'],
      ['symptoms', 'idle'],
    ] as const;
    expect(sent(reportForm, report)).toMatchObject({
      input: { unitNumber: '104', complaint: { lamp: 'flashing', cylinders: [3, 4], symptoms: ['idle'] } },
    });
    expect(reportForm.fieldName('complaint.lamp')).toBe('lamp');
  });

  it('is a decision on a misfire, on one cause or on none', () => {
    const decision = [
      ['caseId', ID],
      ['decision', 'refer'],
      ['words', 'to the injector shop'],
    ] as const;
    expect(sent(decideForm, decision)).toMatchObject({ input: { cause: null } });
    const cause = JSON.stringify({ cause: 'injector', cylinders: [4] });
    expect(sent(decideForm, [...decision, ['cause', cause]])).toMatchObject({
      input: { cause: { cause: 'injector' } },
    });
    expect(sent(decideForm, [...decision, ['cause', '{']]).faults).toHaveProperty('cause');
  });
});
