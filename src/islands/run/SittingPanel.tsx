import { Button } from '@mantine/core';
import { showsSentence } from '@/core/handback/releaseSentence';
import type { Sitting } from '@/core/model/sitting';
import { Fragment } from 'react';
import { deleteSitting, setClosedToStarts } from '@/store/sittings';
import { beginTryOut } from '@/store/tryOut';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted, dayAndTime, duration } from '@/ui/format';
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
  const remove = async () => {
    if (await act(deleteSitting(record.id, isoNow()))) window.location.assign('/');
  };
  return (
    <>
      <MarginBlock title="New starts">
        <p>
          {closed
            ? `Nobody new may start since ${dayAndTime(record.closedToStartsAt ?? '', now)}. Those who are working go on.`
            : `${progress.notStarted} could still start.`}
        </p>
        <Button onClick={() => void act(setClosedToStarts(record.id, !closed, isoNow()))}>
          {closed ? 'Let students start again' : 'Close to new starts'}
        </Button>
      </MarginBlock>
      <MarginBlock title="The rules">
        <dl className={styles.facts}>
          <dt>opens</dt>
          <dd>{dayAndTime(record.opensAt, now)}</dd>
          <dt>closes</dt>
          <dd>{record.closesAt ? dayAndTime(record.closesAt, now) : 'no end'}</dd>
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
          Change the rules
        </Button>
        <p className={styles.soft}>
          Students enter at <a href="/sit">/sit</a> with their join code.
        </p>
      </MarginBlock>
      {record.rehearsal !== true && (
        <MarginBlock title="Their own devices">
          <p className={styles.soft}>
            {record.onDevices
              ? 'Students come in on their own devices.'
              : 'So far students sit it in this browser only.'}
          </p>
          <Button component="a" href={`/sittings/${record.id}/devices`}>
            {record.onDevices ? 'Address, code and who is in' : 'Let students in on their own devices'}
          </Button>
          <Button component="a" href={`/sittings/${record.id}/by-hand`}>
            Without a network: carry it by hand
          </Button>
        </MarginBlock>
      )}
      <MarginBlock title="Be a student for a minute">
        <p className={styles.soft}>
          Sit it as a try-out, at any time and as often as you like. It counts nowhere, and nobody else sees
          it.
        </p>
        <Button onClick={() => void tryOut()}>Sit it as a try-out</Button>
      </MarginBlock>
      <MarginBlock title="The sitting">
        <Button justify="start" onClick={() => void remove()}>
          Delete the sitting
        </Button>
      </MarginBlock>
    </>
  );
}

/** How it is sat, where it is not the plain way. */
function mannerWords(record: Sitting): [string, string][] {
  const rows: [string, string][] = [];
  if (record.oneByOne) rows.push(['questions', record.noBack ? 'one by one, no way back' : 'one by one']);
  if (record.shuffle) rows.push(['order', 'of their own']);
  if (record.practice)
    rows.push([
      'practice',
      record.practice.tries === null ? 'any number of tries' : counted(record.practice.tries, 'try', 'tries'),
    ]);
  if (record.after) rows.push(['at once', showsSentence(record.after)]);
  if (record.forgivenMs) rows.push(['late by', `${duration(record.forgivenMs)} still counts, typed in time`]);
  if (record.guests) rows.push(['guests', 'with the access code']);
  return rows;
}
