import { describe, expect, it } from 'vitest';
import { openQuestion, springChoices, tideChoice, tideOrder } from '../../../../tests/unit/samples';
import { kindOf, type Question } from '../../kinds';
import type { Region } from '../../model/answerPaper';
import { answersOnPaper, type SettledBox } from './answersOnPaper';
import { laidOut } from './layout';
import type { TickState } from '../../model/scan';

const words = { title: '', instructions: '', rule: '', number: 'Number', points: String };
const asked: Question[] = [tideChoice, springChoices, tideOrder, openQuestion];
const questions = asked.map((question) => kindOf(question).forStudent(question, 'A'));
const pages = laidOut(questions, words, (text, size) => text.length * size * 0.18).map(
  ({ regions }) => regions,
);
const print = { pages };

/** A scan of a page in which these boxes are so and all others empty. */
const scan = (page: number, states: Record<string, TickState>): SettledBox[] =>
  (pages[page - 1] ?? []).flatMap((region) =>
    region.box === null ? [] : [{ region, state: states[nameOf(region)] ?? 'empty' }],
  );
const nameOf = ({ questionId, part, box }: Region) => `${questionId} ${part} ${box}`;
const read = (states: Record<string, TickState>, more: SettledBox[][] = []) =>
  answersOnPaper(print, questions, new Map(pages.map((_, at) => [at + 1, [scan(at + 1, states), ...more]])));
const box = (id: string) => `${tideChoice.id} options ${id}`;

describe('what scanned pages say', () => {
  it('ticks are answers, no ticks a blank one, and what is written is named with its place', () => {
    const found = read({ [box('b')]: 'ticked' });
    expect(found.answers[tideChoice.id]).toEqual({ picked: ['b'] });
    expect(found.answers[springChoices.id]).toEqual({ picked: [] });
    expect(found.answers[openQuestion.id]).toBeUndefined();
    expect(found.written[openQuestion.id]?.map(({ part }) => part)).toEqual(['answer']);
    expect(found.notRead).toEqual({});
  });

  it('a filled box is a tick taken back; alone in its row it is asked about', () => {
    expect(read({ [box('a')]: 'filled', [box('b')]: 'ticked' }).answers[tideChoice.id]).toEqual({
      picked: ['b'],
    });
    expect(read({ [box('a')]: 'filled' }).notRead).toEqual({ [tideChoice.id]: 'doubtful' });
  });

  it('what cannot be read, or be an answer, is neither wrong nor blank', () => {
    const doubtful = read({ [box('a')]: 'doubtful', [box('b')]: 'ticked' });
    expect(doubtful.notRead).toEqual({ [tideChoice.id]: 'doubtful' });
    expect(doubtful.answers[tideChoice.id]).toBeUndefined();
    expect(read({ [box('a')]: 'ticked', [box('b')]: 'ticked' }).notRead).toEqual({
      [tideChoice.id]: 'tooManyTicks',
    });
  });

  it('a page that was not scanned leaves its questions not read, and the others as they are', () => {
    const none = answersOnPaper(print, questions, new Map());
    expect(Object.keys(none.notRead)).toEqual(questions.map(({ id }) => id));
    expect(new Set(Object.values(none.notRead))).toEqual(new Set(['pageMissing']));
    expect(none.answers).toEqual({});
  });

  it('a page scanned twice counts once; a clear reading wins over a doubtful one, two clear ones that differ are asked about', () => {
    const first = { [box('b')]: 'ticked' as const };
    const again = (states: Record<string, TickState>) => read(first, [scan(1, states)]);
    expect(again(first).answers[tideChoice.id]).toEqual({ picked: ['b'] });
    expect(again({ [box('b')]: 'doubtful' }).answers[tideChoice.id]).toEqual({ picked: ['b'] });
    expect(again({}).notRead[tideChoice.id]).toBe('scansDiffer');
  });
});
