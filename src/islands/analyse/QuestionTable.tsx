import { Fragment } from 'react';
import { plainText } from '@/core/basics/richWords';
import { counts } from '@/core/scoring/counts';
import { percent, points } from '@/words/format';
import { signed } from '@/words/analysis';
import { looksWrongTitle } from '@/words/looksWrong';
import { QuestionDetail } from './QuestionDetail';
import type { Analysis, QuestionRow } from '@/desk/useAnalysis';
import styles from './analyse.module.css';

interface QuestionTableProps {
  rows: readonly QuestionRow[];
  analysis: Analysis;
  sittingId: string;
  /** Questions below it stand out, as a share of the points. */
  line: number;
  openId: string | null;
  toggle: (questionId: string) => void;
}

/** The row of a question, for who jumps to it. */
export const questionRowId = (questionId: string) => `question-${questionId}`;

const always = ['Mean points', 'Discrimination', 'Upper − lower', 'Not answered'];

/** Questions with their figures; each opens to what was answered. */
export function QuestionTable({ rows, analysis, sittingId, line, openId, toggle }: QuestionTableProps) {
  const waits = rows.some(({ question, given, scored }) => given > scored && counts(question));
  const columns = waits ? [...always, 'No points yet'] : always;
  return (
    // On a narrow screen its figures are scrolled to.
    <div className={styles.scrolled} role="region" aria-label="Questions and their figures" tabIndex={0}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Question</th>
            <th scope="col" className={styles.barColumn}>
              Facility
            </th>
            {columns.map((column) => (
              <th key={column} scope="col" className={styles.figure}>
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const { id } = row.question;
            return (
              <Fragment key={id}>
                <FigureRow
                  row={row}
                  line={line}
                  waits={waits}
                  open={openId === id}
                  toggle={() => toggle(id)}
                />
                {openId === id && (
                  <tr>
                    <td colSpan={columns.length + 2} className={styles.opened}>
                      <QuestionDetail row={row} analysis={analysis} sittingId={sittingId} />
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

interface FigureRowProps {
  row: QuestionRow;
  line: number;
  /** Whether there is a column for what has no points yet. */
  waits: boolean;
  open: boolean;
  toggle: () => void;
}

function FigureRow({ row, line, waits, open, toggle }: FigureRowProps) {
  const under = row.facility !== null && row.facility < line;
  const wrong = row.suspect?.findings[0];
  return (
    <tr className={under ? styles.underLine : undefined} id={questionRowId(row.question.id)}>
      <td>
        <button type="button" className={styles.question} aria-expanded={open} onClick={toggle}>
          <strong>{row.number}</strong> {wrong && <span aria-hidden>◆ </span>}
          <span>{plainText(row.question.stem)}</span>
          {wrong && <span className="visuallyHidden">, {looksWrongTitle[wrong.code]}</span>}
        </button>
      </td>
      <td>
        {row.facility === null ? (
          <span className={styles.soft}>{counts(row.question) ? 'waits' : 'doesn’t count'}</span>
        ) : (
          <span className={styles.bar}>
            <span className={styles.track} aria-hidden>
              <span className={styles.level} style={{ width: `${Math.min(1, row.facility) * 100}%` }} />
              <span className={styles.lineMark} style={{ left: `${line * 100}%` }} />
            </span>
            {percent(row.facility)}
          </span>
        )}
      </td>
      <td className={styles.figure}>
        {row.meanPoints === null ? '–' : points(row.meanPoints)} / {points(row.question.points)}
      </td>
      <td className={styles.figure}>{signed(row.discrimination)}</td>
      <td className={styles.figure}>{signed(row.d)}</td>
      <td className={styles.figure}>{row.blank || ''}</td>
      {waits && <td className={styles.figure}>{counts(row.question) ? row.given - row.scored || '' : ''}</td>}
    </tr>
  );
}
