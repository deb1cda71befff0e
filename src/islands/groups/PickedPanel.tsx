import { Button, NativeSelect } from '@mantine/core';
import { useState } from 'react';
import type { Group, Student } from '@/core/model/people';
import { fullName } from '@/core/model/names';
import {
  archiveStudents,
  bringBackStudents,
  mergeStudents,
  newCodes,
  putInGroup,
  takeOutOfGroup,
} from '@/store/people';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { counted } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './groups.module.css';

interface PickedPanelProps {
  picked: Student[];
  groups: Group[];
  /** The group whose table it is; null: all students. */
  group: Group | null;
  done: () => void;
}

/** What can be done with the students that are picked. */
export function PickedPanel({ picked, groups, group, done }: PickedPanelProps) {
  const others = groups.filter(({ id }) => id !== group?.id);
  const [toId, setToId] = useState(others[0]?.id ?? '');
  const ids = picked.map(({ id }) => id);
  const run = async (work: Promise<unknown>) => {
    if (await act(work)) done();
  };
  const archived = picked.filter(({ archivedAt }) => archivedAt !== undefined);
  const [one, two] = picked;
  return (
    <MarginBlock title={counted(picked.length, 'student selected', 'students selected')}>
      {others.length > 0 && (
        <>
          <NativeSelect
            size="xs"
            aria-label="Choose a group"
            value={toId}
            data={others.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(event) => setToId(event.currentTarget.value)}
          />
          <div className={styles.row}>
            {group && (
              <Button onClick={() => void run(putInGroup(ids, toId, group.id, isoNow()))}>
                Move to group
              </Button>
            )}
            <Button onClick={() => void run(putInGroup(ids, toId, null, isoNow()))}>Add to group too</Button>
          </div>
        </>
      )}
      <div className={styles.row}>
        {group && (
          <Button onClick={() => void run(takeOutOfGroup(ids, group.id, isoNow()))}>Remove from group</Button>
        )}
        {archived.length < picked.length && (
          <Button onClick={() => void run(archiveStudents(ids, isoNow()))}>Archive</Button>
        )}
        {archived.length > 0 && (
          <Button onClick={() => void run(bringBackStudents(ids, isoNow()))}>Restore</Button>
        )}
        <Button onClick={() => void run(newCodes(ids, isoNow()))}>
          {picked.length === 1 ? 'New join code' : 'New join codes'}
        </Button>
      </div>
      {archived.length < picked.length && (
        <p className={styles.soft}>
          Archived students are hidden from lists; their attempts and results stay.
        </p>
      )}
      {picked.length === 2 && one && two && (
        <Merge one={one} two={two} run={(kept, other) => void run(mergeStudents(kept, other, isoNow()))} />
      )}
    </MarginBlock>
  );
}

interface MergeProps {
  one: Student;
  two: Student;
  run: (keptId: string, otherId: string) => void;
}

/** Two rows that are one student. */
function Merge({ one, two, run }: MergeProps) {
  return (
    <>
      <p className={styles.soft}>
        If they are the same student: both sets of attempts, results and groups are kept, and missing details
        are filled in.
      </p>
      {[[one, two] as const, [two, one] as const].map(([kept, other]) => (
        <Button key={kept.id} justify="start" onClick={() => run(kept.id, other.id)}>
          Keep {fullName(kept)}
          {kept.number && `, ${kept.number}`}
        </Button>
      ))}
    </>
  );
}
