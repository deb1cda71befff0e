import type { Finding } from '../../basics/common';
import { shuffled, unordered } from '../../basics/shuffled';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import { meantSeveral } from '../meant';
import { orderShare } from './orderShare';
import { orderingFilling } from './filling';
import { Ordering, OrderResponse, StudentOrdering } from './schema';

/** Items to be put in order. */
export const ordering: QuestionKind<Ordering, StudentOrdering, OrderResponse> = {
  ...orderingFilling,
  kind: 'ordering',
  label: 'Ordering',
  schema: Ordering,
  studentSchema: StudentOrdering,
  responseSchema: OrderResponse,
  scoredBy: 'key',

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'ordering',
    points: 2,
    items: Array.from({ length: 4 }, () => ({ id: newId(), text: '' })),
    rule: 'pairs',
  }),
  copy: (question, newId) => ({
    ...question,
    id: newId(),
    items: question.items.map((item) => ({ ...item, id: newId() })),
  }),
  findings: orderingFindings,
  hasKey: (question) => question.keyless !== true && question.items.length > 1,
  score: (question, response) => ({
    share: orderShare(question.rule, placesOf(question, response), question.items.length),
    comments: [],
  }),
  guess: ({ items }, chance) => ({
    order: shuffled(items, String(chance.share())).map(({ id }) => id),
  }),
  sameAs: (_question, { order }) => order.join(' '),
  asText: (question, { order }) => orderText(question, order),
  fromText: ({ items }, text) => {
    const unnumbered = text.replace(/(^|[;|,>\n])\s*\d{1,2}[).:]?\s+/g, '$1');
    const found = meantSeveral(items, unnumbered, /([;|,>\n])/);
    return found && { order: found.map(({ id }) => id) };
  },
  keyText: (question) =>
    orderText(
      question,
      question.items.map((item) => item.id),
    ),
  offered: (question) => [
    {
      id: question.items.map((item) => item.id).join(' '),
      label: ordering.keyText(question),
      share: 1,
      offered: true,
    },
  ],
  categoriesOf: (question, response) => {
    const { share } = ordering.score(question, response);
    const id = response.order.join(' ');
    return [{ id, label: orderText(question, response.order), share, offered: share === 1 }];
  },
  rightAnswer: (question) =>
    ordering.hasKey(question) ? { order: question.items.map((item) => item.id) } : null,
  keyedBy: (question, { order }) => {
    const placed = [...new Set(order)].flatMap((id) => question.items.find((item) => item.id === id) ?? []);
    return { ...question, items: [...placed, ...question.items.filter((item) => !placed.includes(item))] };
  },
  partlyRight: ({ items }) => {
    const [first, second, ...rest] = items;
    return first && second && rest.length > 0
      ? { order: [second, first, ...rest].map((item) => item.id) }
      : null;
  },
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'ordering',
    items: unordered(question.items, question.id),
    rule: 'exact',
    keyless: true,
  }),
  forStudent: (question, seed) => ({
    ...studentFields(question),
    kind: 'ordering',
    // Any order may come out, the right one too: one that never does would tell.
    items: shuffled(unordered(question.items, question.id), `${seed} items`),
  }),
};

/** The right place of each item in the order given; unknown and repeated items count as not there. */
function placesOf(question: Ordering, { order }: OrderResponse): number[] {
  const place = new Map(question.items.map((item, index) => [item.id, index]));
  return [...new Set(order)].flatMap((id) => place.get(id) ?? []);
}

/** "1 first hour; 2 second hour": items in the order given. */
function orderText(question: Pick<Ordering, 'items'>, order: readonly string[]): string {
  const texts = order.flatMap((id) => question.items.find((item) => item.id === id)?.text ?? []);
  return texts.map((text, index) => `${index + 1} ${text}`).join('; ');
}

function orderingFindings(question: Ordering): Finding[] {
  const place = { level: 'stops', questionId: question.id } as const;
  const findings: Finding[] = [];
  if (question.items.length < 2) findings.push({ ...place, code: 'fewItems', field: 'items' });
  const seen = new Set<string>();
  for (const item of question.items) {
    const text = item.text.trim().toLowerCase();
    const field = `item-${item.id}`;
    if (!text) findings.push({ ...place, code: 'emptyItem', field });
    else if (seen.has(text)) findings.push({ ...place, code: 'equalItems', field, detail: item.text.trim() });
    seen.add(text);
  }
  return findings;
}
