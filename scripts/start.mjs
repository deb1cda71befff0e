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
await import('../dist/server/entry.mjs');
console.log(`\nGribbet is at http://localhost:${port}  (Ctrl C ends it)`);
