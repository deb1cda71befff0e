import { useLiveQuery } from 'dexie-react-hooks';
import { Button, FileButton, NativeSelect, Progress } from '@mantine/core';
import { useState, type DragEvent, type ReactNode } from 'react';
import type { AnswersFile } from '@/core/formats/packet/packetFile';
import { byRegister, fullName, registerName } from '@/core/model/people';
import { sittingTitles, takeInAnswers, type Arrived } from '@/store/byHand';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/ui/desk/act';
import type { SittingData } from '@/ui/desk/useSitting';
import { counted } from '@/ui/format';
import type { Work } from '@/workers/stoppable';
import type { FoundPacket } from '@/core/formats/packet/packetFiles';
import { oddWords, readFiles, refusalOf, type Came } from './handFiles';
import styles from './run.module.css';

/** Answers packets, any number of them: dropped, read, taken in; what cannot be is named with its reason. */
export function AnswersIn({ sitting }: { sitting: SittingData }) {
  const sittingId = sitting.sitting.id;
  const [came, setCame] = useState<Came[]>([]);
  const [reading, setReading] = useState<{ work: Work<FoundPacket[]>; done: number; of: number } | null>(
    null,
  );

  /** Takes files in and lays what became of them over the list. */
  const take = async (files: { name: string; arrived: Arrived }[], others: Came[] = []) => {
    const arrived = files.map((each) => each.arrived);
    const taken = arrived.length > 0 ? await act(takeInAnswers(sittingId, arrived, isoNow())) : [];
    if (!taken) return;
    const told = files.flatMap(({ name, arrived: { file } }, index): Came[] => {
      const became = taken[index];
      return became ? [{ name, became: 'told', file, taken: became }] : [];
    });
    const now = [...others, ...told];
    const names = new Set(now.map(({ name }) => name));
    setCame((before) => [...now, ...before.filter(({ name }) => !names.has(name))]);
  };
  const read = async (files: File[]) => {
    if (files.length === 0) return;
    // The last word of how far it is may come after the end.
    const work = readFiles(files, (done) => setReading((now) => now && { ...now, done }));
    setReading({ work, done: 0, of: files.length });
    const found = await act(work.result);
    setReading(null);
    if (!found) return;
    const others: Came[] = [];
    const good: { name: string; arrived: Arrived }[] = [];
    for (const each of namedApart(found)) {
      const refused = refusalOf(each);
      if (refused) others.push(refused);
      else if (each.read.outcome === 'read' && each.read.packet.kind === 'answers') {
        const file = each.read.packet.content;
        if (each.read.changed) others.push({ name: each.name, became: 'changed', file });
        else good.push({ name: each.name, arrived: { file, studentId: null } });
      }
    }
    if (found.length === 0) say('There is nothing in it', true);
    await take(good, others);
  };
  const dropped = (event: DragEvent) => {
    event.preventDefault();
    void read([...event.dataTransfer.files]);
  };
  return (
    <section className={styles.stage} aria-labelledby="answers-in">
      <h2 id="answers-in">Answers, in</h2>
      <div className={styles.drop} onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
        <FileButton
          multiple
          onChange={(files) => void read(files)}
          inputProps={{ 'aria-label': 'Choose answer files' }}
        >
          {(button) => <Button {...button}>Choose answer files</Button>}
        </FileButton>
        <span className={styles.soft}>or drop them here: one, many, or a zip of them</span>
      </div>
      {reading && (
        <div className={styles.row} role="status">
          <span>
            Reading {Math.min(reading.done + 1, reading.of)} of {counted(reading.of, 'file')}
          </span>
          <Progress w={200} value={(100 * reading.done) / reading.of} aria-label="Read so far" />
          <Button onClick={reading.work.stop}>Stop</Button>
        </div>
      )}
      {came.length > 0 && (
        <CameList
          sitting={sitting}
          came={came}
          takeIn={(name, file, studentId) => void take([{ name, arrived: { file, studentId } }])}
        />
      )}
    </section>
  );
}

/** Files of the same name, from different folders, told apart by a number. */
function namedApart(found: readonly FoundPacket[]): FoundPacket[] {
  const seen = new Map<string, number>();
  return found.map((each) => {
    const count = (seen.get(each.name) ?? 0) + 1;
    seen.set(each.name, count);
    return count === 1 ? each : { ...each, name: `${each.name} (${count})` };
  });
}

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
function CameList({ sitting, came, takeIn }: CameListProps) {
  const taken = came.filter((each) => isIn(each, sitting));
  const left = came.filter((each) => !isIn(each, sitting));
  return (
    <>
      <p role="status">
        {counted(taken.length, 'file')} taken in{left.length > 0 && `, ${left.length} not`}.
      </p>
      <ul className={styles.came} aria-label="Files that came">
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
          Changed since it was saved: it is not as {typed}’s computer wrote it. It was not taken in. Ask for
          the file again, or take it in as it is if you know why.
        </span>
        <Button onClick={() => takeIn(name, file, null)}>Take it in as it is</Button>
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
            <Button onClick={() => takeIn(name, file, taken.student?.id ?? null)}>Take it in again</Button>
          </>
        );
      return (
        <span>
          {who}. {taken.outcome === 'another' && 'A further attempt: there was one already. '}
          {taken.outcome === 'further' && 'More of what was here already. '}
          {plainName(typed) !== plainName(who) && <strong>The name that was typed is “{typed}”. </strong>}
          {taken.odd && <strong>{oddWords[taken.odd]}</strong>}
        </span>
      );
    case 'double':
      return <span>A double: all of it is here already, from {who}.</span>;
    case 'otherSitting': {
      const title = titles?.get(taken.sittingId);
      return title === undefined ? (
        <span>Of another sitting, which is not on this desk. From {typed}.</span>
      ) : (
        <span>
          Of another sitting, <a href={`/sittings/${taken.sittingId}/by-hand`}>{title}</a>: take it in there.
          From {typed}.
        </span>
      );
    }
    case 'unfit':
      return (
        <span>
          From {who}, but it does not fit this paper
          {taken.question ? `: question ${taken.question} cannot have been answered so` : ''}. It was made up,
          or for another version.
        </span>
      );
    case 'copied':
      return (
        <span>
          From {who}, but it is the attempt that came from {known(taken.studentId)} before. Not taken in.
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
          Take it in
        </Button>
      </div>
    </>
  );
}
