import { Button, Checkbox } from '@mantine/core';
import type { Working } from '@/core/kinds/working/schema';
import { allWays } from '@/core/kinds/working/ways';
import type { WorkingWay } from '@/core/kinds/working/WorkingWay';
import type { PictureRef } from '@/core/basics/file';
import { Picture } from '@/ui/Picture';
import { ChoosePicture, PictureWords } from '@/desk/PictureChoice';
import styles from '../edit.module.css';
import type { EditProps } from '../KindView';
import { SchemeEdit } from '../text/SchemeEdit';
import own from './working.module.css';

const wayWords: Record<WorkingWay, string> = {
  words: 'in words',
  maths: 'in typed maths',
  drawing: 'by drawing',
  photo: 'with a photo of their page',
};

export function Edit({ question, keep }: EditProps<Working>) {
  return (
    <div className={styles.rows}>
      <WaysChoice
        ways={question.ways}
        change={(ways) => keep({ ...question, ways }, 'Ways to show working changed')}
      />
      {question.ways.includes('drawing') && <CanvasField question={question} keep={keep} />}
      <SchemeEdit
        value={question}
        worth={question.points}
        change={(marking, said, field) =>
          keep({ ...question, ...marking }, said, field && `${field}-${question.id}`)
        }
      />
    </div>
  );
}

/** How a working may be shown. */
export function WaysChoice({ ways, change }: { ways: WorkingWay[]; change: (ways: WorkingWay[]) => void }) {
  return (
    <div className={styles.choices} role="group" aria-label="How students show it" id="field-ways">
      <span className={styles.label}>Students show it</span>
      {allWays.map((way) => (
        <Checkbox
          key={way}
          size="sm"
          label={wayWords[way]}
          checked={ways.includes(way)}
          onChange={() => change(allWays.filter((each) => (each === way) !== ways.includes(each)))}
        />
      ))}
    </div>
  );
}

/** What there is to draw on. */
function CanvasField({ question, keep }: EditProps<Working>) {
  const { canvas, ...without } = question;
  const put = (next: PictureRef, said: string, field?: string) =>
    keep({ ...question, canvas: next }, said, field);
  return (
    <div className={styles.rows} id="field-canvas">
      <span className={styles.label}>They draw on {canvas ? 'this picture:' : 'a blank page.'}</span>
      {canvas && (
        <>
          <div className={own.canvas}>
            <Picture picture={canvas} />
          </div>
          <PictureWords
            picture={canvas}
            change={(words) =>
              put({ ...canvas, ...words }, 'Description of the picture', `canvas-words-${question.id}`)
            }
          />
        </>
      )}
      <div className={styles.choices}>
        <ChoosePicture
          label={canvas ? 'Choose another picture' : 'Add a picture to draw on'}
          taken={(picture) => put(picture, 'Picture to draw on added')}
        />
        {canvas && (
          <Button size="compact-sm" onClick={() => keep(without, 'Picture to draw on removed')}>
            Use a blank page
          </Button>
        )}
      </div>
    </div>
  );
}
