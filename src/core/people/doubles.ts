import type { Student } from '../model/people';
import { forgiveAll, forgiven } from '../kinds/forgiving';

/** Students who may be one: the same number, email or, forgiving case, spaces and accents, name. Each set once. */
export function likelyDoubles(students: readonly Student[]): Student[][] {
  const sets = new Map<string, Student[]>();
  const put = (key: string, student: Student) => {
    const set = sets.get(key);
    if (set) set.push(student);
    else sets.set(key, [student]);
  };
  for (const student of students) {
    if (student.number) put(`number ${student.number}`, student);
    if (student.email) put(`email ${student.email.toLowerCase()}`, student);
    const names = [student.givenName, student.familyName].map((name) => forgiven(name, forgiveAll));
    put(`name ${names.sort().join(' ')}`, student);
  }
  const seen = new Set<string>();
  return [...sets.values()].filter((set) => {
    const ids = set.map(({ id }) => id).sort();
    const key = ids.join(' ');
    if (new Set(ids).size < 2 || seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/** Two rows as one student: what the kept one lacks is taken from the other; groups of both. */
export function mergedStudent(kept: Student, other: Student): Student {
  const fields = { ...other.fields, ...kept.fields };
  const extra = Math.max(kept.extraPercent ?? 0, other.extraPercent ?? 0);
  return {
    ...kept,
    familyName: kept.familyName || other.familyName,
    givenName: kept.givenName || other.givenName,
    number: kept.number || other.number,
    email: kept.email || other.email,
    groupIds: [...new Set([...kept.groupIds, ...other.groupIds])],
    ...(Object.keys(fields).length > 0 && { fields }),
    ...(extra > 0 && { extraPercent: extra }),
  };
}
