import { inline4 } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { siteId } from '../engine/model';
import type { JobRecord } from './entry';
import type { OrderModel } from './order-model';
import type { PlugRules } from './place-done';
import { countTarget, placeTarget, stepTarget } from './targets';

const layout = layoutOf(inline4);

/** What its plugs are measured by. */
export const plugRules: PlugRules = {
  component: 'plug',
  partNumber: 'EM-7310',
  accepted: [['EM7310', 'EM7301'], ['EM7311']],
  family: ['EM7310', 'EM7301', 'EM7311', 'EM7300'],
  differs: {
    EM7250: 'reach 19 mm instead of 26.5 mm: Shorter: carbon fills the exposed threads and shrouds the spark.',
  },
  bendsOf: {},
  gap: { minMm: 1, maxMm: 1.1 },
  electrode: 'fine_wire',
  regap: 'ground_only',
  reversals: 0,
  torqueNm: { min: 16, max: 19 },
  reduction: 0,
  lubricant: 'dry',
  head: 'aluminium',
  threadsSay: 'Dry as supplied.',
};

/** A plug service of a four-cylinder engine, as opened. */
export const plugService: OrderModel = {
  layout,
  tasks: [{ id: 'plugs', action: 'replace', component: 'plug', rules: plugRules }],
  places: layout.sites.map((site) => ({
    target: placeTarget('plug', siteId(site)),
    id: siteId(site),
    component: 'plug',
    task: 'plugs',
    name: String(site.cylinder),
    moved: false,
    measured: {},
  })),
  steps: [
    {
      key: 'cold',
      kind: 'cold',
      title: 'Check that the engine is cold',
      perSite: false,
      asks: [
        {
          key: 'temperature',
          what: 'engine temperature',
          kind: 'choice',
          choices: ['cold', 'hot'],
          accepts: ['cold'],
        },
      ],
    },
    { key: 'sites', kind: 'sites', title: 'At each site', perSite: true, asks: [] },
    { key: 'start', kind: 'start', title: 'Start', perSite: false, asks: [] },
    { key: 'lids_1', kind: 'lids', title: 'Refit the cover', perSite: false, asks: [] },
  ],
  counts: [
    { key: 'tools', kind: 'tools', what: 'tools in the bay', expected: null, outStep: 'layout', backStep: 'count' },
    { key: 'screws_1', kind: 'screws', what: 'cover screw M6', expected: 4, outStep: 'lids_out_1', backStep: 'lids_1' },
  ],
  codesKept: [],
  photos: [],
  followUps: 0,
  wrenches: [],
  today: '2026-11-16',
  mayIsolate: true,
  lifts: [],
};

/** Its record before anybody has said anything. */
export const untouched: JobRecord = Object.fromEntries([
  ['order', { trayFirst: null }],
  ...plugService.places.map(({ target }) => [target, { done: false, seen: {} }] as const),
  ...plugService.steps.map(({ key }) => [stepTarget(key), { state: 'open' }] as const),
  ...plugService.counts.map(({ key }) => [countTarget(key), { out: null, back: null }] as const),
]);

/** The same with the engine cold, as it has to be before a plug comes out. */
export const cold: JobRecord = { ...untouched, [stepTarget('cold')]: { state: 'done', 'answer.temperature': 'cold' } };
