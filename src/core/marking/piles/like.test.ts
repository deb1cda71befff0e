import { describe, expect, it } from 'vitest';
import { markOf, openQuestion } from '../../../../tests/unit/samples';
import { textSeats } from '../../../../tests/unit/textSeats';
import type { HandMark } from '../../model/mark';
import { sameAnswers } from '../sameAnswers';
import { arranged } from './arrange';
import { likeOf } from './like';

const texts = ['points to iron', 'Points to iron.', 'it points to iron', 'something else'];
function entries(marks: readonly HandMark[], proposed: string[][]) {
  const seats = textSeats(texts, marks);
  const groups = sameAnswers({ ...openQuestion }, seats);
  const id = (text: string) => groups.find((group) => group.text.toLowerCase().startsWith(text))?.id ?? '';
  return arranged(
    groups,
    [],
    proposed.map((some) => some.map(id)),
  );
}
const mark = (n: number, points: number | null, lines: string[] = []) =>
  markOf({ attemptId: `a${n}`, points, lines });
const likes = (marks: readonly HandMark[], proposed: string[][] = [['points', 'it points']]) =>
  new Map(entries(marks, proposed).map((entry) => [entry.group.text, likeOf(entry)]));

describe('what a waiting answer is like', () => {
  it('an equal one that came earlier and has points: put forward for those that wait alone', () => {
    expect(likes([mark(0, 2, ['l1'])]).get('points to iron')).toMatchObject({
      ...{ points: 2, lines: ['l1'], times: 1, from: 'equal' },
      attemptIds: ['a1'],
    });
  });

  it('others of its pile that have points; nothing where they differ, or where there is no pile', () => {
    expect(likes([mark(0, 2), mark(1, 2)]).get('it points to iron')).toMatchObject({
      ...{ points: 2, times: 2, from: 'similar' },
      attemptIds: ['a2'],
    });
    expect(likes([mark(0, 2), mark(1, 1)]).get('it points to iron')).toBeNull();
    expect(likes([mark(0, 2), mark(1, 2)], []).get('it points to iron')).toBeNull();
    expect(likes([mark(0, 2), mark(1, 2)]).get('something else')).toBeNull();
  });

  it('seen and not marked is no mark; what has points waits for nothing', () => {
    expect(likes([mark(0, null)]).get('it points to iron')).toBeNull();
    expect(likes([mark(2, 3)]).get('it points to iron')).toBeNull();
  });

  it('what fits a pile that is marked as one gets what that has, and one for all', () => {
    const seats = textSeats(texts, [mark(0, 2), mark(1, 2)]);
    const groups = sameAnswers({ ...openQuestion }, seats);
    const ids = groups.map(({ id }) => id);
    const [first = '', late = ''] = ['points to iron', 'it points to iron'].map(
      (text) => groups.find((group) => group.text.toLowerCase() === text)?.id ?? '',
    );
    const other = ids.find((id) => id !== first && id !== late) ?? '';
    const pile = {
      ...{ id: 'p', sittingId: 's', questionId: 'q', name: 'iron', agreedAt: '2026-11-23T10:00:00.000Z' },
      members: [first, other],
    };
    const entry = arranged(groups, [pile], [[first, late]]).find(({ group }) => group.id === late);
    expect(entry?.fits?.name).toBe('iron');
    expect(entry && likeOf(entry)).toMatchObject({ points: 2, from: 'similar', attemptIds: ['a2'] });
  });
});
