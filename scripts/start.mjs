import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt, ensureInstalled, fail, needNode, portTaken } from './machine.mjs';

/** `npm start`: installs and builds what is missing, then serves the app. */

needNode();
const port = Number(process.env.PORT ?? 4321);
if (!Number.isInteger(port) || port < 1 || port > 65_535) fail(`PORT=${process.env.PORT} is not a port.`);
if (await portTaken(port))
  fail(
    `Port ${port} is in use, perhaps by a Gribbet that runs already: http://localhost:${port}\nAnother port: PORT=${port + 1} npm start`,
  );
ensureInstalled();
const build = resolve(ensureBuilt());

process.env.PORT = String(port);
process.env.GRIBBET_BUILD = build;
process.env.HOST ??= '0.0.0.0';
const { handler } = await import(pathToFileURL(join(build, 'server/entry.mjs')).href);
const { default: sirv } = await import('sirv');
const { default: compression } = await import('compression');

const client = join(build, 'client');
// Scripts run as workers, too, which have no page whose policy would hold for them (W3C, CSP Level 3, section 4.2.2).
const workerPolicy = (scripts) =>
  `default-src 'none'; script-src ${scripts}; connect-src 'self'; worker-src 'self'; frame-ancestors 'none'`;
// Those that write and read the codes of pages, and open what is packed in scanned files, run WebAssembly of ours.
const runsWasm = /\/(paper|pdf)\.worker[-.][^/]*\.m?js$/;

// Files are known by name from the start: an answer on its way to the exchange does not wait for a look at the disk.
const files = sirv(client, {
  etag: true,
  brotli: true,
  gzip: true,
  setHeaders(response, path) {
    if (/\.m?js$/.test(path))
      response.setHeader(
        'content-security-policy',
        workerPolicy(runsWasm.test(path) ? "'self' 'wasm-unsafe-eval'" : "'self'"),
      );
    // Their names change when they do.
    if (path.startsWith('/_astro/'))
      response.setHeader('cache-control', 'public, max-age=31536000, immutable');
  },
});

// Pages and replies; a stream of events has to come through as it is told.
const packed = compression({
  filter: (request, response) =>
    !String(response.getHeader('content-type')).startsWith('text/event-stream') &&
    compression.filter(request, response),
});

/** Once it is true, what comes is the last that this process answers. */
let ending = false;
// Behind a proxy of ours the last one in the list is the address it saw; otherwise nobody can say who he is.
const proxied = Boolean(process.env.GRIBBET_ORIGIN);
const server = createServer((request, response) => {
  const said = String(request.headers['x-forwarded-for'] ?? '').split(',');
  request.headers['x-forwarded-for'] =
    (proxied && said.at(-1)?.trim()) || (request.socket.remoteAddress ?? '');
  response.setHeader('x-content-type-options', 'nosniff');
  // A proxy that keeps its connections takes the next one to a server that goes on.
  if (ending) response.setHeader('connection', 'close');
  // A file that is known but was taken away since is not read: it would end the process.
  const path = request.url?.split('?')[0] ?? '';
  if (path.startsWith('/_astro/') && !existsSync(join(client, path))) {
    response.statusCode = 404;
    return response.end();
  }
  files(request, response, () => packed(request, response, () => void handler(request, response)));
});
server.on('error', (error) =>
  fail(
    error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND'
      ? `HOST=${process.env.HOST} is no address of this computer. Without HOST it listens in every network.`
      : `It cannot listen at ${process.env.HOST}:${port} (${error.message}).`,
  ),
);
/** What is under way may take so long when it is ended. */
const endMs = 10_000;
/** Takes nothing new in, finishes what was begun, tells desks that listen to come again, and lets go of the store. */
async function end() {
  if (ending) return;
  ending = true;
  const exchange = await globalThis.gribbetExchange?.catch(() => null);
  exchange?.server.stop();
  const finished = new Promise((resolve) => server.close(resolve));
  await Promise.race([finished, new Promise((resolve) => setTimeout(resolve, endMs))]);
  await exchange?.close();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void end());
server.listen(port, process.env.HOST, async () => {
  const host = ['0.0.0.0', '::'].includes(process.env.HOST) ? 'localhost' : process.env.HOST;
  // Opens the exchange folder, which tells the teacher's secret at the very first start.
  const opened = await fetch(`http://${host}:${port}/api/exchange`).catch(() => null);
  if (!opened || opened.status >= 500)
    fail('The exchange could not be opened; the line above says why. Nothing is served without it.');
  console.log(`\nGribbet is at http://${host}:${port}  (Ctrl C ends it)`);
});
