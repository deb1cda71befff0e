import type { IncomingStudent } from '../formats/csv/studentRows';
import type { Student } from '../model/people';

/** One field of a student that a list has otherwise. */
export interface FieldChange {
  field: string;
  before: string;
  after: string;
}

/** What bringing a list into a group would do, before it is done. */
export interface RosterChanges {
  added: IncomingStudent[];
  /** Known by number or email, with something in the list that is not as it stands. */
  changed: { student: Student; incoming: IncomingStudent; changes: FieldChange[] }[];
  /** Known, and as the list has them. */
  same: Student[];
  /** In the group, but not in the list. */
  gone: Student[];
}

const plainFields = ['familyName', 'givenName', 'number', 'email'] as const;

/** What a list says otherwise of one student; an empty cell says nothing. */
export function fieldChanges(student: Student, incoming: IncomingStudent): FieldChange[] {
  const changes: FieldChange[] = [];
  const look = (field: string, before: string, after: string) => {
    if (after !== '' && after !== before) changes.push({ field, before, after });
  };
  for (const field of plainFields) look(field, student[field], incoming[field]);
  for (const [field, after] of Object.entries(incoming.fields ?? {}))
    look(field, student.fields?.[field] ?? '', after);
  return changes;
}

/** The student as the list has it. */
export function updated(student: Student, incoming: IncomingStudent): Student {
  const filled = Object.fromEntries(
    Object.entries(incoming.fields ?? {}).filter(([, value]) => value !== ''),
  );
  const fields = { ...student.fields, ...filled };
  return {
    ...student,
    familyName: incoming.familyName || student.familyName,
    givenName: incoming.givenName || student.givenName,
    number: incoming.number || student.number,
    email: incoming.email || student.email,
    ...(Object.keys(fields).length > 0 && { fields }),
  };
}

/**
 * What a list changes in a group.
 *
 * @param known all students of the desk
 * @param groupId the group it goes into; null: one that is not there yet
 */
export function rosterChanges(
  incoming: readonly IncomingStudent[],
  known: readonly Student[],
  groupId: string | null,
): RosterChanges {
  const byId = new Map(known.map((student) => [student.id, student]));
  const result: RosterChanges = { added: [], changed: [], same: [], gone: [] };
  const listed = new Set<string>();
  for (const row of incoming) {
    const student = row.knownId === null ? undefined : byId.get(row.knownId);
    if (!student) {
      result.added.push(row);
      continue;
    }
    listed.add(student.id);
    const changes = fieldChanges(student, row);
    if (changes.length > 0) result.changed.push({ student, incoming: row, changes });
    else result.same.push(student);
  }
  if (groupId !== null)
    result.gone = known.filter(
      (student) =>
        student.groupIds.includes(groupId) && student.archivedAt === undefined && !listed.has(student.id),
    );
  return result;
}

/** The changes of several groups as one: a student who is in more than one counts once. */
export function joinedChanges(parts: readonly RosterChanges[]): RosterChanges {
  const once = <T>(rows: T[], keyOf: (row: T) => unknown) => [
    ...new Map(rows.map((row) => [keyOf(row), row])).values(),
  ];
  return {
    added: once(
      parts.flatMap(({ added }) => added),
      (row) => row,
    ),
    changed: once(
      parts.flatMap(({ changed }) => changed),
      ({ student }) => student.id,
    ),
    same: once(
      parts.flatMap(({ same }) => same),
      ({ id }) => id,
    ),
    gone: once(
      parts.flatMap(({ gone }) => gone),
      ({ id }) => id,
    ),
  };
}
