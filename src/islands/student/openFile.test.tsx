// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { paper } from '../../../tests/unit/classroom';
import { at, attemptOf, sittingOf, studentOf } from '../../../tests/unit/samples';
import { carrierWith } from '../../../tests/unit/carrier';
import { draw } from '../../../tests/unit/screen';
import { paperFile } from '@/core/exchange/carriedFiles';
import { packetSealer, packetText, type Packet } from '@/core/formats/packet/packetFile';
import { sitDesk } from '@/store/sitTables';
import { SittingFromFile } from './SittingFromFile';
import { OpenFile } from './OpenFile';

const amara = studentOf();
const sitting = sittingOf({ title: 'Mock exam' });
const forAll: Packet = { kind: 'paper', content: paperFile(sitting, paper, []) };
const forAmara: Packet = { kind: 'paper', content: paperFile(sitting, paper, [], amara) };
const who = { joinCode: amara.joinCode, familyName: 'Okafor', givenName: 'Amara' };
const answers: Packet = {
  kind: 'answers',
  content: { sittingId: 'sitting1', student: who, attempts: [attemptOf()], files: [], savedAt: at },
};
const script: Packet = {
  kind: 'script',
  content: {
    sitting,
    student: who,
    release: {
      sittingId: 'sitting1',
      studentId: 'student1',
      shows: {
        total: true,
        points: false,
        answers: false,
        rightOrWrong: false,
        accepted: false,
        comments: false,
      },
      releasedAt: at,
      packet: { sittingId: 'sitting1', title: 'Mock exam', handedBackAt: at, questions: [] },
    },
    pictures: [],
  },
};

beforeEach(async () => {
  for (const table of sitDesk.tables) await table.clear();
});

async function opening(text: string, inside: typeof who | null = null) {
  const opened = vi.fn(async () => undefined);
  const drawn = draw(<OpenFile who={inside} opened={opened} back={() => undefined} />);
  const input = drawn.container.querySelector('input[type=file]');
  if (!(input instanceof HTMLInputElement)) throw new Error('no field for a file');
  await drawn.hand.upload(input, new File([text], 'mock.json', { type: 'application/json' }));
  return { ...drawn, opened };
}

describe('opening a file', () => {
  it.each([
    ['a letter', async () => 'Dear class', /mock.json isn’t a Gribbet paper/],
    ['half of it', async () => (await packetText(forAll, 'T')).slice(0, -20), /is damaged/],
    [
      'one of a later version',
      async () => (await packetText(forAll, 'T')).replace('"version":1', '"version":9'),
      /newer version of Gribbet/,
    ],
    [
      'a changed one',
      async () => (await packetText(forAll, 'T')).replace('Mock', 'Mick'),
      /has changed since your teacher saved it/,
    ],
    ['answers', () => packetText(answers, 'T'), /holds answers for your teacher/],
  ])('%s is told apart, and nothing is kept', async (_, text, words) => {
    await opening(await text());
    expect((await screen.findByRole('alert')).textContent).toMatch(words);
    expect(await sitDesk.packets.count()).toBe(0);
  });

  it('a paper for everyone asks for name and code, and keeps both', async () => {
    const { hand, opened } = await opening(await packetText(forAll, 'T'));
    await hand.type(await screen.findByLabelText(/Your name/), 'Amara  Okafor');
    await hand.type(screen.getByLabelText(/Your join code/), 'abc');
    await hand.click(screen.getByRole('button', { name: 'Continue' }));
    expect(screen.getByText('A join code has six letters and digits.')).toBeTruthy();
    await hand.clear(screen.getByLabelText(/Your join code/));
    await hand.type(screen.getByLabelText(/Your join code/), `${amara.joinCode.toLowerCase()}{Enter}`);
    await waitFor(() => expect(opened).toHaveBeenCalledWith(amara.joinCode));
    expect(await sitDesk.packets.toArray()).toMatchObject([
      {
        joinCode: amara.joinCode,
        sittingId: 'sitting1',
        madeFor: null,
        student: { familyName: 'Okafor', givenName: 'Amara' },
      },
    ]);
  });

  it('one’s own paper asks for the code alone; who is in already is asked nothing', async () => {
    const own = await opening(await packetText(forAmara, 'T'));
    expect(await screen.findByText('This file is for Amara Okafor.')).toBeTruthy();
    expect(screen.queryByLabelText(/Your name/)).toBeNull();
    own.unmount();
    const { opened } = await opening(await packetText(forAmara, 'T'), who);
    await waitFor(() => expect(opened).toHaveBeenCalledWith(amara.joinCode));
    expect(await sitDesk.packets.toArray()).toMatchObject([{ madeFor: 'student1' }]);
  });

  it('a sealed script opens with the join code, which is filled in for who is in', async () => {
    const chance = (length: number) => new Uint8Array(length).fill(3);
    const text = await packetSealer('joinCode', amara.joinCode, chance)(script, 'Mock exam back');
    const { hand, opened } = await opening(text, { ...who, joinCode: 'ZZZZZZ' });
    expect(await screen.findByRole('heading', { name: 'Mock exam back' })).toBeTruthy();
    expect(screen.getByDisplayValue('ZZZZZZ')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Open' }));
    expect(await screen.findByText(/isn’t the join code/)).toBeTruthy();
    await hand.clear(screen.getByLabelText(/Your join code/));
    await hand.type(screen.getByLabelText(/Your join code/), `${amara.joinCode}{Enter}`);
    await waitFor(() => expect(opened).toHaveBeenCalledWith(amara.joinCode));
    expect(await sitDesk.packets.toArray()).toMatchObject([
      { paper: null, release: { studentId: amara.joinCode } },
    ]);
  });
});

describe('what came by hand, in the list of papers', () => {
  const row = { sittingId: 'sitting1', title: 'Mock exam', state: 'handedIn' } as never;
  const shown = (part: object, carrier = carrierWith({})) => {
    const [changed, leave] = [vi.fn(), vi.fn()];
    const sittingRow = { ...(row as object), ...part } as never;
    const drawn = draw(
      <SittingFromFile
        carrier={carrier}
        who={{ ...who, groups: [] }}
        sitting={sittingRow}
        changed={changed}
        leave={leave}
      />,
    );
    return { ...drawn, changed, leave };
  };

  it('answers that nobody has are named, and what was saved can be saved again', () => {
    const first = shown({ inFile: 'toSave' });
    expect(screen.getByText(/doesn’t have your answers yet/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Save your answers as a file' })).toBeTruthy();
    first.unmount();
    const second = shown({ inFile: 'saved' });
    expect(screen.queryByText(/doesn’t have your answers yet/)).toBeNull();
    expect(screen.getByRole('button', { name: 'Save your answers again' })).toBeTruthy();
    second.unmount();
    shown({ inFile: 'toSave', state: 'working' });
    expect(screen.queryByRole('button', { name: /^Save/ })).toBeNull();
  });

  it.each([
    ['toSave', /nobody else has them/],
    ['saved', /The file you saved stays/],
    ['nothing', /You can open the file again/],
  ])('taking it off says what goes with it (%s)', async (inFile, words) => {
    const { hand, changed, leave } = shown({ inFile });
    await hand.click(screen.getByRole('button', { name: 'Remove from this computer' }));
    expect(screen.getByText(words)).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(changed).not.toHaveBeenCalled();
    await hand.click(screen.getByRole('button', { name: 'Remove from this computer' }));
    await hand.click(screen.getByRole('button', { name: 'Remove' }));
    // Nobody answers, and nothing is left here: out.
    await waitFor(() => expect(leave).toHaveBeenCalled());
  });
});
