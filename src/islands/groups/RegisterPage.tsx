import { Button, Checkbox } from '@mantine/core';
import { FileButton } from '@/ui/FileButton';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import type { Roster, RosterClass } from '@/core/formats/oneroster/readRoster';
import type { Group, Student } from '@/core/model/people';
import { sameGroup } from '@/core/people/places';
import { joinedChanges, rosterChanges, type RosterChanges } from '@/core/people/rosterChanges';
import { bringClasses, type BringChoices } from '@/store/people';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import { BadRows } from '@/ui/BadRows';
import { DeskReady } from '@/desk/DeskReady';
import { counted } from '@/words/format';
import { refusalWords } from '@/words/losses';
import { readRegister } from '@/workers/readSheet';
import styles from './groups.module.css';
import { WhatChanges } from './WhatChanges';

/** Students and classes from a school register: what was understood is shown before anything is done. */
export function RegisterPage() {
  return (
    <DeskReady>
      <Register />
    </DeskReady>
  );
}

function Register() {
  const students = useLiveQuery(() => desk.students.toArray());
  const groups = useLiveQuery(() => desk.groups.toArray());
  const [roster, setRoster] = useState<Roster | null>(null);
  const [refused, setRefused] = useState('');
  const read = async (file: File | null) => {
    if (!file || !students) return;
    setRoster(null);
    setRefused('');
    const known = students.map(({ id, number, email }) => ({ id, number, email }));
    const reply = await act(readRegister(file, known).result);
    if (!reply) return;
    if ('refused' in reply) setRefused(refusalWords(reply.refused, file.name));
    else setRoster(reply.read);
  };
  return (
    <div className={styles.bringIn}>
      <h1 className={styles.heading}>Import from a school register</h1>
      <p>
        A OneRoster 1.1 or 1.2 package: a zip of CSV files with users, classes and enrollments. Each class
        goes into the group with its name. You see what will change before you import.
      </p>
      <div className={styles.row}>
        <FileButton onChange={(file) => void read(file)} accept=".zip">
          {(props) => <Button {...props}>Choose package</Button>}
        </FileButton>
        <a href="/groups">Go to groups</a>
      </div>
      {refused && <p role="alert">{refused}</p>}
      {roster && students && groups && (
        <Understood key={roster.classes.length} roster={roster} students={students} groups={groups} />
      )}
    </div>
  );
}

interface UnderstoodProps {
  roster: Roster;
  students: Student[];
  groups: Group[];
}

function Understood({ roster, students, groups }: UnderstoodProps) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [choices, setChoices] = useState<BringChoices>({ update: true, takeOutGone: false });
  const chosen = roster.classes.filter(({ sourcedId }) => !left.has(sourcedId));
  const changesOf = useMemo(
    () =>
      new Map(
        roster.classes.map((each) => [
          each.sourcedId,
          rosterChanges(
            each.students,
            students,
            groups.find(({ name }) => sameGroup(name, each.title))?.id ?? null,
          ),
        ]),
      ),
    [roster, students, groups],
  );
  const all = joinedChanges(chosen.flatMap(({ sourcedId }) => changesOf.get(sourcedId) ?? []));
  const bring = async () => {
    if (await act(bringClasses(chosen, isoNow(), choices))) window.location.assign('/groups');
  };
  return (
    <>
      <fieldset className={styles.classes}>
        <legend>Classes</legend>
        {roster.classes.map((each) => (
          <Checkbox
            key={each.sourcedId}
            label={`${each.title}: ${classWords(each, changesOf.get(each.sourcedId), groups)}`}
            checked={!left.has(each.sourcedId)}
            onChange={(event) => {
              const next = new Set(left);
              if (event.currentTarget.checked) next.delete(each.sourcedId);
              else next.add(each.sourcedId);
              setLeft(next);
            }}
          />
        ))}
        {roster.classes.length === 0 && <p>None of its classes has students.</p>}
      </fieldset>
      <WhatChanges changes={all} choices={choices} choose={setChoices} />
      <BadRows
        rows={roster.bad.map(({ line, file, reason, cell }) => ({
          line,
          why: `of ${file}: ${badWords[reason]}${cell ? ` (${cell})` : ''}`,
        }))}
      />
      {roster.ignored.length > 0 && <p className={styles.soft}>Left out: {roster.ignored.join(', ')}.</p>}
      <div className={styles.row}>
        <Button variant="filled" size="sm" disabled={chosen.length === 0} onClick={() => void bring()}>
          Import {counted(chosen.length, 'class', 'classes')}
        </Button>
        <Button
          size="sm"
          onClick={() => {
            say('Nothing was imported');
            window.location.assign('/groups');
          }}
        >
          Cancel
        </Button>
      </div>
    </>
  );
}

const badWords: Record<Roster['bad'][number]['reason'], string> = {
  noName: 'it has no name',
  sameNumber: 'its number is already used',
  badEmail: 'its email address isn’t valid, and was left out',
  tooLong: 'it is too long',
  unknownClass: 'its class isn’t in classes.csv',
  unknownUser: 'its user isn’t in users.csv',
};

function classWords(each: RosterClass, changes: RosterChanges | undefined, groups: Group[]): string {
  const size = counted(each.students.length, 'student');
  const group = groups.some(({ name }) => sameGroup(name, each.title))
    ? 'into the existing group'
    : 'a new group';
  return `${size}, ${changes?.added.length ?? 0} of them new; ${group}`;
}
