import { z } from 'zod';
import type { RegisterReply, ToRegister } from '@/core/exchange/register';

/** The school register that the settings name. */
export interface RegisterSettings {
  /** Without a slash at its end. */
  url: string;
  clientId: string;
  clientSecret: string;
}

const gradebook = '/ims/oneroster/gradebook/v1p2';
const scope = 'https://purl.imsglobal.org/spec/or/v1p2/scope/gradebook.createput';
/** What does not answer within this time is taken for away. */
const patienceMs = 20_000;

/** The register does not answer as it should, or lets nobody in. */
export class RegisterAway extends Error {}

/**
 * Puts results into a register (1EdTech OneRoster 1.2, REST Binding; OAuth 2.0 client credentials, RFC 6749 section 4.4). Each is put
 * under its own id, so that doing it again changes nothing.
 */
export async function sendToRegister(
  { url, clientId, clientSecret }: RegisterSettings,
  { item, results }: ToRegister,
  fetcher: typeof fetch = fetch,
): Promise<RegisterReply> {
  const token = await tokenOf({ url, clientId, clientSecret }, fetcher);
  const put = async (kind: string, id: string, body: object) => {
    const response = await asked(fetcher, `${url}${gradebook}/${kind}/${encodeURIComponent(id)}`, {
      method: 'PUT',
      headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    return { status: response.status, words: response.ok ? '' : await wordsOf(response) };
  };
  const ref = (type: string, sourcedId: string) => ({ type, sourcedId, href: '' });
  const common = { status: 'active' };
  const { categorySourcedId, classSourcedId, ...rest } = item;
  const first = [
    await put('categories', categorySourcedId, {
      category: { ...common, sourcedId: categorySourcedId, title: 'Tests' },
    }),
    await put('lineItems', item.sourcedId, {
      lineItem: {
        ...{ ...common, ...rest },
        category: ref('category', categorySourcedId),
        class: ref('class', classSourcedId),
      },
    }),
  ].find(({ status }) => status >= 300);
  if (first) throw new RegisterAway(`The register refused the test itself (${first.status}): ${first.words}`);
  const outcomes: RegisterReply['outcomes'] = [];
  for (const row of results) {
    const { lineItemSourcedId, studentSourcedId, classSourcedId: of, ...result } = row;
    const { status, words } = await put('results', row.sourcedId, {
      result: {
        ...{ ...common, ...result },
        lineItem: ref('lineItem', lineItemSourcedId),
        student: ref('user', studentSourcedId),
        class: ref('class', of),
      },
    });
    outcomes.push({
      id: row.sourcedId,
      is: status === 201 ? 'created' : status < 300 ? 'updated' : 'refused',
      words,
    });
  }
  return { outcomes };
}

async function tokenOf(
  { url, clientId, clientSecret }: RegisterSettings,
  fetcher: typeof fetch,
): Promise<string> {
  const basic = Buffer.from(`${encodeURIComponent(clientId)}:${encodeURIComponent(clientSecret)}`);
  const response = await asked(fetcher, `${url}/token`, {
    method: 'POST',
    headers: {
      authorization: `Basic ${basic.toString('base64')}`,
      'content-type': 'application/x-www-form-urlencoded',
    },
    body: new URLSearchParams({ grant_type: 'client_credentials', scope }).toString(),
  });
  const body: unknown = await response.json().catch(() => null);
  const read = z.object({ access_token: z.string().min(1) }).safeParse(body);
  if (!response.ok || !read.success)
    throw new RegisterAway(`The register lets nobody in (${response.status}).`);
  return read.data.access_token;
}

async function asked(fetcher: typeof fetch, url: string, init: RequestInit): Promise<Response> {
  try {
    return await fetcher(url, { ...init, redirect: 'error', signal: AbortSignal.timeout(patienceMs) });
  } catch {
    throw new RegisterAway('The register could not be reached.');
  }
}

/** What a register says of a refusal: its description, where it has one. */
async function wordsOf(response: Response): Promise<string> {
  const body: unknown = await response.json().catch(() => null);
  const read = z.object({ imsx_description: z.string() }).safeParse(body);
  return (read.success ? read.data.imsx_description : `refused (${response.status})`).slice(0, 400);
}
