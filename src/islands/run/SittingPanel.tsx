import { Button, Checkbox, NumberInput, TextInput } from '@mantine/core';
import { showsSentence } from '@/core/handback/releaseSentence';
import type { Shows, Sitting } from '@/core/model/sitting';
import { Fragment, useState } from 'react';
import { changeSitting, deleteSitting, setClosedToStarts } from '@/store/sittings';
import { beginTryOut } from '@/store/tryOut';
import { isoNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import type { SittingData } from '@/ui/desk/useSitting';
import { dayAndTime, duration } from '@/ui/format';
import { MarginBlock } from '@/ui/TwoColumns';
import { forgivenFrom } from './forgiven';
import styles from './run.module.css';
import { WhenField } from './WhenField';

const totalOnly: Shows = {
  total: true,
  points: false,
  answers: false,
  rightOrWrong: false,
  accepted: false,
  comments: false,
};

/** The sitting's rules, and what can be done to it as a whole. */
export function SittingPanel({ sitting }: { sitting: SittingData }) {
  const { sitting: record, now, standing } = sitting;
  const [changing, setChanging] = useState(false);
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
        {changing ? (
          <ChangeRules sitting={sitting} done={() => setChanging(false)} />
        ) : (
          <Button onClick={() => setChanging(true)}>Change the rules</Button>
        )}
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
      <MarginBlock title="New starts">
        <p>
          {closed
            ? `Nobody new may start since ${dayAndTime(record.closedToStartsAt ?? '', now)}. Those who are working go on.`
            : `${standing.notStarted} could still start.`}
        </p>
        <Button onClick={() => void act(setClosedToStarts(record.id, !closed, isoNow()))}>
          {closed ? 'Let students start again' : 'Close to new starts'}
        </Button>
      </MarginBlock>
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
      record.practice.tries === null ? 'any number of tries' : `${record.practice.tries} tries`,
    ]);
  if (record.after) rows.push(['at once', showsSentence(record.after)]);
  if (record.forgivenMs) rows.push(['late by', `${duration(record.forgivenMs)} still counts, typed in time`]);
  if (record.guests) rows.push(['guests', 'with the access code']);
  return rows;
}

/** When it closes and the access code, for everyone; a running attempt's time follows the close. */
function ChangeRules({ sitting, done }: { sitting: SittingData; done: () => void }) {
  const { sitting: record, now } = sitting;
  // As the rules were when this was opened: what is changed elsewhere meanwhile stays, and is said.
  const [base] = useState(record);
  const [closesAt, setClosesAt] = useState(record.closesAt);
  const [accessCode, setAccessCode] = useState(record.accessCode);
  const [guests, setGuests] = useState(record.guests === true);
  const [after, setAfter] = useState(record.after);
  const [forgivenMs, setForgiven] = useState(record.forgivenMs);
  const codeless = guests && accessCode.trim() === '';
  const elsewhere = [
    record.closesAt !== base.closesAt &&
      `closes ${record.closesAt ? dayAndTime(record.closesAt, now) : 'never'}`,
    record.accessCode !== base.accessCode && `access code “${record.accessCode}”`,
    (record.guests === true) !== (base.guests === true) &&
      (record.guests ? 'guests may come in' : 'no guests'),
    record.forgivenMs !== base.forgivenMs && `${duration(record.forgivenMs ?? 0)} forgiven`,
  ].filter((word) => word !== false);
  const early = closesAt !== null && Date.parse(closesAt) <= Date.parse(record.opensAt);
  const keep = async () => {
    if (
      await act(
        changeSitting(
          // What is not changed here is as it was: an absent field stays absent.
          {
            ...base,
            closesAt,
            accessCode,
            after,
            forgivenMs,
            guests: guests || base.guests === false ? guests : undefined,
          },
          'Rules changed',
          isoNow(),
          base,
        ),
      )
    )
      done();
  };
  return (
    <form
      className={styles.act}
      aria-label="Change the rules"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <WhenField
        label="Closes"
        without="no end"
        value={closesAt}
        start={() => new Date(now + 3_600_000).toISOString()}
        change={setClosesAt}
      />
      <TextInput
        label="Access code"
        size="xs"
        maxLength={40}
        value={accessCode}
        onChange={(event) => setAccessCode(event.currentTarget.value)}
      />
      <Checkbox
        size="sm"
        label="Guests may come in with it"
        checked={guests}
        onChange={(event) => setGuests(event.currentTarget.checked)}
      />
      <Checkbox
        size="sm"
        label="Students see their total straight after handing in"
        checked={after !== undefined}
        onChange={(event) => setAfter(event.currentTarget.checked ? totalOnly : undefined)}
      />
      <NumberInput
        label="Minutes of broken connection forgiven"
        description="Empty: you decide about each late answer."
        size="xs"
        min={1}
        max={1440}
        allowDecimal={false}
        value={forgivenMs === undefined ? '' : forgivenMs / 60_000}
        onChange={(value) => setForgiven(forgivenFrom(value))}
      />
      {elsewhere.length > 0 && (
        <p className={styles.fault} role="status">
          Changed in another tab since you opened this: {elsewhere.join('; ')}. What you change here is laid
          over it.
        </p>
      )}
      {early && <p className={styles.fault}>It would close before it opens.</p>}
      {codeless && <p className={styles.fault}>Guests need an access code to come in with.</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" disabled={early || codeless}>
          Keep for everyone
        </Button>
        <Button onClick={done}>Leave it</Button>
      </div>
    </form>
  );
}
