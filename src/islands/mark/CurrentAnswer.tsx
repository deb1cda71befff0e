import type { Question } from '@/core/kinds';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { WorkMark, WorkStep } from '@/core/model/workMark';
import { KeyHint } from '@/ui/KeyHint';
import { later } from '@/ui/later';
import { PlaceOf } from '@/ui/Moving';
import { viewOf } from '../kinds';
import { PaperPictures } from '../kinds/PaperPictures';
import { Answer } from './Answer';
import { LayerMarker } from './LayerMarker';
import { BehindWords } from './OnPaperAnswer';
import { TextMarker } from './TextMarker';
import { toAnswers } from './toAnswers';
import styles from './mark.module.css';

// Answers on paper alone are typed.
const TypeAnswer = later(async () => (await import('./TypeAnswer')).TypeAnswer);
/** What comes later in an answer: whoever draws the answers fetches it before it is to be seen. */
export const laterInAnswer = [TypeAnswer];

/** Marks on the text of the answers the marker is at. */
export interface WorkActs {
  open: boolean;
  setOpen: (open: boolean) => void;
  change: (group: SameAnswers, step: WorkStep, said: string) => void;
}

/** Whether the whole page is shown of an answer on paper, or its place alone. */
export interface WholePage {
  whole: boolean;
  toggle: () => void;
}

export interface CurrentAnswerProps {
  question: Question;
  group: SameAnswers;
  /** What a marker marked in it. */
  marked: readonly WorkMark[];
  enterDoes: string;
  /** What holds the comment for the student. */
  comment: HTMLElement;
  work: WorkActs;
  page: WholePage;
}

/** What the marker is at, below its row: the answer as it looks, to mark on, and the comment for the student. */
export function CurrentAnswer({
  question,
  group,
  marked,
  enterDoes,
  comment,
  work,
  page,
}: CurrentAnswerProps) {
  const { drawn, written = false } = viewOf(question);
  const [first] = group.answers;
  const pictures = first?.pictures ?? [];
  const marksText = written && !group.blank && !group.onPaper;
  const marksLayer = group.onPaper ? pictures.length > 0 : drawn && !group.blank;
  const shown = group.onPaper ? (
    <PaperPictures pictures={pictures} work={marked} whole={page.whole} />
  ) : (
    <Answer question={question} group={group} work={marked} />
  );
  const marker = {
    change: (step: WorkStep, said: string) => work.change(group, step, said),
    done: () => {
      work.setOpen(false);
      toAnswers();
    },
  };
  return (
    <>
      {marksLayer && (
        <div className={styles.drawn}>
          {work.open ? (
            <LayerMarker key={group.id} {...marker}>
              {shown}
            </LayerMarker>
          ) : (
            shown
          )}
        </div>
      )}
      {!group.onPaper && pictures.length > 0 && <BehindWords group={group} />}
      {marksText && work.open && <TextMarker key={group.id} text={group.text} work={marked} {...marker} />}
      {(group.onPaper || first?.typed) && pictures.length > 0 && (
        <TypeAnswer key={group.id} question={question} group={group} />
      )}
      <div className={styles.beside}>
        <PlaceOf host={comment} />
        <span className={styles.hint}>
          {group.onPaper && (
            <KeyedButton keys="F7" press={page.toggle}>
              {page.whole ? 'Answer alone' : 'Whole page'}
            </KeyedButton>
          )}
          {(marksText || marksLayer) && !work.open && (
            <KeyedButton keys="F9" press={() => work.setOpen(true)}>
              {marksText ? 'Mark the text' : 'Mark on it'}
            </KeyedButton>
          )}
          <KeyHint keys="Enter" /> {enterDoes}
        </span>
      </div>
    </>
  );
}

/** A button in the line of hints, with the key that does the same. */
function KeyedButton({ keys, press, children }: { keys: string; press: () => void; children: string }) {
  return (
    <>
      <button type="button" className={styles.plainButton} onClick={press}>
        {children}
      </button>{' '}
      <KeyHint keys={keys} />
      &ensp;
    </>
  );
}
