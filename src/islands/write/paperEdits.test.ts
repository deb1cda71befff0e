import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Paper } from '@/core/model/paper';
import { at, counter, paperQuestions, tideChoice } from '../../../tests/unit/samples';
import { withCopy, withMoved, withNewQuestion, withoutQuestion, withQuestion } from './paperEdits';

const paper: Paper = {
  id: 'p',
  title: 'Tides',
  instructions: '',
  questions: paperQuestions,
  createdAt: at,
  changedAt: at,
};
const ids = (changed: Paper) => changed.questions.map((question) => question.id);

describe('changes of a paper', () => {
  it('a new question comes after the open one, or at the end', () => {
    expect(ids(withNewQuestion(paper, 'openText', 'q2', counter('n')).paper)).toEqual([
      'q1',
      'q2',
      'n0',
      'q3',
      'q4',
    ]);
    expect(ids(withNewQuestion(paper, 'openText', null, counter('n')).paper).at(-1)).toBe('n0');
  });

  it('a copy stands after what it was made from and shares nothing with it', () => {
    const { paper: changed, question } = withCopy(paper, tideChoice, counter('c'));
    expect(changed.questions[1]).toBe(question);
    expect(question.stem).toBe(tideChoice.stem);
    expect(question.id).not.toBe(tideChoice.id);
  });

  it('changing or deleting one leaves the others as they were', () => {
    expect(withQuestion(paper, { ...tideChoice, stem: 'New' }).questions.slice(1)).toEqual(
      paperQuestions.slice(1),
    );
    expect(ids(withoutQuestion(paper, 'q3'))).toEqual(['q1', 'q2', 'q4']);
  });

  it('moving keeps every question, and moving back undoes it; past the ends nothing moves', () => {
    const place = fc.integer({ min: -1, max: 5 });
    fc.assert(
      fc.property(place, place, (from, to) => {
        const moved = withMoved(paper, from, to);
        expect([...ids(moved)].sort()).toEqual(ids(paper));
        if (moved !== paper) expect(ids(withMoved(moved, to, from))).toEqual(ids(paper));
      }),
    );
    expect(withMoved(paper, 0, -1)).toBe(paper);
    expect(ids(withMoved(paper, 0, 3))).toEqual(['q2', 'q3', 'q4', 'q1']);
  });
});
