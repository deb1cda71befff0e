// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { carrierWith } from '../../../tests/unit/carrier';
import { at, attemptOf, tideChoice } from '../../../tests/unit/samples';
import { draw } from '../../../tests/unit/screen';
import type { HomeSitting } from '@/carriers/Carrier';
import { kindOf } from '@/core/kinds';
import { practiceView } from '@/core/attempts/practice';
import type { PracticeView } from '@/core/attempts/practice';
import { AskInside } from './AskInside';
import { AskTeacher } from './AskTeacher';
import { EnterCode } from './EnterCode';
import { sectionOf } from './Home';
import { PracticePanel } from './PracticePanel';

const rules = { tries: 3, lossPerTry: 0.25, hints: true, showAnswer: true };
const question = kindOf(tideChoice).forStudent(tideChoice, 'seed');
const fresh = practiceView(tideChoice, attemptOf(), rules);

function panel(part: Partial<PracticeView>, response = { picked: ['b'] }) {
  const practise = vi.fn(() => Promise.resolve(true));
  const drawn = draw(
    <PracticePanel
      question={question}
      view={{ ...fresh, ...part }}
      response={response}
      practise={practise}
    />,
  );
  return { ...drawn, practise };
}

describe('a question in practice', () => {
  it('is tried with what is filled in, and not while it is blank', async () => {
    const { hand, practise, unmount } = panel({});
    await hand.click(screen.getByRole('button', { name: 'Check answer' }));
    expect(practise).toHaveBeenCalledWith({ act: 'try', response: { picked: ['b'] } });
    unmount();
    panel({}, { picked: [] });
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Check answer' }).disabled).toBe(true);
  });

  it('says how it was, how many tries are left and what is still to be had', () => {
    panel({
      verdict: 'part',
      tries: 1,
      triesLeft: 1,
      pointsLeft: 0.75,
      comments: ['Look again.'],
      mayShow: true,
    });
    expect(screen.getByRole('status').textContent).toBe('Partly right. 1 try left.Look again.');
    expect(screen.getByText('0.75 points still available.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Give up and show the answer' })).toBeTruthy();
  });

  it('a hint is asked for by what it costs; those taken stay in sight', async () => {
    const { hand, practise } = panel({ hints: ['Twelfths'], hintsLeft: 1, nextHintCost: 0.5 });
    expect(screen.getByRole('list', { name: 'Hints you used' }).textContent).toBe('Twelfths');
    await hand.click(screen.getByRole('button', { name: 'Get a hint for 50% of the points' }));
    expect(practise).toHaveBeenCalledWith({ act: 'hint' });
  });

  it('done, there is nothing left to press', () => {
    panel({ verdict: 'wrong', tries: 3, triesLeft: 0, done: true, accepted: 'B  3/12' });
    expect(screen.queryAllByRole('button')).toEqual([]);
    expect(screen.getByText('B 3/12', { collapseWhitespace: true })).toBeTruthy();
  });

  it('says so when the desk does not answer', async () => {
    const practise = () => Promise.resolve(false);
    const { hand } = draw(
      <PracticePanel question={question} view={fresh} response={{ picked: ['a'] }} practise={practise} />,
    );
    await hand.click(screen.getByRole('button', { name: 'Check answer' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/can’t be reached|went wrong/);
  });
});

const sitting: HomeSitting = {
  sittingId: 'sitting1',
  title: 'Tides',
  instructions: '',
  questions: 4,
  opensAt: at,
  closesAt: null,
  timeLimitMs: null,
  codeAsked: false,
  may: 'over',
  state: 'notStarted',
  handedBack: false,
  practice: false,
  oneByOne: false,
  noBack: false,
  requests: [],
};
const who = { joinCode: 'K7M4QX', familyName: 'Okafor', givenName: 'Amara', groups: [] };

describe('asking the teacher', () => {
  it('offers what helps as things stand, and needs a reason', async () => {
    const ask = vi.fn(() => Promise.resolve(true));
    const asked = vi.fn();
    const { hand } = draw(
      <AskTeacher carrier={carrierWith({ ask })} joinCode={who.joinCode} sitting={sitting} asked={asked} />,
    );
    await hand.click(screen.getByRole('button', { name: 'Ask your teacher about this paper' }));
    expect(screen.getAllByRole('option').map((option) => option.textContent)).toEqual([
      'another day or time',
      'something else',
    ]);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Ask' }).disabled).toBe(true);
    await hand.type(screen.getByLabelText(/Reason/), ' I was ill ');
    await hand.click(screen.getByRole('button', { name: 'Ask' }));
    expect(ask).toHaveBeenCalledWith('K7M4QX', 'sitting1', { asks: 'otherTimes', words: 'I was ill' });
    expect(asked).toHaveBeenCalled();
  });

  it('one that waits is shown, and no second one can be asked', () => {
    const requests = [{ asks: 'moreTime' as const, words: 'Slow', at, answer: null }];
    draw(
      <AskTeacher
        carrier={carrierWith({})}
        joinCode={who.joinCode}
        sitting={{ ...sitting, requests }}
        asked={() => undefined}
      />,
    );
    expect(screen.getByText(/hasn’t answered yet/)).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('the answer is shown with its word', () => {
    const answer = { granted: false, words: 'No, sorry', at };
    const requests = [{ asks: 'moreTime' as const, words: 'Slow', at, answer }];
    draw(
      <AskTeacher
        carrier={carrierWith({})}
        joinCode={who.joinCode}
        sitting={{ ...sitting, requests }}
        asked={() => undefined}
      />,
    );
    expect(screen.getByText('Declined: No, sorry')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Ask your teacher about this paper' })).toBeTruthy();
  });
});

describe('asking from inside the attempt', () => {
  const inside = (more: Partial<HomeSitting>) => {
    const home = vi.fn(() => Promise.resolve([{ ...sitting, ...more }]));
    draw(<AskInside carrier={carrierWith({ home })} joinCode={who.joinCode} sittingId="sitting1" />);
    return home;
  };

  it('is there where somebody can be asked', async () => {
    inside({});
    expect(await screen.findByRole('button', { name: 'Ask your teacher about this paper' })).toBeTruthy();
  });

  it('is not there where the paper came by hand: nobody would hear', async () => {
    const home = inside({ inFile: 'nothing' });
    await waitFor(() => expect(home).toHaveBeenCalled());
    await home.mock.results[0]?.value;
    expect(screen.queryByRole('button', { name: 'Ask your teacher about this paper' })).toBeNull();
  });
});

describe('where a paper stands', () => {
  it.each([
    [{ may: 'start' }, 'open'],
    [{ may: 'resume', state: 'working' }, 'open'],
    [{ may: 'notYet' }, 'coming'],
    [{ may: 'over' }, 'done'],
    [{ may: 'noAttemptLeft', state: 'handedIn' }, 'done'],
    [{ may: 'noAttemptLeft', state: 'handedIn', handedBack: true }, 'back'],
    [{ may: 'start', state: 'handedIn', handedBack: true }, 'open'],
  ] as const)('%o: %s', (part, section) => {
    expect(sectionOf({ ...sitting, ...part })).toBe(section);
  });
});

describe('a guest', () => {
  it('comes in with a name and a code, and is told when the code lets nobody in', async () => {
    const enter = vi.fn();
    const comeAsGuest = vi.fn((_name: string, code: string) =>
      Promise.resolve(code === 'ebb' ? { ...who, guest: true } : null),
    );
    const { hand } = draw(
      <EnterCode
        carrier={carrierWith({ comeAsGuest })}
        enter={enter}
        goOn={() => undefined}
        openFile={() => undefined}
      />,
    );
    await hand.click(screen.getByRole('button', { name: 'No code? Join as a guest' }));
    await hand.type(screen.getByLabelText('Your name'), 'Nia');
    await hand.type(screen.getByLabelText('Access code'), 'flood{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/doesn’t work for guests/);
    await hand.clear(screen.getByLabelText('Access code'));
    await hand.type(screen.getByLabelText('Access code'), 'ebb{Enter}');
    expect(enter).toHaveBeenCalledWith({ ...who, guest: true });
  });
});
