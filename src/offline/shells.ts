/** Pages as they are kept for use without a network: each route once, whatever ids an address has. */

/** What stands in a kept page where an id belongs. */
const placeholder = (name: string) => `0${name}0`;

/** The address under which the page of a route is fetched to be kept. */
export const shellOf = (route: string): string =>
  route.replace(/\[(\w+)\]/g, (_, name: string) => placeholder(name));

/** A kept page, and what its address says where ids belong. */
export interface Shell {
  address: string;
  ids: Record<string, string>;
}

/**
 * Finds the kept page of an address.
 *
 * @param routes as the pages are filed: `/papers/[id]`
 * @returns null where there is no such page, or an id is none that we give
 */
export function shellFor(path: string, routes: readonly string[]): Shell | null {
  const parts = path.replace(/\/$/, '').split('/');
  let found: Shell | null = null;
  for (const route of routes) {
    const ids = idsIn(parts, route.replace(/\/$/, '').split('/'));
    // A name of its own goes before one that fits any.
    if (ids && (found === null || Object.keys(ids).length < Object.keys(found.ids).length))
      found = { address: shellOf(route), ids };
  }
  return found;
}

function idsIn(parts: readonly string[], route: readonly string[]): Record<string, string> | null {
  if (parts.length !== route.length) return null;
  const ids: Record<string, string> = {};
  for (const [at, name] of route.entries()) {
    const id = /^\[(\w+)\]$/.exec(name)?.[1];
    const part = parts[at] ?? '';
    if (id === undefined ? part !== name : !/^[\w-]+$/.test(part)) return null;
    if (id !== undefined) ids[id] = part;
  }
  return ids;
}

/** A kept page with its ids put in. */
export const filledShell = (html: string, ids: Readonly<Record<string, string>>): string =>
  html.replace(/&quot;0(\w+?)0&quot;/g, (whole, name: string) =>
    name in ids ? `&quot;${ids[name]}&quot;` : whole,
  );
