import { describe, expect, it } from 'vitest';
import { blanks, counter, samples } from '../../../tests/unit/samples';
import { kindOf, type Question, type Response } from '../kinds';
import { keyChanges } from '../repair/keyChanges';

const questions = Object.values(samples);
const changesFor = (responses: Record<string, Response>) => keyChanges(questions, responses, counter('new'));

describe('the key from a filled-in paper', () => {
  it('names only the questions whose key would change, with both keys in words', () => {
    const changes = changesFor({
      q1: { picked: ['c'] },
      q5: { picked: ['true'] },
      q9: { order: ['p1', 'p0'] },
    });
    expect(changes.map(({ question, before, after }) => [question.id, before, after])).toEqual([
      ['q1', 'B  3/12', 'C  2/12'],
      ['q9', '1 low water; 2 flood; 3 high water; 4 ebb', '1 flood; 2 low water; 3 high water; 4 ebb'],
    ]);
  });

  it('the right answers change nothing, nor do blank ones', () => {
    const right: Record<string, Response> = {};
    for (const question of questions) {
      const answer = kindOf(question).rightAnswer(question);
      if (answer) right[question.id] = answer;
    }
    expect(changesFor(right)).toEqual([]);
    expect(
      changesFor(Object.fromEntries(questions.map((question) => [question.id, blanks[question.kind]]))),
    ).toEqual([]);
  });

  it('a text not accepted yet is accepted for all the points, and the others stay', () => {
    const [change] = changesFor({ q3: { text: ' 118 true ' } });
    expect(change?.after).toBe('118 true; SECRET-118; SECRET-half (50%)');
    // What gave half before gives all now.
    const [half] = changesFor({ q3: { text: 'secret-HALF' } });
    expect(half && kindOf(half.changed).score(half.changed, { text: 'SECRET-half' }).share).toBe(1);
  });

  it('a number is taken in the unit it is written with', () => {
    const [change] = changesFor({ q6: { text: '37,04 km' } });
    const accepted = (change?.changed as Extract<Question, { kind: 'number' }>).accepted[0];
    // SI Brochure: 1 nautical mile = 1852 m, so 37.04 km are 20 of them.
    expect(accepted?.value).toBeCloseTo(20, 9);
  });

  it('a question without any key gets one', () => {
    const keyless = { ...samples.oneChoice, key: null } as Question;
    expect(keyChanges([keyless], { q1: { picked: ['a'] } }, counter('n'))).toMatchObject([
      { before: '', after: 'A  1/12' },
    ]);
  });
});
