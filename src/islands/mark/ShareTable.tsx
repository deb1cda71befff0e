import { Button } from '@mantine/core';
import { sumBy } from 'remeda';
import type { Question } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { countGiven } from '@/core/marking/shares/deal';
import { paceOf } from '@/core/marking/shares/pace';
import { ownMarker } from '@/core/model/mark';
import type { MarkingShare } from '@/core/model/share';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { pullShareBack } from '@/store/shares';
import { isoNow } from '@/ui/clock';
import { dayAndTime } from '@/words/format';
import { saveShare, sendShare, withdrawShare } from './shareOut';
import type { Shares } from './useShares';
import styles from './markers.module.css';

interface ShareTableProps {
  sitting: SittingData;
  questions: readonly Question[];
  shares: Shares;
}

/** Each marker with what is theirs, how far they are and how fast. */
export function ShareTable({ sitting, questions, shares: { shares, marks } }: ShareTableProps) {
  const numbers = numbersOf(sitting.questions);
  const ids = new Set(questions.map(({ id }) => id));
  const all = sumBy(questions, (question) =>
    sumBy(sameAnswers(question, sitting.seats), ({ answers }) => answers.length),
  );
  return (
    <div className={styles.scroller}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Marker</th>
            <th scope="col">Questions</th>
            <th scope="col" className={styles.number}>
              Marked
            </th>
            <th scope="col" className={styles.number}>
              An hour
            </th>
            <th scope="col">Last mark</th>
            <th scope="col">Share</th>
          </tr>
        </thead>
        <tbody>
          <Row
            marker="You"
            asked={questions.map(({ id }) => numbers.get(id)).join(', ')}
            pace={paceOf(marks.filter((mark) => mark.markerId === ownMarker && ids.has(mark.questionId)))}
            of={all}
            now={sitting.now}
          />
          {shares.map((share) => (
            <Row
              key={share.id}
              marker={share.marker}
              asked={share.answers.map(({ questionId }) => numbers.get(questionId) ?? '?').join(', ')}
              pace={paceOf(marks.filter(({ markerId }) => markerId === share.id))}
              of={countGiven(share.answers)}
              now={sitting.now}
              share={share}
              title={sitting.sitting.title}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface RowProps {
  marker: string;
  asked: string;
  pace: ReturnType<typeof paceOf>;
  of: number;
  now: number;
  share?: MarkingShare;
  title?: string;
}

function Row({ marker, asked, pace, of, now, share, title = '' }: RowProps) {
  return (
    <tr>
      <th scope="row">{marker}</th>
      <td className={styles.short}>{asked}</td>
      <td className={styles.number}>
        {pace.answers} of {of}
      </td>
      <td className={styles.number}>{pace.perHour ?? ''}</td>
      <td className={styles.short}>{pace.lastAt === null ? '' : dayAndTime(pace.lastAt, now)}</td>
      <td>{share && <ShareActs share={share} title={title} now={now} />}</td>
    </tr>
  );
}

/** Where a share is, and what can be done with it. */
function ShareActs({ share, title, now }: { share: MarkingShare; title: string; now: number }) {
  const { id, marker, way, code, onServerAt, pulledBackAt } = share;
  if (way === 'here') return <a href={`/sittings/${id}/mark`}>Mark the sample</a>;
  const pullBack = async () => {
    // Off the server first: from then on nothing comes in that would be refused.
    if (way === 'server' && (await act(withdrawShare(id).then(() => true))) === null) return;
    await act(pullShareBack(id, isoNow(), isoNow()));
  };
  const takeAgain = async () => {
    if (way === 'server' && (await act(sendShare(id).then(() => true))) === null) return;
    await act(pullShareBack(id, null, isoNow()));
  };
  if (pulledBackAt !== undefined)
    return (
      <span className={styles.acts}>
        pulled back {dayAndTime(pulledBackAt, now)}
        <Button
          size="compact-sm"
          aria-label={`Take again: marks of ${marker}`}
          onClick={() => void takeAgain()}
        >
          Take again
        </Button>
      </span>
    );
  return (
    <span className={styles.acts}>
      <span>
        {way === 'file' ? 'as a file' : onServerAt ? 'on the server' : 'not on the server yet'}, code{' '}
        <code>{code}</code>
      </span>
      {way === 'server' && onServerAt === undefined && (
        <Button
          size="compact-sm"
          aria-label={`Put it there: the share of ${marker}, on the server`}
          onClick={() => void act(sendShare(id))}
        >
          Put it there
        </Button>
      )}
      {way === 'file' && (
        <Button
          size="compact-sm"
          aria-label={`Save again: the file for ${marker}`}
          onClick={() => void act(saveShare(id, marker, title))}
        >
          Save again
        </Button>
      )}
      <Button
        size="compact-sm"
        aria-label={`Pull back the share of ${marker}`}
        onClick={() => void pullBack()}
      >
        Pull back
      </Button>
    </span>
  );
}
