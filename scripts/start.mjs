import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
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
ensureBuilt();

process.env.PORT = String(port);
process.env.HOST ??= '0.0.0.0';
const { handler } = await import('../dist/server/entry.mjs');
const { default: sirv } = await import('sirv');

// Files are known by name from the start: an answer on its way to the exchange does not wait for a look at the disk.
const files = sirv(fileURLToPath(new URL('../dist/client', import.meta.url)), {
  etag: true,
  setHeaders(response, path) {
    // Their names change when they do.
    if (path.startsWith('/_astro/'))
      response.setHeader('cache-control', 'public, max-age=31536000, immutable');
  },
});

// Behind a proxy of ours the last one in the list is the address it saw; otherwise nobody can say who he is.
const proxied = Boolean(process.env.GRIBBET_ORIGIN);
const server = createServer((request, response) => {
  const said = String(request.headers['x-forwarded-for'] ?? '').split(',');
  request.headers['x-forwarded-for'] =
    (proxied && said.at(-1)?.trim()) || (request.socket.remoteAddress ?? '');
  response.setHeader('x-content-type-options', 'nosniff');
  files(request, response, () => void handler(request, response));
});
server.listen(port, process.env.HOST, async () => {
  // Opens the exchange folder, which tells the teacher's secret at the very first start.
  await fetch(`http://127.0.0.1:${port}/api/exchange`).catch(() => undefined);
  console.log(`\nGribbet is at http://localhost:${port}  (Ctrl C ends it)`);
});
