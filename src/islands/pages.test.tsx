// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { buildDemo } from '@demo/buildDemo';
import { replaceDesk } from '@/store/backup';
import { setBegunWith } from '@/store/deskSettings';
import { desk } from '@/store/tables';
import { AnalysePage } from './analyse/AnalysePage';
import { DeskPage } from './desk/DeskPage';
import { GroupsPage } from './groups/GroupsPage';
import { HandBackPage } from './handback/HandBackPage';
import { MarkPage } from './mark/MarkPage';
import { ScriptPage } from './mark/ScriptPage';
import { RunPage } from './run/RunPage';
import { LookPage } from './write/LookPage';
import { WritePage } from './write/WritePage';

/** Whole pages over the demo desk, without a browser: that each stands, and that what it says is what is kept. */

// Whole pages with all their tables take their time without a browser.
vi.setConfig({ testTimeout: 30_000 });

beforeAll(async () => {
  await replaceDesk(buildDemo(Date.now()));
  await setBegunWith('demo');
});

beforeEach(() => window.history.replaceState(null, '', '/'));

const patient = { timeout: 10_000 };
const hand = userEvent.setup();

describe('the desk', () => {
  it('has every sitting as a strip of five stages, and the paper that is being written', async () => {
    render(<DeskPage />);
    const strips = await screen.findAllByRole('navigation', { name: /^Stages of/ }, patient);
    expect(strips).toHaveLength((await desk.sittings.count()) + 2);
    for (const strip of strips) expect(strip.children).toHaveLength(5);
    expect(screen.getAllByText('being written')).toHaveLength(2);
  });

  it('lists the three groups with how many are in them', async () => {
    render(<GroupsPage />);
    expect(await screen.findByText('Monday evening', undefined, patient)).toBeTruthy();
    const students = await desk.students.where('groupIds').equals('group1').count();
    expect(screen.getByRole('row', { name: `Monday evening ${students} 3` })).toBeTruthy();
  });
});

describe('a running sitting', () => {
  it('counts who has not started, is working and is in: together everyone', async () => {
    render(<RunPage sittingId="rules" />);
    await screen.findByRole('button', { name: '10 working' }, patient);
    const counts = screen
      .getAllByRole('button', { name: /^\d+ (not started|working|in)/ })
      .map((button) => Number.parseInt(button.textContent ?? ''));
    const students = await desk.students.where('groupIds').equals('group1').count();
    expect(counts.reduce((a, b) => a + b, 0)).toBe(students);
  });
});

describe('marking', () => {
  it('opens at what waits, with the scheme beside it and no name in sight', async () => {
    const { container } = render(<MarkPage sittingId="tides" />);
    expect(await screen.findByRole('heading', { name: 'Question 10, 4 points' }, patient)).toBeTruthy();
    const names = (await desk.students.toArray()).map((student) => student.familyName);
    expect(names.filter((name) => new RegExp(`\\b${name}\\b`).test(container.textContent ?? ''))).toEqual([]);
  });

  it('a digit gives points to the equal answers at once, and they are kept', async () => {
    render(<MarkPage sittingId="tides" />);
    await screen.findByRole('heading', { name: 'Question 10, 4 points' }, patient);
    const before = await desk.marks.where({ sittingId: 'tides' }).count();
    await waitFor(() => expect(document.querySelector('[data-row="0"]')).toBeTruthy(), patient);
    await hand.keyboard('2');
    await waitFor(
      async () => expect(await desk.marks.where({ sittingId: 'tides' }).count()).toBeGreaterThan(before),
      patient,
    );
    const marks = await desk.marks.where({ sittingId: 'tides' }).toArray();
    expect(marks.at(-1)?.points).toBe(2);
    await hand.keyboard('{Control>}z{/Control}');
    await waitFor(
      async () => expect(await desk.marks.where({ sittingId: 'tides' }).count()).toBe(before),
      patient,
    );
  });

  it('a script has every question of the paper with what it has got', async () => {
    render(<ScriptPage sittingId="lights" studentId="student03" />);
    expect(await screen.findByRole('heading', { name: 'Total' }, patient)).toBeTruthy();
    const version = await desk.paperVersions.where('paperId').equals('paper-lights').first();
    expect(screen.getAllByRole('textbox', { name: /^Points/ })).toHaveLength(version?.questions.length ?? 0);
  });
});

describe('analysing', () => {
  it('has a row a question, most missed first, and in the order of the paper when asked', async () => {
    render(<AnalysePage sittingId="lights" />);
    const table = await screen.findByRole('table', undefined, patient);
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
      (await screen.findByText('in', { selector: 'dt' }, patient)).previousSibling?.textContent,
    );
    await hand.selectOptions(screen.getByRole('combobox', { name: 'Group' }), 'group1');
    const some = Number(screen.getByText('in', { selector: 'dt' }).previousSibling?.textContent);
    expect(some).toBeGreaterThan(0);
    expect(some).toBeLessThan(all);
  });
});

describe('handing back', () => {
  it('offers only what is ready, and says why the rest is not', async () => {
    render(<HandBackPage sittingId="tides" />);
    expect((await screen.findAllByText(/wait for a mark/, undefined, patient)).length).toBeGreaterThan(0);
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
    const title = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Title' }, patient);
    const before = title.value;
    await hand.type(title, ', again');
    await hand.tab();
    await waitFor(
      async () => expect((await desk.papers.get('paper-weather'))?.title).toBe(`${before}, again`),
      patient,
    );
    const last = await desk.log.orderBy('seq').last();
    expect(last?.said).toBe('Title changed');
    title.blur();
    await hand.click(await screen.findByRole('button', { name: /^Undo/ }, patient));
    await waitFor(async () => expect((await desk.papers.get('paper-weather'))?.title).toBe(before), patient);
  });

  it('the look at a paper has every question and none of its key', async () => {
    const { container } = render(<LookPage paperId="paper-tides" />);
    const paper = await desk.papers.get('paper-tides');
    await waitFor(
      () =>
        expect(screen.getAllByRole('region', { name: /^Question/ })).toHaveLength(
          paper?.questions.length ?? -1,
        ),
      patient,
    );
    const hidden = paper?.questions.flatMap((question) => [question.note, question.commentRight]) ?? [];
    for (const words of hidden.filter(Boolean)) expect(container.textContent).not.toContain(words);
  });
});
