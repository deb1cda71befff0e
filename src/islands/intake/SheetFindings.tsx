import type { AnswerColumns } from '@/core/intake/columns';
import { fullName } from '@/core/model/names';
import { kindOf } from '@/core/kinds';
import { findingWords } from '@/words/findings';
import { badCellWords, becomesWords } from '@/words/intake';
import { counted } from '@/words/format';
import type { SheetSummary } from '@/workers/intake';
import styles from './intake.module.css';

const firstShown = 12;

/** What of a sheet could not be used, by row and column, and the rows as they were understood. */
export function SheetFindings({
  look,
  columns,
  isNew,
}: {
  look: SheetSummary;
  columns: AnswerColumns;
  isNew: boolean;
}) {
  const nameOf = (column: number) => columns.names[column] ?? '';
  const columnOf = (questionId: string | undefined) =>
    nameOf(columns.roles.findIndex((role) => role.is === 'answers' && role.questionId === questionId));
  return (
    <>
      {(look.badKeys.length > 0 || look.stops.length > 0) && (
        <div role="alert" className={styles.bad}>
          <ul>
            {look.badKeys.map(({ column, cell }) => (
              <li key={column}>
                {nameOf(column)}: “{cell}” can’t be its key: it is none of the answers to it. It has no key
                yet.
              </li>
            ))}
            {look.stops.map((finding, at) => (
              <li key={at}>
                {columnOf(finding.questionId)}: {findingWords(finding, look.questions)}. Choose another kind,
                or leave the column out.
              </li>
            ))}
          </ul>
        </div>
      )}
      {look.badCount > 0 && (
        <div role="alert" className={styles.bad}>
          <strong>{counted(look.badCount, 'cell')} couldn’t be used; the rest of each row can:</strong>
          <ul>
            {look.bad.slice(0, firstShown).map(({ line, column, cell, why }) => (
              <li key={`${line} ${column}`}>
                row {line}, {nameOf(column)}: “{cell}” {badCellWords[why]}
              </li>
            ))}
            {look.badCount > firstShown && <li>and {look.badCount - firstShown} more</li>}
          </ul>
        </div>
      )}
      <section aria-label="Rows">
        <table className={styles.table}>
          <thead>
            <tr>
              <th className={styles.figure}>Row</th>
              <th>Student</th>
              <th>Attempt</th>
              <th>Answers</th>
              <th>{isNew ? 'Import' : 'Compared with the desk'}</th>
            </tr>
          </thead>
          <tbody>
            {look.planned.slice(0, firstShown).map(({ row, owner, number, becomes, changed }) => (
              <tr key={row.line}>
                <td className={styles.figure}>{row.line}</td>
                <td>
                  {fullName(row.person) || row.person.number || row.person.email || `Row ${row.line}`}
                  {owner.is === 'known' && (
                    <span className={styles.soft}>
                      {' '}
                      on the desk{owner.by === 'name' ? ', by the name' : ''}
                    </span>
                  )}
                </td>
                <td>{number > 0 ? number : ''}</td>
                <td>{answersText(row.answers, look)}</td>
                <td>
                  {becomesWords[becomes]}
                  {becomes === 'changed' && `: ${counted(changed.length, 'answer')}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

function answersText(
  answers: SheetSummary['planned'][number]['row']['answers'],
  { questions }: SheetSummary,
): string {
  const texts = questions.flatMap((question) => {
    const response = answers[question.id];
    return response ? [kindOf(question).asText(question, response)] : [];
  });
  const all = texts.join(' · ');
  return all.length > 90 ? `${all.slice(0, 90)}…` : all || 'nothing answered';
}
