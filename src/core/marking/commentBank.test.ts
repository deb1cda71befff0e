import { describe, expect, it } from 'vitest';
import type { BankComment } from '../model/bankComment';
import { foundComments, offeredComments } from './commentBank';

const mark = (questionId: string, comment: string) => ({ questionId, comment });
const row = (part: Partial<BankComment>): BankComment => ({
  id: 'b1',
  questionId: null,
  text: 'Show your working.',
  code: 'sw',
  points: null,
  removed: false,
  ...part,
});
const marks = [
  mark('q1', 'Name the light.'),
  mark('q1', 'Name the light. '),
  mark('q1', 'Which way does the stream set?'),
  mark('q2', 'Units?'),
  mark('q2', 'Units?'),
  mark('q2', 'Units?'),
  mark('q1', ''),
];
const texts = (offered: { text: string }[]) => offered.map(({ text }) => text);

describe('the comment bank', () => {
  it('learns what is typed: that of this question first, the most used before', () => {
    expect(
      offeredComments('q1', marks, []).map(({ text, uses, usesElsewhere }) => [text, uses, usesElsewhere]),
    ).toEqual([
      ['Name the light.', 2, 0],
      ['Which way does the stream set?', 1, 0],
      ['Units?', 0, 3],
    ]);
  });

  it('has what was put in it, with code and points, and not what was taken out', () => {
    const bank = [
      row({}),
      row({ id: 'b2', questionId: 'q1', text: 'Units?', code: 'u', points: -0.5 }),
      row({ id: 'b3', text: 'Name the light.', removed: true }),
      row({ id: 'b4', questionId: 'q2', text: 'Of another question' }),
    ];
    const offered = offeredComments('q1', marks, bank);
    expect(texts(offered)).toEqual(['Which way does the stream set?', 'Units?', 'Show your working.']);
    expect(offered[1]).toMatchObject({ code: 'u', points: -0.5, usesElsewhere: 3 });
  });

  it('what is for this question goes before the same for all, in whatever order they lie', () => {
    const both = [row({ id: 'own', questionId: 'q1', points: -1 }), row({ id: 'all', points: null })];
    for (const bank of [both, [...both].reverse()])
      expect(offeredComments('q1', [], bank)[0]).toMatchObject({ points: -1, kept: { id: 'own' } });
  });

  it('is found by two letters of each word, forgiving case and accents, or by a code', () => {
    const offered = offeredComments('q1', [...marks, mark('q1', 'Écrivez l’unité.')], [row({})]);
    expect(texts(foundComments('n', offered))).toEqual([]);
    expect(texts(foundComments('na', offered))).toEqual(['Name the light.']);
    expect(texts(foundComments('li na', offered))).toEqual(['Name the light.']);
    expect(texts(foundComments('ECR', offered))).toEqual(['Écrivez l’unité.']);
    expect(texts(foundComments('sw', offered))).toEqual(['Show your working.']);
    expect(texts(foundComments('ight', offered))).toEqual([]);
    expect(texts(foundComments('Units?', offered))).toEqual([]);
  });

  it('what is kept of it while it is typed is no comment yet, and hides none', () => {
    const offered = offeredComments('q1', [...marks, mark('q1', 'na li'), mark('q1', 'na li')], []);
    const found = (typed: string, answers: number) =>
      texts(foundComments(typed, offered, { text: 'na li', answers }));
    expect(found('na li', 2)).toEqual(['Name the light.']);
    expect(found('na', 2)).toEqual(['Name the light.']);
    // Somebody else has it, too.
    expect(found('na li', 1)).toEqual([]);
    expect(found('na', 1)).toEqual(expect.arrayContaining(['na li', 'Name the light.']));
  });
});
