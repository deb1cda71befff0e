import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { merged } from './merge';

const paper = {
  title: 'Tides',
  instructions: '',
  questions: [
    { id: 'a', kind: 'open', stem: 'One', points: 1, options: [{ id: 'x', text: 'left' }] },
    { id: 'b', kind: 'open', stem: 'Two', points: 2, options: [] },
  ],
};
type Paper = Omit<typeof paper, 'questions'> & {
  questions: ((typeof paper)['questions'][number] & { tags?: string[] })[];
};
const [first, second] = paper.questions as [Paper['questions'][number], Paper['questions'][number]];

describe('changes made in two places', () => {
  it('to different fields, questions and options are all there', () => {
    const mine: Paper = { ...paper, questions: [{ ...first, stem: 'Mine' }, second] };
    const theirs: Paper = {
      ...paper,
      title: 'Theirs',
      questions: [
        { ...first, points: 5, options: [...first.options, { id: 'y', text: 'right' }] },
        { ...second, tags: ['t'] },
      ],
    };
    expect(merged<Paper>(paper, mine, theirs)).toEqual({
      clashes: [],
      row: {
        ...paper,
        title: 'Theirs',
        questions: [
          { ...first, stem: 'Mine', points: 5, options: [...first.options, { id: 'y', text: 'right' }] },
          { ...second, tags: ['t'] },
        ],
      },
    });
  });

  it('to the same field: as it was changed here, and told', () => {
    const mine = { ...paper, title: 'Mine' };
    const theirs = { ...paper, title: 'Theirs' };
    expect(merged(paper, mine, theirs)).toEqual({
      row: mine,
      clashes: [{ path: ['title'], theirs: 'Theirs' }],
    });
  });

  it('a question added in either place is there, one taken out is gone, but not what was changed in the other', () => {
    const third = { ...second, id: 'c' };
    const fourth = { ...second, id: 'd' };
    const ids = (mine: Paper['questions'], theirs: Paper['questions']) =>
      merged<Paper>(paper, { ...paper, questions: mine }, { ...paper, questions: theirs }).row.questions.map(
        ({ id }) => id,
      );
    expect(ids([first, second, third], [first, fourth, second])).toEqual(['a', 'd', 'b', 'c']);
    expect(ids([first], [first, second])).toEqual(['a']);
    expect(ids([first], [first, { ...second, stem: 'Changed' }])).toEqual(['a', 'b']);
    expect(ids([second, first], [first, second, third])).toEqual(['b', 'c', 'a']);
    expect(ids([], [first, second, third])).toEqual(['c']);
  });

  const row = fc.dictionary(fc.constantFrom('p', 'q', 'r'), fc.oneof(fc.nat(3), fc.string({ maxLength: 2 })));
  it('who changed nothing gets what the other has, whatever that is', () => {
    fc.assert(
      fc.property(row, row, (base, other) => {
        expect(merged(base, base, other)).toEqual({ row: other, clashes: [] });
        expect(merged(base, other, base)).toEqual({ row: other, clashes: [] });
        expect(merged(base, other, other)).toEqual({ row: other, clashes: [] });
      }),
    );
  });

  it('every field is as one of the two changed it; what is lost of the other is told', () => {
    fc.assert(
      fc.property(row, row, row, (base, mine, theirs) => {
        const done = merged(base, mine, theirs);
        for (const field of ['p', 'q', 'r']) {
          const told = done.clashes.some(({ path }) => path[0] === field);
          const changedThere = theirs[field] !== base[field];
          const changedHere = mine[field] !== base[field];
          expect(done.row[field]).toBe(changedHere ? mine[field] : theirs[field]);
          expect(told).toBe(changedHere && changedThere && mine[field] !== theirs[field]);
        }
      }),
    );
  });
});
