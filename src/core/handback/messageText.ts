import { joinCodeShown } from '../basics/joinCode';
import { fullName } from '../model/names';
import type { GradeScale } from '../model/gradeScale';
import { hasResult } from '../model/release';
import { gradeOf } from '../scoring/gradeOf';
import type { Seat } from '../seats/seats';

/** What can stand in a message, and is filled in for each student. */
export const messageFields = [
  'given name',
  'name',
  'paper',
  'link',
  'join code',
  'total',
  'grade',
  'what to do',
] as const;
export type MessageField = (typeof messageFields)[number];

/** What a message is filled in with. */
export interface MessageAbout {
  paper: string;
  /** Where students come in, without a slash at its end. */
  origin: string;
  scale: GradeScale | null;
  /** What is to be done, by what the student has. */
  todo: { open: string; see: string; nothing: string };
}

/** The fields of one student. */
export function fieldsOf(seat: Seat, about: MessageAbout): Record<MessageField, string> {
  const { student, scorecard, release, openedAt } = seat;
  const whole = scorecard?.final === true ? scorecard : null;
  const back = hasResult(release);
  return {
    'given name': student.givenName || student.familyName,
    name: fullName(student),
    paper: about.paper,
    // The way in, never the result itself.
    link: `${about.origin}/sit?code=${student.joinCode}`,
    'join code': joinCodeShown(student.joinCode),
    total: whole ? `${whole.total} of ${whole.max}` : '',
    grade: whole && about.scale ? (gradeOf(about.scale, { points: whole.total, max: whole.max }) ?? '') : '',
    'what to do': back ? (openedAt.length > 0 ? about.todo.nothing : about.todo.open) : about.todo.see,
  };
}

/** A text with its fields filled in; what is no field stays as it is typed. */
export const filledIn = (text: string, fields: Readonly<Record<MessageField, string>>): string =>
  text.replace(/\{([^{}]*)\}/g, (whole, name: string) =>
    name in fields ? fields[name as MessageField] : whole,
  );

/** The fields that tell something of the result itself. */
export const tellingFields = (text: string): MessageField[] =>
  (['total', 'grade'] as const).filter((name) => text.includes(`{${name}}`));

/** What stands in braces and is no field: a slip. */
export const unknownFields = (text: string): string[] => [
  ...new Set(
    [...text.matchAll(/\{([^{}]*)\}/g)].flatMap(([, name = '']) =>
      (messageFields as readonly string[]).includes(name) ? [] : [name],
    ),
  ),
];
