import { withAsciiDigits } from '@/core/basics/digits';
import { z } from 'zod';
import type { Student } from '@/core/model/people';
import { fullName } from '@/core/model/names';
import { joinCodeShown } from '@/core/basics/joinCode';
import { changeStudent } from '@/store/people';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import { PickBox } from '@/ui/PickBox';
import { VirtualRows } from '@/ui/VirtualRows';
import { StudentCell } from './StudentCell';
import styles from './groups.module.css';

interface Column {
  label: string;
  read: (student: Student) => string;
  /** The student with this written in it; a text says why it cannot be. */
  write: (student: Student, value: string) => Student | string;
}

const plain = (field: 'familyName' | 'givenName' | 'number' | 'email', label: string): Column => ({
  label,
  read: (student) => student[field],
  write: (student, value) => {
    const changed = { ...student, [field]: value };
    if (field === 'email' && value !== '' && !z.email().safeParse(value).success)
      return `“${value}” isn’t a valid email address`;
    return changed.familyName || changed.givenName ? changed : 'A student needs a name';
  },
});

const extra: Column = {
  label: 'Extra time %',
  read: (student) => (student.extraPercent === undefined ? '' : String(student.extraPercent)),
  write: ({ extraPercent: _, ...student }, value) => {
    const percent = Number(withAsciiDigits(value).replace('%', '').replace(',', '.').trim());
    if (value.trim() === '' || percent === 0) return student;
    return percent >= 1 && percent <= 300
      ? { ...student, extraPercent: Math.round(percent) }
      : 'Extra time is 1 to 300 percent, or empty';
  },
};

const own = (name: string): Column => ({
  label: name,
  read: (student) => student.fields?.[name] ?? '',
  write: (student, value) => {
    const { [name]: _, ...rest } = student.fields ?? {};
    return { ...student, fields: value === '' ? rest : { ...rest, [name]: value } };
  },
});

interface StudentTableProps {
  students: Student[];
  /** Names of the teacher's own fields. */
  fields: string[];
  /** What groups each is in, where the table is not of one group. */
  groupsOf: ((student: Student) => string) | null;
  picked: ReadonlySet<string>;
  pick: (ids: string[], on: boolean) => void;
  soughtId: string | null;
}

/** The register as a table that is written in: what is typed is kept cell by cell. */
export function StudentTable({ students, fields, groupsOf, picked, pick, soughtId }: StudentTableProps) {
  const columns = [
    plain('familyName', 'Family name'),
    plain('givenName', 'Given name'),
    plain('number', 'Number'),
    plain('email', 'Email'),
    extra,
    ...fields.map(own),
  ];
  const all = students.length > 0 && students.every(({ id }) => picked.has(id));
  const keep = (student: Student, column: Column, value: string): boolean => {
    const changed = column.write(student, value);
    if (typeof changed === 'string') {
      say(`Not saved: ${changed}`, true);
      return false;
    }
    void act(changeStudent(changed, isoNow(), student));
    return true;
  };
  return (
    <div data-scroller className={styles.scroller} role="region" aria-label="Students" tabIndex={0}>
      <table className={styles.table} aria-rowcount={students.length + 1}>
        <thead>
          <tr>
            <th>
              <PickBox
                label="Select all shown"
                checked={all}
                some={students.some(({ id }) => picked.has(id))}
                change={(on) =>
                  pick(
                    students.map(({ id }) => id),
                    on,
                  )
                }
              />
            </th>
            {columns.map(({ label }) => (
              <th key={label} scope="col">
                {label}
              </th>
            ))}
            {groupsOf && <th scope="col">Groups</th>}
            <th scope="col">Join code</th>
          </tr>
        </thead>
        <VirtualRows rows={students.map((student, row) => ({ student, row }))} height={36.25}>
          {({ student, row }) => (
            <tr key={student.id} data-sought={student.id === soughtId}>
              <td>
                <PickBox
                  label={`Select ${fullName(student)}`}
                  checked={picked.has(student.id)}
                  change={(on) => pick([student.id], on)}
                />
              </td>
              {columns.map((column, place) => (
                <td key={column.label}>
                  <StudentCell
                    row={row}
                    column={place}
                    label={`${column.label} of ${fullName(student)}`}
                    value={column.read(student)}
                    keep={(value) => keep(student, column, value)}
                  />
                </td>
              ))}
              {groupsOf && <td className={styles.groups}>{groupsOf(student)}</td>}
              <td className={styles.code}>{joinCodeShown(student.joinCode)}</td>
            </tr>
          )}
        </VirtualRows>
      </table>
    </div>
  );
}
