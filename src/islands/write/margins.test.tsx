// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { at, openQuestion, runDistance, samples, tideChoice } from '../../../tests/unit/samples';
import { allWays } from '@/core/kinds/working/ways';
import { draw } from '../../../tests/unit/screen';
import type { Question } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';
import { emptyTables, replaceDesk } from '@/store/backup';
import { desk } from '@/store/tables';
import { BankLink } from './BankLink';
import { ManyAtOnce } from './ManyAtOnce';
import { withMany, type ManyChange } from './paperEdits';
import { QuestionMargin } from '../questions/QuestionMargin';

const paper: Paper = {
  id: 'p',
  title: 'Tides',
  instructions: '',
  questions: [tideChoice, runDistance, openQuestion],
  createdAt: at,
  changedAt: at,
};

beforeEach(() => replaceDesk({ ...emptyTables, papers: [paper] }));

describe('many questions at once', () => {
  const picked = new Set(['q1', 'q6']);

  function many() {
    const change = vi.fn<(change: ManyChange, said: string) => void>();
    const pick = vi.fn();
    const drawn = draw(<ManyAtOnce paper={paper} picked={picked} pick={pick} change={change} />);
    const after = () => withMany(paper, picked, change.mock.calls.at(-1)?.[0] as ManyChange);
    return { ...drawn, change, pick, after };
  }

  it('says how many are picked, and gives them points in one act', async () => {
    const { hand, change, after } = many();
    expect(screen.getByRole('heading', { name: '2 questions selected' })).toBeTruthy();
    const field = screen.getByLabelText('Points for each selected question');
    await hand.clear(field);
    await hand.type(field, '2,5');
    await hand.click(screen.getByRole('button', { name: 'points each' }));
    expect(change).toHaveBeenCalledWith({ what: 'points', points: 2.5 }, '2 questions worth 2.5 each');
    expect(after().questions.map((question) => question.points)).toEqual([2.5, 2.5, 3]);
  });

  it('puts a tag on and takes it off; nothing to press while none is named', async () => {
    const { hand, after } = many();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add tag' }).disabled).toBe(true);
    await hand.type(screen.getByLabelText('Tag'), ' tides ');
    await hand.click(screen.getByRole('button', { name: 'Add tag' }));
    expect(after().questions.map((question) => question.tags)).toEqual([['tides'], ['tides'], []]);
    await hand.click(screen.getByRole('button', { name: 'Remove tag' }));
    expect(after().questions.every((question) => question.tags.length === 0)).toBe(true);
  });

  it('asks for working with a share by key', async () => {
    const { hand, after } = many();
    const field = screen.getByLabelText(/^Percent of the points by key/);
    await hand.clear(field);
    await hand.type(field, '40');
    await hand.click(screen.getByRole('button', { name: '% by key, rest for working' }));
    expect(after().questions.map((question) => question.working?.keyShare)).toEqual([0.4, 0.4, undefined]);
  });

  it('deletes them and picks none after that; picks all when not all are', async () => {
    const { hand, pick, after } = many();
    await hand.click(screen.getByRole('button', { name: 'Select all' }));
    expect(pick).toHaveBeenLastCalledWith(new Set(['q1', 'q6', 'q4']));
    await hand.click(screen.getByRole('button', { name: 'Delete questions' }));
    expect(pick).toHaveBeenLastCalledWith(new Set());
    expect(after().questions.map((question) => question.id)).toEqual(['q4']);
  });
});

describe('what belongs to the open question', () => {
  function margin(question: Question) {
    const keep = vi.fn<(question: Question, said: string, field?: string) => void>();
    const drawn = draw(<QuestionMargin question={question} name="question 2" keep={keep} />);
    return { ...drawn, last: () => keep.mock.calls.at(-1)?.[0] };
  }

  it('working is asked for beside a key, and says how the points fall', async () => {
    const { hand, last } = margin(runDistance);
    await hand.click(screen.getByLabelText('Ask for working too'));
    expect(last()?.working).toEqual({ keyShare: 0.5, modelAnswer: '', scheme: [], ways: allWays });
  });

  it('with working it has a scheme of its own, worth what the key leaves', () => {
    margin({
      ...runDistance,
      points: 5,
      working: { keyShare: 0.4, modelAnswer: '', scheme: [] },
    } as Question);
    expect(screen.getByText(/% by key, 3 of 5 for the working, marked by hand/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Add a line' })).toBeTruthy();
  });

  it('a kind marked by hand has no working beside it', () => {
    margin(openQuestion);
    expect(screen.queryByLabelText('Ask for working too')).toBeNull();
    expect(screen.getByText(/points, marked by hand/)).toBeTruthy();
  });

  it('keeps a link as it is typed, and asks for its words once there is one', async () => {
    const { hand, last, unmount } = margin(tideChoice);
    expect(screen.queryByLabelText('Link text')).toBeNull();
    await hand.type(screen.getByLabelText(/^Link for further reading/), 'h');
    expect(last()?.link).toEqual({ href: 'h', text: '' });
    unmount();
    margin({ ...tideChoice, link: { href: 'https://example.org', text: '' } } as Question);
    expect(screen.getByLabelText('Link text')).toBeTruthy();
  });
});

describe('how a question stands to the bank', () => {
  it('is put in, changed, put back and made separate, each kept at once', async () => {
    const { hand, rerender } = draw(<BankLink paperId="p" question={tideChoice} />);
    await hand.click(await screen.findByRole('button', { name: 'Add to bank' }));
    await waitFor(async () => expect(await desk.bank.count()).toBe(1));
    const question = async () => (await desk.papers.get('p'))?.questions[0] ?? samples.oneChoice;
    const linked = await question();
    rerender(<BankLink paperId="p" question={linked} />);
    expect(await screen.findByRole('heading', { name: 'Same as in the bank' })).toBeTruthy();

    const changed = { ...linked, points: 4 } as Question;
    await desk.papers.update('p', { questions: [changed, ...paper.questions.slice(1)] });
    rerender(<BankLink paperId="p" question={changed} />);
    await hand.click(await screen.findByRole('button', { name: 'Update the bank' }));
    await waitFor(async () => expect((await desk.bank.toArray())[0]?.question.points).toBe(4));

    await hand.click(screen.getByRole('button', { name: 'Unlink' }));
    await waitFor(async () => expect((await question()).bankId).toBeUndefined());
    expect((await question()).points).toBe(4);
  });
});
