import { describe, expect, it } from 'vitest';
import { markOf, openQuestion } from '../../../tests/unit/samples';
import { textSeats } from '../../../tests/unit/textSeats';
import type { HandMark } from '../model/mark';
import { arranged, wantingEntries } from './piles/arrange';
import { putForward, type AnswerParts, type EarlierMarks } from './putForward';
import { sameAnswers } from './sameAnswers';

const texts = ['iron', 'heading', 'iron heading', 'iron heading new', ''];
/** Each word is a part. */
const parts = (groups: readonly { id: string; text: string }[]): AnswerParts =>
  new Map(groups.map(({ id, text }) => [id, text.split(' ')]));

function forward(
  marks: HandMark[],
  {
    proposed = [],
    earlier = new Map(),
    withParts = true,
  }: { proposed?: string[][]; earlier?: EarlierMarks; withParts?: boolean } = {},
) {
  const question = { ...openQuestion };
  const seats = textSeats(texts, marks, question);
  const groups = sameAnswers(question, seats);
  const idOf = (text: string) => groups.find((group) => group.text === text)?.id ?? '';
  const entries = arranged(
    groups,
    [],
    proposed.map((pile) => pile.map(idOf)),
  );
  const likes = putForward(question, entries, earlier, withParts ? parts(groups) : new Map());
  return {
    entries,
    likes: Object.fromEntries(
      groups.flatMap(({ id, text }) => {
        const like = likes.get(id);
        return like ? [[text, [like.from, like.points, ...like.lines]]] : [];
      }),
    ),
  };
}
const mark = (n: number, points: number, lines: string[] = []) =>
  markOf({ attemptId: `a${n}`, points, lines });

describe('what is put forward', () => {
  it('follows from the parts of marked answers, by points', () => {
    expect(forward([mark(0, 1), mark(1, 0.5)]).likes).toEqual({ 'iron heading': ['parts', 1.5] });
  });

  it('by lines where marks have lines, and by neither where points were typed over them', () => {
    const [first] = openQuestion.kind === 'openText' ? openQuestion.scheme : [];
    const id = first?.id ?? '';
    const worth = first?.points ?? 0;
    expect(forward([mark(0, worth, [id]), mark(1, 0)]).likes).toEqual({
      'iron heading': ['parts', worth, id],
    });
    expect(forward([mark(0, worth + 0.25, [id]), mark(1, 0)]).likes).toEqual({});
  });

  it('similar ones of a pile only where they say the same, as far as that is known', () => {
    const pile = { proposed: [['iron heading', 'iron heading new']] };
    expect(forward([mark(2, 2)], pile).likes).toEqual({});
    expect(forward([mark(2, 2)], { ...pile, withParts: false }).likes).toEqual({
      'iron heading new': ['similar', 2],
    });
  });

  it('what equal answers have in an earlier sitting, which is named', () => {
    const earlier = new Map([['iron', { points: 2, lines: [], times: 3, sitting: 'Spring' }]]);
    expect(forward([], { earlier }).likes).toEqual({ iron: ['earlier', 2] });
  });

  it('never for what is blank, or has points', () => {
    const { likes } = forward([mark(0, 1), mark(1, 1), mark(2, 2), mark(3, 1)]);
    expect(likes).toEqual({});
  });
});

describe('only what still wants the marker', () => {
  it('is what waits, and where the marker is; the next of a pile heads it', () => {
    const { entries } = forward([mark(2, 1), mark(0, 1)], {
      proposed: [['iron heading', 'iron heading new']],
    });
    const shown = wantingEntries(entries, 'iron');
    expect(shown.map(({ group, heads }) => [group.text, heads])).toEqual([
      ['iron heading new', true],
      ['iron', true],
      ['heading', true],
      ['', true],
    ]);
  });
});
