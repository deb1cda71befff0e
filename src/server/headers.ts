import { createHash } from 'node:crypto';

/** What every answer says to the browser, whatever it is. */
export const everywhere: Record<string, string> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'geolocation=(), microphone=(), payment=(), usb=()',
};

/**
 * The content security policy (W3C, CSP Level 3) of a page: scripts from here alone, and of those written into the page
 * only the ones that we shipped, by their digest. Styles are written into elements by the component library.
 *
 * @param html the page as it is sent
 */
export function pagePolicy(html: string): string {
  const digests = [...html.matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(
    ([, text]) =>
      `'sha256-${createHash('sha256')
        .update(text ?? '')
        .digest('base64')}'`,
  );
  return [
    "default-src 'self'",
    `script-src 'self' ${[...new Set(digests)].join(' ')}`.trim(),
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "media-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "frame-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

/** What does not run or show anything by itself. */
export const dataPolicy = "default-src 'none'; frame-ancestors 'none'";
