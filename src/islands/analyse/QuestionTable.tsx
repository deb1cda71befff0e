import { Fragment, useState } from 'react';
import { plainText } from '@/core/basics/richWords';
import { questionLine, type CategoryCount, type QuestionFigures } from '@/core/analysis/sittingFigures';
import { kindOf } from '@/core/kinds';
import { FillGlyph } from '@/ui/FillGlyph';
import { percent, points } from '@/words/format';
import styles from './analyse.module.css';

/** Questions with their facility; each opens to what was answered. */
export function QuestionTable({ figures, sittingId }: { figures: QuestionFigures[]; sittingId: string }) {
  const [openId, setOpenId] = useState<string | null>(null);
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
            <th scope="col" className={styles.figure}>
              Mean points
            </th>
            <th scope="col" className={styles.figure}>
              Not answered
            </th>
            <th scope="col" className={styles.figure}>
              No points yet
            </th>
          </tr>
        </thead>
        <tbody>
          {figures.map((row) => (
            <Fragment key={row.question.id}>
              <FigureRow
                row={row}
                open={openId === row.question.id}
                toggle={() => setOpenId(openId === row.question.id ? null : row.question.id)}
              />
              {openId === row.question.id && (
                <tr>
                  <td colSpan={5} className={styles.opened}>
                    <Drawn row={row} sittingId={sittingId} />
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function FigureRow({ row, open, toggle }: { row: QuestionFigures; open: boolean; toggle: () => void }) {
  const under = row.facility !== null && row.facility < questionLine;
  return (
    <tr className={under ? styles.underLine : undefined}>
      <td>
        <button type="button" className={styles.question} aria-expanded={open} onClick={toggle}>
          <strong>{row.number}</strong> <span>{plainText(row.question.stem)}</span>
        </button>
      </td>
      <td>
        {row.facility === null ? (
          <span className={styles.soft}>waits</span>
        ) : (
          <span className={styles.bar}>
            <span className={styles.track} aria-hidden>
              <span className={styles.level} style={{ width: `${row.facility * 100}%` }} />
              <span className={styles.lineMark} style={{ left: `${questionLine * 100}%` }} />
            </span>
            {percent(row.facility)}
          </span>
        )}
      </td>
      <td className={styles.figure}>
        {row.meanPoints === null ? '–' : points(row.meanPoints)} / {points(row.question.points)}
      </td>
      <td className={styles.figure}>{row.blank || ''}</td>
      <td className={styles.figure}>{row.given - row.scored || ''}</td>
    </tr>
  );
}

const commonest = 8;

/** What was answered: each option or accepted answer with how many it drew, then the commonest of the rest. */
function Drawn({ row, sittingId }: { row: QuestionFigures; sittingId: string }) {
  const [all, setAll] = useState(false);
  const offered = row.categories.filter((category) => category.offered);
  const said = row.categories.filter((category) => !category.offered);
  const byHand = kindOf(row.question).scoredBy === 'hand';
  const shown = all ? said : said.slice(0, commonest);
  return (
    <div className={styles.drawn}>
      {offered.length > 0 && <CategoryRows rows={offered} given={row.given} />}
      {said.length > 0 && (
        <>
          <h3>{byHand ? 'Most common answers' : 'Most common wrong answers'}</h3>
          <CategoryRows rows={shown} given={row.given} />
          {said.length > shown.length && (
            <button type="button" className={styles.more} onClick={() => setAll(true)}>
              and {said.length - shown.length} more
            </button>
          )}
        </>
      )}
      <a href={`/sittings/${sittingId}/mark?question=${row.question.id}`}>See the answers</a>
    </div>
  );
}

function CategoryRows({ rows, given }: { rows: CategoryCount[]; given: number }) {
  return (
    <ul className={styles.categories}>
      {rows.map((category) => (
        <li key={category.id}>
          <FillGlyph share={category.share} answered size={13} />
          <span className={styles.label}>{category.label}</span>
          <span className={styles.track} aria-hidden>
            <span
              className={styles.level}
              style={{ width: `${given === 0 ? 0 : (category.count / given) * 100}%` }}
            />
          </span>
          <span className={styles.figure}>
            {category.count}{' '}
            <span className={styles.soft}>{given > 0 && percent(category.count / given)}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
