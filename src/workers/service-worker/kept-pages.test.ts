import { beforeEach, describe, expect, it } from 'vitest';
import { type KeptPages, keptPages } from './kept-pages';

const ORIGIN = 'http://isobar.test';
const pathOf = (request: Request | string) =>
  new URL(typeof request === 'string' ? request : request.url, ORIGIN).pathname;
const floor = (n: number) => `/work-orders/00000000-0000-4000-8000-${String(n).padStart(12, '0')}/floor`;
const file = (name: string) => `/_next/static/${name}.js`;
const job = (text = 'job') =>
  new Response(`<main data-at-vehicle>${text}</main>`, { headers: { 'Content-Length': '9' } });

/** A cache in memory, in the order in which things were put, as a browser keeps it. */
class MemoryCache {
  readonly kept = new Map<string, Response>();
  readonly match = async (request: Request | string) => this.kept.get(pathOf(request))?.clone();
  readonly put = async (request: Request | string, answer: Response) => void this.kept.set(pathOf(request), answer);
  readonly delete = async (request: Request | string) => this.kept.delete(pathOf(request));
  readonly keys = async () => [...this.kept.keys()].map((path) => ({ url: `${ORIGIN}${path}` }));
}

let stores: Map<string, MemoryCache>;
/** What the server says to each path; a path that is not there is a network that is gone. */
let server: Map<string, () => Response | Promise<Response>>;
let asked: string[];
let timeIsUp: () => void;
let kept: KeptPages;

beforeEach(() => {
  stores = new Map();
  server = new Map();
  asked = [];
  const open = async (name: string) => {
    const store = stores.get(name) ?? new MemoryCache();
    stores.set(name, store);
    return store as never;
  };
  kept = keptPages({
    caches: { open, delete: async (name) => stores.delete(name) },
    fetch: async (request) => {
      const path = pathOf(request);
      asked.push(path);
      const answer = server.get(path);
      if (!answer) throw new TypeError('the network is gone');
      return answer();
    },
    wait: () =>
      new Promise((resolve) => {
        timeIsUp = resolve;
      }),
    origin: ORIGIN,
  });
});

const get = (path: string, mode: RequestMode = 'navigate', origin = ORIGIN) =>
  kept.answer({ method: 'GET', mode, url: `${origin}${path}` } as Request);
const textOf = async (path: string) => (await get(path))?.text();
const keep = async (n: number, names: readonly string[] = ['a']) => {
  server.set(floor(n), () => job(`job ${n}`));
  for (const name of names) server.set(file(name), () => new Response(name));
  await kept.keep(floor(n), names.map(file));
};

describe('a page at the vehicle', () => {
  it('opens with its files when the network is gone', async () => {
    await keep(1, ['a', 'b']);
    server.clear();
    expect(await textOf(floor(1))).toContain('job 1');
    expect(await (await get(file('b'), 'no-cors'))?.text()).toBe('b');
  });

  it('is the server’s as long as it answers', async () => {
    await keep(1);
    server.set(floor(1), () => job('newer'));
    expect(await textOf(floor(1))).toContain('newer');
  });

  it('is the kept one when the server takes too long', async () => {
    await keep(1);
    server.set(floor(1), () => new Promise<Response>(() => undefined));
    const opened = textOf(floor(1));
    await expect.poll(() => timeIsUp).toBeTypeOf('function');
    timeIsUp();
    expect(await opened).toContain('job 1');
  });

  it.each([
    ['fails midway', () => new Response('<main>half')],
    ['cannot be given', () => new Response('', { status: 503 })],
  ])('is the kept one when the server’s %s', async (_, answer) => {
    await keep(1);
    server.set(floor(1), answer);
    expect(await textOf(floor(1))).toContain('job 1');
  });

  it.each([401, 403, 404])('never stands for a refusal: %i', async (status) => {
    await keep(1);
    server.set(floor(1), () => new Response('no', { status }));
    expect(await textOf(floor(1))).toBe('no');
  });

  it('is asked of the network where none is kept', async () => {
    await expect(get(floor(1))).rejects.toThrow('the network is gone');
  });

  it('is left behind for nobody else', async () => {
    await keep(1);
    await kept.forget();
    server.clear();
    await expect(get(floor(1))).rejects.toThrow('the network is gone');
  });
});

describe('keeping', () => {
  it('takes only whole pages of jobs, and only files of the app', async () => {
    server.set('/due', () => job());
    await kept.keep('/due', []);
    server.set(floor(1), () => new Response('<main>half'));
    await kept.keep(floor(1), [file('a')]);
    await keep(2);
    server.set('/elsewhere.js', () => new Response('x'));
    await kept.keep(floor(2), [file('a'), '/elsewhere.js']);
    expect([...(stores.get('isobar-floor-pages')?.kept.keys() ?? [])]).toEqual([floor(2)]);
    expect([...(stores.get('isobar-files')?.kept.keys() ?? [])]).toEqual([file('a')]);
  });

  it('two at once leaves both whole', async () => {
    await Promise.all([keep(1, ['a', 'one']), keep(2, ['b', 'two'])]);
    server.clear();
    for (const name of ['a', 'one', 'b', 'two']) expect(await (await get(file(name), 'no-cors'))?.text()).toBe(name);
  });

  it('fetches a file once', async () => {
    await keep(1);
    await keep(2);
    expect(asked.filter((path) => path === file('a'))).toHaveLength(1);
  });

  it('lets go of the pages opened longest ago, and of files that no page needs', async () => {
    await keep(1, ['old', 'shared']);
    for (let n = 2; n <= 20; n++) await keep(n, ['shared', `own-${n}`]);
    await keep(2, ['shared', 'own-2']);
    expect(stores.get('isobar-floor-pages')?.kept.size).toBe(20);
    await keep(21, ['shared']);
    await keep(22, ['shared']);
    const pages = [...(stores.get('isobar-floor-pages')?.kept.keys() ?? [])];
    expect(pages).toHaveLength(20);
    expect(pages).toContain(floor(2));
    expect(pages).not.toContain(floor(1));
    expect(pages).not.toContain(floor(3));
    const files = [...(stores.get('isobar-files')?.kept.keys() ?? [])];
    expect(files).toContain(file('shared'));
    expect(files).toContain(file('own-2'));
    expect(files).not.toContain(file('old'));
    expect(files).not.toContain(file('own-3'));
  });
});

describe('any other request', () => {
  it.each([
    ['another page', '/due', 'navigate', ORIGIN],
    ['data of the page', floor(1), 'cors', ORIGIN],
    ['another origin', file('a'), 'no-cors', 'http://elsewhere.test'],
  ] as const)('goes its usual way: %s', (_, path, mode, origin) => {
    expect(get(path, mode, origin)).toBeNull();
  });

  it('that writes is never answered from here', () => {
    expect(kept.answer({ method: 'POST', mode: 'navigate', url: `${ORIGIN}${floor(1)}` } as Request)).toBeNull();
  });
});
