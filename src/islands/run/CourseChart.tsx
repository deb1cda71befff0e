import { byTeacher, type Timeline } from '@/core/attempts/timeline';
import { isReported } from '@/core/attempts/watching';
import { clockSeconds, clockTime } from '@/words/format';
import styles from './attempt.module.css';

interface CourseChartProps {
  timeline: Timeline;
  numbers: ReadonlyMap<string, string>;
}

const width = 860;
const left = 44;
const right = 14;
const top = 22;
const laneHeight = 17;
const bottom = 24;

/**
 * One lane a question, time from left to right: a stroke for each time it was answered, shaded where the page was left,
 * an upright line where it began, ended, or the teacher did something. The same is in words beside it.
 */
export function CourseChart({ timeline, numbers }: CourseChartProps) {
  const { from, to, lanes, away, happenings } = timeline;
  const span = Math.max(1000, to - from);
  const x = (at: number) => left + ((at - from) / span) * (width - left - right);
  const height = top + lanes.length * laneHeight + bottom;
  const floor = height - bottom;
  return (
    <svg
      className={styles.chart}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`Course of the attempt from ${clockTime(from)} to ${clockTime(to)}, question by question; the list beside it says the same in words`}
    >
      {away.map((time) => (
        <rect
          key={time.from}
          className={styles.away}
          x={x(time.from)}
          y={top}
          width={Math.max(2, x(time.to) - x(time.from))}
          height={floor - top}
        />
      ))}
      {lanes.map((lane, index) => {
        const y = top + index * laneHeight + laneHeight / 2;
        return (
          <g key={lane.questionId}>
            <text className={styles.laneName} x={left - 8} y={y + 4} textAnchor="end">
              {numbers.get(lane.questionId)}
            </text>
            <line className={styles.lane} x1={left} x2={width - right} y1={y} y2={y} />
            {lane.ticks.map(({ at, kind }, tick) =>
              kind === 'answered' ? (
                <rect key={tick} className={styles.tick} x={x(at) - 1.5} y={y - 6} width={3} height={12} />
              ) : (
                <circle key={tick} className={styles.ring} cx={x(at)} cy={y} r={4} />
              ),
            )}
          </g>
        );
      })}
      {happenings
        .filter(({ kind }) => !isReported(kind))
        .map((each, index) => (
          <g key={index}>
            <line
              className={byTeacher(each) ? styles.teacher : styles.turn}
              x1={x(each.at)}
              x2={x(each.at)}
              y1={top - 6}
              y2={floor}
            />
            {byTeacher(each) && <path className={styles.flag} d={`M${x(each.at) - 4} ${top - 14}h8l-4 8z`} />}
          </g>
        ))}
      {roundTimes(from, to).map((at) => (
        <text key={at} className={styles.hour} x={x(at)} y={height - 8} textAnchor="middle">
          {span < 4 * 60_000 ? clockSeconds(at) : clockTime(at)}
        </text>
      ))}
    </svg>
  );
}

/** At most seven round times between two instants. */
function roundTimes(from: number, to: number): number[] {
  const second = 1000;
  const steps = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 21_600, 86_400].map(
    (count) => count * second,
  );
  const step = steps.find((each) => (to - from) / each <= 7) ?? to - from;
  const marks: number[] = [];
  for (let at = Math.ceil(from / step) * step; at <= to; at += step) marks.push(at);
  return marks;
}
