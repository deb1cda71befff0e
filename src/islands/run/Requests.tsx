import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { fullName } from '@/core/model/names';
import { actsFor } from '@/core/seats/requests';
import { asksWords } from '@/words/requests';
import { canBeDone, type SeatAct } from '@/core/seats/seatActs';
import { answerRequest, grantRequest, requestRows, type RequestRow } from '@/store/requests';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { useSitting, type SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { counted, dayAndTime } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import { SeatActForm } from './SeatActForm';
import { seatActNames, seatActs } from './seatActs';
import styles from './run.module.css';

/** What students of this sitting ask for and has no answer yet. */
export function SittingRequests({ sitting }: { sitting: SittingData }) {
  const rows = useLiveQuery(() => requestRows(sitting.sitting.id), [sitting.sitting.id]) ?? [];
  const open = rows.filter(({ request }) => request.answer === null && request.asks !== 'mark');
  if (open.length === 0) return null;
  return (
    <MarginBlock title={counted(open.length, 'request')}>
      <ul className={styles.requests}>
        {open.map((row) => (
          <li key={row.request.id}>
            <OpenRequest row={row} sitting={sitting} />
          </li>
        ))}
      </ul>
    </MarginBlock>
  );
}

/** Every request of every sitting, those that wait first. */
export function RequestsPage() {
  return (
    <DeskReady>
      <AllRequests />
    </DeskReady>
  );
}

function AllRequests() {
  const rows = useLiveQuery(() => requestRows());
  if (!rows) return null;
  if (rows.length === 0)
    return (
      <EmptyState title="No requests" action={<a href="/">Go to the desk</a>}>
        Students can ask for an exception from their own page; it appears here and in the sitting.
      </EmptyState>
    );
  return (
    <>
      <h1 className={styles.heading}>Requests</h1>
      <ul className={styles.requestList}>
        {rows.map((row) => (
          <li key={row.request.id}>
            <p className={styles.soft}>
              <a href={`/sittings/${row.sitting.id}/run?student=${row.student.id}`}>{row.sitting.title}</a>
            </p>
            {row.request.asks === 'mark' && row.request.answer === null ? (
              <AboutMark row={row} />
            ) : row.request.answer === null ? (
              <OpenRequestHere row={row} />
            ) : (
              <Answered row={row} />
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

/** A question about a mark is answered beside what else came after handing back. */
function AboutMark({ row: { request, student, sitting } }: { row: RequestRow }) {
  return (
    <p>
      <strong>{fullName(student)}</strong> asks for {asksWords[request.asks]}: “{request.words}”{' '}
      <a href={`/sittings/${sitting.id}/afterwards`}>Answer it</a>
    </p>
  );
}

function Answered({ row: { request, student } }: { row: RequestRow }) {
  return (
    <p>
      <strong>{fullName(student)}</strong> asked for {asksWords[request.asks]}: “{request.words}”{' '}
      {request.asks === 'mark' ? 'Answered' : request.answer?.granted ? 'Granted' : 'Declined'}
      {request.answer?.words && `: ${request.answer.words}`}
    </p>
  );
}

/** The same outside of its sitting, which is read for it. */
function OpenRequestHere({ row }: { row: RequestRow }) {
  const sitting = useSitting(row.sitting.id);
  return sitting ? <OpenRequest row={row} sitting={sitting} /> : null;
}

/** One request: its words, and granting it with what it comes down to filled in, or declining with a word. */
function OpenRequest({ row, sitting }: { row: RequestRow; sitting: SittingData }) {
  const { request, student } = row;
  const [doing, setDoing] = useState<'grant' | 'decline' | null>(null);
  const [words, setWords] = useState('');
  const seat = sitting.seats.find((each) => each.student.id === student.id);
  const possible = seat
    ? seatActNames.filter((name) => canBeDone(name, seat, sitting.sitting, sitting.now))
    : [];
  const offered = actsFor(request.asks, possible);
  const [chosen, setChosen] = useState<SeatAct | null>(null);
  const what = chosen ?? offered[0];
  const answer = (granted: boolean) =>
    act(answerRequest(request.id, granted, words, isoNow())).then((done) => done && setDoing(null));
  return (
    <>
      <p>
        <strong>{fullName(student)}</strong> asks for {asksWords[request.asks]}: “{request.words}”{' '}
        <span className={styles.soft}>{dayAndTime(request.at, sitting.now)}</span>
      </p>
      {doing === null && (
        <div className={styles.acts}>
          <Button size="compact-md" onClick={() => setDoing('grant')}>
            Grant…
          </Button>
          <Button size="compact-md" onClick={() => setDoing('decline')}>
            Decline…
          </Button>
        </div>
      )}
      {doing === 'grant' && (
        <>
          {offered.length > 1 && (
            <NativeSelect
              label="What you grant"
              size="xs"
              value={what}
              data={offered.map((name) => ({ value: name, label: seatActs[name].label }))}
              onChange={(event) =>
                setChosen(offered.find((name) => name === event.currentTarget.value) ?? null)
              }
            />
          )}
          {seat && what && (
            <SeatActForm
              key={what}
              doing={what}
              seats={[seat]}
              sitting={sitting}
              reason={request.words}
              wrap={(work) => grantRequest(request.id, seatActs[what].label.toLowerCase(), isoNow(), work)}
              done={() => setDoing(null)}
            />
          )}
          {!what && (
            <div className={styles.acts}>
              <Button variant="filled" onClick={() => void answer(true)}>
                Grant
              </Button>
              <Button onClick={() => setDoing(null)}>Cancel</Button>
            </div>
          )}
        </>
      )}
      {doing === 'decline' && (
        <form
          className={styles.act}
          aria-label={`Decline ${fullName(student)}’s request`}
          onSubmit={(event) => {
            event.preventDefault();
            void answer(false);
          }}
        >
          <TextInput
            label="Message to the student"
            size="xs"
            maxLength={400}
            value={words}
            onChange={(event) => setWords(event.currentTarget.value)}
          />
          <div className={styles.row}>
            <Button type="submit" variant="filled">
              Decline
            </Button>
            <Button onClick={() => setDoing(null)}>Cancel</Button>
          </div>
        </form>
      )}
    </>
  );
}
