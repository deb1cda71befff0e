import { defineMiddleware } from 'astro:middleware';
import { dataPolicy, everywhere, pagePolicy } from './server/headers';
import { builtImports, withPreloads } from './server/preloads';

const imports = builtImports();

/** Strict headers on everything that is answered; pages name what they will need. */
export const onRequest = defineMiddleware(async (_context, next) => {
  const response = await next();
  for (const [name, value] of Object.entries(everywhere)) response.headers.set(name, value);
  if (!response.headers.get('content-type')?.startsWith('text/html')) {
    response.headers.set('content-security-policy', dataPolicy);
    return response;
  }
  // While developing, the pages carry scripts that change as the code does.
  if (import.meta.env.DEV) return response;
  const html = withPreloads(await response.text(), imports);
  response.headers.set('content-security-policy', pagePolicy(html));
  return new Response(html, response);
});
