import { Button, Select } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import type { Student } from '@/core/model/people';
import { byRegister, registerName } from '@/core/model/names';
import { mergeStudents } from '@/store/people';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './run.module.css';

interface MatchGuestProps {
  guest: Student;
  sitting: SittingData;
  done: () => void;
}

/** A guest is one of the students after all: the attempt goes to that student. */
export function MatchGuest({ guest, sitting, done }: MatchGuestProps) {
  const students = useLiveQuery(() => desk.students.toArray()) ?? [];
  const [id, setId] = useState<string | null>(null);
  const options = students
    .filter((student) => student.role === undefined && student.archivedAt === undefined)
    .sort(byRegister)
    .map((student) => ({
      value: student.id,
      label: [registerName(student), student.number].filter(Boolean).join(' · '),
    }));
  const seat = sitting.seats.find((each) => each.student.id === id);
  const match = async () => {
    if (id !== null && (await act(mergeStudents(id, guest.id, isoNow())))) done();
  };
  return (
    <MarginBlock title="Who is this guest?">
      <Select
        aria-label="Student"
        placeholder="Name or number"
        size="sm"
        searchable
        limit={50}
        data={options}
        value={id}
        onChange={setId}
        nothingFoundMessage="No matches"
      />
      {id !== null && (
        <p className={styles.soft}>
          {seat?.attempt
            ? `${registerName(seat.student)} has an attempt here already; this one comes beside it, and the later one counts unless you say otherwise.`
            : 'The attempt moves to this student, with all its answers and marks.'}
        </p>
      )}
      <Button disabled={id === null} onClick={() => void match()}>
        Match to this student
      </Button>
    </MarginBlock>
  );
}
