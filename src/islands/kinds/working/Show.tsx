import type { StudentWorking, WorkingResponse } from '@/core/kinds/working/schema';
import { surfaces } from '@/core/marking/work/layer';
import { noWorking, waysTaken } from '@/core/kinds/working/ways';
import { counted } from '@/words/format';
import { Maths } from '@/ui/Rich';
import { FileLine } from '../file/FileLine';
import type { ShowProps } from '../KindView';
import { Surface } from '../Surface';
import { Sheet } from './Sheet';
import styles from './working.module.css';

export default function Show({
  question,
  response,
  small = false,
  work,
}: ShowProps<StudentWorking, WorkingResponse>) {
  const given = response ?? noWorking;
  const { words, maths, drawing, photos } = given;
  const lines = maths.filter((line) => line.trim());
  if (waysTaken(given).length === 0) return <p className={styles.blank}>not answered</p>;
  return (
    <div className={small ? styles.smallShown : styles.shown}>
      {words.trim() && <p className="keepLines">{words.trim()}</p>}
      {lines.length > 0 && (
        <Surface on={surfaces.maths} label="Lines of maths" work={work} small={small}>
          <MathsLines lines={lines} small={small} />
        </Surface>
      )}
      {drawing.length > 0 && (
        <Surface on={surfaces.drawing} label="Drawing" work={work} small={small}>
          <Sheet
            drawing={drawing}
            canvas={question.canvas}
            label={`A drawing of ${counted(drawing.length, 'line')}`}
          />
        </Surface>
      )}
      {photos.map((photo) => (
        <FileLine key={photo.id} file={photo} small={small} work={work} />
      ))}
    </div>
  );
}

/** Lines of maths whose size goes by their place, so that marks on them stay where they were made. */
function MathsLines({ lines, small }: { lines: readonly string[]; small: boolean }) {
  const all = lines.map((line, index) => <Maths key={index} latex={line} block={!small} />);
  return small ? (
    all
  ) : (
    <div className={styles.mathsPlace}>
      <div>{all}</div>
    </div>
  );
}
