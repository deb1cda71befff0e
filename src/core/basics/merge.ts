/** Changes made in two places to the same row, put together field by field. */

/** A field that was changed in both, to different values: what the other place had put there. */
export interface Clash {
  /** Names of fields and ids of items from the row down to the field. */
  path: string[];
  theirs: unknown;
}

type Fields = Record<string, unknown>;

const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);
const isFields = (value: unknown): value is Fields =>
  value !== null && typeof value === 'object' && !Array.isArray(value);
const isItems = (value: unknown): value is (Fields & { id: string })[] =>
  Array.isArray(value) &&
  value.length > 0 &&
  value.every((each) => isFields(each) && typeof each.id === 'string');

/**
 * What was changed here, on top of what is stored now. Objects are put together by field, lists of things with ids by id;
 * anything else that was changed in both places is as it was changed here, and told.
 *
 * @param base as it was when it was opened here
 * @param mine as it is here
 * @param theirs as it is stored now
 */
export function merged<T>(base: T, mine: T, theirs: T): { row: T; clashes: Clash[] } {
  const clashes: Clash[] = [];
  const row = joined(base, mine, theirs, [], clashes);
  return { row: row as T, clashes };
}

function joined(base: unknown, mine: unknown, theirs: unknown, path: string[], clashes: Clash[]): unknown {
  if (same(base, mine) || same(mine, theirs)) return theirs;
  if (same(base, theirs)) return mine;
  const lists = [base, mine, theirs].filter((each) => !(Array.isArray(each) && each.length === 0));
  if ([base, mine, theirs].every(Array.isArray) && lists.length > 1 && lists.every(isItems))
    return joinedItems(base as Items, mine as Items, theirs as Items, path, clashes);
  // Another kind of thing altogether is one value.
  if (
    isFields(base) &&
    isFields(mine) &&
    isFields(theirs) &&
    base.kind === mine.kind &&
    base.kind === theirs.kind
  )
    return joinedFields(base, mine, theirs, path, clashes);
  clashes.push({ path, theirs });
  return mine;
}

function joinedFields(base: Fields, mine: Fields, theirs: Fields, path: string[], clashes: Clash[]): Fields {
  const all: Fields = {};
  for (const field of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const value = joined(base[field], mine[field], theirs[field], [...path, field], clashes);
    if (value !== undefined) all[field] = value;
  }
  return all;
}

type Items = (Fields & { id: string })[];

/** Things by id: what was added in either place is there, what was taken out in either is not unless it was changed in the other. */
function joinedItems(base: Items, mine: Items, theirs: Items, path: string[], clashes: Clash[]): Items {
  const of = (items: Items) => new Map(items.map((item) => [item.id, item]));
  const [before, here, there] = [of(base), of(mine), of(theirs)];
  const result = new Map<string, Items[number]>();
  for (const id of new Set([...here.keys(), ...there.keys()])) {
    const [b, m, t] = [before.get(id), here.get(id), there.get(id)];
    if (m && t) result.set(id, joined(b ?? t, m, t, [...path, id], clashes) as Items[number]);
    else if (m && !b) result.set(id, m);
    else if (t && !b) result.set(id, t);
    else if (m && b && !same(m, b)) result.set(id, m);
    else if (t && b && !same(t, b)) result.set(id, t);
  }
  // In the order of who changed the order; where both did, in the order here.
  const order = (items: Items) => items.map(({ id }) => id).filter((id) => before.has(id));
  const moved = !same(
    order(mine),
    order(base).filter((id) => here.has(id)),
  );
  const [first, second] = moved ? [mine, theirs] : [theirs, mine];
  const ids = first.map(({ id }) => id);
  second.forEach(({ id }, index) => {
    if (ids.includes(id)) return;
    const after = second[index - 1];
    ids.splice(after ? ids.indexOf(after.id) + 1 : 0, 0, id);
  });
  return ids.flatMap((id) => result.get(id) ?? []);
}
