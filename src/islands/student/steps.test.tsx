// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { carrierWith } from '../../../tests/unit/carrier';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { at, attemptOf, paperQuestions } from '../../../tests/unit/samples';
import { draw } from '../../../tests/unit/screen';
import type { AttemptStatus, HomeSitting } from '@/carriers/Carrier';
import { paperPacket } from '@/core/formats/packet/paper';
import { scriptPacket } from '@/core/handback/script';
import type { Shows } from '@/core/model/release';
import { receiptOf } from '@/core/attempts/receipt';
import type { HeldAttempt } from '@/store/sitTables';
import { AttemptBar } from './AttemptBar';
import { EnterCode } from './EnterCode';
import { Home } from './Home';
import { LastLook } from './LastLook';
import { Receipt } from './Receipt';
import { ResultView } from './ResultView';

const who = { joinCode: 'K7M4QX', familyName: 'Okafor', givenName: 'Amara', groups: ['Monday'] };
const paper = { title: 'Tides', instructions: '', questions: paperQuestions };
const answers = { q1: { response: { picked: ['b'] }, at }, q3: { response: { text: 'east' }, at } };

const homeSitting: HomeSitting = {
  sittingId: 'sitting1',
  title: 'Tides',
  instructions: 'Answer all.',
  questions: 4,
  opensAt: at,
  closesAt: null,
  timeLimitMs: 3_600_000,
  codeAsked: false,
  may: 'start',
  state: 'notStarted',
  handedBack: false,
  practice: false,
  oneByOne: false,
  noBack: false,
  requests: [],
};

const held: HeldAttempt = {
  attemptId: 'attempt1',
  sittingId: 'sitting1',
  joinCode: 'K7M4QX',
  packet: paperPacket(paper, attemptOf()),
  answers,
  comeBack: ['q3'],
  unsent: [],
  apart: [],
};
const fillOf = (id: string) => (id in answers ? ('done' as const) : ('open' as const));

beforeEach(() => sessionStorage.clear());

describe('entering', () => {
  it('shows whose code it is before going in, and forgives how it was typed', async () => {
    const greet = vi.fn(() => Promise.resolve(who));
    const enter = vi.fn();
    const { hand } = draw(
      <EnterCode
        carrier={carrierWith({ greet })}
        enter={enter}
        goOn={() => undefined}
        openFile={() => undefined}
      />,
    );
    await hand.type(screen.getByLabelText(/Your join code/), 'k7m 4qx');
    await hand.click(screen.getByRole('button', { name: 'Continue' }));
    expect(greet).toHaveBeenCalledWith('K7M4QX');
    expect(await screen.findByRole('heading', { name: 'Amara Okafor' })).toBeTruthy();
    expect(enter).not.toHaveBeenCalled();
    await hand.click(screen.getByRole('button', { name: 'Yes, this is me' }));
    expect(enter).toHaveBeenCalledWith(who);
  });

  it('says so when nobody has the code, and when the desk does not answer', async () => {
    const greet = vi.fn(() => Promise.resolve<null>(null));
    const { hand, unmount } = draw(
      <EnterCode
        carrier={carrierWith({ greet })}
        enter={() => undefined}
        goOn={() => undefined}
        openFile={() => undefined}
      />,
    );
    await hand.type(screen.getByLabelText(/Your join code/), 'AAAAAA{Enter}');
    expect(await screen.findByText(/Code not recognised/)).toBeTruthy();
    unmount();
    const again = draw(
      <EnterCode
        carrier={carrierWith({})}
        enter={() => undefined}
        goOn={() => undefined}
        openFile={() => undefined}
      />,
    );
    await again.hand.type(screen.getByLabelText(/Your join code/), 'AAAAAA{Enter}');
    expect(await screen.findByText(/can’t be reached|went wrong/)).toBeTruthy();
  });
});

describe('the student’s home', () => {
  it.each([
    [{}, /^Open. 4 questions, 1 h 00 min/, 'Read the instructions'],
    [{ may: 'resume', state: 'working' }, /the clock is running/, 'Continue'],
    [{ may: 'notYet' }, /^Opens /, null],
    [{ may: 'over' }, /^Closed. You didn’t sit it/, null],
    [{ may: 'noAttemptLeft', state: 'handedIn' }, /No result yet/, null],
    [{ may: 'noAttemptLeft', state: 'collected', handedBack: true }, /can see how it went/, 'See my result'],
  ] as const)('%o is said in words, with the button for it', async (part, words, button) => {
    const home = () => Promise.resolve([{ ...homeSitting, ...part }]);
    const nothing = () => undefined;
    draw(
      <Home
        carrier={carrierWith({ home })}
        who={who}
        goOn={nothing}
        openSitting={nothing}
        openResult={nothing}
        openFile={nothing}
        leave={nothing}
      />,
    );
    expect(await screen.findByText(words)).toBeTruthy();
    const buttons = screen.queryAllByRole('button').map((each) => each.textContent);
    expect(buttons.pop()).toBe('Open a file from your teacher');
    expect(buttons).toEqual([...(button ? [button] : []), 'Ask your teacher about this paper']);
  });
});

describe('an attempt under way', () => {
  const bar = { held, fillOf, totalMs: 600_000, goTo: () => undefined, lastLook: null };

  it('names every question with its state, and counts the answered ones', () => {
    draw(<AttemptBar {...bar} leftMs={581_000} saveState={{ state: 'saving' }} />);
    const map = within(screen.getByRole('navigation', { name: 'Questions' }));
    expect(map.getAllByRole('button').map((button) => button.getAttribute('aria-label'))).toEqual([
      'Question 1: answered',
      'Question 2: not answered',
      'Question 3: answered, come back to it',
      'Question 4: not answered',
    ]);
    expect(screen.getByText('2 of 4 answered')).toBeTruthy();
    expect(screen.getByText('09:41 left')).toBeTruthy();
  });

  it('warns in words near the end, and only then', () => {
    const { rerender } = draw(<AttemptBar {...bar} leftMs={301_000} saveState={{ state: 'saving' }} />);
    expect(screen.getByRole('status').textContent).toBe('');
    rerender(<AttemptBar {...bar} leftMs={299_000} saveState={{ state: 'saving' }} />);
    expect(screen.getByRole('status').textContent).toMatch(/five minutes/);
    rerender(<AttemptBar {...bar} leftMs={59_000} saveState={{ state: 'onDevice' }} />);
    expect(screen.getByRole('status').textContent).toMatch(/one minute/);
    expect(screen.getByText(/saved on this device/)).toBeTruthy();
  });

  it('the last look names what is open and what was marked, and says what handing in means', async () => {
    const handIn = vi.fn(() => Promise.resolve(false));
    const goTo = vi.fn();
    const { hand } = draw(
      <LastLook held={held} fillOf={fillOf} goTo={goTo} handIn={handIn} back={() => undefined} />,
    );
    expect(screen.getByText('2 questions not answered:')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: /^4\s*Explain deviation/ }));
    expect(goTo).toHaveBeenCalledWith('q4');
    expect(screen.getByRole('button', { name: /^3\s*True course/ })).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Hand in with 2 questions unanswered' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/saved here; try again/);
  });

  it('the receipt counts only answers that arrived', () => {
    const status: AttemptStatus = {
      attemptId: 'attempt1',
      state: 'handedIn',
      deadline: null,
      now: Date.parse(at),
      answered: ['q1'],
      endedAt: at,
      elsewhere: false,
      became: {},
      choices: [],
      late: [],
    };
    draw(
      <Receipt
        carrier={carrierWith({})}
        held={held}
        status={status}
        done={() => undefined}
        seeResult={() => undefined}
      />,
    );
    expect(screen.getByText('1 of 4 questions')).toBeTruthy();
    expect(screen.getByText(receiptOf('attempt1'))).toBeTruthy();
  });
});

describe('what came back', () => {
  const source = {
    sittingId: 'sitting1',
    title: 'Tides',
    questions: paperQuestions,
    attempt: attemptOf({ answers, handedInAt: at }),
    marks: [],
    releasedAt: at,
    firstName: 'Amara',
  };
  const nothing: Shows = {
    total: false,
    points: false,
    answers: false,
    rightOrWrong: false,
    accepted: false,
    comments: false,
  };
  const view = (shows: Shows) =>
    draw(
      <ResultView
        open={() => undefined}
        carrier={carrierWith({ result: () => Promise.resolve(scriptPacket(source, shows)) })}
        who={who}
        sitting={homeSitting}
        back={() => undefined}
      />,
    );

  it('only that you have their paper, when nothing else is let out', async () => {
    view(nothing);
    expect(await screen.findByText('Your teacher has your paper. Nothing else is shown yet.')).toBeTruthy();
    expect(screen.queryByRole('region')).toBeNull();
  });

  it('the total alone', async () => {
    const { container } = view({ ...nothing, total: true });
    expect(await screen.findByText(/^1 of 8 points/)).toBeTruthy();
    expect(container.textContent).not.toContain('How much of the range');
  });

  it('points and right or wrong at each question, without the key', async () => {
    const { container } = view({ ...nothing, points: true, rightOrWrong: true });
    const first = await screen.findByRole('region', { name: 'Question 1' });
    expect(first.textContent).toMatch(/1 of 1 point.*right/);
    expect(container.textContent).not.toMatch(/SECRET|Accepted/);
  });

  it('says so when it was taken back meanwhile', async () => {
    draw(
      <ResultView
        open={() => undefined}
        carrier={carrierWith({ result: () => Promise.resolve(null) })}
        who={who}
        sitting={homeSitting}
        back={() => undefined}
      />,
    );
    expect(await screen.findByText(/Nothing is handed back right now/)).toBeTruthy();
  });
});
