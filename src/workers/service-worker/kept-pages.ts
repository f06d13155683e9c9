/** Pages at the vehicle, jobs and misfires in hand, and the files they are made of, kept on the device so that they open with the network gone. */

const AT_VEHICLE = /^\/(work-orders\/[0-9a-f-]{36}\/floor|misfires\/[0-9a-f-]{36}\/vehicle)$/;
const FILES_FOLDER = '/_next/static/';
/** What works a misfire out stands beside the pages. */
const OTHER_FILES: readonly string[] = ['/misfire.js'];
const isFile = (path: string): boolean => path.startsWith(FILES_FOLDER) || OTHER_FILES.includes(path);
/** Where a kept page says which files it is made of. */
const FILES_HEADER = 'X-Kept-Files';
/** A technician has a few jobs in hand; those opened longest ago go first. */
const MAX_PAGES = 20;
/** So long the network may take before the kept page stands in for it, ms. */
const WAIT_MS = 4000;

/** What of the browser this rests on; a test plays it. */
interface Device {
  readonly caches: Pick<CacheStorage, 'open' | 'delete'>;
  readonly fetch: (request: Request | string, init?: RequestInit) => Promise<Response>;
  /** Resolves when so many ms have passed. */
  readonly wait: (ms: number) => Promise<void>;
  readonly origin: string;
}

export interface KeptPages {
  /** Keeps the page of a job and its files; any other page, or one that fails midway, is not kept. */
  readonly keep: (page: string, files: readonly string[]) => Promise<void>;
  /** The answer to a request, or null where it is none of ours and goes its usual way. */
  readonly answer: (request: Request) => Promise<Response> | null;
  /** Leaves no page of another person behind: called when anybody signs in or out. */
  readonly forget: () => Promise<void>;
}

export function keptPages({ caches, fetch, wait, origin }: Device): KeptPages {
  const pages = () => caches.open('isobar-floor-pages');
  const files = () => caches.open('isobar-files');

  let last: Promise<void> = Promise.resolve();

  /** One page after the other: letting go must not take the files of a page that is not stored yet. */
  function keep(page: string, needed: readonly string[]): Promise<void> {
    last = last.catch(() => undefined).then(() => store(page, needed));
    return last;
  }

  async function store(page: string, needed: readonly string[]): Promise<void> {
    if (!AT_VEHICLE.test(page)) return;
    const wanted = needed.filter(isFile);
    const job = await jobIn(await fetch(page, { credentials: 'same-origin', redirect: 'manual' }), wanted);
    if (!job) return;
    const kept = await files();
    await Promise.all(wanted.map((file) => storeFile(kept, file)));
    const open = await pages();
    // Deleted first, so that it stands last: the first are those opened longest ago.
    await open.delete(page);
    await open.put(page, job);
    await letGo();
  }

  async function storeFile(kept: Cache, file: string): Promise<void> {
    if (await kept.match(file)) return;
    const answer = await fetch(file);
    if (answer.ok) await kept.put(file, answer);
  }

  /** Drops the oldest pages, and files that no kept page is made of any more. */
  async function letGo(): Promise<void> {
    const store = await pages();
    const names = await store.keys();
    await Promise.all(names.slice(0, Math.max(0, names.length - MAX_PAGES)).map((name) => store.delete(name)));
    const needed = new Set<string>();
    for (const name of await store.keys()) for (const file of filesOf(await store.match(name))) needed.add(file);
    const kept = await files();
    await Promise.all(
      (await kept.keys())
        .filter(({ url }) => !needed.has(new URL(url, origin).pathname))
        .map((request) => kept.delete(request)),
    );
  }

  async function fromFiles(request: Request): Promise<Response> {
    return (await (await files()).match(request)) ?? fetch(request);
  }

  /** The page as the server has it; the kept one when the server cannot give it whole within the time. */
  async function networkFirst(request: Request, path: string): Promise<Response> {
    const kept = await (await pages()).match(path);
    if (!kept) return fetch(request);
    const whole = fetch(request).then((answer) => (isRefusal(answer) ? answer : jobIn(answer, [])));
    return (await Promise.race([whole.catch(() => null), wait(WAIT_MS).then(() => null)])) ?? kept;
  }

  return {
    keep,
    answer(request) {
      const url = new URL(request.url);
      if (request.method !== 'GET' || url.origin !== origin) return null;
      if (isFile(url.pathname)) return fromFiles(request);
      return request.mode === 'navigate' && AT_VEHICLE.test(url.pathname) ? networkFirst(request, url.pathname) : null;
    },
    forget: () => caches.delete('isobar-floor-pages').then(() => undefined),
  };
}

/** Signed out, or not theirs: no page that was kept may stand for it. */
const isRefusal = ({ type, status }: Response) => type === 'opaqueredirect' || (status >= 400 && status < 500);

/** The answer once it has come whole; null where it is no job: a page that fails midway comes as 200 all the same. */
async function jobIn(answer: Response, files: readonly string[]): Promise<Response | null> {
  if (!answer.ok) return null;
  const page = await answer.text();
  if (!page.includes('data-at-vehicle')) return null;
  const headers = new Headers(answer.headers);
  // The text is unpacked already.
  for (const name of ['Content-Encoding', 'Content-Length']) headers.delete(name);
  headers.set(FILES_HEADER, encodeURI(files.join(' ')));
  return new Response(page, { headers });
}

const filesOf = (page: Response | undefined): readonly string[] =>
  decodeURI(page?.headers.get(FILES_HEADER) ?? '')
    .split(' ')
    .filter((file) => file !== '');
