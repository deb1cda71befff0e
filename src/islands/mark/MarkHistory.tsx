import type { SchemeLine } from '@/core/kinds/schemeLine';
import { optionLetter } from '@/core/kinds/optionLetter';
import { groupHistory, type GroupRevision } from '@/core/marking/groupHistory';
import type { HandMark, MarkValues } from '@/core/model/mark';
import { useMarkerNames } from '@/desk/markerNames';
import { useNow } from '@/ui/clock';
import { counted, dayAndTime, points } from '@/words/format';
import styles from './mark.module.css';

interface MarkHistoryProps {
  marks: readonly HandMark[];
  scheme: readonly SchemeLine[];
}

/** How the marks of one answer, or of equal ones, came to be: who, when, from what to what, and why. */
export function MarkHistory({ marks, scheme }: MarkHistoryProps) {
  const now = useNow(60_000);
  const nameOf = useMarkerNames(marks[0]?.sittingId ?? '');
  const revisions = groupHistory(marks);
  if (revisions.length === 0) return null;
  const several = new Set(marks.map(({ attemptId }) => attemptId)).size > 1;
  return (
    <details className={styles.history}>
      <summary>Mark history ({revisions.length})</summary>
      <ul>
        {revisions.map((revision) => (
          <li key={JSON.stringify(revision)}>
            <span className={styles.soft}>
              {dayAndTime(revision.at, now)}, {nameOf(revision.by)}
              {several && `, ${counted(revision.count, 'answer')}`}
            </span>
            <br />
            {changeWords(revision, scheme)}
            {revision.why && <> “{revision.why}”</>}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What a change did, in words; each field that differs, from what it was to what it became. */
function changeWords({ from, to }: GroupRevision, scheme: readonly SchemeLine[]): string {
  const words: string[] = [];
  const pointsOf = (values: MarkValues | null) =>
    values?.points === null || values === null ? 'no points' : counted(values.points, 'point');
  if (pointsOf(from) !== pointsOf(to))
    words.push(from ? `${pointsOf(from)} → ${pointsOf(to)}` : pointsOf(to));
  const lettersOf = (values: MarkValues | null) =>
    (values?.lines ?? [])
      .map((id) =>
        optionLetter(
          Math.max(
            0,
            scheme.findIndex((line) => line.id === id),
          ),
        ),
      )
      .join(', ');
  if (lettersOf(from) !== lettersOf(to))
    words.push(lettersOf(to) ? `scheme lines ${lettersOf(to)}` : 'no scheme lines');
  const commentOf = (values: MarkValues | null) => values?.comment ?? '';
  if (commentOf(from) !== commentOf(to))
    words.push(commentOf(to) ? `comment: ${commentOf(to)}` : 'comment removed');
  const adjustmentOf = (values: MarkValues | null) => values?.adjustment?.points ?? 0;
  if (adjustmentOf(from) !== adjustmentOf(to)) {
    const by = adjustmentOf(to);
    words.push(by === 0 ? 'adjustment removed' : `adjusted by ${by > 0 ? '+' : '−'}${points(Math.abs(by))}`);
  }
  if ((from?.note ?? '') !== (to.note ?? ''))
    words.push(to.note ? `private note: ${to.note}` : 'private note removed');
  if ((from?.aside ?? false) !== to.aside) words.push(to.aside ? 'set aside' : 'no longer set aside');
  return words.join('; ');
}
