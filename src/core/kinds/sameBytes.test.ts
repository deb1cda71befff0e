import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { passage } from '@demo/papers/passage';
import { buildDemo } from '@demo/buildDemo';
import { at, attemptOf, samples, sittingOf } from '../../../tests/unit/samples';
import { chanceFrom } from '../basics/chance';
import { paperFile } from '../exchange/carriedFiles';
import { paperPacket, withoutKeys } from '../formats/packet/paper';
import { withoutComments } from './options';
import type { PaperVersion } from '../model/paper';
import { itemsOf } from './items';
import { kindNames, kindOf, type Question } from '.';

/**
 * Papers that differ only in the key give a student, a file and the server the same bytes: then nothing in them can tell
 * it, not an id, an order, a length or a name.
 */

/** A sample of a kind with so many options, items, targets or gaps. */
function sized(question: Question, size: number): Question {
  const rows = <T extends { id: string }>(
    all: readonly T[],
    name: string,
    text: (n: number) => object,
  ): T[] =>
    Array.from({ length: size }, (_, n) => ({
      ...(all[0] as T),
      ...text(n),
      id: `${name}${(n * 7919) % 997}`,
    }));
  if ('options' in question)
    return {
      ...question,
      options: rows(question.options, 'o', (n) => ({ text: `option ${n}` })),
    } as Question;
  if ('targets' in question)
    return {
      ...question,
      items: rows(question.items, 'i', (n) => ({ text: `item ${n}` })),
      targets: rows(question.targets, 't', (n) => ({ text: `target ${n}` })),
      key: {},
    };
  if ('items' in question)
    return { ...question, items: rows(question.items, 'i', (n) => ({ text: `item ${n}` })) };
  return question;
}

/** The same question with another key: as someone who answers by chance would have it, and with other words beside it. */
function otherKey(question: Question, seed: number): Question {
  const kind = kindOf(question);
  const chance = chanceFrom(seed);
  let ids = 0;
  const keyed = kind.keyedBy(question, kind.guess(question, chance), () => `key${seed}-${(ids += 1)}`);
  const words = `words ${seed}`;
  const marked =
    'scheme' in keyed ? { modelAnswer: words, scheme: [{ id: `line${seed}`, text: words, points: 1 }] } : {};
  return {
    ...keyed,
    ...marked,
    commentRight: words,
    commentWrong: words.repeat(1 + (seed % 5)),
    commentPart: words,
    note: words,
    tags: [words],
    hints: [{ id: `hint${seed}`, text: words, cost: 0.5 }],
    link: { href: `https://example.org/${seed}`, text: words },
    bankId: `bank${seed}`,
    ...('gaps' in keyed && {
      gaps: keyed.gaps.map((gap) => ({
        ...gap,
        accepted: [...gap.accepted, { id: `a${seed}`, text: words, share: 1, comment: words }],
        // What can no longer be picked is no part of what students see.
        options:
          gap.filledBy === 'typing' ? [{ id: `old${seed}`, text: words, comment: words }] : gap.options,
      })),
    }),
    ...('accepted' in keyed && 'forgive' in keyed && { acceptsNearMisses: seed % 2 === 0 }),
    ...('options' in keyed && {
      options: keyed.options.map((option) => ({ ...option, comment: `${words} ${option.id}` })),
    }),
    ...('units' in keyed && { units: [...keyed.units, { id: `u${seed}`, names: words, factor: seed + 1 }] }),
    ...(keyed.working && { working: { ...keyed.working, modelAnswer: words, scheme: [] } }),
  } as Question; // fields that the kind has
}

const paperWith = (questions: readonly Question[]): PaperVersion => ({
  title: 'Tides',
  instructions: '',
  questions: [...questions],
  paperId: 'paper1',
  version: 1,
  frozenAt: at,
});

/** Everything that leaves the desk of a paper before anything is let out. */
function outgoing(questions: readonly Question[], seed: string): string {
  const paper = paperWith(questions);
  const questionIds = itemsOf(questions).map(({ id }) => id);
  const attempt = attemptOf({ id: seed, questionIds });
  return JSON.stringify([
    paperPacket(paper, attempt, {}),
    paperPacket(withoutKeys(paper), attempt, {}),
    withoutKeys(paper),
    paperFile(sittingOf(), paper, []),
  ]);
}

const seed = fc.integer({ min: 1, max: 10_000 });

describe('papers that differ only in the key give the same bytes', () => {
  it.each(kindNames)('%s, of any size', (name) => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 9 }), seed, seed, fc.boolean(), (size, one, other, working) => {
        const plain = sized(samples[name], size);
        const question: Question =
          working && kindOf(plain).scoredBy === 'key'
            ? { ...plain, working: { keyShare: 0.5, modelAnswer: '', scheme: [], ways: ['words'] } }
            : plain;
        const [a, b] = [otherKey(question, one), otherKey(question, other)];
        expect(outgoing([a], `attempt${one}`)).toBe(outgoing([b], `attempt${one}`));
      }),
    );
  });

  it('ordering: all right orders of the same items, also of three, where few orders are left to choose from', () => {
    const ids = fc.uniqueArray(fc.string({ minLength: 1, maxLength: 8 }), { minLength: 2, maxLength: 7 });
    fc.assert(
      fc.property(
        ids.chain((order) =>
          fc.tuple(fc.constant(order), fc.shuffledSubarray(order, { minLength: order.length })),
        ),
        fc.string({ minLength: 1, maxLength: 20 }),
        ([order, other], attempt) => {
          const of = (some: readonly string[]): Question => ({
            ...(samples.ordering as Extract<Question, { kind: 'ordering' }>),
            items: some.map((id) => ({ id, text: id })),
          });
          expect(outgoing([of(order)], attempt)).toBe(outgoing([of(other)], attempt));
        },
      ),
    );
  });

  it('the demo papers, with any other key', () => {
    const papers = [...buildDemo(Date.parse(at)).papers.map(({ questions }) => questions), passage.questions];
    for (const questions of papers)
      fc.assert(
        fc.property(seed, (n) => {
          const other = questions.map((question, index) => otherKey(question, n + index));
          const [a, b] = [questions.map((question) => otherKey(question, 1)), other];
          expect(outgoing(a, 'attempt1')).toBe(outgoing(b, 'attempt1'));
        }),
        { numRuns: 10 },
      );
  });

  it('in the demo no ids stand in the order of the key', () => {
    for (const question of passage.questions) {
      if (!('items' in question)) continue;
      const sorted = [...question.items].sort((a, b) => (a.id < b.id ? -1 : 1));
      expect(sorted.map(({ id }) => id)).not.toEqual(question.items.map(({ id }) => id));
      if (!('targets' in question)) continue;
      const place = (id: string | undefined) =>
        [...question.targets].sort((a, b) => (a.id < b.id ? -1 : 1)).findIndex((target) => target.id === id);
      const places = sorted.map(({ id }) => place(question.key[id]));
      expect(places).not.toEqual([...places].sort((a, b) => a - b));
    }
  });

  it('an option goes out with its words alone', () => {
    const rows = [{ id: 'a', text: 'x', comment: 'SECRET', pinned: true }];
    expect(withoutComments(rows)).toEqual([{ id: 'a', text: 'x' }]);
  });
});
