import { readFileSync } from 'node:fs';
import { type APIResponse, expect } from '@playwright/test';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import { test } from './app';
import { User } from './user';

const token = () => readFileSync(process.env.E2E_TOKEN_FILE ?? '', 'utf8').trim();
test.use({ extraHTTPHeaders: { Authorization: `Bearer ${process.env.E2E_TOKEN_FILE ? token() : ''}` } });

test('health needs no token; everything else does', async ({ request, playwright, baseURL }) => {
  const stranger = await playwright.request.newContext({ baseURL, extraHTTPHeaders: {} });
  expect(await (await stranger.get('/api/v1/health')).json()).toMatchObject({
    status: 'ok',
    database: 'ok',
    version: expect.any(String),
  });
  const headerSets: Record<string, string>[] = [{}, { Authorization: 'Bearer isobar_wrong' }];
  for (const headers of headerSets) {
    const refused = await stranger.get('/api/v1/vehicles', { headers });
    expect(refused.status()).toBe(401);
    expect(refused.headers()['content-type']).toContain('application/problem+json');
  }
  expect((await request.get('/api/v1/vehicles')).status()).toBe(200);
});

test('lists come in pages and as CSV', async ({ request }) => {
  const first = await (await request.get('/api/v1/vehicles?limit=50')).json();
  const rest = await (await request.get(`/api/v1/vehicles?limit=50&cursor=${first.next_cursor}`)).json();
  const ids = [...first.items, ...rest.items].map((item: { id: string }) => item.id);
  expect(new Set(ids).size).toBe(72);
  expect(rest.next_cursor).toBeNull();
  const csv = await request.get('/api/v1/vehicles', { headers: { Accept: 'text/csv' } });
  expect((await csv.text()).split('\r\n')[0]).toContain('id,unit_number');
  const due = await (await request.get('/api/v1/due?min_life=1&depot=Machair%20Road')).json();
  expect(due.items.map((item: { unit_number: string }) => item.unit_number)).toContain('15');
  for (const bad of ['/api/v1/vehicles?limit=0', '/api/v1/due?before=tomorrow', '/api/v1/vehicles?cursor=x']) {
    const refused = await request.get(bad);
    expect(refused.status()).toBe(422);
    expect((await refused.json()).errors[0].pointer).toMatch(/^\//);
  }
});

test.describe('calculations keep their fixed shapes', () => {
  const cases: [string, Record<string, unknown>, Record<string, unknown>][] = [
    [
      'quantity',
      { kind: 'gap', text: '.030', person_unit: 'in' },
      { verdict: 'ok', value_si: 0.762, read_as: { number: 0.03, unit: 'in' }, suggestions: [] },
    ],
    [
      'quantity',
      { kind: 'gap', text: '9 mm' },
      { verdict: 'refuse', value_si: null, read_as: null, suggestions: [{ text: '0.90 mm', value_si: 0.9 }] },
    ],
    [
      'gap-check',
      { spec: { min_mm: 1, max_mm: 1.1 }, electrode: 'nickel', policy: 'adjust', measured_mm: [0.8, 0.81, 0.79] },
      { batch: { verdict: 'wrong_application', offset_mm: -0.25, suspects: [] } },
    ],
    [
      'torque-plan',
      {
        spec_nm: { min: 16, max: 19 },
        thread: 'M12',
        seat: 'gasket',
        gasket: 'new',
        head: 'aluminium',
        lubricant: 'dry',
        on: '2026-11-16',
      },
      { target_nm: 17.5, setting: null, wrench_ok: false, angle_deg: { min: 180, max: 240 }, warnings: [] },
    ],
    [
      'use-rate',
      { readings: [0, 20, 40].map((day) => ({ day, km: day * 50 })) },
      { rate_km_per_day: 50, rate_ci80: [50, 50], used: 3 },
    ],
    [
      'due',
      {
        today: '2026-11-16',
        readings: [{ on: '2026-11-16', km: 51_000 }],
        installed: { on: '2025-11-16', km: 11_000 },
        limits: { distance_km: 60_000, months: 48 },
        borrowed_rate_km_per_day: 100,
      },
      {
        odometer_now_km: 51_000,
        binds: 'distance',
        due: { p10: '2027-03-16', p50: '2027-06-04', p90: '2027-10-13' },
        rate_km_per_day: 100,
        borrowed: true,
      },
    ],
    [
      'coil-choice',
      { others: 5, price: 40, labour_per_hour: 80, access_hours: 2, downtime_per_visit: 200, chance_each: 0.05 },
      {
        extra_visit: 400,
        expected_if_one: 100,
        replace_others_now: 200,
        break_even_chance: 0.1,
        advice: 'one',
      },
    ],
    [
      'vin',
      { vin: '1111 1111 1111 11111' },
      { valid: true, check_digit_ok: true, model_years: [2001, 2031], reasons: [] },
    ],
    ['vin', { vin: 'IOQ' }, { valid: false, check_digit_ok: false, model_years: [] }],
    [
      'spark-demand',
      { gap_mm: 0.8, intake_kpa: 100, intake_k: 310, compression_ratio: 10 },
      { volts: expect.closeTo(21467.39, 1) },
    ],
    [
      'spark-demand',
      {
        standard: { gap_mm: 1, intake_kpa: 100, intake_k: 315, compression_ratio: 9.8 },
        boosted_intake_kpa: 170,
      },
      { gap_mm: expect.closeTo(0.588235, 5) },
    ],
    [
      'firing-map',
      {
        cylinders: 4,
        firing_order: [1, 3, 4, 2],
        ignition: 'distributor',
        rotation: 'counterclockwise',
        tower_of_cylinder_1: 2,
      },
      {
        towers: [
          { tower: 1, cylinder: 3 },
          { tower: 2, cylinder: 1 },
          { tower: 3, cylinder: 2 },
          { tower: 4, cylinder: 4 },
        ],
      },
    ],
    [
      'firing-map',
      { cylinders: 6, firing_order: [1, 2, 3, 4, 5, 6], ignition: 'waste_spark' },
      {
        companions: [
          [1, 4],
          [2, 5],
          [3, 6],
        ],
      },
    ],
    [
      'lead-match',
      { needed_mm: [613, 867, 396, 501], new_set_mm: [453, 653, 973, 562] },
      { feasible: true, assignment: [1, 2, 0, 3], total_slack_mm: 264 },
    ],
    [
      'odometer-check',
      {
        history: [1, 11, 21].map((d) => ({ on: `2026-10-${String(d).padStart(2, '0')}`, km: 50_000 + d * 60 })),
        reading: { on: '2026-10-28', value: 32_112, unit: 'km' },
      },
      {
        verdict: 'suspect',
        reasons: ['backwards', 'unit_slip'],
        suggestion: { km: expect.closeTo(51_679, -1), why: 'unit_slip' },
      },
    ],
    ['lead-match', { needed_mm: [900], new_set_mm: [500] }, { feasible: false, assignment: [], total_slack_mm: null }],
  ];
  for (const [name, input, expected] of cases) {
    test(`${name} ${JSON.stringify(input).slice(0, 50)}`, async ({ request }) => {
      const answer = await request.post(`/api/v1/calc/${name}`, { data: input });
      expect(answer.status()).toBe(200);
      expect(await answer.json()).toMatchObject(expected);
    });
  }
});

test('bad input is a problem with a pointer, never a failure of the server', async ({ request }) => {
  const send = async (name: string, body: string) =>
    request.post(`/api/v1/calc/${name}`, { data: Buffer.from(body), headers: { 'Content-Type': 'application/json' } });
  expect((await send('quantity', '{"kind":')).status()).toBe(400);
  expect((await send('quantity', `{"kind":"gap","text":"${'9'.repeat(2_000_000)}"}`)).status()).toBe(413);
  expect((await send('nothing', '{}')).status()).toBe(404);
  const bodies = [
    'null',
    '[]',
    '{}',
    '"x"',
    '{"kind":"gap","text":1}',
    '{"spec":{"min_mm":2,"max_mm":1},"electrode":"nickel","policy":"adjust","measured_mm":[1]}',
    '{"readings":[]}',
    '{"today":"2026-02-30","readings":[],"installed":{},"limits":{}}',
    '{"measured_mm":[1e999]}',
  ];
  for (const name of [
    'quantity',
    'gap-check',
    'torque-plan',
    'use-rate',
    'due',
    'vin',
    'spark-demand',
    'firing-map',
    'lead-match',
    'coil-choice',
    'odometer-check',
  ]) {
    for (const body of bodies) {
      const answer = await send(name, body);
      expect(answer.status(), `${name} ${body}`).toBe(422);
      expect((await answer.json()).errors.length).toBeGreaterThan(0);
    }
  }
});

test('the description is OpenAPI 3.1 and names every path', async ({ request }) => {
  const description = await (await request.get('/api/v1/openapi.json')).json();
  expect(description.openapi).toBe('3.1.0');
  expect(Object.keys(description.paths)).toEqual(
    expect.arrayContaining([
      '/api/v1/health',
      '/api/v1/vehicles',
      '/api/v1/due',
      '/api/v1/calc/quantity',
      '/api/v1/calc/gap-check',
      '/api/v1/calc/torque-plan',
      '/api/v1/calc/use-rate',
      '/api/v1/calc/due',
      '/api/v1/calc/lead-match',
      '/api/v1/vehicles/{id}/fitment',
      '/api/v1/spec-sheets',
    ]),
  );
  expect(
    description.paths['/api/v1/calc/gap-check'].post.requestBody.content['application/json'].schema.required,
  ).toContain('measured_mm');
});

test('fitment answers with a match, a question or nothing', async ({ request }) => {
  const { items } = await (await request.get('/api/v1/vehicles?limit=100')).json();
  const answer = async (unit: string) => {
    const { id } = items.find((item: { unit_number: string }) => item.unit_number === unit);
    return (await request.get(`/api/v1/vehicles/${id}/fitment`)).json();
  };
  expect(await answer('32')).toMatchObject({
    result: 'match',
    quantity: 6,
    blocked_by: [],
    spec: { part_number: 'EM-7310', gap_mm: { min: 1, max: 1.1 }, checked_by: 'M. Vane' },
    question: null,
    components: expect.arrayContaining([
      expect.objectContaining({ component: 'coil', result: 'match', part_number: 'NL-3806', quantity: 6 }),
    ]),
  });
  expect(await answer('129')).toMatchObject({
    result: 'needs-answer',
    spec: null,
    question: { key: 'variant', choices: ['with deactivation', 'without deactivation'] },
  });
  expect(await answer('155')).toMatchObject({ result: 'match', blocked_by: ['makers-disagree'] });
  for (const id of ['x', '00000000-0000-4000-8000-000000000000'])
    expect((await request.get(`/api/v1/vehicles/${id}/fitment`)).status()).toBe(404);
});

test('the parts of a vehicle go with it as a file', async ({ request }) => {
  const { items } = await (await request.get('/api/v1/vehicles?limit=100')).json();
  const { id } = items.find((item: { unit_number: string }) => item.unit_number === '32');
  const answer = await request.get(`/api/v1/vehicles/${id}/history`);
  expect(answer.headers()['content-type']).toContain('text/csv');
  const [head = '', ...rows] = (await answer.text()).trim().split('\r\n');
  expect(head).toContain('gap_fitted_mm');
  expect(rows.filter((row) => row.startsWith('32,plug,')).length).toBeGreaterThanOrEqual(6);
  for (const other of ['x', '00000000-0000-4000-8000-000000000000'])
    expect((await request.get(`/api/v1/vehicles/${other}/history`)).status()).toBe(404);
});

test('the catalogue comes as JSON and as the file that can be imported', async ({ request }) => {
  for (const kind of ['engine-families', 'parts', 'spec-sheets']) {
    const { items } = await (await request.get(`/api/v1/${kind}`)).json();
    const csv = await (await request.get(`/api/v1/${kind}`, { headers: { Accept: 'text/csv' } })).text();
    expect(csv.trim().split('\r\n').length).toBeGreaterThan(items.length);
    // A range stands in one column of the file; the JSON gives its ends as well.
    const columns = csv.split('\r\n')[0]?.split(',') ?? [];
    expect(columns.length).toBeGreaterThan(5);
    expect(Object.keys(items[0]).filter((key) => columns.includes(key))).toEqual(columns);
  }
});

test('a feed sends readings twice and does no harm', async ({ request }) => {
  const readings = [
    { unit_number: '104', on: '2026-11-15', value: 12 },
    { unit_number: '999', on: '2026-11-15', value: 5000 },
    { unit_number: '104', on: '2027-01-01', value: 5000 },
  ];
  const send = async (key: string) =>
    request.post('/api/v1/odometer-readings', { data: { readings }, headers: { 'Idempotency-Key': key } });
  const first = await (await send('feed-1')).json();
  expect(first.results.map((r: { state: string }) => r.state)).toEqual(['suspect', 'refused', 'refused']);
  expect(first.results[1].message).toContain('There is no unit 999');
  expect(await (await send('feed-1')).json()).toEqual(first);
  expect((await (await send('feed-2')).json()).results[0]).toMatchObject({ state: 'known', odometer_km: 12 });
  expect((await request.post('/api/v1/odometer-readings', { data: { readings: [] } })).status()).toBe(422);
});

test('the due list comes by service pressure, with its money', async ({ request }) => {
  const { items, today } = await (await request.get('/api/v1/due?sort=pressure&min_pressure=5&limit=20')).json();
  expect(today).toBe('2026-11-16');
  const pressures: number[] = items.map((item: { pressure_per_week: number }) => item.pressure_per_week);
  expect(pressures.length).toBeGreaterThan(3);
  expect(pressures).toEqual([...pressures].sort((a, b) => b - a));
  expect(Math.min(...pressures)).toBeGreaterThanOrEqual(5);
  for (const item of items) expect(item.failure_cost).toBeGreaterThan(0);
  const refused = await request.get('/api/v1/due?sort=colour');
  expect(refused.status()).toBe(422);
});

test('a file of readings is streamed in whole, told of, and harmless when sent again', async ({ request }) => {
  const rows = Array.from({ length: 300 }, (_, i) => {
    const day = new Date(Date.UTC(2021, 0, 1 + i)).toISOString().slice(0, 10);
    return `103,${day},${1000 + 20 * i},km,file`;
  });
  const data = `unit_number,read_on,odometer,unit,source\n${rows.join('\n')}\n103,2021-13-01,5,km,file\n`;
  const send = (body: string) =>
    request.post('/api/v1/odometer-readings?name=old%20feed.csv', {
      headers: { 'Content-Type': 'text/csv' },
      data: body,
    });
  const first = await send(data);
  expect(first.status()).toBe(200);
  expect(await first.json()).toMatchObject({ added: 300, refused: 1, known: 0, load_id: expect.any(String) });
  expect(await (await send(data)).json()).toMatchObject({ added: 0, known: 300, refused: 1 });
  const { items } = await (await request.get('/api/v1/odometer-loads')).json();
  expect(items[0]).toMatchObject({ file_name: 'old feed.csv', state: 'done', refusals: [{ line: 302 }] });
  const broken = await send('unit_number,read_on,odometer\n103,2021-01-01\n');
  expect(broken.status()).toBe(422);
  expect((await broken.json()).detail).toContain('Nothing was written');
  const gone = await request.delete(`/api/v1/odometer-loads/${items[0].load_id}`);
  expect(gone.status()).toBe(404);
});

test('readings come back page by page and as CSV, each once', async ({ request }) => {
  const keys = new Set<string>();
  let cursor = '';
  for (let pages = 0; pages < 20; pages++) {
    const address = `/api/v1/odometer-readings?limit=400${cursor ? `&cursor=${cursor}` : ''}`;
    const page: { items: { unit_number: string; on: string; odometer_km: number }[]; next_cursor: string | null } =
      await (await request.get(address)).json();
    for (const item of page.items) keys.add(`${item.unit_number} ${item.on} ${item.odometer_km}`);
    if (page.next_cursor === null) break;
    expect(page.items).toHaveLength(400);
    cursor = page.next_cursor;
  }
  expect(keys.size).toBeGreaterThan(1400);
  const own = await (
    await request.get('/api/v1/odometer-readings?unit_number=32&from=2026-10-01&to=2026-10-31')
  ).json();
  expect(own.items.length).toBeGreaterThan(1);
  for (const item of own.items) expect([item.unit_number, item.on.slice(0, 7)]).toEqual(['32', '2026-10']);
  const csv = await request.get('/api/v1/odometer-readings?limit=3', { headers: { Accept: 'text/csv' } });
  expect((await csv.text()).trim().split('\r\n')).toHaveLength(4);
  expect(csv.headers()['x-next-cursor']).toBeTruthy();
  expect((await request.get('/api/v1/odometer-readings?cursor=nonsense')).status()).toBe(422);
});

test('a work order is opened, entered upon and read over HTTP, each once', async ({ request }) => {
  const headers = { 'Idempotency-Key': 'order-45' };
  const tasks = [{ action: 'replace', component: 'plug', places: 'all', why: 'due' }];
  const open = () => request.post('/api/v1/work-orders', { data: { unit_number: '45', tasks }, headers });
  const first = await (await open()).json();
  expect(await (await open()).json()).toEqual(first);
  expect((await request.post('/api/v1/work-orders', { data: { unit_number: '45', tasks } })).status()).toBe(409);
  expect((await request.post('/api/v1/work-orders', { data: { unit_number: '999' } })).status()).toBe(404);
  const path = `/api/v1/work-orders/${first.id}`;
  const entry = {
    id: '7d0f2a52-6f0d-4a3e-9a43-2b1c5f8e9d10',
    target: 'site 1A',
    field: 'newGap',
    value: '1.10 mm',
    base: '',
    at: '2026-11-16T10:00:00Z',
  };
  // A new plug is measured on the bench at any time; the old one is behind its gates.
  const early = { ...entry, id: '7d0f2a52-6f0d-4a3e-9a43-2b1c5f8e9d11', field: 'removedGap' };
  const held = await (await request.post(`${path}/entries`, { data: { entries: [early] } })).json();
  expect(held.results).toMatchObject([{ outcome: 'refused', message: expect.stringContaining('First, before') }]);
  for (let twice = 0; twice < 2; twice++) {
    const { results } = await (await request.post(`${path}/entries`, { data: { entries: [entry] } })).json();
    expect(results).toEqual([{ id: entry.id, outcome: 'kept', message: null }]);
  }
  const order = await (await request.get(path)).json();
  expect(order).toMatchObject({ number: first.number, state: 'in_bay', unit_number: '45' });
  expect(order.sites[0]).toMatchObject({ site: '1A', new_gap_mm: 1.1, removed_gap_mm: null, done: false });
  expect(order.blockers[0]).toMatch(/not done yet/);
  const closed = await request.post(`${path}/close`, { data: { version: order.version, odometer: '1' } });
  expect(closed.status()).toBe(409);
  const list = await (await request.get('/api/v1/work-orders?open=true&unit=45')).json();
  expect(list.items.map(({ id }: { id: string }) => id)).toEqual([first.id]);
  expect((await request.post(`${path}/entries`, { data: { entries: [] } })).status()).toBe(422);
  expect((await request.get('/api/v1/work-orders/nonsense')).status()).toBe(404);
});

test('a visit of several tasks is opened, added to and split over HTTP', async ({ request }) => {
  const task = (component: string, places: unknown, why = 'due') => ({ action: 'replace', component, places, why });
  const tasks = [task('plug', { bank: 'front' }), task('coil', ['2A'], 'finding')];
  const opened = await (await request.post('/api/v1/work-orders', { data: { unit_number: '36', tasks } })).json();
  const path = `/api/v1/work-orders/${opened.id}`;
  const order = await (await request.get(path)).json();
  const [plugs, coil] = order.tasks;
  expect([plugs.action, plugs.component, plugs.places.length]).toEqual(['replace', 'plug', 3]);
  expect(coil.places).toMatchObject([{ place: '2A', target: 'coil 2A', state: 'open', fields: { newNumber: '' } }]);
  expect(order.kit).toEqual([
    { part_number: 'EM-7310', component: 'plug', quantity: 3 },
    { part_number: 'NL-3806', component: 'coil', quantity: 1 },
  ]);
  // A coil of this engine is at cylinder 2 already; a cap it has none.
  const add = (data: object) => request.post(`${path}/tasks`, { data });
  expect((await add({ tasks: [task('coil', 'all')] })).status()).toBe(409);
  expect((await add({ tasks: [task('cap', 'all')] })).status()).toBe(422);
  expect(await (await add({ tasks: [task('seal', ['2A'], 'finding')] })).json()).toMatchObject({ status: 409 });
  expect(await (await add({ tasks: [{ ...task('boot', ['2A']), action: 'inspect' }] })).json()).toEqual({ added: 1 });
  const split = { places: ['coil 2A', 'boot 2A'], reason: 'the boot comes on Friday' };
  const friday = await (await request.post(`${path}/split`, { data: split })).json();
  const there = await (await request.get(`/api/v1/work-orders/${friday.id}`)).json();
  expect(there.tasks.map(({ component }: { component: string }) => component)).toEqual(['coil', 'boot']);
  const here = await (await request.get(path)).json();
  expect(here.tasks[1].places[0].state).toBe('moved');
  expect(here.minutes + there.minutes).toBeGreaterThan(order.minutes);
  const components = await (await request.get('/api/v1/components?unit=32')).json();
  expect(components.items.filter(({ component }: { component: string }) => component === 'plug')).toHaveLength(6);
});

test.describe('what is described is what is answered', () => {
  interface Operation {
    readonly responses: Readonly<
      Record<string, { readonly content?: Readonly<Record<string, { readonly schema: object }>> }>
    >;
  }
  type Described = Readonly<{ paths: Readonly<Record<string, Readonly<Record<string, Operation>>>> }>;
  let described: Described;
  const ajv = new Ajv2020({ strict: false, allErrors: true });
  addFormats.default(ajv);

  /** What in an answer is not as the document says. */
  async function faultsOf(path: string, method: string, answer: APIResponse): Promise<unknown> {
    const told = described.paths[path]?.[method]?.responses[String(answer.status())];
    if (!told) return `${method} ${path} answers ${answer.status()}, which is not described: ${await answer.text()}`;
    const type = (answer.headers()['content-type'] ?? '').split(';')[0] ?? '';
    if (!told.content) return null;
    const schema = told.content[type]?.schema;
    if (!schema) return `${method} ${path} answers ${type}, which is not described`;
    if (!type.endsWith('json')) return null;
    const validate = ajv.compile({ ...schema, components: (described as { components?: object }).components });
    return validate(await answer.json()) ? null : validate.errors;
  }

  test.beforeEach(async ({ request }) => {
    described = await (await request.get('/api/v1/openapi.json')).json();
  });

  test('by every path that is read', async ({ request }) => {
    const order = (await (await request.get('/api/v1/work-orders?open=true&unit=32')).json()).items[0].id;
    const vehicle = (await (await request.get('/api/v1/vehicles?limit=1')).json()).items[0].id;
    const asked = await (await request.post('/api/v1/plan/proposals', { data: { days: 5, seconds: 1 } })).json();
    const misfire = (await (await request.get('/api/v1/cases?limit=1')).json()).items[0].id;
    const ids: Record<string, string> = { vehicles: vehicle, 'work-orders': order, plan: asked.id, cases: misfire };
    let read = 0;
    for (const [path, methods] of Object.entries(described.paths)) {
      if (!methods.get || path.includes('{photo}')) continue;
      const owner = path.split('/')[3] ?? '';
      const answer = await request.get(path.replace('{id}', ids[owner] ?? ''));
      expect([path, answer.status(), await faultsOf(path, 'get', answer)]).toEqual([path, 200, null]);
      read += 1;
      if (!path.includes('{id}')) continue;
      const missing = await request.get(path.replace('{id}', 'no-id'));
      expect([path, missing.status(), await faultsOf(path, 'get', missing)]).toEqual([path, 404, null]);
    }
    expect(read).toBeGreaterThan(14);
  });

  test('by every path that is written', async ({ request }) => {
    const order = (await (await request.get('/api/v1/work-orders?open=true&unit=32')).json()).items[0].id;
    const id = '11111111-1111-4111-8111-111111111111';
    const at = '2026-11-16T08:00:00Z';
    const bodies: Record<string, object> = {
      '/api/v1/odometer-readings': {
        readings: [
          { unit_number: '11', on: '2026-11-12', value: 1 },
          { unit_number: '143', on: '2026-11-12', value: 4000, unit: 'h' },
          { unit_number: 'nobody', on: '2026-11-12', value: 1 },
        ],
      },
      '/api/v1/absences': { of: 'vehicle', of_id: id, what: 'not there', from: '2026-12-01' },
      '/api/v1/plan/moves': { job: `vehicle ${id}`, to: null, version: null },
      '/api/v1/plan/pins': { work_order_id: id, pinned: true, version: 1 },
      '/api/v1/plan/proposals': { days: 0 },
      '/api/v1/plan/proposals/{id}/adopt': {},
      '/api/v1/plan/proposals/{id}/stop': {},
      '/api/v1/cases': { unit_number: 'nobody', lamp: 'on' },
      '/api/v1/cases/{id}/entries': { entries: [{ id, at, said: { kind: 'note', words: 'looked' } }] },
      '/api/v1/cases/{id}/decisions': { decision: 'watch', words: 'it is gone' },
      '/api/v1/follow-ups': { work_order: order, what: 'look again', owner_id: id },
      '/api/v1/work-orders': { unit_number: 'nobody' },
      '/api/v1/work-orders/{id}/tasks': { tasks: [{ action: 'replace', component: 'cap' }] },
      '/api/v1/work-orders/{id}/split': { places: ['site 9A'], reason: 'not there' },
      '/api/v1/work-orders/{id}/entries': { entries: [{ id, target: 'x', field: 'y', value: 1, base: null, at }] },
      '/api/v1/work-orders/{id}/close': { version: 99, odometer: '1' },
      '/api/v1/work-orders/{id}/findings': { finding: 'none', verdict: 'rejected', reason: 'not there' },
      '/api/v1/work-orders/{id}/working': { working: false },
      '/api/v1/work-orders/{id}/codes': { moment: 'before', typed: 'P03' },
      '/api/v1/work-orders/{id}/lifts': { gate: 'threads', reason: 'names no place' },
    };
    const posts = Object.keys(described.paths).filter(
      (path) => described.paths[path]?.post && !path.includes('/calc/'),
    );
    expect(posts.sort()).toEqual(Object.keys(bodies).sort());
    for (const path of posts) {
      for (const data of [bodies[path], {}, 'text']) {
        const answer = await request.post(path.replace('{id}', order), { data });
        expect([path, await faultsOf(path, 'post', answer)]).toEqual([path, null]);
        expect(answer.status()).toBeLessThan(500);
      }
    }
    for (const path of Object.keys(described.paths).filter((p) => p.includes('/calc/'))) {
      const answer = await request.post(path, { data: {} });
      expect([path, answer.status(), await faultsOf(path, 'post', answer)]).toEqual([path, 422, null]);
    }
  });
});

test('a plan of the fleet is asked for, and told of until it is worked out', async ({ request }) => {
  const asked = await request.post('/api/v1/plan/proposals', { data: { days: 10, seconds: 2 } });
  expect(asked.status()).toBe(200);
  const { id } = await asked.json();
  const proposal = async () => (await request.get(`/api/v1/plan/proposals/${id}`)).json();
  await expect.poll(async () => (await proposal()).state, { timeout: 60_000 }).toBe('done');
  const { plan, progress } = await proposal();
  expect(plan.planned.length).toBeGreaterThan(3);
  expect(plan.lower_bound).toBeLessThanOrEqual(plan.cost);
  expect(progress).toMatchObject({ cost: plan.cost, share: 1 });
  for (const { why } of plan.planned) expect(why.message.length).toBeGreaterThan(5);
  // It is over: there is nothing to stop. Adopting it is tried where nobody else works in the same fleet.
  expect((await request.post(`/api/v1/plan/proposals/${id}/stop`)).status()).toBe(404);
  expect((await request.post('/api/v1/plan/proposals', { data: { from: '2020-01-01' } })).status()).toBe(422);
});

test('a request by cookie is taken from our own pages alone', async ({ browser, playwright, baseURL }) => {
  const context = await playwright.request.newContext({ baseURL, extraHTTPHeaders: {} });
  const own = await browser.newContext({ baseURL, extraHTTPHeaders: {} });
  const user = new User(await own.newPage());
  await user.signIn('supervisor');
  const cookie = (await own.cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  await own.close();
  const send = (headers: Record<string, string>) =>
    context
      .post('/api/v1/odometer-readings', {
        headers: { Cookie: cookie, ...headers },
        data: JSON.stringify({ readings: [{ unit_number: 'nobody', on: '2026-11-12', value: 1 }] }),
      })
      .then((answer) => answer.status());
  const json = { 'Content-Type': 'application/json' };
  expect(await send({ ...json, Origin: baseURL ?? '' })).toBe(200);
  expect(await send(json)).toBe(403);
  expect(await send({ ...json, Origin: (baseURL ?? '').replace(/:\d+$/, ':1') })).toBe(403);
  expect(await send({ ...json, Origin: 'null' })).toBe(403);
  expect(await send({ 'Content-Type': 'text/plain', Origin: baseURL ?? '' })).toBe(403);
});

test('a body of any length is read up to its limit', async ({ request }) => {
  const data = JSON.stringify({ readings: [{ unit_number: 'x'.repeat(2_000_000), on: '2026-11-12', value: 1 }] });
  expect(
    (
      await request.post('/api/v1/odometer-readings', { data, headers: { 'Content-Type': 'application/json' } })
    ).status(),
  ).toBe(413);
});
