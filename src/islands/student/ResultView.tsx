import { useEffect, useRef, useState } from 'react';
import { Rich } from '@/ui/Rich';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import type { ScriptPacket, ScriptQuestion, Verdict } from '@/core/handback/script';
import { FillGlyph } from '@/ui/FillGlyph';
import { counted, dayAlone, dayAndTime, percent, points } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { Comment } from '@/ui/plain/Comment';
import { viewOf } from '../kinds';
import { faultWords } from '@/words/serverFaults';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface ResultViewProps {
  carrier: Carrier;
  who: Greeting;
  sitting: Pick<HomeSitting, 'sittingId' | 'title'>;
  back: () => void;
}

/** How often an open result is asked for again. */
const followMs = 15_000;

/** What came back, exactly as far as it was let out. */
export function ResultView({ carrier, who, sitting, back }: ResultViewProps) {
  /** Only the first look is one of the student's. */
  const opening = useRef(true);
  const [script, setScript] = useState<ScriptPacket | null | undefined>();
  const [fault, setFault] = useState('');
  useEffect(() => {
    let here = true;
    const look = () =>
      carrier.result(who.joinCode, sitting.sittingId, opening.current).then(
        (packet) => {
          opening.current = false;
          if (!here) return;
          setFault('');
          setScript(packet);
        },
        (error: unknown) => here && setFault(faultWords(error)),
      );
    void look();
    // What is changed or withdrawn while the page is open is followed.
    const again = setInterval(() => void look(), followMs);
    return () => {
      here = false;
      clearInterval(again);
    };
  }, [carrier, who, sitting]);
  if (script === undefined) return fault ? <p role="alert">{fault}</p> : null;
  return (
    <>
      <Button size="compact-md" onClick={back}>
        Go to your papers
      </Button>
      {fault && <p role="alert">{fault} What you see may be out of date.</p>}
      {script ? (
        <Script script={script} />
      ) : (
        <>
          <ViewHeading text={sitting.title} />
          <p>Nothing is handed back right now.</p>
        </>
      )}
    </>
  );
}

function Script({ script }: { script: ScriptPacket }) {
  return (
    <>
      <ViewHeading text={script.title} />
      <p className={styles.soft}>Handed back {dayAndTime(script.handedBackAt, Date.now())}</p>
      {script.total && (
        <p className={styles.total}>
          {points(script.total.points)} of {counted(script.total.max, 'point')}
          {script.total.max > 0 &&
            script.waiting === undefined &&
            ` (${percent(script.total.points / script.total.max)})`}
        </p>
      )}
      {script.meanOf !== undefined && (
        <p>
          The mean of your {counted(script.meanOf, 'attempt')}
          {script.attempts &&
            `: ${script.attempts.map((each) => `${points(each.points)} of ${points(each.max)}`).join(', ')}`}
          .{script.questions.length > 0 && ' The questions below are those of the last one.'}
        </p>
      )}
      {script.waiting !== undefined && (
        <p>{counted(script.waiting, 'answer')} still to be marked: the total can rise.</p>
      )}
      {script.comment && <Comment text={script.comment} className={styles.comment} />}
      {script.questions.length === 0 && !script.total && !script.comment && (
        <p>Your teacher has your paper. Nothing else is shown yet.</p>
      )}
      {script.questions.map((row) => (
        <ReturnedQuestion key={row.question.id} row={row} />
      ))}
    </>
  );
}

const verdictWords: Record<Verdict, string> = {
  right: 'right',
  part: 'partly right',
  wrong: 'not right',
  blank: 'not answered',
  noKey: 'not scored',
};

/** "Rescored on Nov 27, 2026: the key was wrong. You had 0 points for it before." */
function repairWords({ at, reason, how, before }: NonNullable<ScriptQuestion['repair']>): string {
  const did = {
    key: 'Rescored',
    everyone: 'Everyone was given the points',
    answered: 'Everyone who answered was given the points',
    dropped: 'Taken out of the total',
  }[how];
  const had = before === null ? '' : ` You had ${counted(before, 'point')} for it before.`;
  return `${did} on ${dayAlone(at)}: ${reason.replace(/[.\s]+$/, '')}.${had}`;
}

function ReturnedQuestion({ row }: { row: ScriptQuestion }) {
  const { question } = row;
  const { Show } = viewOf(question);
  const share = row.points === undefined || question.points === 0 ? null : row.points / question.points;
  return (
    <section className={styles.question} aria-label={`Question ${row.number}`}>
      <div>
        <strong>{row.number}</strong>&ensp;
        <Rich text={question.stem} />
      </div>
      {row.response !== undefined && <Show question={question} response={row.response} work={row.work} />}
      {(row.points !== undefined || row.verdict) && (
        <p className={styles.verdict}>
          {share !== null && <FillGlyph share={share} answered={row.verdict !== 'blank'} size={16} />}
          {row.points !== undefined && (
            <strong>
              {points(row.points)} of {counted(question.points, 'point')}
            </strong>
          )}
          {row.verdict && <span>{verdictWords[row.verdict]}</span>}
        </p>
      )}
      {row.repair && <p className={styles.repair}>{repairWords(row.repair)}</p>}
      {row.accepted && (
        <p className="keepLines">
          <span className={styles.soft}>Accepted: </span>
          {row.accepted}
        </p>
      )}
      {row.link && (
        <p>
          <span className={styles.soft}>Read more: </span>
          <a href={row.link.href} target="_blank" rel="noopener noreferrer" referrerPolicy="no-referrer">
            {row.link.text}
          </a>
        </p>
      )}
      {row.comments?.map((comment, index) => (
        <Comment key={index} text={comment} className={styles.comment} />
      ))}
    </section>
  );
}
