import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Group } from '@/core/model/people';
import { bringIn, deleteGroup, describeGroup, renameGroup } from '@/store/people';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { counted } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import type { CourseNames } from '@/core/sittings/deskOrder';
import { CourseFields } from '@/desk/CourseFields';
import styles from './groups.module.css';

interface GroupMarginProps {
  group: Group;
  count: number;
  /** Null while students are brought in. */
  bring: (() => void) | null;
}

/** What belongs to a group: bringing students in, join codes, its name. */
export function GroupMargin({ group, count, bring }: GroupMarginProps) {
  const [name, setName] = useState(group.name);
  const remove = async () => {
    if (await act(deleteGroup(group.id, isoNow()))) window.location.assign('/groups');
  };
  return (
    <>
      {bring && (
        <MarginBlock title={counted(count, 'student')}>
          <Button variant="filled" onClick={bring}>
            Add students
          </Button>
          <AddOne group={group} />
        </MarginBlock>
      )}
      <MarginBlock title="Join codes">
        <p>
          Students join at <a href="/sit">/sit</a> with the code beside their name.
        </p>
        {count > 0 && <a href={`/groups/${group.id}/slips`}>Print join slips</a>}
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
            aria-label="Group name"
            size="sm"
            required
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button type="submit" size="sm" disabled={name.trim() === '' || name === group.name}>
            Rename
          </Button>
        </form>
        <CourseAndTerm
          key={`${group.course ?? ''}\n${group.term ?? ''}`}
          of={group}
          keep={(of) => act(describeGroup(group.id, of, isoNow()))}
        />
        <Button onClick={() => void remove()} justify="start">
          Delete group
        </Button>
      </MarginBlock>
    </>
  );
}

interface CourseAndTermProps {
  of: Pick<Group, 'course' | 'term'>;
  keep: (names: CourseNames) => Promise<unknown>;
}

/** What course and term a group belongs to. */
function CourseAndTerm({ of, keep }: CourseAndTermProps) {
  const before = { course: of.course ?? '', term: of.term ?? '' };
  const [names, setNames] = useState<CourseNames>(before);
  const same = names.course.trim() === before.course && names.term.trim() === before.term;
  return (
    <form
      className={styles.course}
      onSubmit={(event) => {
        event.preventDefault();
        void keep(names);
      }}
    >
      <CourseFields names={names} change={setNames} about="The desk sorts finished sittings by it." />
      <Button type="submit" size="sm" disabled={same}>
        Save course
      </Button>
    </form>
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
