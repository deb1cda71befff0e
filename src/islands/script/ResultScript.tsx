import type { ReactNode } from 'react';
import type { ScriptPacket, ScriptQuestion } from '@/core/handback/script';
import { fillOf } from '@/core/kinds/fillings';
import type { ScriptLine } from '@/core/handback/scriptParts';
import { Rich } from '@/ui/Rich';
import { FillGlyph } from '@/ui/FillGlyph';
import { Comment } from '@/ui/plain/Comment';
import { counted, dayAndTime, points } from '@/words/format';
import { viewOf } from '../kinds';
import { PaperPictures } from '../kinds/PaperPictures';
import { questionAt, repairWords, verdictWords } from './returned';
import { ScriptMap } from './ScriptMap';
import { WholeResult } from './WholeResult';
import styles from './script.module.css';

interface ResultScriptProps {
  script: ScriptPacket;
  heading: ReactNode;
  /** What else belongs to a question, or to the whole. */
  beside?: ((row: ScriptQuestion) => ReactNode) | undefined;
  actions?: ReactNode;
}

/** A script as it comes back: exactly as far as it was let out. */
export function ResultScript({ script, heading, beside, actions }: ResultScriptProps) {
  return (
    <>
      {heading}
      <p className={styles.soft}>Handed back {dayAndTime(script.handedBackAt, Date.now())}</p>
      <WholeResult script={script} />
      {actions}
      {script.questions.length > 1 && <ScriptMap questions={script.questions} />}
      {script.questions.map((row) => (
        <ReturnedQuestion key={row.question.id} row={row} beside={beside} />
      ))}
    </>
  );
}

function ReturnedQuestion({ row, beside }: { row: ScriptQuestion } & Pick<ResultScriptProps, 'beside'>) {
  const { question } = row;
  const { Show } = viewOf(question);
  const share = row.points === undefined || question.points === 0 ? null : row.points / question.points;
  return (
    <section
      id={questionAt(row)}
      className={styles.question}
      aria-label={`Question ${row.number}`}
      tabIndex={-1}
    >
      <div>
        <strong>{row.number}</strong>&ensp;
        <Rich text={question.stem} />
      </div>
      {row.response !== undefined && !(row.pictures && onlyOnPaper(row)) && (
        <Show question={question} response={row.response} work={row.work} />
      )}
      {row.pictures && <PaperPictures pictures={row.pictures} work={row.work} folded={!onlyOnPaper(row)} />}
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
      {row.lines && <Lines lines={row.lines} />}
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
      {beside?.(row)}
    </section>
  );
}

/** Whether an answer stands on paper and has no words of its own. */
const onlyOnPaper = ({ question, response }: ScriptQuestion) => fillOf(question, response) === 'open';

/** What a marker looked for, each with whether it was met. */
function Lines({ lines }: { lines: readonly ScriptLine[] }) {
  const sign = (value: number) => `${value > 0 ? '+' : value < 0 ? '−' : ''}${points(Math.abs(value))}`;
  return (
    <ul className={styles.lines} aria-label="Mark scheme">
      {lines.map(({ text, points: worth, group, met }, index) => (
        <li key={index} data-met={met}>
          {met !== undefined && (
            <span>
              <FillGlyph share={met ? 1 : 0} answered size={12} label={met ? 'met' : 'not met'} />
            </span>
          )}
          <span className="keepLines">
            {group && <span className={styles.soft}>{group}: </span>}
            {text}
          </span>
          <span className={styles.soft}>{sign(worth)}</span>
        </li>
      ))}
    </ul>
  );
}
