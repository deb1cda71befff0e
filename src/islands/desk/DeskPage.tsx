import { Button, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { sumBy } from 'remeda';
import type { Paper } from '@/core/model/paper';
import type { Group } from '@/core/model/people';
import { createPaper } from '@/store/papers';
import { deskRows, keepProgress } from '@/store/queries';
import { backupSavedAt, begunWith, deskName } from '@/store/deskSettings';
import { coursesDue } from '@/store/retention';
import { desk } from '@/store/tables';
import { isoNow, useNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { CopyWords } from '@/desk/CopyWords';
import { DeskReady } from '@/desk/DeskReady';
import { paperStages } from '@/desk/stripStages';
import { counted } from '@/words/format';
import { EmptyState } from '@/ui/EmptyState';
import { Strip } from '@/ui/Strip';
import { KeyHint } from '@/ui/KeyHint';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { deskHeading, SittingStrips } from './SittingStrips';
import styles from './DeskPage.module.css';

/** The desk: a stack of strips, the most pressing on top. */
export function DeskPage() {
  return (
    <DeskReady>
      <Desk />
    </DeskReady>
  );
}

function Desk() {
  const now = useNow(15_000);
  const rows = useLiveQuery(() => deskRows(Date.now()), [now]);
  useEffect(() => {
    // Only what was computed anew: keeping what came from the cache would ask the query again without end.
    const fresh = rows?.sittings.filter((row) => row.computed) ?? [];
    const progress = fresh.flatMap((row) => row.progress ?? []);
    if (progress.length > 0) void keepProgress(progress);
  }, [rows]);
  const name = useLiveQuery(deskName);
  if (!rows) return null;
  const waiting = sumBy(rows.sittings, ({ sitting, progress }) =>
    sitting.rehearsal ? 0 : (progress?.waiting ?? 0),
  );
  const nothing = rows.sittings.length === 0 && rows.papers.length === 0;
  return (
    <TwoColumns margin={<DeskMargin groups={rows.groups} waiting={waiting} />} marginLabel="Beside the desk">
      <div className={styles.title}>
        <h1 id={deskHeading} tabIndex={-1} className={styles.heading}>
          On the desk
        </h1>
        <span className={styles.about}>{name}</span>
      </div>
      {nothing && <FirstSteps groups={rows.groups.length} />}
      <div className={styles.stack}>
        <SittingStrips rows={rows.sittings} now={now}>
          {rows.papers.map((paper) => (
            <PaperStrip key={paper.id} paper={paper} />
          ))}
        </SittingStrips>
      </div>
    </TwoColumns>
  );
}

function PaperStrip({ paper }: { paper: Paper }) {
  return (
    <article>
      <div className={styles.title}>
        <h2>{paper.title || 'Paper without a title'}</h2>
        <span className={styles.about}>draft</span>
      </div>
      <Strip
        label={`Stages of ${paper.title || 'the paper without a title'}`}
        stages={paperStages(paper.id, paper)}
      />
    </article>
  );
}

function FirstSteps({ groups }: { groups: number }) {
  return groups === 0 ? (
    <EmptyState
      title="Start with your students"
      action={
        <Button variant="filled" component="a" href="/groups?new=1">
          Create a group
        </Button>
      }
    >
      Create a group and add its students from a list. Then write a paper and give it out to them.
    </EmptyState>
  ) : (
    <EmptyState title="Now write your first paper">
      Name it in the margin. It appears here as a strip of five stages, from writing to handing back.
    </EmptyState>
  );
}

function DeskMargin({ groups, waiting }: { groups: (Group & { students: number })[]; waiting: number }) {
  const saved = useLiveQuery(backupSavedAt);
  const begun = useLiveQuery(begunWith);
  const asked = useLiveQuery(() => desk.requests.filter((request) => request.answer === null).count()) ?? 0;
  const messages = useLiveQuery(() => desk.outbox.count()) ?? 0;
  const now = useNow(10 * 60_000);
  const due = useLiveQuery(() => coursesDue(now), [now]) ?? [];
  return (
    <>
      {waiting > 0 && (
        <MarginBlock title={`${counted(waiting, 'answer')} to mark`}>
          <p>
            <a href="/waiting">See what waits</a> <KeyHint keys="Alt W" />
          </p>
        </MarginBlock>
      )}
      {asked > 0 && (
        <MarginBlock title={counted(asked, 'request')}>
          <a href="/requests">Review requests</a>
        </MarginBlock>
      )}
      <NewPaper />
      {messages > 0 && (
        <MarginBlock title="Outbox">
          <a href="/outbox">{counted(messages, 'message')} to students</a>
        </MarginBlock>
      )}
      {due.length > 0 && (
        <MarginBlock title="Answers to delete">
          <p>
            The time you set is over for{' '}
            {due.map(({ course }) => course || 'sittings without a course').join(', ')}.{' '}
            <a href="/kept">See what is kept</a>
          </p>
        </MarginBlock>
      )}
      <MarginBlock title="Groups" aside={<a href="/groups">all groups</a>}>
        {groups.length === 0 ? (
          <p>No groups yet.</p>
        ) : (
          <ul className={styles.groups}>
            {groups.map((group) => (
              <li key={group.id}>
                <a href={`/groups/${group.id}`}>{group.name}</a>{' '}
                <span>{counted(group.students, 'student')}</span>
              </li>
            ))}
          </ul>
        )}
      </MarginBlock>
      <MarginBlock title="Mark for a colleague">
        <p>
          <a href="/share">Take in a share of marking</a>
        </p>
      </MarginBlock>
      <MarginBlock title="Student page">
        <p>
          Students join at <a href="/sit">/sit</a> with their join code. In this browser you can try any code
          yourself.
        </p>
      </MarginBlock>
      <MarginBlock title="Saved in this browser">
        <p>
          <CopyWords savedAt={saved} /> <a href="/backup">Backups</a>
        </p>
        {begun === 'demo' && (
          <p className={styles.about}>
            This is a made-up course to try things out. <a href="/backup#empty">Start with an empty desk</a>
          </p>
        )}
      </MarginBlock>
    </>
  );
}

function NewPaper() {
  const [title, setTitle] = useState('');
  const asked = new URLSearchParams(window.location.search).has('new');
  const begin = async () => {
    const made = await act(createPaper(title.trim(), isoNow()));
    if (made) window.location.assign(`/papers/${made.result}`);
  };
  return (
    <MarginBlock title="New paper">
      <form
        className={styles.newPaper}
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <TextInput
          aria-label="Title of the new paper"
          placeholder="Title"
          size="sm"
          required
          autoFocus={asked}
          value={title}
          onChange={(event) => setTitle(event.currentTarget.value)}
        />
        <Button type="submit" size="sm">
          Start writing
        </Button>
      </form>
      <p>
        or import <a href="/packages">papers from a package</a>, <a href="/answers">answers from a sheet</a>
      </p>
    </MarginBlock>
  );
}
