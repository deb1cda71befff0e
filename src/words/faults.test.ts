import { describe, expect, it, vi } from 'vitest';
import { Student } from '@/core/model/people';
import { PaperContent, mostQuestions } from '@/core/model/paper';
import { SittingManner } from '@/core/model/sitting';
import { faultWords } from './faults';

const error = (schema: { safeParse: (row: unknown) => { error?: unknown } }, row: object) =>
  schema.safeParse(row).error;
const student = {
  ...{
    id: 's',
    givenName: 'Amina',
    familyName: 'Okafor',
    number: '',
    email: '',
    groupIds: [],
    joinCode: 'ABC123',
  },
  createdAt: '2026-11-01T10:00:00.000Z',
};
const question = {
  ...{
    id: 'q',
    kind: 'openText',
    stem: 'Why?',
    points: 1,
    tags: [],
    commentRight: '',
    commentWrong: '',
    note: '',
  },
  ...{ scheme: [], modelAnswer: '' },
};
const paper = { title: 'Tides', instructions: '', questions: [] };

describe('what is said of a fault', () => {
  it('names the limit that what was typed went beyond', () => {
    expect(faultWords(error(Student, { ...student, familyName: 'o'.repeat(501) }))).toBe(
      'The text is too long: shorten it to 500 characters',
    );
    expect(faultWords(error(PaperContent, { ...paper, wantedPoints: 1001 }))).toBe(
      'The number is too large: 1,000 is the most',
    );
    expect(faultWords(error(SittingManner, { forgivenMs: 0 }))).toBe(
      'The number is too small: it must be more than 0',
    );
    const many = Array.from({ length: mostQuestions + 1 }, () => question);
    expect(faultWords(error(PaperContent, { ...paper, questions: many }))).toBe(
      'That is too many: 500 is the most',
    );
  });

  it('that nobody foresaw is in the console, not on the screen', () => {
    const inConsole = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    expect(faultWords(new TypeError('x is not a function'))).toBe(
      'Something unexpected went wrong. Try again',
    );
    expect(inConsole).toHaveBeenCalledOnce();
    inConsole.mockRestore();
  });
});
