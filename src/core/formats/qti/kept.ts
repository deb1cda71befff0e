import { z } from 'zod';
import { Question } from '../../kinds';
import { childNamed, isElement, type XmlElement } from '../../kinds/qti/element';
import type { LossCode } from '../../kinds/qti/ItemForm';

/** What QTI has no word for, kept beside the item for whoever reads it here again. */
const Kept = z.record(z.string().max(40), z.object({ is: z.json().optional(), read: z.json() }));
export type Kept = z.infer<typeof Kept>;

/** The fields that the test and the manifest carry, or that mean something on this desk only. */
const carriedElsewhere = new Set(['id', 'points', 'partId', 'bankId', 'tags']);

/**
 * The fields of a question that an item does not give back as they are. With each, what the item does give back: only
 * while it still does is the kept one taken again.
 */
export function keptFields(question: Question, read: Question | null): Kept {
  const kept: Kept = {};
  const fields = Object.keys({ ...question, ...read }).filter((name) => !carriedElsewhere.has(name));
  for (const name of fields) {
    const is = plain(Reflect.get(question, name));
    const was = plain(read ? Reflect.get(read, name) : undefined);
    if (JSON.stringify(is) === JSON.stringify(was)) continue;
    const value: unknown = Reflect.get(question, name);
    kept[name] = { read: was, ...(value !== undefined && { is: z.json().parse(value) }) };
  }
  return kept;
}

/** A value to compare: keys in one order, the ids of rows left out, and what is false or not there. */
function plain(value: unknown): z.core.util.JSONType {
  if (Array.isArray(value)) return value.map(plain);
  if (value !== null && typeof value === 'object')
    return Object.fromEntries(
      Object.entries(value)
        .filter(([name, inside]) => name !== 'id' && inside !== undefined && inside !== false)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([name, inside]) => [name, plain(inside)]),
    );
  return value === undefined ? null : z.json().parse(value);
}

/** Takes up again what was kept beside the item, as long as the item still says what it said then. */
export function withKept(
  question: Question,
  item: XmlElement,
  lose: (code: LossCode, detail: string) => void,
): Question {
  const body = childNamed(item, 'itemBody');
  const text = body?.attrs.dataGribbet;
  if (!text) return question;
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return (lose('changedElsewhere', ''), question);
  }
  const kept = Kept.safeParse(json);
  const taken: Record<string, unknown> = { ...question };
  for (const [name, { is, read }] of Object.entries(kept.data ?? {})) {
    if (carriedElsewhere.has(name)) continue;
    if (JSON.stringify(plain(Reflect.get(question, name))) !== JSON.stringify(plain(read)))
      return (lose('changedElsewhere', name), question);
    if (is === undefined) Reflect.deleteProperty(taken, name);
    else taken[name] = is;
  }
  const parsed = Question.safeParse(taken);
  return parsed.success ? parsed.data : (lose('changedElsewhere', ''), question);
}

/** The element of an item with what was kept written beside its body. */
export function itemWithKept(item: XmlElement, kept: Kept): XmlElement {
  if (Object.keys(kept).length === 0) return item;
  const children = item.children.map((child) =>
    isElement(child) && child.name === 'itemBody'
      ? { ...child, attrs: { ...child.attrs, dataGribbet: JSON.stringify(kept) } }
      : child,
  );
  return { ...item, children };
}
