// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { sum, sumBy } from 'remeda';
import { buildDemo } from '@demo/buildDemo';
import { replaceDesk } from '@/store/backup';
import { setBegunWith } from '@/store/deskSettings';
import { usualPieces } from '@/store/live/attemptsInPieces';
import { desk } from '@/store/tables';
import { AnalysePage } from './analyse/AnalysePage';
import { DeskPage } from './desk/DeskPage';
import { GroupsPage } from './groups/GroupsPage';
import { HandBackPage } from './handback/HandBackPage';
import { MarkPage } from './mark/MarkPage';
import { ScriptPage } from './mark/ScriptPage';
import { RunPage } from './run/RunPage';
import { BankPage } from './bank/BankPage';
import { LookPage } from './write/LookPage';
import { PrintPage } from './write/PrintPage';
import { SheetPage } from './write/SheetPage';
import { WritePage } from './write/WritePage';

/** Whole pages over the demo desk, without a browser: that each stands, and that what it says is what is kept. */

beforeAll(async () => {
  await replaceDesk(buildDemo(Date.now()));
  await setBegunWith('demo');
});

beforeEach(() => window.history.replaceState(null, '', '/'));

const hand = userEvent.setup();

/** Presses Undo once it is the last act that it undoes: until that is drawn, it undoes the one before. */
async function undone() {
  const last = await desk.log.orderBy('seq').last();
  const kept = within(screen.getByRole('contentinfo', { name: 'Saved state' }));
  expect(await kept.findByText(last?.said ?? '')).toBeTruthy();
  await hand.click(await kept.findByRole('button', { name: /^Undo/ }));
}

describe('the desk', () => {
  it('has every sitting as a strip of five stages, and the paper that is being written', async () => {
    render(<DeskPage />);
    const strips = await screen.findAllByRole('navigation', { name: /^Stages of/ });
    expect(strips).toHaveLength((await desk.sittings.count()) + 2);
    for (const strip of strips) expect(strip.children).toHaveLength(5);
    expect(screen.getAllByText('draft')).toHaveLength(2);
  });

  it('lists the three groups with how many are in them', async () => {
    render(<GroupsPage />);
    expect(await screen.findByText('Monday evening')).toBeTruthy();
    const students = await desk.students.where('groupIds').equals('group1').count();
    expect(screen.getByRole('row', { name: `Monday evening ${students} 3` })).toBeTruthy();
  });
});

describe('a running sitting', () => {
  it('counts who has not started, is working and is in: together everyone', async () => {
    render(<RunPage sittingId="rules" />);
    await screen.findByRole('button', { name: '10 working' });
    const counts = screen
      .getAllByRole('button', { name: /^\d+ (not started|working|handed in)/ })
      .map((button) => Number.parseInt(button.textContent ?? ''));
    const students = await desk.students.where('groupIds').equals('group1').count();
    expect(sum(counts)).toBe(students);
  });
});

describe('marking', () => {
  it('opens at what waits, with the scheme beside it and no name in sight', async () => {
    const { container } = render(<MarkPage sittingId="tides" />);
    expect(await screen.findByRole('heading', { name: 'Question 10, 4 points' })).toBeTruthy();
    const names = (await desk.students.toArray()).map((student) => student.familyName);
    expect(names.filter((name) => new RegExp(`\\b${name}\\b`).test(container.textContent ?? ''))).toEqual([]);
  });

  it('of a large sitting shows the first answers and says of how many; counts and stages come once all are there', async () => {
    const usual = { ...usualPieces };
    Object.assign(usualPieces, { most: 10, first: 30, later: 30 });
    render(<MarkPage sittingId="symbols" />);
    expect(await screen.findByText(/^Reading answers: \d\d of \d\d attempts so far/)).toBeTruthy();
    expect(screen.queryByRole('navigation', { name: /^Stages of/ })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Question .*(wait|not read|all marked)/ })).toBeNull();
    expect(await screen.findByRole('navigation', { name: /^Stages of/ })).toBeTruthy();
    expect(screen.queryByText(/^Reading answers/)).toBeNull();
    // Drawn a moment after the stages.
    expect(
      (await screen.findAllByRole('button', { name: /^Question .*(wait|not read|all marked)/ })).length,
    ).toBeGreaterThan(0);
    Object.assign(usualPieces, usual);
  });

  it('a digit gives points to the equal answers at once, and they are kept', async () => {
    render(<MarkPage sittingId="tides" />);
    await screen.findByRole('heading', { name: 'Question 10, 4 points' });
    const before = await desk.marks.where({ sittingId: 'tides' }).count();
    await waitFor(() => expect(document.querySelector('[data-row="0"]')).toBeTruthy());
    await hand.keyboard('2');
    await waitFor(async () =>
      expect(await desk.marks.where({ sittingId: 'tides' }).count()).toBeGreaterThan(before),
    );
    const marks = await desk.marks.where({ sittingId: 'tides' }).toArray();
    expect(marks.at(-1)?.points).toBe(2);
    await hand.keyboard('{Control>}z{/Control}');
    await waitFor(async () => expect(await desk.marks.where({ sittingId: 'tides' }).count()).toBe(before));
  });

  it('what is typed beside points that are not stored yet is still there once they are', async () => {
    render(<MarkPage sittingId="tides" />);
    await waitFor(() => expect(document.querySelector('[data-row="2"]')).toBeTruthy());
    await hand.click(document.querySelector('[data-row="2"]') ?? document.body);
    const before = await desk.marks.where({ sittingId: 'tides' }).count();
    await hand.keyboard('*');
    await hand.keyboard('+');
    await hand.type(screen.getByLabelText('Adjust by'), '1');
    await waitFor(async () =>
      expect(await desk.marks.where({ sittingId: 'tides' }).count()).toBeGreaterThan(before),
    );
    expect(await screen.findByText('4 + 1 makes 5 of 4, more than the maximum.')).toBeTruthy();
  });

  it('a script has every question of the paper with what it has got', async () => {
    render(<ScriptPage sittingId="lights" studentId="student03" />);
    expect(await screen.findByRole('heading', { name: 'Total' })).toBeTruthy();
    const version = await desk.paperVersions.where('paperId').equals('paper-lights').first();
    expect(screen.getAllByRole('textbox', { name: /^Points/ })).toHaveLength(version?.questions.length ?? 0);
  });
});

describe('analysing', () => {
  it('has a row a question, most missed first, and in the order of the paper when asked', async () => {
    render(<AnalysePage sittingId="lights" />);
    const table = await screen.findByRole('region', { name: 'Questions and their figures' });
    const facilities = () =>
      within(table)
        .getAllByText(/^\d+\s?%$/)
        .map((cell) => Number.parseInt(cell.textContent ?? ''));
    const missed = facilities();
    expect(missed).toEqual([...missed].sort((a, b) => a - b));
    await hand.click(screen.getByRole('button', { name: 'In the order of the paper' }));
    expect(within(table).getAllByRole('button')[0]?.textContent).toMatch(/^1 /);
    expect(facilities()).not.toEqual(missed);
  });

  it('a group alone has fewer in', async () => {
    render(<AnalysePage sittingId="lights" />);
    const all = Number(
      (await screen.findByText('handed in', { selector: 'dt' })).previousSibling?.textContent,
    );
    await hand.selectOptions(screen.getByRole('combobox', { name: 'Group' }), 'group1');
    const some = Number(screen.getByText('handed in', { selector: 'dt' }).previousSibling?.textContent);
    expect(some).toBeGreaterThan(0);
    expect(some).toBeLessThan(all);
  });
});

describe('handing back', () => {
  it('offers only what is ready, and says why the rest is not', async () => {
    render(<HandBackPage sittingId="tides" />);
    expect((await screen.findAllByText(/wait for a mark/)).length).toBeGreaterThan(0);
    const boxes = within(screen.getByRole('region', { name: 'Students' })).getAllByRole<HTMLInputElement>(
      'checkbox',
      { name: /, / },
    );
    expect(boxes.length).toBeGreaterThan(0);
    expect(boxes.every((box) => box.disabled)).toBe(true);
  });
});

describe('writing', () => {
  it('keeps what is typed, as one step to take back', async () => {
    render(<WritePage paperId="paper-weather" />);
    const title = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Title' });
    const before = title.value;
    await hand.type(title, ', again');
    await hand.tab();
    await waitFor(async () =>
      expect((await desk.papers.get('paper-weather'))?.title).toBe(`${before}, again`),
    );
    const last = await desk.log.orderBy('seq').last();
    expect(last?.said).toBe('Title changed');
    title.blur();
    await undone();
    await waitFor(async () => expect((await desk.papers.get('paper-weather'))?.title).toBe(before));
  });

  it('the look at a paper has every question and none of its key', async () => {
    const { container } = render(<LookPage paperId="paper-tides" />);
    const paper = await desk.papers.get('paper-tides');
    await waitFor(() =>
      expect(screen.getAllByRole('region', { name: /^Question/ })).toHaveLength(
        paper?.questions.length ?? -1,
      ),
    );
    const hidden = paper?.questions.flatMap((question) => [question.note, question.commentRight]) ?? [];
    for (const words of hidden.filter(Boolean)) expect(container.textContent).not.toContain(words);
  });
});

describe('the look at a paper', () => {
  it('scores what is filled in, says its comments, and makes it the key only when told to', async () => {
    render(<LookPage paperId="paper-passage" />);
    const first = await screen.findByRole('region', { name: 'Question 1' });
    await hand.click(within(first).getByRole('radio', { name: /False/ }));
    expect(first.textContent).not.toContain('0 of 1');
    await hand.click(screen.getByLabelText('Score these answers'));
    expect(first.textContent).toContain('0 of 1');
    expect(first.textContent).toContain('latitude scale');
    const key = async () => (await desk.papers.get('paper-passage'))?.questions[0];
    expect(await key()).toMatchObject({ key: true });
    await hand.click(screen.getByRole('button', { name: 'Make this the key' }));
    await waitFor(async () => expect(await key()).toMatchObject({ key: false }));
    await undone();
    await waitFor(async () => expect(await key()).toMatchObject({ key: true }));
  });
});

describe('a paper in print', () => {
  it('has every question without its key, and the key with everything a marker needs', async () => {
    render(<PrintPage paperId="paper-tides" />);
    const sheet = await screen.findByRole('article');
    const paper = await desk.papers.get('paper-tides');
    for (const question of paper?.questions ?? []) {
      expect(sheet.textContent).toContain(question.stem);
      if (question.note) expect(sheet.textContent).not.toContain(question.note);
      if (question.kind === 'openText') expect(sheet.textContent).not.toContain(question.modelAnswer);
    }
    await hand.click(screen.getByRole('radio', { name: /^The key/ }));
    for (const question of paper?.questions ?? [])
      if (question.kind === 'openText')
        for (const line of question.scheme)
          expect(screen.getByRole('article').textContent).toContain(line.text);
  });
});

describe('the bank', () => {
  it('lists every question of every paper, and narrows down as it is asked', async () => {
    render(<BankPage />);
    const papers = await desk.papers.toArray();
    const count = sumBy(papers, (paper) => paper.questions.length);
    expect(await screen.findByText(`${count} questions`)).toBeTruthy();
    await hand.selectOptions(screen.getByLabelText('Kind'), 'Matching');
    const matching = papers.flatMap((paper) => paper.questions).filter((each) => each.kind === 'matching');
    expect(screen.getByText(`${matching.length} of ${count} questions`)).toBeTruthy();
    await hand.type(screen.getByLabelText(/^Search questions/), 'no such words');
    expect(screen.getByText('No questions match.')).toBeTruthy();
  });

  it('says where a question is, how it did, and offers papers that do not have it', async () => {
    render(<BankPage />);
    await hand.type(await screen.findByLabelText(/^Search questions/), 'isolated danger night');
    await hand.click(screen.getByRole('button', { name: /isolated danger mark show/ }));
    const about = screen.getByRole('complementary', { name: 'About the question' });
    expect(within(about).getByRole('heading', { name: 'Used in 1 paper' })).toBeTruthy();
    expect(within(about).getByRole('heading', { name: 'Results' })).toBeTruthy();
    expect(within(about).getByText(/version 1, .*92 answers, \d+\s?%, discrimination/)).toBeTruthy();
    const paper = within(about).getByRole<HTMLSelectElement>('combobox', { name: 'Paper to add it to' });
    expect(paper.selectedOptions[0]?.textContent).not.toContain('lights');
  });
});

describe('a paper as a sheet', () => {
  it('says which of its questions a row cannot hold', async () => {
    render(<SheetPage paperId="paper-passage" />);
    const about = await screen.findByRole('complementary', { name: 'Import and export' });
    // Texts with gaps, pairs and orders can stand in a row; several units, rules of their own and pictures cannot.
    const left = within(about).getAllByRole('listitem');
    expect(left.map((row) => row.textContent)).toEqual([
      '2: asking for a unit, units',
      '3: units',
      '4: list of what does not matter',
      '7: rule that wrong pairs take off',
      '8: markup, maths or pictures in its options, order for each student',
      expect.stringMatching(/^9: picture to draw on/),
      '10: number of files, sorts of files',
    ]);
    expect(within(about).getByRole('button', { name: 'Save as XLSX' })).toBeTruthy();
  });

  it('shows what was understood of pasted rows before anything is kept', async () => {
    render(<SheetPage paperId="paper-weather" />);
    const before = (await desk.papers.get('paper-weather'))?.questions.length;
    await hand.click(await screen.findByLabelText('Rows of questions'));
    await hand.paste('Question,A,B,Key\nWhich cloud?,cirrus,stratus,A\n,x,y,A');
    expect(screen.getByRole('alert').textContent).toContain('row 3: it has no question text');
    expect(screen.getByRole('row', { name: /Which cloud.*One choice.*A cirrus/ })).toBeTruthy();
    await hand.selectOptions(screen.getByLabelText(/^Column 4/), 'leave out');
    expect(screen.getByRole('row', { name: /Which cloud.*none yet/ })).toBeTruthy();
    expect((await desk.papers.get('paper-weather'))?.questions.length).toBe(before);
  });
});
