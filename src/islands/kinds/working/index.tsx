import type { StudentWorking, WorkingResponse } from '@/core/kinds/working/schema';
import { noWorking, waysTaken } from '@/core/kinds/working/ways';
import { counted } from '@/words/format';
import { Picture } from '@/ui/Picture';
import { Maths } from '@/ui/Rich';
import { FileLine } from '../file/FileLine';
import { fetchedSit } from '../fetchedSit';
import type { KindView, ShowProps } from '../KindView';
import { PrintedLines } from '../printed';
import { Sheet } from './Sheet';
import styles from './working.module.css';

export const workingView: KindView<StudentWorking, WorkingResponse> = {
  ...fetchedSit(() => import('./Sit')),
  Show,
  drawn: true,
  Printed: ({ question, room }) => (
    <>
      {question.canvas && <Picture picture={question.canvas} />}
      <PrintedLines count={room ? Math.min(14, 5 + Math.ceil(question.points)) : 0} />
    </>
  ),
};

function Show({ question, response, small = false }: ShowProps<StudentWorking, WorkingResponse>) {
  const given = response ?? noWorking;
  const { words, maths, drawing, photos } = given;
  if (waysTaken(given).length === 0) return <p className={styles.blank}>not answered</p>;
  return (
    <div className={small ? styles.smallShown : styles.shown}>
      {words.trim() && <p className="keepLines">{words.trim()}</p>}
      {maths
        .filter((line) => line.trim())
        .map((line, index) => (
          <Maths key={index} latex={line} block={!small} />
        ))}
      {drawing.length > 0 && (
        <Sheet
          drawing={drawing}
          canvas={question.canvas}
          label={`A drawing of ${counted(drawing.length, 'line')}`}
        />
      )}
      {photos.map((photo) => (
        <FileLine key={photo.id} file={photo} small={small} />
      ))}
    </div>
  );
}
