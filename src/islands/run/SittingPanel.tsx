import { Button } from '@mantine/core';
import { showsSentence } from '@/words/releases';
import type { Sitting } from '@/core/model/sitting';
import { Fragment } from 'react';
import { archiveSittings, deleteSitting, restoreSitting, setClosedToStarts } from '@/store/sittings';
import { beginTryOut } from '@/store/tryOut';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted, dayAndTime, duration } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './run.module.css';

interface SittingPanelProps {
  sitting: SittingData;
  /** Whether the rules are open beside it. */
  changing: boolean;
  changeRules: () => void;
}

/** The sitting's rules, and what can be done to it as a whole. */
export function SittingPanel({ sitting, changing, changeRules }: SittingPanelProps) {
  const { sitting: record, now, progress } = sitting;
  const closed = record.closedToStartsAt !== null;
  const tryOut = async () => {
    const code = await act(beginTryOut(record.id));
    if (code) window.open(`/sit?code=${code}`, '_blank');
  };
  const archived = record.archivedAt !== undefined;
  const remove = async () => {
    if (await act(deleteSitting(record.id, isoNow()))) window.location.assign('/');
  };
  return (
    <>
      <MarginBlock title="New starts">
        <p>
          {closed
            ? `Closed to new starts since ${dayAndTime(record.closedToStartsAt ?? '', now)}. Students who have started can carry on.`
            : `${counted(progress.notStarted, 'student')} can still start.`}
        </p>
        <Button onClick={() => void act(setClosedToStarts(record.id, !closed, isoNow()))}>
          {closed ? 'Allow new starts' : 'Close to new starts'}
        </Button>
      </MarginBlock>
      <MarginBlock title="Settings">
        <dl className={styles.facts}>
          <dt>opens</dt>
          <dd>{dayAndTime(record.opensAt, now)}</dd>
          <dt>closes</dt>
          <dd>{record.closesAt ? dayAndTime(record.closesAt, now) : 'no closing time'}</dd>
          <dt>time limit</dt>
          <dd>{record.timeLimitMs ? duration(record.timeLimitMs) : 'none'}</dd>
          {(record.attempts ?? 1) > 1 && (
            <>
              <dt>attempts</dt>
              <dd>
                {record.attempts}, the {record.counts ?? 'last'} counts
              </dd>
            </>
          )}
          <dt>access code</dt>
          <dd>{record.accessCode || 'none'}</dd>
          {mannerWords(record).map(([word, words]) => (
            <Fragment key={word}>
              <dt>{word}</dt>
              <dd>{words}</dd>
            </Fragment>
          ))}
        </dl>
        <Button aria-expanded={changing} onClick={changeRules}>
          Change settings
        </Button>
        <p className={styles.soft}>
          Students join at <a href="/sit">/sit</a> with their join code.
        </p>
      </MarginBlock>
      {record.rehearsal !== true && (
        <MarginBlock title="Own devices">
          <p className={styles.soft}>
            {record.onDevices
              ? 'Students join on their own devices.'
              : 'Students can only sit it in this browser so far.'}
          </p>
          <Button component="a" href={`/sittings/${record.id}/devices`}>
            {record.onDevices ? 'Address, code and who has joined' : 'Let students join on their own devices'}
          </Button>
          <Button component="a" href={`/sittings/${record.id}/by-hand`}>
            No network? Carry it in files
          </Button>
          <Button component="a" href={`/answers?sitting=${record.id}`}>
            Import answers from a sheet
          </Button>
          <Button component="a" href={`/sittings/${record.id}/on-paper`}>
            On paper: print and scan
          </Button>
        </MarginBlock>
      )}
      <MarginBlock title="Try it yourself">
        <p className={styles.soft}>
          Start a try-out, whenever and as often as you like. It doesn’t count, and nobody else sees it.
        </p>
        <Button onClick={() => void tryOut()}>Start a try-out</Button>
      </MarginBlock>
      <MarginBlock title="The sitting">
        <Button
          justify="start"
          onClick={() =>
            void act(archived ? restoreSitting(record.id, isoNow()) : archiveSittings([record.id], isoNow()))
          }
        >
          {archived ? 'Restore to the desk' : 'Archive sitting'}
        </Button>
        <Button justify="start" onClick={() => void remove()}>
          Delete sitting
        </Button>
      </MarginBlock>
    </>
  );
}

/** How it is sat, where it is not the plain way. */
function mannerWords(record: Sitting): [string, string][] {
  const rows: [string, string][] = [];
  if (record.oneByOne)
    rows.push(['questions', record.noBack ? 'one at a time, can’t go back' : 'one at a time']);
  if (record.shuffle) rows.push(['order', 'different for each']);
  if (record.practice)
    rows.push([
      'practice',
      record.practice.tries === null ? 'unlimited tries' : counted(record.practice.tries, 'try', 'tries'),
    ]);
  if (record.after) rows.push(['straight away', showsSentence(record.after)]);
  if (record.forgivenMs) rows.push(['late answers', `up to ${duration(record.forgivenMs)} if typed in time`]);
  if (record.guests) rows.push(['guests', 'with the access code']);
  return rows;
}
