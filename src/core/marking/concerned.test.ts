import { expect, it } from 'vitest';
import { markOf, openQuestion } from '../../../tests/unit/samples';
import { textSeats } from '../../../tests/unit/textSeats';
import type { HandMark } from '../model/mark';
import { alsoConcerned } from './concerned';
import { withCommentPoints } from './markChanges';
import { arranged } from './piles/arrange';
import { sameAnswers } from './sameAnswers';

const texts = ['iron near', 'iron nearby', 'heading', 'course', ''];
const comment = { text: 'No unit', points: -0.5 };
const plain = (n: number, words = '') => markOf({ attemptId: `a${n}`, points: 2, comment: words });
const withPoints = (mark: HandMark): HandMark => ({ ...mark, ...withCommentPoints(mark, comment) });

function concerned(marks: HandMark[]) {
  const groups = sameAnswers({ ...openQuestion }, textSeats(texts, marks, openQuestion));
  const idOf = (text: string) => groups.find((group) => group.text === text)?.id ?? '';
  const entries = arranged(groups, [], [['iron near', 'iron nearby'].map(idOf)]);
  const here = groups.find(({ text }) => text === 'iron near');
  const found = here && alsoConcerned(entries, here, [comment]);
  return found && { said: found.said.map(({ text }) => text), near: found.near.map(({ text }) => text) };
}

it('a comment with points may concern who has the same words, and who wrote nearly the same', () => {
  const own = withPoints(plain(0, 'No unit'));
  expect(concerned([own, plain(1), plain(2, 'No unit'), plain(3, 'Well put')])).toEqual({
    said: ['heading'],
    near: ['iron nearby'],
  });
});

it('it concerns nobody who has its points already or is not marked yet, and nothing without such a comment', () => {
  const own = withPoints(plain(0, 'No unit'));
  expect(concerned([own, withPoints(plain(1, 'No unit'))])).toBeNull();
  expect(concerned([own])).toBeNull();
  expect(concerned([plain(0, 'No unit'), plain(1)])).toBeNull();
});
