// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { at, attemptOf, sittingOf, studentOf } from '../../../tests/unit/samples';
import { draw } from '../../../tests/unit/screen';
import type { FoundPacket } from '@/core/formats/packet/packetFiles';
import type { AnswersFile } from '@/core/formats/packet/packetFile';
import type { TakenIn } from '@/store/carriedFiles';
import { desk } from '@/store/tables';
import type { SittingData } from '@/desk/useSitting';
import { CameList } from './CameList';
import { refusalOf, type Came } from './carriedFiles';

const amara = studentOf();
const linh = studentOf({ id: 'linh', familyName: 'Tran', givenName: 'Linh', joinCode: 'B2B2B2' });
const attempt = attemptOf({});
const sitting = {
  sitting: sittingOf(),
  students: [amara, linh],
  attempts: [attempt],
} as unknown as SittingData;
const file: AnswersFile = {
  sittingId: 'sitting1',
  student: { joinCode: amara.joinCode, familyName: 'Okafor', givenName: 'Amara' },
  attempts: [attempt],
  files: [],
  savedAt: at,
};

function listed(taken: Partial<TakenIn>, from: AnswersFile = file) {
  const takeIn = vi.fn();
  const told = { student: amara, odd: null, ...taken } as TakenIn;
  const came: Came[] = [{ name: 'a.json', became: 'told', file: from, taken: told }];
  const drawn = draw(<CameList sitting={sitting} came={came} takeIn={takeIn} />);
  return { ...drawn, takeIn, row: screen.getByRole('listitem') };
}

describe('what became of a file', () => {
  it.each([
    [{ outcome: 'new', attempts: [attempt] }, /^a.jsonAmara Okafor\. $/],
    [{ outcome: 'another', attempts: [attempt] }, /A further attempt: there already was one/],
    [{ outcome: 'further', attempts: [attempt] }, /Adds to what was already here/],
    [{ outcome: 'new', attempts: [attempt], odd: 'begunEarly' }, /started before the sitting opened/],
    [{ outcome: 'new', attempts: [attempt], odd: 'endedLate' }, /went on after time was up/],
    [{ outcome: 'new', attempts: [attempt], odd: 'clockAhead' }, /ahead of this one/],
    [{ outcome: 'double' }, /A duplicate: everything in it is already here, from Amara Okafor/],
    [{ outcome: 'otherSitting', sittingId: 'nowhere' }, /From a sitting that isn’t on this desk/],
    [{ outcome: 'copied', studentId: 'linh' }, /it is the attempt that came from Linh Tran before/],
    [{ outcome: 'unfit', question: '3' }, /doesn’t fit this paper: question 3 can’t/],
    [{ outcome: 'unfit', question: null }, /doesn’t fit this paper\. It was made up/],
  ] as [Partial<TakenIn>, RegExp][])('%o is said in words', async (taken, words) => {
    const { row } = listed(taken);
    expect((row.textContent ?? '').replace(/\s+/g, ' ')).toMatch(words);
  });

  it('of another sitting of this desk, it leads there', async () => {
    await desk.sittings.put(sittingOf({ id: 'other', title: 'Tides again' }));
    listed({ outcome: 'otherSitting', sittingId: 'other' });
    const link = await screen.findByRole('link', { name: 'Tides again' });
    expect(link.getAttribute('href')).toBe('/sittings/other/by-hand');
  });

  it('a name that is another is said; one with other accents or order is the same', () => {
    const named = (familyName: string, givenName: string) => ({
      ...file,
      student: { ...file.student, familyName, givenName },
    });
    const first = listed({ outcome: 'new', attempts: [attempt] }, named('amara', 'OKÁFOR'));
    expect(first.row.textContent).not.toContain('typed');
    first.unmount();
    const second = listed({ outcome: 'new', attempts: [attempt] }, named('Tran', 'Linh'));
    expect(second.row.textContent).toContain('The name that was typed is “Linh Tran”.');
  });

  it('whose nobody’s are, the teacher says', async () => {
    const { hand, takeIn, row } = listed({ outcome: 'nobody', student: null });
    expect(row.textContent).toContain(`with a join code that nobody here has, ${amara.joinCode}`);
    const button = within(row).getByRole<HTMLButtonElement>('button', { name: 'Import' });
    expect(button.disabled).toBe(true);
    await hand.selectOptions(within(row).getByRole('combobox'), 'Tran, Linh');
    await hand.click(button);
    expect(takeIn).toHaveBeenCalledWith('a.json', file, 'linh');
  });

  it('made for another, the teacher says whose they are', async () => {
    const { row } = listed({ outcome: 'otherStudent', studentId: 'linh' });
    expect(row.textContent).toContain(
      'It was made for Linh Tran and worked on with the join code of Amara Okafor',
    );
  });

  it('what was undone can be taken in again, and what was changed as it is', async () => {
    const gone = listed({ outcome: 'new', attempts: [{ ...attempt, id: 'gone' }] });
    await gone.hand.click(screen.getByRole('button', { name: 'Import again' }));
    expect(gone.takeIn).toHaveBeenCalledWith('a.json', file, 'student1');
    gone.unmount();
    const takeIn = vi.fn();
    const came: Came[] = [{ name: 'b.json', became: 'changed', file }];
    const { hand } = draw(<CameList sitting={sitting} came={came} takeIn={takeIn} />);
    await hand.click(screen.getByRole('button', { name: 'Import anyway' }));
    expect(takeIn).toHaveBeenCalledWith('b.json', file, null);
  });

  it.each([
    ['notPacket', 'Not a Gribbet file.'],
    ['newer', 'Made by a newer version of Gribbet.'],
    ['damaged', /damaged.*content\.files\.0: as its id says/],
    ['badZip', /can’t be unpacked/],
    ['tooLarge', /Too large/],
  ] as const)('refused as %s it has its words', (why, words) => {
    const read =
      why === 'damaged'
        ? ({ outcome: 'refused', why, place: 'content.files.0', expected: 'as its id says' } as const)
        : ({ outcome: 'refused', why } as FoundPacket['read']);
    expect(refusalOf({ name: 'x', read })).toMatchObject({
      became: 'refused',
      words: typeof words === 'string' ? words : expect.stringMatching(words),
    });
  });
});
