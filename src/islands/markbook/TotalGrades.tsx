import { useMemo } from 'react';
import type { GradeScale } from '@/core/model/gradeScale';
import { registerName } from '@/core/model/names';
import { EmptyState } from '@/ui/EmptyState';
import { done } from '@/words/done';
import { counted, points } from '@/words/format';
import { GradesEditor } from './GradesEditor';
import { GradeTemplates } from './GradeTemplates';
import type { BookAtHand } from './useMarkBook';
import styles from './markbook.module.css';

/** The grade lines of the totals: held against them as they are rounded and shown. */
export function TotalGrades({ at }: { at: BookAtHand }) {
  const { book, rows } = at;
  const results = useMemo(
    () =>
      rows.flatMap(({ student, steps, error }) =>
        steps.percent === null
          ? []
          : [
              {
                ...{ id: student.id, name: registerName(student), points: steps.percent, max: 100 },
                error: error && error.error * 100,
              },
            ],
      ),
    [rows],
  );
  const set = (scale: GradeScale, joins?: string) => at.change({ scale }, done.gradesChanged, joins);
  const told = rows.flatMap(({ error }) => error ?? []);
  const exact = Math.max(0, ...told.map((each) => each.exact));
  const middle = told.map(({ error }) => error).sort((a, b) => a - b)[Math.floor(told.length / 2)];
  return (
    <div className={styles.fields}>
      {middle !== undefined && (
        <p className={styles.soft}>
          One total is good to about ± {points(middle * 100)} percentage points: nearer to a line, a student
          may be on either side of it.
          {exact > 0 && ` ${counted(exact, 'column')} without a standard error of its own counts as exact.`}
        </p>
      )}
      {book.scale ? (
        <GradesEditor scale={book.scale} results={results} percentOnly change={set} />
      ) : (
        <EmptyState title="No grade lines yet">
          Choose one of the usual scales below, then drag its lines over the spread of the totals.
        </EmptyState>
      )}
      <GradeTemplates
        scale={book.scale}
        use={(scale) =>
          set(
            scale.by === 'percent'
              ? scale
              : {
                  by: 'percent',
                  lines: scale.lines.map((line) => ({ ...line, from: Math.min(1, line.from / 100) })),
                },
          )
        }
      />
    </div>
  );
}
