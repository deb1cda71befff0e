import { useState } from 'react';
import { sumBy } from 'remeda';
import type { AnswerFigures, CategoryFigures } from '@/core/analysis/answerFigures';
import { kindOf } from '@/core/kinds';
import { registerName } from '@/core/model/names';
import { FillGlyph } from '@/ui/FillGlyph';
import { seconds, signed, tellsWords } from '@/words/analysis';
import { counted, percent, points } from '@/words/format';
import { looksWrongTitle } from '@/words/looksWrong';
import { FindingWords } from './FindingWords';
import type { Analysis, QuestionRow } from '@/desk/useAnalysis';
import styles from './analyse.module.css';

interface QuestionDetailProps {
  row: QuestionRow;
  analysis: Analysis;
  sittingId: string;
}

/** One question: how it did, what looks wrong, what was answered by whom, and the ways on from there. */
export function QuestionDetail({ row, analysis, sittingId }: QuestionDetailProps) {
  const { question, suspect } = row;
  const answers = analysis.answersOf(question);
  const query = new URLSearchParams({ question: question.id }).toString();
  return (
    <div className={styles.drawn}>
      <p>{readingWords(row, analysis)}</p>
      {suspect && (
        <ul className={styles.findings}>
          {suspect.findings.map((found, index) => (
            <li key={index}>
              <strong>{looksWrongTitle[found.code]}</strong>{' '}
              <FindingWords found={found} sittingId={sittingId} />
            </li>
          ))}
        </ul>
      )}
      <Categories answers={answers} row={row} analysis={analysis} sittingId={sittingId} />
      <Parts answers={answers} />
      <Fifths fifths={answers.fifths} />
      <p className={styles.soft}>{aboutWords(answers)}</p>
      <p className={styles.ways}>
        <a href={`/sittings/${sittingId}/repair?${query}`}>Repair this question</a>
        <a href={`/sittings/${sittingId}/mark?${query}`}>See the answers</a>
        <a href={`/sittings/${sittingId}/class?${query}`}>Show to the class</a>
      </p>
    </div>
  );
}

function readingWords({ discrimination, d, alphaWithout }: QuestionRow, { trust }: Analysis): string {
  const parts = [`It ${tellsWords(discrimination)}`];
  if (discrimination !== null) parts[0] += ` (${signed(discrimination)} with the rest of the paper)`;
  if (d !== null) parts.push(`the strongest 27% have ${signed(d)} of its points more than the weakest`);
  const words = `${parts.join('; ')}.`;
  if (alphaWithout === null || !trust) return words;
  const [without, all] = [alphaWithout.toFixed(2), trust.alpha.toFixed(2)];
  return without === all
    ? `${words} Without it the reliability would stay at ${all}.`
    : `${words} Without it the reliability would be ${without} instead of ${all}.`;
}

function aboutWords({ seconds: time, points: spread, byKey, blank }: AnswerFigures): string {
  const words: string[] = [];
  if (time)
    words.push(
      `Half of the students spent between ${seconds(time.low)} and ${seconds(time.high)} on it, the median is ${seconds(time.middle)} (known of ${time.known}).`,
    );
  const all = sumBy(spread, ({ count }) => count);
  if (all > 0 && byKey < all)
    words.push(
      `${byKey === 0 ? 'All points are by hand' : `${counted(all - byKey, 'answer')} of ${all} have points by hand`}: ${spread.map(({ points: worth, count }) => `${points(worth)} × ${count}`).join(', ')}.`,
    );
  if (blank > 0) words.push(`${counted(blank, 'student')} left it blank.`);
  return words.join(' ');
}

const commonest = 8;

interface CategoriesProps {
  answers: AnswerFigures;
  row: QuestionRow;
  analysis: Analysis;
  sittingId: string;
}

/** What was answered: each option or accepted answer, then the commonest of the rest; how much of each third of the class gave it. */
function Categories({ answers, row, analysis, sittingId }: CategoriesProps) {
  const [all, setAll] = useState(false);
  const offered = answers.categories.filter((category) => category.offered);
  const said = answers.categories.filter((category) => !category.offered);
  const byHand = kindOf(row.question).scoredBy === 'hand';
  const shown = all ? said : said.slice(0, commonest);
  const common = { answers, given: row.given, analysis, sittingId };
  return (
    <>
      {offered.length > 0 && <CategoryRows title="What was offered" rows={offered} {...common} />}
      {said.length > 0 && (
        <>
          <CategoryRows
            title={byHand ? 'Most common answers' : 'Most common wrong answers'}
            rows={shown}
            {...common}
          />
          {said.length > shown.length && (
            <button type="button" className={styles.more} onClick={() => setAll(true)}>
              and {said.length - shown.length} more
            </button>
          )}
        </>
      )}
    </>
  );
}

interface CategoryRowsProps {
  title: string;
  rows: readonly CategoryFigures[];
  answers: AnswerFigures;
  given: number;
  analysis: Analysis;
  sittingId: string;
}

const thirdNames = ['weakest', 'middle', 'strongest'] as const;

function CategoryRows({ title, rows, answers, given, analysis, sittingId }: CategoryRowsProps) {
  const [whoId, setWhoId] = useState<string | null>(null);
  return (
    <table className={styles.categories}>
      <thead>
        <tr>
          <th scope="col">{title}</th>
          <th scope="col" className={styles.figure}>
            Students
          </th>
          {thirdNames.map((third) => (
            <th key={third} scope="col" className={styles.thirdColumn}>
              {third} third
            </th>
          ))}
          <th scope="col" className={styles.figure}>
            With the rest
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((category) => (
          <tr key={category.id}>
            <th scope="row">
              <FillGlyph share={category.share} answered near={category.near > 0} size={13} />{' '}
              {category.label}
              {category.near > 0 && <span className={styles.soft}> close to the key</span>}
              {whoId === category.id && (
                <span className={styles.who}>
                  {analysis.seats
                    .filter(({ student }) => category.studentIds.includes(student.id))
                    .map(({ student }) => (
                      <a key={student.id} href={`/sittings/${sittingId}/scripts/${student.id}`}>
                        {registerName(student)}
                      </a>
                    ))}
                </span>
              )}
            </th>
            <td className={styles.figure}>
              <button
                type="button"
                className={styles.more}
                aria-expanded={whoId === category.id}
                aria-label={`${counted(category.count, 'student')}: who answered “${category.label}”`}
                disabled={category.count === 0}
                onClick={() => setWhoId(whoId === category.id ? null : category.id)}
              >
                {category.count}
              </button>{' '}
              <span className={styles.soft}>{given > 0 && percent(category.count / given)}</span>
            </td>
            {thirdNames.map((third, index) => (
              <td key={third}>
                <Third count={category.thirds[index] ?? 0} of={answers.thirds[index] ?? 0} />
              </td>
            ))}
            <td className={styles.figure}>{signed(category.correlation)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Third({ count, of }: { count: number; of: number }) {
  return (
    <span className={styles.third}>
      <span className={styles.track} aria-hidden>
        <span className={styles.level} style={{ width: `${of === 0 ? 0 : (count / of) * 100}%` }} />
      </span>
      {count}
    </span>
  );
}

/** How each fifth of the class did, by the rest of their points: a question that tells apart rises. */
function Fifths({ fifths }: { fifths: AnswerFigures['fifths'] }) {
  const known = fifths.flatMap((share) => share ?? []);
  if (known.length < fifths.length) return null;
  return (
    <div
      className={styles.fifths}
      role="img"
      aria-label={`Share of the points by fifths of the class, weakest first: ${known.map(percent).join(', ')}`}
    >
      <span className={styles.soft}>Share of the points, from the weakest fifth to the strongest</span>
      {known.map((share, index) => (
        <span key={index} className={styles.fifth}>
          <span className={styles.fifthBar} style={{ height: `${Math.max(0.02, share) * 2.4}rem` }} />
          {percent(share)}
        </span>
      ))}
    </div>
  );
}

/** What is asked within it, or what the scheme looks for. */
function Parts({ answers: { parts, lines } }: { answers: AnswerFigures }) {
  const rows = [
    ...(parts.length > 1
      ? parts.map(({ id, label, facility, correlation }) => ({ id, label, share: facility, correlation }))
      : []),
    ...lines.map(({ id, text, met, marked, correlation }) => ({
      ...{ id, label: text, correlation },
      share: marked === 0 ? 0 : met / marked,
    })),
  ];
  if (rows.length === 0) return null;
  return (
    <table className={styles.categories}>
      <thead>
        <tr>
          <th scope="col">{lines.length > 0 ? 'Lines of the scheme' : 'Each by itself'}</th>
          <th scope="col" className={styles.barColumn}>
            {lines.length > 0 ? 'Met' : 'Right'}
          </th>
          <th scope="col" className={styles.figure}>
            With the rest
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ id, label, share, correlation }) => (
          <tr key={id}>
            <th scope="row">{label}</th>
            <td>
              <span className={styles.bar}>
                <span className={styles.track} aria-hidden>
                  <span className={styles.level} style={{ width: `${share * 100}%` }} />
                </span>
                {percent(share)}
              </span>
            </td>
            <td className={styles.figure}>{signed(correlation)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
