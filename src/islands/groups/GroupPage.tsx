import { ActionIcon, Button, Modal, Table, TextInput, NumberInput } from '@mantine/core';
import { IconPencil, IconX } from '@tabler/icons-react';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import {
  byRegister,
  fullName,
  joinCodeShown,
  registerName,
  type Group,
  type Student,
} from '@/core/model/people';
import { bringIn, changeStudent, deleteGroup, renameGroup, takeOutOfGroup } from '@/store/people';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import { DeskReady } from '@/ui/desk/DeskReady';
import { counted } from '@/ui/format';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { BringIn } from './BringIn';
import styles from './groups.module.css';

/** One group: its students with their join codes, and the ways to bring more in. */
export function GroupPage({ groupId }: { groupId: string }) {
  return (
    <DeskReady>
      <GroupView groupId={groupId} />
    </DeskReady>
  );
}

function GroupView({ groupId }: { groupId: string }) {
  const group = useLiveQuery(async () => (await desk.groups.get(groupId)) ?? null, [groupId]);
  const students = useLiveQuery(() => desk.students.where('groupIds').equals(groupId).toArray(), [groupId]);
  const [bringing, setBringing] = useState(false);
  if (group === null)
    return <EmptyState title="No such group on this desk" action={<a href="/groups">To the groups</a>} />;
  if (!group || !students) return null;
  const asking = bringing || students.length === 0;
  return (
    <TwoColumns
      marginLabel="About the group"
      margin={
        <GroupMargin
          group={group}
          count={students.length}
          bringing={asking}
          bring={() => setBringing(true)}
        />
      }
    >
      <h1 className={styles.heading}>{group.name}</h1>
      {asking ? (
        <BringIn group={group} firstOnes={students.length === 0} done={() => setBringing(false)} />
      ) : (
        <Register students={[...students].sort(byRegister)} groupId={groupId} />
      )}
    </TwoColumns>
  );
}

function Register({ students, groupId }: { students: Student[]; groupId: string }) {
  const [changing, setChanging] = useState<Student | null>(null);
  const sought = new URLSearchParams(window.location.search).get('student');
  return (
    <>
      <Table stickyHeader verticalSpacing={3} highlightOnHover>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Name</Table.Th>
            <Table.Th>Number</Table.Th>
            <Table.Th>Email</Table.Th>
            <Table.Th>Join code</Table.Th>
            <Table.Th w={80}>
              <span className="visuallyHidden">Change</span>
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {students.map((student) => (
            <Table.Tr key={student.id} className={student.id === sought ? styles.current : undefined}>
              <Table.Td>
                {registerName(student)}
                {student.extraPercent !== undefined && (
                  <span className={styles.soft}> {student.extraPercent} % more time</span>
                )}
              </Table.Td>
              <Table.Td>{student.number}</Table.Td>
              <Table.Td>{student.email}</Table.Td>
              <Table.Td className={styles.code}>{joinCodeShown(student.joinCode)}</Table.Td>
              <Table.Td>
                <ActionIcon
                  variant="subtle"
                  color="gray"
                  aria-label={`Change ${fullName(student)}`}
                  onClick={() => setChanging(student)}
                >
                  <IconPencil size={16} />
                </ActionIcon>
                <ActionIcon
                  variant="subtle"
                  color="gray"
                  aria-label={`Take ${fullName(student)} out of the group`}
                  onClick={() => void act(takeOutOfGroup(student.id, groupId, isoNow()))}
                >
                  <IconX size={16} />
                </ActionIcon>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {changing && <StudentForm student={changing} close={() => setChanging(null)} />}
    </>
  );
}

const studentFields = [
  ['givenName', 'Given name'],
  ['familyName', 'Family name'],
  ['number', 'Student number'],
  ['email', 'Email'],
] as const;

function StudentForm({ student, close }: { student: Student; close: () => void }) {
  const [draft, setDraft] = useState(student);
  const keep = async () => {
    if (await act(changeStudent(draft, isoNow()))) close();
  };
  return (
    <Modal opened onClose={close} title={fullName(student)} closeButtonProps={{ 'aria-label': 'Close' }}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        {studentFields.map(([field, label]) => (
          <TextInput
            key={field}
            label={label}
            mb="xs"
            value={draft[field]}
            onChange={(event) => setDraft({ ...draft, [field]: event.currentTarget.value })}
          />
        ))}
        <NumberInput
          label="Percent more time in every sitting"
          description="Empty: as everyone. It holds wherever there is a time limit."
          mb="xs"
          min={1}
          max={300}
          allowDecimal={false}
          value={draft.extraPercent ?? ''}
          onChange={(value) => {
            const { extraPercent: _, ...rest } = draft;
            setDraft(Number(value) >= 1 ? { ...rest, extraPercent: Math.min(300, Number(value)) } : rest);
          }}
        />
        <Button type="submit" variant="filled">
          Keep
        </Button>
      </form>
    </Modal>
  );
}

interface GroupMarginProps {
  group: Group;
  count: number;
  bringing: boolean;
  bring: () => void;
}

function GroupMargin({ group, count, bringing, bring }: GroupMarginProps) {
  const [name, setName] = useState(group.name);
  const remove = async () => {
    if (await act(deleteGroup(group.id, isoNow()))) window.location.assign('/groups');
  };
  return (
    <>
      {!bringing && (
        <MarginBlock title={counted(count, 'student')}>
          <Button variant="filled" onClick={bring}>
            Bring students in
          </Button>
          <AddOne group={group} />
        </MarginBlock>
      )}
      <MarginBlock title="Join codes">
        <p>
          A student enters at <a href="/sit">/sit</a> with the code beside the name.
        </p>
      </MarginBlock>
      <MarginBlock title="The group">
        <form
          className={styles.inline}
          onSubmit={(event) => {
            event.preventDefault();
            void act(renameGroup(group.id, name, isoNow()));
          }}
        >
          <TextInput
            aria-label="Name of the group"
            size="sm"
            required
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button type="submit" size="sm" disabled={name.trim() === '' || name === group.name}>
            Rename
          </Button>
        </form>
        <Button onClick={() => void remove()} justify="start">
          Delete the group
        </Button>
      </MarginBlock>
    </>
  );
}

/** One student by hand. */
function AddOne({ group }: { group: Group }) {
  const [givenName, setGivenName] = useState('');
  const [familyName, setFamilyName] = useState('');
  const add = async () => {
    const student = {
      line: 0,
      givenName: givenName.trim(),
      familyName: familyName.trim(),
      number: '',
      email: '',
      knownId: null,
    };
    if (!(await act(bringIn(group.id, [student], isoNow())))) return;
    setGivenName('');
    setFamilyName('');
  };
  return (
    <form
      className={styles.inline}
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <TextInput
        size="sm"
        aria-label="Given name"
        placeholder="Given name"
        value={givenName}
        onChange={(event) => setGivenName(event.currentTarget.value)}
      />
      <span />
      <TextInput
        size="sm"
        aria-label="Family name"
        placeholder="Family name"
        value={familyName}
        onChange={(event) => setFamilyName(event.currentTarget.value)}
      />
      <Button type="submit" size="sm" disabled={!givenName.trim() && !familyName.trim()}>
        Add
      </Button>
    </form>
  );
}
