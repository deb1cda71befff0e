import { build, routes } from 'virtual:offline';
import { filledShell, shellFor, shellOf } from './shells';
import { deskKept, type PageWord, type WorkerWord } from './words';

/**
 * Keeps Gribbet in the browser, so that it opens with no server at all (W3C, Service Workers). Two sets: what a student's page
 * needs, which every visit of it keeps, and the whole desk, which is kept when the teacher asks for it. A new version is
 * fetched beside the one that runs and waits until it is told to begin.
 */

/** What of its scope is used: the types of workers and those of pages can't be had together. */
interface Lasting extends Event {
  waitUntil: (work: Promise<unknown>) => void;
}
interface Asked extends Lasting {
  request: Request;
  respondWith: (response: Promise<Response>) => void;
}
interface WorkerScope {
  addEventListener(name: 'install' | 'activate', heard: (event: Lasting) => void): void;
  addEventListener(name: 'fetch', heard: (event: Asked) => void): void;
  addEventListener(name: 'message', heard: (event: Lasting & { data: unknown }) => void): void;
  skipWaiting: () => Promise<void>;
  clients: {
    claim: () => Promise<void>;
    matchAll: (of: { includeUncontrolled: boolean }) => Promise<{ postMessage: (word: PageWord) => void }[]>;
  };
}
const worker = self as unknown as WorkerScope;

const files = (self as unknown as { __WB_MANIFEST: { url: string }[] }).__WB_MANIFEST.map(
  ({ url }) => `/${url.replace(/^\//, '')}`,
);
const known = new Set(files);
const studentPage = '/sit';
const prefix = 'gribbet ';
const current = prefix + build;

worker.addEventListener('install', (event) => event.waitUntil(install()));
worker.addEventListener('activate', (event) => event.waitUntil(activate()));
worker.addEventListener('message', (event) => {
  const word = event.data as WorkerWord;
  if (word === 'begin') event.waitUntil(worker.skipWaiting());
  if (word === 'keep the desk') event.waitUntil(keepDesk().catch(() => tell({ is: 'notKept' })));
});
worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== self.location.origin || pathname.startsWith('/api/')) return;
  if (request.mode === 'navigate') event.respondWith(page(request, pathname));
  else if (known.has(pathname) || pathname.startsWith('/_astro/')) event.respondWith(file(request));
});

async function install(): Promise<void> {
  await keepStudentPage();
  if (await caches.match(deskKept)) await keepDesk();
}

/** What ran until now stays beside it: a tab that was opened with it may still ask for its parts. */
async function activate(): Promise<void> {
  const older = (await caches.keys()).filter((name) => name.startsWith(prefix) && name !== current);
  for (const name of older.slice(0, -1)) await caches.delete(name);
  await worker.clients.claim();
}

/**
 * The student's page: what it imports at once, and what those name to be fetched later. Further parts, large ones for few
 * kinds of question, are kept as they are used: a phone does not fetch what nobody asks it.
 */
async function keepStudentPage(): Promise<void> {
  const cache = await caches.open(current);
  const html = await (await kept(cache, studentPage, true)).text();
  const atOnce = await withImports(cache, named(html, /\/_astro\/([\w.@~-]+)/g));
  await withImports(
    cache,
    atOnce.flatMap((text) => named(text, /import\("\.\/([^"]+)"/g)),
  );
}

/** Keeps these files and all that they import at once. @returns their texts */
async function withImports(cache: Cache, paths: readonly string[]): Promise<string[]> {
  const texts: string[] = [];
  const found = new Set(paths);
  for (const path of found) {
    const response = await kept(cache, path);
    if (!/\.(m?js|css)$/.test(path)) continue;
    const text = await response.text();
    texts.push(text);
    for (const next of named(text, /(?:from|import)"\.\/([^"]+)"|url\((?:\/_astro\/|\.\/)?([^)"]+)\)/g))
      found.add(next);
  }
  return texts;
}

/** The files of ours that a text names in a way; workers are the desk's. */
const named = (text: string, way: RegExp): string[] =>
  [...text.matchAll(way)].flatMap(([, a, b]) => {
    const path = `/_astro/${a ?? b}`;
    return known.has(path) && !path.includes('worker') ? [path] : [];
  });

/** Every page and every file. The mark that all of it is here comes last. */
async function keepDesk(): Promise<void> {
  const cache = await caches.open(current);
  const pages = routes.map(shellOf);
  for (const [at, path] of [...pages, ...files].entries()) {
    await kept(cache, path, at < pages.length);
    await tell({ is: 'keeping', done: at + 1, of: pages.length + files.length });
  }
  await cache.put(deskKept, new Response(build));
  await tell({ is: 'kept' });
}

const tell = async (word: PageWord) => {
  for (const client of await worker.clients.matchAll({ includeUncontrolled: true })) client.postMessage(word);
};

/** Fetches what is not here yet. Files have other names when they are others: an earlier version's will do. */
async function kept(cache: Cache, path: string, isPage = false): Promise<Response> {
  const there = isPage ? await cache.match(path) : await caches.match(path);
  const response = there ?? (await fetch(path, isPage ? { cache: 'reload' } : {}));
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  if (!there || !isPage) await cache.put(path, response.clone());
  return response;
}

/** A page as it is kept, with the ids of its address; from the server where it is not kept. */
async function page(request: Request, path: string): Promise<Response> {
  const shell = shellFor(path, routes);
  const cache = await caches.open(current);
  const there = shell && (await cache.match(shell.address));
  if (!shell || !there) return fetch(request).catch(() => notHere());
  const { status, headers } = there;
  return new Response(filledShell(await there.text(), shell.ids), { status, headers });
}

/** A file as it is kept, of whatever version asks for it; what is used is kept from then on. */
async function file(request: Request): Promise<Response> {
  const there = await caches.match(request);
  if (there) return there;
  const response = await fetch(request);
  if (response.ok && known.has(new URL(request.url).pathname))
    await (await caches.open(current)).put(request, response.clone());
  return response;
}

const notHere = () =>
  new Response(
    '<!doctype html><html lang="en"><meta charset="utf-8"><title>No connection · Gribbet</title><h1>No connection</h1><p>This page isn’t kept on this computer. Connect it and try again, or <a href="/">go to the desk</a>.</p></html>',
    {
      status: 503,
      headers: {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': "default-src 'none'",
      },
    },
  );
