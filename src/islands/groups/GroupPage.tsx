import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { forgiveAll, forgiven } from '@/core/kinds/forgiving';
import type { Group, Student } from '@/core/model/people';
import { byRegister, fullName, registerName } from '@/core/model/names';
import { likelyDoubles } from '@/core/people/doubles';
import { desk } from '@/store/tables';
import { DeskReady } from '@/desk/DeskReady';
import { counted } from '@/words/format';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { usePicked } from '@/ui/usePicked';
import { BringIn } from './BringIn';
import { GroupMargin } from './GroupMargin';
import { PickedPanel } from './PickedPanel';
import { StudentTable } from './StudentTable';
import styles from './groups.module.css';

/** The address of all students together, in place of a group's id. */
const allGroups = 'all';

const shortcuts = [
  { keys: '← ↑ → ↓', does: 'move between cells' },
  { keys: 'Enter', does: 'edit a cell; again to save it and move down' },
  { keys: 'Esc', does: 'cancel editing' },
];

/** One group, or all students: a table that is written in, and the ways to bring more in. */
export function GroupPage({ groupId }: { groupId: string }) {
  return (
    <DeskReady shortcuts={shortcuts}>
      <GroupView groupId={groupId} />
    </DeskReady>
  );
}

function GroupView({ groupId }: { groupId: string }) {
  const all = groupId === allGroups;
  const groups = useLiveQuery(() => desk.groups.orderBy('name').toArray());
  const students = useLiveQuery(
    () => (all ? desk.students.toArray() : desk.students.where('groupIds').equals(groupId).toArray()),
    [groupId],
  );
  const [bringing, setBringing] = useState(false);
  if (!groups || !students) return null;
  const lasting = groups.filter((group) => !group.rehearsal);
  const group = lasting.find(({ id }) => id === groupId) ?? null;
  if (!all && !group)
    return <EmptyState title="Group not found" action={<a href="/groups">Go to groups</a>} />;
  const listed = students
    .filter((student) => student.role === undefined && (all || student.archivedAt === undefined))
    .filter((student) => !student.groupIds.some((id) => groups.find((each) => each.id === id)?.rehearsal))
    .sort(byRegister);
  if (group && (bringing || listed.length === 0))
    return (
      <TwoColumns
        marginLabel="About the group"
        margin={<GroupMargin group={group} count={listed.length} bring={null} />}
      >
        <h1 className={styles.heading}>{group.name}</h1>
        <BringIn group={group} firstOnes={listed.length === 0} done={() => setBringing(false)} />
      </TwoColumns>
    );
  return <Register students={listed} groups={lasting} group={group} bring={() => setBringing(true)} />;
}

interface RegisterProps {
  students: Student[];
  groups: Group[];
  group: Group | null;
  bring: () => void;
}

function Register({ students, groups, group, bring }: RegisterProps) {
  const [text, setText] = useState('');
  const [archived, setArchived] = useState(false);
  const [added, setAdded] = useState<string[]>([]);
  const [filter, setFilter] = useState('');
  const { picked, pick, pickOnly } = usePicked();
  const fields = useMemo(
    () => [...new Set([...students.flatMap((student) => Object.keys(student.fields ?? {})), ...added])],
    [students, added],
  );
  const shown = useMemo(() => {
    const [field = '', value = ''] = filter ? (JSON.parse(filter) as [string, string]) : [];
    const wanted = searched(text);
    return students.filter(
      (student) =>
        (student.archivedAt !== undefined) === archived &&
        (!field || (student.fields?.[field] ?? '') === value) &&
        (!wanted ||
          searched(
            [registerName(student), fullName(student), student.number, student.email].join(' '),
          ).includes(wanted)),
    );
  }, [students, text, archived, filter]);
  const names = new Map(groups.map(({ id, name }) => [id, name]));
  const chosen = shown.filter(({ id }) => picked.has(id));
  const someArchived = students.some(({ archivedAt }) => archivedAt !== undefined);
  return (
    <TwoColumns
      marginLabel={group ? 'About the group' : 'About the students'}
      margin={
        <>
          {chosen.length > 0 && (
            <PickedPanel picked={chosen} groups={groups} group={group} done={() => pickOnly([])} />
          )}
          {group && <GroupMargin group={group} count={students.length} bring={bring} />}
          <Doubles students={students} pick={pickOnly} />
          <OwnField add={(name) => setAdded([...added, name])} />
        </>
      }
    >
      <h1 className={styles.heading}>{group?.name ?? 'All students'}</h1>
      <div className={styles.filters}>
        <TextInput
          size="xs"
          aria-label="Search students"
          placeholder="Name, number or email"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <FieldFilter students={students} fields={fields} value={filter} choose={setFilter} />
        {(someArchived || archived) && (
          <Button size="compact-sm" aria-pressed={archived} onClick={() => setArchived(!archived)}>
            {archived ? 'Show current students' : 'Show archived students'}
          </Button>
        )}
        <span className={styles.soft}>{counted(shown.length, 'student')}</span>
      </div>
      <StudentTable
        students={shown}
        fields={fields}
        groupsOf={
          group ? null : (student) => student.groupIds.flatMap((id) => names.get(id) ?? []).join(', ')
        }
        picked={picked}
        pick={pick}
        soughtId={new URLSearchParams(window.location.search).get('student')}
      />
    </TwoColumns>
  );
}

/** As it is searched: without case, accents or spaces. */
const searched = (text: string) => forgiven(text, forgiveAll);

interface FieldFilterProps {
  students: Student[];
  fields: string[];
  value: string;
  choose: (filter: string) => void;
}

/** Those with one value of an own field: a period, a course year. */
function FieldFilter({ students, fields, value, choose }: FieldFilterProps) {
  const choices = fields.flatMap((field) => {
    const values = new Set(students.flatMap((student) => student.fields?.[field] ?? []));
    return [...values].sort().map((each) => ({
      value: JSON.stringify([field, each]),
      label: `${field}: ${each}`,
    }));
  });
  if (choices.length === 0) return null;
  return (
    <NativeSelect
      size="xs"
      aria-label="Show only"
      value={value}
      data={[{ value: '', label: 'Everyone' }, ...choices]}
      onChange={(event) => choose(event.currentTarget.value)}
    />
  );
}

function Doubles({ students, pick }: { students: Student[]; pick: (ids: string[]) => void }) {
  const doubles = useMemo(() => likelyDoubles(students), [students]);
  if (doubles.length === 0) return null;
  return (
    <MarginBlock title="Possible duplicates">
      {doubles.slice(0, 5).map((set) => (
        <Button
          key={set.map(({ id }) => id).join()}
          justify="start"
          onClick={() => pick(set.slice(0, 2).map(({ id }) => id))}
        >
          {set
            .slice(0, 2)
            .map((student) => [fullName(student), student.number].filter(Boolean).join(' '))
            .join(' and ')}
        </Button>
      ))}
    </MarginBlock>
  );
}

function OwnField({ add }: { add: (name: string) => void }) {
  const [name, setName] = useState('');
  return (
    <MarginBlock title="Your own fields">
      <form
        className={styles.inline}
        onSubmit={(event) => {
          event.preventDefault();
          add(name.trim());
          setName('');
        }}
      >
        <TextInput
          size="sm"
          aria-label="Field name"
          placeholder="Period, course year…"
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" size="sm" disabled={name.trim() === ''}>
          Add field
        </Button>
      </form>
      <p className={styles.soft}>Adds a column you can edit and filter by.</p>
    </MarginBlock>
  );
}
