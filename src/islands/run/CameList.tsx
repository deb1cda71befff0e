import { Button, NativeSelect } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState, type ReactNode } from 'react';
import type { AnswersFile } from '@/core/formats/packet/packetFile';
import { byRegister, fullName, registerName } from '@/core/model/names';
import { sittingTitles } from '@/store/carriedFiles';
import type { SittingData } from '@/desk/useSitting';
import { counted } from '@/words/format';
import { oddWords, type Came } from './carriedFiles';
import styles from './run.module.css';

interface CameListProps {
  sitting: SittingData;
  came: Came[];
  takeIn: (name: string, file: AnswersFile, studentId: string | null) => void;
}

/** Whether what a file brought is on the desk: not any more once that was undone. */
function isIn(each: Came, { attempts }: SittingData): boolean {
  if (each.became !== 'told' || !('attempts' in each.taken)) return false;
  return each.taken.attempts.every(({ id, lastSeenAt, handedInAt }) =>
    attempts.some(
      (here) =>
        here.id === id && here.lastSeenAt >= lastSeenAt && (handedInAt === null || here.handedInAt !== null),
    ),
  );
}

/** What became of each file: what asks for something first, what is in last. */
export function CameList({ sitting, came, takeIn }: CameListProps) {
  const taken = came.filter((each) => isIn(each, sitting));
  const left = came.filter((each) => !isIn(each, sitting));
  return (
    <>
      <p role="status">
        {counted(taken.length, 'file')} imported{left.length > 0 && `, ${left.length} not`}.
      </p>
      <ul className={styles.came} aria-label="Imported files">
        {[...left, ...taken].map((each) => (
          <li key={each.name} className={isIn(each, sitting) ? undefined : styles.warning}>
            <span className={styles.cameName}>{each.name}</span>
            <CameWords sitting={sitting} each={each} takeIn={takeIn} />
          </li>
        ))}
      </ul>
    </>
  );
}

function CameWords({
  sitting,
  each,
  takeIn,
}: {
  sitting: SittingData;
  each: Came;
  takeIn: CameListProps['takeIn'];
}) {
  const titles = useLiveQuery(sittingTitles);
  if (each.became === 'refused') return <span>{each.words}</span>;
  const { name, file } = each;
  const typed = fullName(file.student);
  if (each.became === 'changed')
    return (
      <>
        <span>
          Changed since it was saved: it isn’t as {typed}’s computer wrote it. It wasn’t imported. Ask for the
          file again, or import it anyway if you know why.
        </span>
        <Button onClick={() => takeIn(name, file, null)}>Import anyway</Button>
      </>
    );
  const { taken } = each;
  const who = taken.student ? fullName(taken.student) : typed;
  const known = (id: string) => {
    const student = sitting.students.find((one) => one.id === id);
    return student ? fullName(student) : 'another student';
  };
  switch (taken.outcome) {
    case 'new':
    case 'another':
    case 'further':
      if (!isIn(each, sitting))
        return (
          <>
            <span>{who}. It is no longer on this desk.</span>
            <Button onClick={() => takeIn(name, file, taken.student?.id ?? null)}>Import again</Button>
          </>
        );
      return (
        <span>
          {who}. {taken.outcome === 'another' && 'A further attempt: there already was one. '}
          {taken.outcome === 'further' && 'Adds to what was already here. '}
          {plainName(typed) !== plainName(who) && <strong>The name that was typed is “{typed}”. </strong>}
          {taken.odd && <strong>{oddWords[taken.odd]}</strong>}
        </span>
      );
    case 'double':
      return <span>A duplicate: everything in it is already here, from {who}.</span>;
    case 'otherSitting': {
      const title = titles?.get(taken.sittingId);
      return title === undefined ? (
        <span>From a sitting that isn’t on this desk, by {typed}.</span>
      ) : (
        <span>
          From another sitting, <a href={`/sittings/${taken.sittingId}/by-hand`}>{title}</a>: import it there.
          By {typed}.
        </span>
      );
    }
    case 'unfit':
      return (
        <span>
          From {who}, but it doesn’t fit this paper
          {taken.question ? `: question ${taken.question} can’t have been answered like this` : ''}. It was
          made up, or is for another version.
        </span>
      );
    case 'copied':
      return (
        <span>
          From {who}, but it is the attempt that came from {known(taken.studentId)} before. Not imported.
        </span>
      );
    case 'nobody':
      return (
        <Whose sitting={sitting} name={typed} takeIn={(studentId) => takeIn(name, file, studentId)}>
          From “{typed}”, with a join code that nobody here has, {file.student.joinCode}. Whose is it?
        </Whose>
      );
    case 'otherStudent':
      return (
        <Whose sitting={sitting} name={typed} takeIn={(studentId) => takeIn(name, file, studentId)}>
          It was made for {known(taken.studentId)} and worked on with the join code of {who}. Whose is it?
        </Whose>
      );
  }
}

/** A name without what typing makes of it. */
const plainName = (name: string) =>
  name.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().split(/\s+/).sort().join(' ');

interface WhoseProps {
  sitting: SittingData;
  name: string;
  takeIn: (studentId: string) => void;
  children: ReactNode;
}

/** Whose answers they are, as the teacher knows. */
function Whose({ sitting, name, takeIn, children }: WhoseProps) {
  const [studentId, setStudentId] = useState('');
  return (
    <>
      <span>{children}</span>
      <div className={styles.row}>
        <NativeSelect
          aria-label={`Whose answers “${name}” are`}
          value={studentId}
          data={[
            { value: '', label: 'choose a student' },
            ...[...sitting.students]
              .sort(byRegister)
              .map((one) => ({ value: one.id, label: registerName(one) })),
          ]}
          onChange={(event) => setStudentId(event.currentTarget.value)}
        />
        <Button disabled={studentId === ''} onClick={() => takeIn(studentId)}>
          Import
        </Button>
      </div>
    </>
  );
}
