import type { MailboxChange } from '@/core/exchange/mailbox';
import type { PaperVersion } from '@/core/model/paper';
import { joinCodeAlphabet } from '@/core/basics/joinCode';
import type { Sitting } from '@/core/model/sitting';
import { withoutKeys } from '@/core/formats/packet/paper';
import { at, paperQuestions, sittingOf } from './samples';

/** A sitting as the desk puts it into the box, for so many students. */

export const paper: PaperVersion = {
  title: 'Tides',
  instructions: 'No books.',
  questions: paperQuestions,
  paperId: 'paper1',
  version: 1,
  frozenAt: at,
};

/** The join code of the student with this number. */
export function codeOf(number: number): string {
  let code = '';
  for (let rest = number, place = 0; place < 6; place++) {
    code = joinCodeAlphabet.charAt(rest % joinCodeAlphabet.length) + code;
    rest = Math.floor(rest / joinCodeAlphabet.length);
  }
  return code;
}

export function sittingRows(students: number, part: Partial<Sitting> = {}): MailboxChange[] {
  return [
    { table: 'groups', row: { id: 'group1', name: 'Monday', createdAt: at } },
    ...Array.from({ length: students }, (_, number): MailboxChange => ({
      table: 'students',
      row: {
        id: `student${number}`,
        familyName: `Family${number}`,
        givenName: 'Given',
        joinCode: codeOf(number),
        groupIds: ['group1'],
      },
    })),
    { table: 'papers', row: withoutKeys(paper) },
    { table: 'sittings', row: sittingOf({ closesAt: null, timeLimitMs: null, onDevices: true, ...part }) },
  ];
}
