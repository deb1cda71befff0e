import type { SVGProps } from 'react';
import type { Rect } from '@/core/basics/rect';
import { layerCounts } from '@/core/marking/work/layer';
import { layerPath } from '@/core/marking/work/layerPath';
import type { LayerMark } from '@/core/model/workMark';
import { counted } from '@/words/format';
import styles from './MarkLayer.module.css';

/**
 * A marker's marks over a drawing, a photo or a page, in thousandths of its width. What notes say stands under it, by number.
 */
export default function MarkLayer({
  marks,
  view,
}: {
  marks: readonly LayerMark[];
  view?: LayerView | undefined;
}) {
  return (
    <LayerSheet view={view} role="img" aria-label={layerWords(marks)}>
      <LayerShapes marks={marks} />
    </LayerSheet>
  );
}

/** What of a surface is seen, where that is a part of it alone: in thousandths of the width of the whole. */
export type LayerView = Rect;

/** A layer over whatever it is put into: as wide as that is, in thousandths of its width. */
export function LayerSheet({ view, ...svg }: SVGProps<SVGSVGElement> & { view?: LayerView | undefined }) {
  const { x, y, w } = view ?? { x: 0, y: 0, w: 1000 };
  return <svg className={styles.layer} viewBox={`${x} ${y} ${w} ${w}`} {...svg} />;
}

/** What notes of a layer say, by the numbers they have in it. */
export function LayerNotes({ marks }: { marks: readonly LayerMark[] }) {
  const notes = marks.filter(({ is }) => is === 'note');
  if (notes.length === 0) return null;
  return (
    <ol className={styles.notes} aria-label="Words of the marker">
      {notes.map(({ id, text }) => (
        <li key={id}>{text}</li>
      ))}
    </ol>
  );
}

/** "Marks of the marker: 2 ticks, 1 line". */
export function layerWords(marks: readonly LayerMark[]): string {
  const counts = layerCounts(marks);
  const words = (Object.keys(names) as LayerMark['is'][]).flatMap((is) =>
    counts[is] === undefined ? [] : counted(counts[is], names[is]),
  );
  return words.length === 0 ? 'No marks yet' : `Marks of the marker: ${words.join(', ')}`;
}

const names: Record<LayerMark['is'], string> = {
  tick: 'tick',
  cross: 'cross',
  pen: 'line',
  arrow: 'arrow',
  note: 'note',
};

/** Each mark twice: a pale edge under it keeps it to be seen on dark and on light. */
export function LayerShapes({ marks }: { marks: readonly LayerMark[] }) {
  const notes = marks.filter(({ is }) => is === 'note');
  return marks.map((mark) => (
    <g key={mark.id}>
      {mark.is === 'note' ? (
        <Note mark={mark} number={notes.indexOf(mark) + 1} />
      ) : (
        <>
          <path d={layerPath(mark)} className={styles.edge} />
          <path d={layerPath(mark)} className={styles.ink} />
        </>
      )}
    </g>
  ));
}

function Note({ mark, number }: { mark: LayerMark; number: number }) {
  const [x = 0, y = 0] = mark.points;
  return (
    <>
      <circle cx={x} cy={y} r={20} className={styles.disc} />
      <text x={x} y={y + 10} textAnchor="middle" className={styles.number}>
        {number}
      </text>
    </>
  );
}
