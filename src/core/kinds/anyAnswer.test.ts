import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyOf } from '../../../tests/unit/anyOf';
import { at, attemptOf, samples } from '../../../tests/unit/samples';
import { withHeading } from '../formats/takeout/exportTable';
import { gradesTable } from '../formats/takeout/grades';
import { paperPacket } from '../formats/packet/paper';
import { scoreAttempt } from '../scoring/scoreAttempt';
import { itemsOf } from './items';
import { kindNamed, kindNames, kindOf, type KindName, type Response } from './index';

/** Whatever a student's page, a file or a stranger may send for a question of each kind: known ids, unknown ones, and junk. */
const id = fc.constantFrom(
  'a',
  'b',
  'c',
  'o0',
  'o1',
  'o3',
  'true',
  'false',
  'i0',
  't0',
  'm0',
  's1',
  'p0',
  'p1',
  'p3',
  'g1',
  'g2',
  'ge',
  'ghost',
  '__proto__',
  'constructor',
);
const words = fc.oneof(
  fc.string(),
  fc.constantFrom(
    'SECRET-118',
    '18 nm',
    '18,5',
    '-1/0',
    '1e999',
    '9'.repeat(60),
    '=1+1',
    '<b>x</b>',
    '\u0000',
    '٣',
  ),
);
const anyResponse = (name: KindName) => anyOf(kindNamed(name).responseSchema, fc.oneof(id, words));

describe.each(kindNames)('%s, whatever is answered', (name) => {
  const question = samples[name];
  const kind = kindOf(question);

  it('a score lies between its bounds, and is the same when it is computed again', () => {
    fc.assert(
      fc.property(anyResponse(name), (response) => {
        if (kind.scoredBy === 'hand' || kind.isBlank(response)) return;
        const verdict = kind.score(question, response);
        expect(verdict.share).toBeGreaterThanOrEqual(0);
        expect(verdict.share).toBeLessThanOrEqual(1);
        expect(kind.score(question, response)).toEqual(verdict);
      }),
    );
  });

  it('it can be shown in words, compared and counted without fault, and gives no key away', () => {
    fc.assert(
      fc.property(anyResponse(name), (response) => {
        const packet = paperPacket(
          { title: 'T', instructions: '', questions: [question] },
          attemptOf({ questionIds: [question.id] }),
        );
        expect(JSON.stringify(packet)).not.toContain('SECRET');
        expect(typeof kind.asText(question, response)).toBe('string');
        expect(kind.sameAs(question, response)).toBe(kind.sameAs(question, response));
        if (kind.isBlank(response)) return;
        for (const category of kind.categoriesOf(question, response)) {
          expect(category.id).not.toBe('');
          if (category.share !== null) expect(category.share).toBeGreaterThanOrEqual(0);
        }
      }),
    );
  });

  it('two answers that are the same to a marker get the same points by the key', () => {
    fc.assert(
      fc.property(anyResponse(name), anyResponse(name), (one, other) => {
        if (kind.scoredBy === 'hand' || kind.sameAs(question, one) !== kind.sameAs(question, other)) return;
        if (kind.isBlank(one) || kind.isBlank(other)) return;
        expect(kind.score(question, one).share).toBe(kind.score(question, other).share);
      }),
      { numRuns: 300 },
    );
  });

  it('keyed by any answer it is still a question of its kind', () => {
    fc.assert(
      fc.property(anyResponse(name), (response) => {
        let count = 0;
        const keyed = kind.keyedBy(question, response, () => `n${count++}`);
        expect(kind.schema.safeParse(keyed).error).toBeUndefined();
      }),
    );
  });
});

describe('a whole attempt of every kind', () => {
  const questions = itemsOf(Object.values(samples));
  const answers = fc.record(
    Object.fromEntries(Object.values(samples).map((question) => [question.id, anyResponse(question.kind)])),
  );
  const attemptWith = (responses: Record<string, Response>, order: readonly string[]) =>
    attemptOf({
      questionIds: [...order],
      answers: Object.fromEntries(
        Object.entries(responses).map(([key, response]) => [key, { response, at }]),
      ),
    });
  const ids = questions.map((question) => question.id);

  it('the order in which questions were given does not matter to the total', () => {
    fc.assert(
      fc.property(answers, fc.shuffledSubarray(ids, { minLength: ids.length }), (responses, order) => {
        const straight = scoreAttempt(questions, attemptWith(responses, ids), []);
        const mixed = scoreAttempt(questions, attemptWith(responses, order), []);
        expect(mixed).toEqual(straight);
        expect(straight.total).toBeLessThanOrEqual(straight.max);
        expect(straight.total).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  it('fewer questions given are fewer to be had, never more points', () => {
    fc.assert(
      fc.property(answers, fc.subarray(ids), (responses, some) => {
        const all = scoreAttempt(questions, attemptWith(responses, ids), []);
        const part = scoreAttempt(questions, attemptWith(responses, some), []);
        expect(part.awards).toHaveLength(some.length);
        expect(part.total).toBeLessThanOrEqual(all.total);
        expect(part.max).toBeLessThanOrEqual(all.max);
      }),
    );
  });

  it('the grades have a column for every question, each with what it is worth', () => {
    const [header = ''] = withHeading(gradesTable({ questions, seats: [], groups: [], now: 0 })).map((row) =>
      row.join(),
    );
    expect(header.match(/Q\d+ \([\d.]+\)/g)).toHaveLength(questions.length);
  });
});
