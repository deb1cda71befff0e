import { z } from 'zod';
import { Id, Text, type Finding } from '../basics/common';
import type { RichText } from '../basics/richText';
import { shuffled, unordered } from '../basics/shuffled';
import { meant } from './meant';
import { pairsFilling } from './pairsFilling';
import {
  emptyQuestionFields,
  questionFields,
  studentFields,
  studentQuestionFields,
  bareFields,
  type Category,
  type QuestionBase,
  type QuestionKind,
} from './QuestionKind';

/** One thing to pair, or to pair with. */
export const PairItem = z.object({ id: Id, text: Text });
export type PairItem = z.infer<typeof PairItem>;

/** What questions hold whose answer puts each item to a target: matching and categories. */
export const pairsFields = {
  ...questionFields,
  items: PairItem.array().max(50),
  targets: PairItem.array().max(50),
  /** The right target of each item; an item without one belongs to none. */
  key: z.record(Id, Id),
  /** Whether a wrong pair takes off what a right one gives. */
  wrongTakesOff: z.boolean(),
};

export const studentPairsFields = {
  ...studentQuestionFields,
  items: PairItem.array(),
  targets: PairItem.array(),
};

/** The target chosen for each item, by item id. */
export const PairsResponse = z.object({ pairs: z.record(Id, Id) });
export type PairsResponse = z.infer<typeof PairsResponse>;

export interface PairsQuestion extends QuestionBase {
  kind: 'matching' | 'categories';
  items: PairItem[];
  targets: PairItem[];
  key: Record<string, string>;
  wrongTakesOff: boolean;
}

export interface StudentPairsQuestion {
  id: string;
  kind: PairsQuestion['kind'];
  stem: RichText;
  points: number;
  items: PairItem[];
  targets: PairItem[];
}

interface PairsShape<Q, S> {
  kind: PairsQuestion['kind'];
  label: string;
  schema: z.ZodType<Q>;
  studentSchema: z.ZodType<S>;
  /** How many items and targets a new question begins with. */
  begins: [items: number, targets: number];
  /** Whether the targets are put in an order by chance as well as the items. */
  shuffleTargets: boolean;
}

/**
 * A kind whose answer puts each item to a target. Share of right pairs; where wrong pairs take off,
 * max(0, (right − wrong) / items with a key). Formula: measures.md, "Part points".
 */
export function pairsKind<Q extends PairsQuestion, S extends StudentPairsQuestion>(
  shape: PairsShape<Q, S>,
): QuestionKind<Q, S, PairsResponse> {
  const kind: QuestionKind<Q, S, PairsResponse> = {
    ...pairsFilling,
    kind: shape.kind,
    label: shape.label,
    schema: shape.schema,
    studentSchema: shape.studentSchema,
    responseSchema: PairsResponse,
    scoredBy: 'key',

    empty: (newId) => shape.schema.parse(emptyPairs(shape, newId)),
    copy: copyOf,
    findings: (question) => pairsFindings(question, keyed(question).length),
    hasKey: (question) => keyed(question).length > 0,
    score: (question, { pairs }) => ({ share: shareOf(question, pairs), comments: [] }),
    guess: ({ items, targets }, chance) => ({
      pairs: Object.fromEntries(items.map(({ id }) => [id, chance.pick(targets).id])),
    }),
    sameAs: samePairs,
    asText: (question, { pairs }) => pairsText(question, pairs),
    fromText: (question, text) => {
      const pairs = pairsFrom(question, text);
      return pairs && { pairs };
    },
    keyText: (question) => pairsText(question, question.key),
    offered: (question) =>
      keyed(question).map((item) => category(question, item, question.key[item.id] ?? '')),
    categoriesOf: (question, { pairs }) =>
      question.items.flatMap((item) => {
        const to = pairs[item.id];
        return to !== undefined && targetOf(question, to) ? [category(question, item, to)] : [];
      }),
    rightAnswer: rightPairs,
    keyedBy: (question, { pairs }) => ({ ...question, key: { ...question.key, ...pairs } }),
    partlyRight: partlyRightPairs,
    withoutKey: (question) =>
      shape.schema.parse({
        ...bareFields(question),
        kind: shape.kind,
        ...mixed(question, shape.shuffleTargets),
        key: {},
        wrongTakesOff: false,
      }),
    forStudent: (question, seed) => {
      const { items, targets } = mixed(question, shape.shuffleTargets);
      return shape.studentSchema.parse({
        ...studentFields(question),
        kind: shape.kind,
        // Always by chance: their order on the desk is the order of the key.
        items: shuffled(items, `${seed} items`),
        targets: shape.shuffleTargets ? shuffled(targets, `${seed} targets`) : targets,
      });
    },
  };
  return kind;
}

const samePairs = (question: PairsQuestion, { pairs }: PairsResponse): string =>
  question.items
    .filter((item) => targetOf(question, pairs[item.id]))
    .map((item) => `${item.id}=${pairs[item.id]}`)
    .join(' ');

function rightPairs(question: PairsQuestion): PairsResponse | null {
  const pairs = keyed(question).map((item) => [item.id, question.key[item.id] ?? '']);
  return pairs.length > 0 ? { pairs: Object.fromEntries(pairs) } : null;
}

/** All right but for one item; null where there are too few of them. */
function partlyRightPairs(question: PairsQuestion): PairsResponse | null {
  const [first, ...rest] = keyed(question);
  const other = question.targets.find((target) => target.id !== question.key[first?.id ?? '']);
  if (!first || !other || rest.length === 0) return null;
  return { pairs: { ...question.key, [first.id]: other.id } };
}

/** The items that the key puts to a target. */
const keyed = (question: PairsQuestion): PairItem[] =>
  question.items.filter((item) => targetOf(question, question.key[item.id]));

function emptyPairs<Q, S>({ kind, begins: [items, targets] }: PairsShape<Q, S>, newId: () => string) {
  const blank = (count: number) => Array.from({ length: count }, () => ({ id: newId(), text: '' }));
  return {
    ...emptyQuestionFields,
    id: newId(),
    kind,
    points: 2,
    items: blank(items),
    targets: blank(targets),
    key: {},
    wrongTakesOff: false,
  };
}

function copyOf<Q extends PairsQuestion>(question: Q, newId: () => string): Q {
  const ids = new Map([...question.items, ...question.targets].map((each) => [each.id, newId()]));
  const fresh = (id: string) => ids.get(id) ?? id;
  const renewed = (rows: readonly PairItem[]) => rows.map((row) => ({ ...row, id: fresh(row.id) }));
  return {
    ...question,
    id: newId(),
    items: renewed(question.items),
    targets: renewed(question.targets),
    key: Object.fromEntries(
      keyed(question).map((item) => [fresh(item.id), fresh(question.key[item.id] ?? '')]),
    ),
  };
}

/** The share of right pairs of those with a key; wrong ones take off where the question says so. */
function shareOf(question: PairsQuestion, pairs: PairsResponse['pairs']): number {
  const answered = question.items.filter(({ id }) => targetOf(question, pairs[id]));
  const right = answered.filter(({ id }) => pairs[id] === question.key[id]).length;
  const wrong = question.wrongTakesOff ? answered.length - right : 0;
  return Math.max(0, right - wrong) / keyed(question).length;
}

/** Items and targets no longer beside each other in the order of the key. */
const mixed = (
  { id, items, targets }: PairsQuestion,
  targetsToo: boolean,
): Pick<PairsQuestion, 'items' | 'targets'> => ({
  items: unordered(items, id),
  targets: targetsToo ? unordered(targets, id) : targets,
});

function category(question: PairsQuestion, item: PairItem, targetId: string): Category {
  const right = question.key[item.id] === targetId;
  return {
    id: `${item.id}=${targetId}`,
    label: `${item.text} → ${targetOf(question, targetId)?.text ?? ''}`,
    share: keyed(question).length > 0 ? Number(right) : null,
    offered: right,
    part: { id: item.id, label: item.text },
  };
}

function targetOf(question: Pick<PairsQuestion, 'targets'>, id: string | undefined): PairItem | undefined {
  return id ? question.targets.find((target) => target.id === id) : undefined;
}

/** "spring tide → new moon; neap tide → half moon" */
function pairsText(
  question: Pick<PairsQuestion, 'items' | 'targets'>,
  pairs: Readonly<Record<string, string>>,
): string {
  return question.items
    .flatMap((item) => {
      const target = targetOf(question, pairs[item.id]);
      return target ? [`${item.text} → ${target.text}`] : [];
    })
    .join('; ');
}

/** As `pairsText` writes them, with an equals sign or a colon for the arrow too; or the targets alone, in the order of the items. */
function pairsFrom(
  { items, targets }: Pick<PairsQuestion, 'items' | 'targets'>,
  text: string,
): Record<string, string> | null {
  const parts = text
    .split(/[;|\n]/)
    .map((part) => part.trim())
    .filter(Boolean);
  const pairs = parts.map((part, index) => {
    const [left = '', right] = part.split(/→|->|=|:(?=\s)/, 2);
    return right === undefined
      ? [items[index], meant(targets, left)]
      : [meant(items, left), meant(targets, right)];
  });
  const found = pairs.flatMap(([item, target]) => (item && target ? [[item.id, target.id] as const] : []));
  const together = Object.fromEntries(found);
  return Object.keys(together).length === pairs.length && pairs.length > 0 ? together : null;
}

function pairsFindings(question: PairsQuestion, keyed: number): Finding[] {
  const place = { questionId: question.id };
  const findings: Finding[] = [];
  if (question.items.length < 2)
    findings.push({ level: 'stops', code: 'fewItems', ...place, field: 'items' });
  if (question.targets.length < 2)
    findings.push({ level: 'stops', code: 'fewTargets', ...place, field: 'targets' });
  if (keyed === 0) findings.push({ level: 'look', code: 'noKey', ...place, field: 'items' });
  else
    for (const item of question.items)
      if (item.text.trim() && !question.key[item.id])
        findings.push({
          level: 'look',
          code: 'itemWithoutKey',
          ...place,
          field: `item-${item.id}`,
          detail: item.text,
        });
  for (const [rows, name] of [
    [question.items, 'item'],
    [question.targets, 'target'],
  ] as const) {
    const seen = new Set<string>();
    for (const row of rows) {
      const text = row.text.trim().toLowerCase();
      const field = `${name}-${row.id}`;
      if (!text) findings.push({ level: 'stops', code: 'emptyItem', ...place, field });
      else if (seen.has(text))
        findings.push({ level: 'stops', code: 'equalItems', ...place, field, detail: row.text.trim() });
      seen.add(text);
    }
  }
  return findings;
}
