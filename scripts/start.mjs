import { createServer } from 'node:http';
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
process.env.ASTRO_NODE_AUTOSTART = 'disabled';
const { handler } = await import('../dist/server/entry.mjs');

// Behind a proxy of ours the last one in the list is the address it saw; otherwise nobody can say who he is.
const proxied = Boolean(process.env.GRIBBET_ORIGIN);
const server = createServer((request, response) => {
  const said = String(request.headers['x-forwarded-for'] ?? '').split(',');
  request.headers['x-forwarded-for'] =
    (proxied && said.at(-1)?.trim()) || (request.socket.remoteAddress ?? '');
  response.setHeader('x-content-type-options', 'nosniff');
  void handler(request, response);
});
server.listen(port, process.env.HOST, async () => {
  // Opens the exchange folder, which tells the teacher's secret at the very first start.
  await fetch(`http://127.0.0.1:${port}/api/exchange`).catch(() => undefined);
  console.log(`\nGribbet is at http://localhost:${port}  (Ctrl C ends it)`);
});
