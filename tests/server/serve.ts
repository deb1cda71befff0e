import { createServer } from 'node:http';
import { Readable } from 'node:stream';
import { exchangeServer } from '@/server/exchangeServer';
import { openStore } from '@/server/openStore';
import type { Log } from '@/server/serverLog';
import { settingsFrom } from '@/server/settings';

/** The classroom server without the pages, for tests that start and kill it often. Says its port when it listens. */
const settings = settingsFrom(process.env);
const log: Log = (line, more) => {
  if (!more) console.log(`log ${line}`);
};
const server = exchangeServer(await openStore(settings, log), settings, log);

createServer((request, response) => {
  const address = `http://${request.headers.host}${request.url}`;
  const hasBody = request.method !== 'GET' && request.method !== 'HEAD';
  const asked = new Request(address, {
    method: request.method ?? 'GET',
    headers: Object.fromEntries(
      Object.entries(request.headers).map(([name, value]) => [name, String(value)]),
    ),
    ...(hasBody && { body: Readable.toWeb(request) as ReadableStream, duplex: 'half' }),
  });
  void server.answer(asked, request.socket.remoteAddress ?? '', Date.now()).then(async (answer) => {
    response.writeHead(answer.status, Object.fromEntries(answer.headers));
    response.end(Buffer.from(await answer.arrayBuffer()));
  });
}).listen(settings.port, '127.0.0.1', function (this: { address(): unknown }) {
  console.log(`port ${(this.address() as { port: number }).port}`);
});
