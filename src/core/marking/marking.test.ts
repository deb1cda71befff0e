import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, courseText, markOf, openQuestion, samples, sittingOf } from '../../../tests/unit/samples';
import { textSeats } from '../../../tests/unit/textSeats';
import { kindOf, type Question } from '../kinds';
import type { HandMark } from '../model/mark';
import type { Seat } from '../seats/seats';
import { progressFrom } from '../seats/progress';
import { groupComment, groupLines } from './groupMark';
import { leftToMark, nextToMark } from './nextToMark';
import { tableOf } from '../seats/tableOf';
import { sameAnswers } from './sameAnswers';
import { schemeOf } from './scheme';
import { withLineSwitched } from './switchLine';
import { nothingTyped, pointsFrom, typePoints } from './typedPoints';

describe('equal answers', () => {
  it('are one thing to mark after case, spaces and accents are forgiven; the blank ones come last', () => {
    const groups = sameAnswers(
      openQuestion,
      textSeats(['', 'Iron on board', 'iron on  BOARD', 'Írón on board', 'engine', ' ']),
    );
    expect(groups.map((group) => [group.id, group.answers.length])).toEqual([
      ['engine', 1],
      ['irononboard', 3],
      ['', 2],
    ]);
    expect(leftToMark(groups)).toBe(3);
  });

  it('say when equal answers carry unequal points, and when a late one waits', () => {
    const seats = textSeats(
      ['iron', 'Iron', 'iron'],
      [markOf({ attemptId: 'a0', points: 2 }), markOf({ attemptId: 'a1', points: 1 })],
    );
    const [group] = sameAnswers(openQuestion, seats);
    expect(group).toMatchObject({ uneven: true, points: null, waiting: 1 });
  });

  it('do not change their order with the marks or with who wrote them', () => {
    const texts = ['ccc', 'bb', 'a', '', 'bb'];
    const ids = (seats: Seat[]) => sameAnswers(openQuestion, seats).map((group) => group.id);
    const before = ids(textSeats(texts));
    expect(ids(textSeats(texts, [markOf({ attemptId: 'a0', points: 3 })]))).toEqual(before);
    expect(ids([...textSeats(texts)].reverse())).toEqual(before);
  });

  it('are the same objects where no answer and no mark changed', () => {
    const texts = ['iron', 'ebb', 'ebb', 'card'];
    const seats = textSeats(texts);
    const before = sameAnswers(openQuestion, seats);
    expect(sameAnswers(openQuestion, [...seats])).toBe(before);
    const [first, ...rest] = seats;
    const [marked] = textSeats(texts, [markOf({ attemptId: 'a0', points: 3 })]);
    const after = sameAnswers(
      openQuestion,
      [marked ?? first, ...rest].filter((seat) => seat !== undefined),
    );
    expect(after.map(({ id }) => id)).toEqual(before.map(({ id }) => id));
    const changed = after.filter((group) => !before.includes(group));
    expect(changed.map(({ text, points }) => [text, points])).toEqual([['iron', 3]]);
  });

  it('are, whatever changes one after another, what they are when they are put together anew', () => {
    const text = fc.constantFrom('iron', 'Iron', 'ebb', 'ebb tide', '');
    const step = fc.record({
      at: fc.nat(4),
      text: fc.option(text),
      points: fc.option(fc.constantFrom(1, 3)),
    });
    fc.assert(
      fc.property(fc.array(text, { minLength: 5, maxLength: 5 }), fc.array(step), (first, steps) => {
        const question = { ...openQuestion };
        const texts = [...first];
        const marks = new Map<string, HandMark>();
        let seats = textSeats(texts);
        sameAnswers(question, seats);
        for (const { at: place, text: written, points } of steps) {
          if (written !== null) texts[place] = written;
          else marks.set(`a${place}`, markOf({ attemptId: `a${place}`, points }));
          const changed = textSeats(texts, [...marks.values()])[place];
          if (changed) seats = seats.with(place, changed);
          expect(sameAnswers(question, seats)).toEqual(sameAnswers({ ...openQuestion }, seats));
        }
      }),
    );
  });

  it('leave out whoever is still working', () => {
    const seats = textSeats(['iron']).map((seat): Seat => ({ ...seat, state: 'working' }));
    expect(sameAnswers(openQuestion, seats)).toEqual([]);
    expect(tableOf([openQuestion], seats).countsOf(openQuestion.id).given).toBe(0);
  });
});

describe('where a marker goes on', () => {
  const groups = (marks = [markOf()].slice(1)) =>
    sameAnswers(openQuestion, textSeats(['a', 'bb', 'ccc'], marks));

  it('to the next that waits, and from the end to the top', () => {
    expect(nextToMark(groups(), 'a')?.id).toBe('bb');
    expect(nextToMark(groups(), 'ccc')?.id).toBe('a');
    expect(nextToMark(groups([markOf({ attemptId: 'a1', points: 1 })]), 'a')?.id).toBe('ccc');
  });

  it('to those put aside only when nothing else is left', () => {
    const aside = markOf({ attemptId: 'a1', aside: true });
    expect(nextToMark(groups([aside]), 'a')?.id).toBe('ccc');
    const marked = [aside, markOf({ attemptId: 'a0', points: 1 }), markOf({ attemptId: 'a2', points: 1 })];
    expect(nextToMark(groups(marked), 'a')?.id).toBe('bb');
    expect(
      nextToMark(groups([...marked, markOf({ attemptId: 'a1', points: 0 })].slice(1)), 'ccc'),
    ).toBeNull();
  });

  it('to those put forward as close, until they are decided on', () => {
    const question = {
      ...courseText,
      accepted: [{ id: 'k', text: 'springs', share: 1, comment: '' }],
    } as Question;
    const near = (...marks: HandMark[]) =>
      sameAnswers(question, textSeats(['neaps', 'sprngs', 'springs'], marks, question));
    const put = near().find((group) => group.nearMiss !== null);
    expect(put?.text).toBe('sprngs');
    expect(nextToMark(near(), 'neaps')?.text).toBe('sprngs');
    expect(nextToMark(near(markOf({ attemptId: 'a1', questionId: 'q3', points: 0 })), 'neaps')).toBeNull();
  });
});

describe('points typed digit by digit', () => {
  const typed = (keys: string, max: number) =>
    [...keys].reduce((before, key) => typePoints(before, key, { points: max }), nothingTyped);

  it('a digit is so many points; a new digit starts again where the two together are too many', () => {
    expect(typed('2', 3).points).toBe(2);
    expect(typed('23', 3).points).toBe(3);
    expect(typed('10', 12).points).toBe(10);
  });

  it('halves and quarters, with point or comma', () => {
    expect(typed('2.5', 3).points).toBe(2.5);
    expect(typed('1,25', 3).points).toBe(1.25);
    expect(typed('1.7', 3).points).toBe(1.75);
    expect(typed('2.59', 4)).toMatchObject({ points: 2.5, refused: { why: 'notStep', typed: '2.59' } });
  });

  it('a point first is a half or a quarter; nothing is given before there is a digit', () => {
    expect(typed('.', 3)).toMatchObject({ points: null, refused: null });
    expect(typed('.5', 3).points).toBe(0.5);
    expect(typed(',25', 3).points).toBe(0.25);
  });

  it('what is no quarter is refused with what was typed, and what was given stays', () => {
    expect(typed('1.3', 4)).toMatchObject({ points: 1, refused: { why: 'notStep', typed: '1.3' } });
    expect(typed('1..', 4)).toMatchObject({ points: 1, refused: { why: 'notStep' } });
    // The maximum itself can always be given.
    expect(typed('0.4', 0.4).points).toBe(0.4);
  });

  it('a question may be marked in halves or in whole points alone; its maximum can still be given', () => {
    const step = (keys: string, points: number, pointStep: 0.5 | 1) =>
      [...keys].reduce((before, key) => typePoints(before, key, { points, pointStep }), nothingTyped);
    expect(step('1.5', 3, 0.5)).toMatchObject({ points: 1.5, refused: null });
    expect(step('1.2', 3, 0.5)).toMatchObject({ points: 1, refused: { why: 'notStep', typed: '1.2' } });
    expect(step('1/', 3, 1)).toMatchObject({ points: 1, refused: { why: 'notStep' } });
    expect(step('2.5', 2.5, 1).points).toBe(2.5);
  });

  it('more than the maximum is refused and changes nothing', () => {
    expect(typed('4', 3)).toMatchObject({ points: null, refused: { why: 'aboveMaximum', typed: '4' } });
    expect(typed('24', 3)).toMatchObject({ points: 2, refused: { why: 'aboveMaximum', typed: '24' } });
  });

  it('never gives more than the maximum, whatever is typed', () => {
    const keys = fc.array(fc.constantFrom(...'0123456789.,'), { maxLength: 8 });
    fc.assert(
      fc.property(
        keys,
        fc.integer({ min: 1, max: 40 }),
        (pressed, max) => (typed(pressed.join(''), max).points ?? 0) <= max,
      ),
    );
  });

  it('a number is read with comma or point, and nothing else', () => {
    expect(['2,5', ' 3 ', '-1', '1.234', 'two', '', '1e3'].map(pointsFrom)).toEqual([
      2.5,
      3,
      -1,
      null,
      null,
      null,
      null,
    ]);
  });
});

describe('nearly right answers', () => {
  const neap = {
    ...courseText,
    accepted: [
      { id: 'k0', text: 'deviation', share: 1, comment: '' },
      { id: 'k1', text: 'compass error', share: 0.5, comment: '' },
    ],
  } as Question;
  const answered = (texts: string[], marks: HandMark[] = []) => textSeats(texts, marks, neap);

  it('are put forward first, with what they come near to, and never scored by themselves', () => {
    const seats = answered(['deviation', 'variation', 'deviaton', 'devaition', 'compas error', '']);
    const groups = sameAnswers(neap, seats);
    expect(groups.map((group) => [group.text, group.nearMiss?.text ?? null, group.points])).toEqual([
      ['deviaton', 'deviation', 0],
      ['devaition', 'deviation', 0],
      ['compas error', 'compass error', 0],
      ['deviation', null, 2],
      ['variation', null, 0],
      ['', null, 0],
    ]);
    expect(tableOf([neap, openQuestion], seats).countsOf('q3').forward).toBe(3);
  });

  it('are a state of their own in scorecard and progress, counted as in Mark', () => {
    const seats = answered(['deviation', 'deviaton', 'variation']);
    const awards = seats.map((seat) => seat.scorecard?.awards.find(({ questionId }) => questionId === 'q3'));
    expect(awards.map((award) => award?.nearMiss?.text ?? null)).toEqual([null, 'deviation', null]);
    const { forward } = progressFrom(sittingOf(), seats, Date.parse(at));
    expect(forward).toBe(tableOf([neap], seats).countsOf('q3').forward);
  });

  it('gaps have them too: what the answer would give with the slips taken as meant', () => {
    const question = samples.gaps;
    const ids = question.kind === 'gaps' ? question.gaps.map(({ id }) => id) : [];
    const given = { gaps: { [ids[0] ?? '']: 'SECRET-FLOD', [ids[1] ?? '']: '' } };
    expect(kindOf(question).nearMiss?.(question, given)).toEqual({
      text: 'The stream that comes in is the [SECRET-FLOOD], the one that goes out the [].',
      share: 0.5,
    });
    const right = { gaps: { [ids[0] ?? '']: 'SECRET-FLOOD' } };
    expect(kindOf(question).nearMiss?.(question, right)).toBeNull();
  });

  it('are no longer put forward once a marker has decided, be it to leave them', () => {
    const mark = (attemptId: string, points: number) => markOf({ attemptId, questionId: 'q3', points });
    const seats = answered(['deviaton', 'devaition'], [mark('a0', 2), mark('a1', 0)]);
    expect(tableOf([neap], seats).countsOf('q3').forward).toBe(0);
    expect(sameAnswers(neap, seats).map((group) => group.points)).toEqual([2, 0]);
  });

  it('are accepted by themselves only where the question says so', () => {
    const generous = { ...neap, acceptsNearMisses: true } as Question;
    const share = (text: string) => kindOf(generous).score(generous, { text }).share;
    expect(['deviaton', 'compas error', 'variation'].map(share)).toEqual([1, 0.5, 0]);
    expect(kindOf(generous).nearMiss?.(generous, { text: 'deviaton' })).toBeNull();
  });
});

describe('what an answer must contain', () => {
  const contains = {
    ...courseText,
    accepted: [
      { id: 'k0', text: 'wind against stream', share: 1, comment: '', match: 'containsAll' },
      { id: 'k1', text: 'shallow water, swell', share: 0.5, comment: '', match: 'containsAll' },
    ],
    forgive: { case: true, spaces: true, accents: true, punctuation: true },
  } as Question;
  const share = (text: string) => kindOf(contains).score(contains, { text }).share;

  it('every word in any order, as words of their own', () => {
    expect(share('The stream sets against the wind.')).toBe(1);
    expect(share('Upstream against a windy sky')).toBe(0);
  });

  it('phrases with commas between stay together', () => {
    expect(share('A swell over shallow water!')).toBe(0.5);
    expect(share('Shallow, with water and swell')).toBe(0);
    expect(share('water and swell')).toBe(0);
  });

  it('its right answer contains them, and the key says so', () => {
    const right = kindOf(contains).rightAnswer(contains);
    expect(right && kindOf(contains).score(contains, right).share).toBe(1);
    expect(kindOf(contains).keyText(contains)).toBe(
      'contains wind and against and stream; contains shallow water and swell (50%)',
    );
  });
});

describe('forgiving punctuation', () => {
  const strict = {
    ...courseText,
    accepted: [{ id: 'k', text: 'low-water', share: 1, comment: '' }],
  } as Question;
  it('counts only where it is asked for', () => {
    expect(kindOf(strict).score(strict, { text: 'Low water' }).share).toBe(0);
    const kind = {
      ...strict,
      forgive: { case: true, spaces: true, accents: true, punctuation: true },
    } as Question;
    expect(kindOf(kind).score(kind, { text: '“Low water”.' }).share).toBe(1);
  });

  it('an accepted answer of signs alone can then never be met, and that is said', () => {
    const signs = {
      ...strict,
      accepted: [
        { id: 'k', text: 'ebb', share: 1, comment: '' },
        { id: 'l', text: '?!', share: 1, comment: '' },
      ],
      forgive: { case: true, spaces: true, accents: true, punctuation: true },
    } as Question;
    expect(kindOf(signs).findings(signs)).toMatchObject([{ code: 'neverMet', detail: '?!' }]);
  });
});

describe('marks of equal answers as one', () => {
  const question = openQuestion;
  const [first, second] = schemeOf(question);
  const mark = (attemptId: string, part: Partial<HandMark>) =>
    markOf({ attemptId, questionId: question.id, points: null, lines: [], comment: '', at: '', ...part });

  it('a line switched for a late one and the marked ones is on for all, or off for all', () => {
    const marked = mark('a1', { lines: [first?.id ?? ''], points: 1, at: '2' });
    const late = mark('a2', {});
    const on = withLineSwitched(question, marked, [marked, late], second?.id ?? '');
    expect(on.lines).toEqual([first?.id, second?.id]);
    expect(withLineSwitched(question, marked, [marked, late], first?.id ?? '').lines).toEqual([]);
  });

  it('the group shows what most have; of equally many what was done last', () => {
    const three = ['x', 'x', 'y'].map((comment, index) => mark(`a${index}`, { comment, at: String(index) }));
    expect(groupComment(three)).toBe('x');
    expect(groupComment(three.slice(1))).toBe('y');
    expect(
      groupLines([mark('a', { lines: ['l1'], points: null }), mark('b', { lines: ['l2'], points: 2 })]),
    ).toEqual(['l2']);
    expect([groupComment([]), groupLines([])]).toEqual(['', []]);
  });
});
