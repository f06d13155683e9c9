import { useState } from 'react';
import type { PersonId } from '../../src/core/shared/kinds';
import type { JobRecord, Json } from '../../src/core/work/entry';
import type { FloorJob, FloorPlace, FloorTask } from '../../src/core/work/job-record';
import { cold, plugRules, plugService } from '../../src/core/work/order-model.fixture';
import type { PartRules } from '../../src/core/work/place-done';
import type { Floor } from '../../src/ui/floor/sync/use-floor';

const AT_PLACE = {
  expectedNumber: 'EM-7301',
  expectedKeys: ['EM7301', 'EM7310'],
  expectedTag: null,
  lengthMm: null,
  fittedGapMm: 1.05,
  sinceKm: 60_000,
  doneBy: null,
  fittedWith: null,
  redo: false,
};

/** What the coils of the same engine are measured by. */
const coilRules: PartRules = {
  component: 'coil',
  partNumber: 'NL-3811',
  accepted: [['NL3811']],
  family: ['NL3811'],
  differs: {},
  torqueNm: { min: 8, max: 10 },
  primaryOhm: { min: 0.5, max: 0.7 },
  secondaryOhm: null,
  ohm: null,
  maxOhmPerMetre: null,
  leads: [],
};

const plugTask: FloorTask = {
  id: 'plugs',
  action: 'replace',
  component: 'plug',
  rules: plugRules,
  why: 'due',
  targetNm: 17.5,
  source: 'sheet SM-4, revision 3',
};
/** A coil that is tested, and only replaced where it fails. */
export const coilTask: FloorTask = {
  ...plugTask,
  id: 'coils',
  action: 'test',
  component: 'coil',
  rules: coilRules,
  targetNm: 9,
};
const [site] = plugService.places;
export const coilPlace: FloorPlace = {
  ...AT_PLACE,
  target: 'coil 1A',
  id: '1A',
  component: 'coil',
  task: 'coils',
  name: 'coil 1',
  moved: false,
  measured: {},
  sites: ['1A'],
  expectedNumber: 'NL-3811',
  expectedKeys: ['NL3811'],
  expectedTag: 'C-0417',
};

/** A plug service of an inline four whose first coil is tested, as a device carries it. */
export const job: FloorJob = {
  ...plugService,
  orderId: 'order',
  orderNumber: 1001,
  live: true,
  unitNumber: '15',
  vehicleName: 'mobile library',
  engineCode: 'AG-11T',
  hybrid: false,
  caution: 'Cold engine.',
  dash: { shown: 41_310, unit: 'km' },
  plug: { rules: plugRules, seat: 'gasket', thread: 'M12', targetNm: 17.5, source: 'sheet SM-4, revision 3' },
  tasks: [plugTask, coilTask],
  sheetChanged: null,
  noteBefore: null,
  sites: plugService.layout.sites.map((each, i) => ({
    ...each,
    id: `${i + 1}A`,
    name: String(i + 1),
    where: `${i + 1}. from the left`,
  })) as unknown as FloorJob['sites'],
  places: [...plugService.places.map((place) => ({ ...AT_PLACE, ...place, sites: [place.id] })), coilPlace],
  steps: plugService.steps.map((step) => ({
    ...step,
    phase: 'prepare',
    why: null,
    caution: null,
    tools: [],
    consumables: [],
    minutes: null,
  })),
  record: { ...cold, 'coil 1A': { done: false, seen: {} } },
  differences: [],
  photos: [],
  photosBefore: [],
  decided: [],
  stops: [],
  workingSince: null,
  minutes: 60,
  minutesWorked: 0,
  hasCodeReader: false,
  demo: false,
  units: 'metric',
  personId: 'vane' as PersonId,
  asOf: '2026-11-16T08:00:00Z',
};

/** The first plug of the job. */
export const plugPlace = job.places.find(({ target }) => target === site?.target) as FloorPlace;

/** A job that keeps what is entered in memory, as the device does while it cannot send. */
export function useJobInMemory(begun: JobRecord = {}, over: Partial<FloorJob> = {}): Floor {
  const [record, setRecord] = useState<JobRecord>({ ...job.record, ...begun });
  const set = (target: string, field: string, value: Json) =>
    setRecord((before) => ({ ...before, [target]: { ...before[target], [field]: value } }));
  const floor = { job: { ...job, ...over }, record, set, edit: () => undefined, photos: [], addPhoto: () => undefined };
  return floor as unknown as Floor;
}
