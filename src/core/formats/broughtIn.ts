import type { Student } from '../model/people';
import { pointsFrom } from '../marking/typedPoints';
import { registerName } from '../model/names';
import { tableFrom } from './csv/table';

/** Points that were read for students, and the lines that could not be used. */
export interface BroughtIn {
  values: Record<string, number>;
  bad: { line: number; text: string; why: 'unknown' | 'noPoints' | 'twice' }[];
}

/**
 * Points from lines of a student and a number, with a comma, semicolon or tab between: the student by number, email or name as
 * in a register.
 */
export function broughtIn(text: string, students: readonly Student[]): BroughtIn {
  const plain = (word: string) => word.trim().toLowerCase();
  const byName = new Map<string, string>();
  for (const student of students)
    for (const key of [student.number, student.email, registerName(student)])
      if (key) byName.set(plain(key), student.id);
  const read: BroughtIn = { values: {}, bad: [] };
  for (const { line, cells } of tableFrom(text)) {
    const last = cells.findLast((cell) => cell !== '') ?? '';
    const who = cells.slice(0, cells.lastIndexOf(last)).map(plain);
    const id = [...who, who.join(', ')].flatMap((key) => byName.get(key) ?? [])[0];
    const points = pointsFrom(last);
    const bad = (why: BroughtIn['bad'][0]['why']) => void read.bad.push({ line, text: cells.join(' '), why });
    if (id === undefined) bad('unknown');
    else if (points === null || points < 0) bad('noPoints');
    else if (read.values[id] !== undefined) bad('twice');
    else read.values[id] = points;
  }
  return read;
}
