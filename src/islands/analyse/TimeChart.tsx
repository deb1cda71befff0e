import { useCallback, useMemo } from 'react';
import { correlation } from '@/core/analysis/correlation';
import { minutesOf } from '@/core/seats/gridOrder';
import { totalShare } from '@/core/scoring/scoreAttempt';
import type { Seat } from '@/core/seats/seats';
import { Chart, percentAxis, type ChartInks } from '@/ui/Chart';
import { registerName } from '@/core/model/names';
import { counted, percent } from '@/words/format';
import styles from './analyse.module.css';
import { signed } from '@/words/analysis';

/** Minutes against the share of the points, a mark a student. */
export default function TimeChart({ seats, now }: { seats: readonly Seat[]; now: number }) {
  const marks = useMemo(
    () =>
      seats.flatMap((seat) => {
        const minutes = minutesOf(seat, now);
        const share = seat.scorecard ? totalShare(seat.scorecard) : null;
        return minutes === null || share === null
          ? []
          : [{ id: seat.student.id, name: registerName(seat.student), minutes, share }];
      }),
    [seats, now],
  );
  const option = useCallback(
    (inks: ChartInks) => {
      const { ink, soft, font } = inks;
      return {
        grid: { left: 48, right: 16, top: 10, bottom: 42 },
        xAxis: {
          type: 'value',
          min: 0,
          name: 'minutes',
          nameLocation: 'middle',
          nameGap: 26,
          nameTextStyle: font,
          axisLabel: font,
          splitLine: { show: false },
          axisLine: { lineStyle: { color: soft } },
        },
        yAxis: percentAxis(inks),
        series: [
          {
            type: 'scatter',
            symbolSize: 8,
            silent: true,
            itemStyle: { color: ink, opacity: 0.5 },
            data: marks.map(({ minutes, share }) => [minutes, share * 100]),
          },
        ],
      };
    },
    [marks],
  );
  if (marks.length < 3) return null;
  const r = correlation(
    marks.map(({ minutes }) => minutes),
    marks.map(({ share }) => share),
  );
  const words = `Minutes and points of ${counted(marks.length, 'student')} go together with a correlation of ${signed(r)}.`;
  return (
    <figure style={{ margin: 0 }}>
      <Chart option={option} height={220} label={words} />
      <figcaption>{words}</figcaption>
      <details>
        <summary>As a table</summary>
        <table className={styles.figures}>
          <thead>
            <tr>
              <th scope="col">Student</th>
              <th scope="col">Minutes</th>
              <th scope="col">Points</th>
            </tr>
          </thead>
          <tbody>
            {[...marks]
              .sort((a, b) => a.minutes - b.minutes)
              .map(({ id, name, minutes, share }) => (
                <tr key={id}>
                  <th scope="row">{name}</th>
                  <td>{minutes}</td>
                  <td>{percent(share)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
