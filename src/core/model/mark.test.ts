import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, markOf } from '../../../tests/unit/samples';
import { RowChange } from './log';
import { changedMark, HandMark, historyOf, isNoMark, ownMarker, valuesOf, type MarkValues } from './mark';

const after = (seconds: number) => new Date(Date.parse(at) + seconds * 1000).toISOString();
const step = (seconds: number, why = '') => ({ at: after(seconds), by: ownMarker, why });
const fresh = markOf({ at: '' });

describe('how a mark came to be', () => {
  it('each change says who, when, from what to what, and why', () => {
    const first = changedMark(fresh, { points: 2, lines: ['l1'] }, step(0));
    const second = changedMark(first, { points: 3 }, step(100, 'The sketch was overlooked'));
    expect(historyOf(second)).toEqual([
      { ...step(0), from: null, to: { points: 2, lines: ['l1'], comment: '', aside: false } },
      {
        ...step(100, 'The sketch was overlooked'),
        from: { points: 2, lines: ['l1'], comment: '', aside: false },
        to: { points: 3, lines: ['l1'], comment: '', aside: false },
      },
    ]);
    expect(second.at).toBe(after(100));
  });

  it('what changes nothing is no change; words typed on and on are one', () => {
    const marked = changedMark(fresh, { points: 2 }, step(0));
    expect(changedMark(marked, { points: 2, comment: '' }, step(10))).toBe(marked);
    let typing = marked;
    for (const [second, comment] of ['S', 'Se', 'See', 'See rule 7'].entries())
      typing = changedMark(typing, { comment }, step(20 + second));
    expect(historyOf(typing)).toHaveLength(2);
    expect(historyOf(typing)[1]).toMatchObject({ from: { comment: '' }, to: { comment: 'See rule 7' } });
    const later = changedMark(typing, { comment: 'See rule 8' }, step(500));
    expect(historyOf(later)).toHaveLength(3);
    expect(historyOf(changedMark(later, { comment: '' }, step(501, 'Not so')))).toHaveLength(4);
  });

  it('a mark that was taken away keeps what it was; one that never said anything is none', () => {
    const typed = changedMark(changedMark(fresh, { comment: 'S' }, step(0)), { comment: '' }, step(1));
    expect([isNoMark(typed), typed.history]).toEqual([true, []]);
    const gone = changedMark(changedMark(fresh, { points: 1 }, step(0)), { points: null }, step(100));
    expect(isNoMark(gone)).toBe(false);
    expect(historyOf(gone)).toHaveLength(2);
  });

  it('of very many changes the first and the latest are kept, and each leads to the next', () => {
    const anyStep = fc.record({
      points: fc.option(fc.integer({ min: 0, max: 4 })),
      comment: fc.constantFrom('', 'a', 'ab'),
      aside: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(anyStep, { maxLength: 240 }), (steps) => {
        const values: MarkValues[] = [];
        let mark: HandMark = fresh;
        for (const [index, change] of steps.entries()) {
          mark = changedMark(mark, change, step(index * 100));
          values.push(valuesOf(mark));
        }
        const history = historyOf(HandMark.parse({ ...mark, at: mark.at || at }));
        expect(history.length).toBeLessThanOrEqual(100);
        expect(history.at(-1)?.to ?? valuesOf(fresh)).toEqual(valuesOf(mark));
        for (const { from, to } of history) expect(from).not.toEqual(to);
        const last = values.at(-1);
        if (last) expect(valuesOf(mark)).toEqual(last);
      }),
    );
  });

  it('marks and acts of before there were several markers are the teacher’s', () => {
    const { markerId: _m, history: _h, ...before } = markOf({ points: 2 });
    expect(HandMark.parse(before)).toEqual({ ...markOf({ points: 2 }), markerId: 'teacher', history: [] });
    const change = { how: 'removed', table: 'marks', key: ['attempt1', 'q4'], row: before };
    expect(RowChange.parse(change)).toMatchObject({
      key: ['attempt1', 'q4', 'teacher'],
      row: { markerId: 'teacher', history: [] },
    });
    const other = { how: 'removed', table: 'releases', key: ['sitting1', 's0'], row: {} };
    expect(RowChange.parse(other)).toEqual(other);
  });
});
