import { expect, it } from 'vitest';
import { springChoices } from '../../../tests/unit/samples';
import { kindOf } from '../kinds';
import type { AnswerToMark, SameAnswers } from './sameAnswers';
import { choosersOf, withWordsAdded } from './choosers';

it('who chose an option is found whatever else was chosen', () => {
  const options = kindOf(springChoices).offered(springChoices);
  const [first, second] = options.map(({ id }) => id);
  const answer = (attemptId: string, picked: (string | undefined)[]) =>
    ({ attemptId, response: { picked } }) as unknown as AnswerToMark; // no more of it is asked
  const group = (...answers: AnswerToMark[]) => ({ answers }) as SameAnswers; // nor of these
  const found = choosersOf(springChoices, [
    group(answer('a1', [first]), answer('a2', [first, second])),
    group(answer('a3', [second])),
    group({ ...answer('a4', []), response: null }),
  ]);
  expect(found.map(({ category }) => category.id)).toEqual(options.map(({ id }) => id));
  expect(found[0]?.answers.map(({ attemptId }) => attemptId)).toEqual(['a1', 'a2']);
  expect(choosersOf(springChoices, [group(answer('a1', [first]), answer('a3', [second]))])).toEqual([]);
  expect(found[1]?.answers.map(({ attemptId }) => attemptId)).toEqual(['a2', 'a3']);
});

it('words are added to a comment once', () => {
  expect(withWordsAdded('', 'Look again')).toBe('Look again');
  expect(withWordsAdded('Good', 'Look again')).toBe('Good\nLook again');
  expect(withWordsAdded('Good\nLook again', 'Look again')).toBe('Good\nLook again');
});
