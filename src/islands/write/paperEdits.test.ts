import fc from 'fast-check';
import { allWays } from '@/core/kinds/working/ways';
import { describe, expect, it } from 'vitest';
import type { Paper } from '@/core/model/paper';
import { at, counter, paperQuestions, tideChoice } from '../../../tests/unit/samples';
import {
  rowId,
  rowsOf,
  withCopy,
  withMany,
  withMoved,
  withNewPart,
  withNewQuestion,
  withoutPart,
  withoutQuestion,
  withPart,
  withQuestion,
} from './paperEdits';

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

describe('parts of a paper', () => {
  const parted = withNewPart(paper, 'q2', () => 'P').paper;
  const inParts = (changed: Paper) => changed.questions.map((question) => [question.id, question.partId]);

  it('a new part takes what follows up to the next part', () => {
    expect(inParts(parted)).toEqual([
      ['q1', undefined],
      ['q2', undefined],
      ['q3', 'P'],
      ['q4', 'P'],
    ]);
    expect(rowsOf(parted).map(rowId)).toEqual(['q1', 'q2', 'P', 'q3', 'q4']);
  });

  it('a question moved over a heading joins that part', () => {
    expect(inParts(withMoved(parted, 1, 2))).toContainEqual(['q2', 'P']);
    expect(inParts(withMoved(parted, 3, 1))[1]).toEqual(['q3', undefined]);
  });

  it('a heading moved takes its questions along', () => {
    const two = withNewPart(parted, 'q3', () => 'Q').paper;
    expect(rowsOf(two).map(rowId)).toEqual(['q1', 'q2', 'P', 'q3', 'Q', 'q4']);
    expect(rowsOf(withMoved(two, 4, 2)).map(rowId)).toEqual(['q1', 'q2', 'Q', 'q4', 'P', 'q3']);
    expect(rowsOf(withMoved(two, 2, 5)).map(rowId)).toEqual(['q1', 'q2', 'Q', 'q4', 'P', 'q3']);
  });

  it('without its heading the questions of a part join what is before', () => {
    expect(inParts(withoutPart(parted, 'P')).every(([, partId]) => partId === undefined)).toBe(true);
    expect(withoutPart(parted, 'P').parts).toBeUndefined();
  });

  it('a heading is changed without touching its questions', () => {
    const [part] = parted.parts ?? [];
    if (!part) throw new Error('no part');
    const changed = withPart(parted, { ...part, title: 'Section B', draw: 1 });
    expect(changed.parts?.[0]).toMatchObject({ title: 'Section B', draw: 1 });
    expect(changed.questions).toBe(parted.questions);
  });
});

describe('many questions at once', () => {
  const all = new Set(ids(paper));

  it('points, tags and their undoing', () => {
    const priced = withMany(paper, new Set(['q1', 'q3']), { what: 'points', points: 4 });
    expect(priced.questions.map((question) => question.points)).toEqual([4, 2, 4, 3]);
    const tagged = withMany(paper, all, { what: 'addTag', tag: 'tides' });
    expect(tagged.questions.every((question) => question.tags.includes('tides'))).toBe(true);
    expect(withMany(tagged, all, { what: 'addTag', tag: 'tides' })).toEqual(tagged);
    expect(withMany(tagged, all, { what: 'removeTag', tag: 'tides' }).questions).toEqual(paper.questions);
  });

  it('working only where a key scores, and its scheme stays when the share changes', () => {
    const asked = withMany(paper, all, { what: 'working', keyShare: 0.5 });
    expect(asked.questions.map((question) => question.working?.keyShare)).toEqual([0.5, 0.5, 0.5, undefined]);
    const [first] = asked.questions;
    if (!first?.working) throw new Error('no working');
    const scheme = [{ id: 'l', text: 'Method', points: 1 }];
    const written = withQuestion(asked, { ...first, working: { ...first.working, scheme } });
    expect(withMany(written, all, { what: 'working', keyShare: 0.25 }).questions[0]?.working).toEqual({
      keyShare: 0.25,
      modelAnswer: '',
      scheme,
      ways: allWays,
    });
    expect(withMany(asked, all, { what: 'working', keyShare: null }).questions).toEqual(paper.questions);
  });

  it('shuffling touches only questions with options; moving and deleting keep the rest', () => {
    const mixed = withMany(paper, all, { what: 'shuffle', on: true });
    expect(mixed.questions.map((question) => 'shuffle' in question)).toEqual([true, true, false, false]);
    const parted = withNewPart(paper, 'q4', () => 'P').paper;
    const moved = withMany(parted, new Set(['q1', 'q2']), { what: 'moveTo', partId: 'P' });
    expect(rowsOf(moved).map(rowId)).toEqual(['q3', 'q4', 'P', 'q1', 'q2']);
    expect(ids(withMany(paper, new Set(['q1', 'q4']), { what: 'delete' }))).toEqual(['q2', 'q3']);
  });
});
