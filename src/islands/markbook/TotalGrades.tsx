import { useMemo } from 'react';
import type { GradeScale } from '@/core/model/gradeScale';
import { registerName } from '@/core/model/names';
import { EmptyState } from '@/ui/EmptyState';
import { done } from '@/words/done';
import { GradesEditor } from './GradesEditor';
import { GradeTemplates } from './GradeTemplates';
import type { BookAtHand } from './useMarkBook';
import styles from './markbook.module.css';

/** The grade lines of the totals: held against them as they are rounded and shown. */
export function TotalGrades({ at }: { at: BookAtHand }) {
  const { book, rows } = at;
  const results = useMemo(
    () =>
      rows.flatMap(({ student, steps }) =>
        steps.percent === null
          ? []
          : [{ id: student.id, name: registerName(student), points: steps.percent, max: 100 }],
      ),
    [rows],
  );
  const set = (scale: GradeScale, joins?: string) => at.change({ scale }, done.gradesChanged, joins);
  return (
    <div className={styles.fields}>
      {book.scale ? (
        <GradesEditor scale={book.scale} results={results} standardError={null} percentOnly change={set} />
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
