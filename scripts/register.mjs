import { createServer } from 'node:http';
import { pathToFileURL } from 'node:url';

/**
 * `npm run register`: a small stand-in for a school register, in memory. It takes categories, line items and results by the
 * OneRoster 1.2 REST binding with OAuth 2 client credentials, shows what it got, and refuses what a register would.
 */

const gradebook = '/ims/oneroster/gradebook/v1p2';

/** @param known the numbers of the students it knows; none named: all */
export function registerServer({ clientId = 'gribbet', clientSecret = 'tide tables', known = null } = {}) {
  const kept = { categories: new Map(), lineItems: new Map(), results: new Map() };
  const tokens = new Set();
  let puts = 0;
  const answer = async (request, response) => {
    const path = new URL(request.url, 'http://register').pathname;
    const send = (status, body) => {
      response.writeHead(status, { 'content-type': 'application/json' });
      response.end(JSON.stringify(body));
    };
    const refuse = (status, words) =>
      send(status, { imsx_codeMajor: 'failure', imsx_severity: 'error', imsx_description: words });
    let text = '';
    for await (const chunk of request) text += chunk;
    if (path === '/' && request.method === 'GET') {
      response.writeHead(200, { 'content-type': 'text/plain; charset=utf-8' });
      return response.end(told(kept));
    }
    if (path === '/token' && request.method === 'POST') {
      const [, basic = ''] = (request.headers.authorization ?? '').split('Basic ');
      const [id, secret] = Buffer.from(basic, 'base64').toString().split(':').map(decodeURIComponent);
      const asked = new URLSearchParams(text);
      if (id !== clientId || secret !== clientSecret) return send(401, { error: 'invalid_client' });
      if (asked.get('grant_type') !== 'client_credentials')
        return send(400, { error: 'unsupported_grant_type' });
      const token = `token-${tokens.size + 1}-${Math.random().toString(36).slice(2)}`;
      tokens.add(token);
      return send(200, { access_token: token, token_type: 'bearer', expires_in: 3600 });
    }
    if (!tokens.has((request.headers.authorization ?? '').replace('Bearer ', '')))
      return refuse(401, 'No token, or one that is not known.');
    const [, kind, id] = new RegExp(`^${gradebook}/(categories|lineItems|results)/(.+)$`).exec(path) ?? [];
    if (!kind) return refuse(404, 'There is nothing here.');
    const key = decodeURIComponent(id);
    if (request.method === 'GET')
      return kept[kind].has(key) ? send(200, kept[kind].get(key)) : refuse(404, 'Not known.');
    if (request.method !== 'PUT') return refuse(405, 'Only GET and PUT.');
    puts++;
    let row;
    try {
      row = Object.values(JSON.parse(text))[0];
    } catch {
      return refuse(400, 'This is no JSON.');
    }
    const why =
      row.sourcedId === key ? fault(kind, row, kept, known) : 'The id is another one than in the address.';
    if (why) return refuse(422, why);
    const isNew = !kept[kind].has(key);
    kept[kind].set(key, row);
    send(isNew ? 201 : 200, {});
  };
  const server = createServer((request, response) => void answer(request, response));
  return { server, kept, putCount: () => puts };
}

function fault(kind, row, kept, known) {
  if (kind !== 'results') return null;
  const item = kept.lineItems.get(row.lineItem?.sourcedId);
  if (!item) return 'The line item is not known.';
  if (known && !known.includes(row.student?.sourcedId))
    return `No student has the number ${row.student?.sourcedId}.`;
  if (row.score !== null && !(row.score >= item.resultValueMin && row.score <= item.resultValueMax))
    return `A score of ${row.score} is not between ${item.resultValueMin} and ${item.resultValueMax}.`;
  return null;
}

/** What it got, as plain text. */
function told({ lineItems, results }) {
  const lines = ['A school register, for trying things out. Nothing is kept when it ends.', ''];
  for (const item of lineItems.values()) {
    lines.push(`${item.title} (of ${item.resultValueMax})`);
    for (const row of results.values())
      if (row.lineItem.sourcedId === item.sourcedId)
        lines.push(`  ${row.student.sourcedId}  ${row.scoreStatus}  ${row.score ?? '–'}  ${row.textScore}`);
  }
  return `${lines.join('\n')}\n`;
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const port = Number(process.env.REGISTER_PORT ?? 4322);
  registerServer().server.listen(port, () =>
    console.log(
      `The register is at http://localhost:${port}  (Ctrl C ends it)\nGRIBBET_REGISTER_URL=http://localhost:${port} GRIBBET_REGISTER_ID=gribbet GRIBBET_REGISTER_SECRET='tide tables' npm start`,
    ),
  );
}
