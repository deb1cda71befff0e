import type { ScriptPacket } from '@/core/handback/script';
import { Comment } from '@/ui/plain/Comment';
import { counted, percent, points } from '@/words/format';
import styles from './script.module.css';

/** What is told of the whole: total, grade, class, topics, and what the marker says to all of it. */
export function WholeResult({ script }: { script: ScriptPacket }) {
  const { total, share, grade, waiting, meanOf, attempts, figures, place, topics } = script;
  const nothing =
    script.questions.length === 0 &&
    !total &&
    share === undefined &&
    grade === undefined &&
    !topics &&
    !figures &&
    !script.comment;
  return (
    <>
      {(total || typeof share === 'number' || grade !== undefined) && (
        <p className={styles.total}>
          {total && `${points(total.points)} of ${counted(total.max, 'point')}`}
          {typeof share === 'number' &&
            (!total || total.max > 0) &&
            waiting === undefined &&
            (total ? ` (${percent(share)})` : percent(share))}
          {grade !== undefined && (
            <span className={styles.grade}>
              {grade === null ? 'below the lowest grade' : `Grade ${grade}`}
            </span>
          )}
        </p>
      )}
      {meanOf !== undefined && (
        <p>
          The mean of your {counted(meanOf, 'attempt')}
          {attempts &&
            `: ${attempts.map((each) => `${points(each.points)} of ${points(each.max)}`).join(', ')}`}
          .{script.questions.length > 0 && ' The questions below are those of the last one.'}
        </p>
      )}
      {waiting !== undefined && <p>{counted(waiting, 'answer')} still to be marked: the total can rise.</p>}
      {figures && (
        <p>
          The class: mean {points(figures.mean)} points
          {figures.deviation !== null && `, standard deviation ${points(figures.deviation)}`}, over{' '}
          {counted(figures.n, 'result')}.
        </p>
      )}
      {place !== undefined && <p>Your place in the class: {place}.</p>}
      {topics && topics.length > 0 && <Topics topics={topics} />}
      {script.comment && <Comment text={script.comment} className={styles.comment} />}
      {nothing && <p>Your teacher has your paper. Nothing else is shown yet.</p>}
    </>
  );
}

/** Points by topic, the strongest first. */
function Topics({ topics }: { topics: NonNullable<ScriptPacket['topics']> }) {
  const rows = [...topics].sort(
    (a, b) => b.points / b.max - a.points / a.max || a.name.localeCompare(b.name),
  );
  return (
    <table className={styles.topics}>
      <caption>By topic</caption>
      <thead className="visuallyHidden">
        <tr>
          <th scope="col">Topic</th>
          <th scope="col">Share</th>
          <th scope="col">Points</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, points: had, max }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>
              <span className={styles.bar}>
                <span style={{ width: `${Math.min(100, (had / max) * 100)}%` }} />
              </span>
              {percent(had / max)}
            </td>
            <td>
              {points(had)} of {points(max)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
