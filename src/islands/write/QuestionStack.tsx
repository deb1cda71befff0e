import { Textarea } from '@mantine/core';
import { kindOf, type Question } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';
import { questionFindings } from '@/core/scoring/paperFindings';
import { points } from '@/ui/format';
import { SortableItem, SortableList } from '@/ui/Sortable';
import type { KeepQuestion } from '../kinds/KindView';
import { viewOf } from '../kinds';
import styles from './write.module.css';

interface QuestionStackProps {
  paper: Paper;
  openId: string | null;
  open: (id: string | null) => void;
  move: (from: number, to: number) => void;
  keep: KeepQuestion<Question>;
}

/** The questions in their order; one at a time is open to be written. */
export function QuestionStack({ paper, openId, open, move, keep }: QuestionStackProps) {
  return (
    <SortableList
      ids={paper.questions.map((question) => question.id)}
      noun="Question"
      move={move}
      className={styles.stack}
    >
      {paper.questions.map((question, index) => (
        <QuestionItem
          key={question.id}
          question={question}
          number={index + 1}
          opened={question.id === openId}
          open={open}
          keep={keep}
        />
      ))}
    </SortableList>
  );
}

interface QuestionItemProps {
  question: Question;
  number: number;
  opened: boolean;
  open: (id: string | null) => void;
  keep: KeepQuestion<Question>;
}

function QuestionItem({ question, number, opened, open, keep }: QuestionItemProps) {
  return (
    <SortableItem
      id={question.id}
      label={`Move question ${number}`}
      className={opened ? styles.opened : styles.item}
    >
      <span className={styles.number}>{number}</span>
      {opened ? (
        <OpenQuestion question={question} number={number} keep={keep} />
      ) : (
        <ClosedQuestion question={question} number={number} open={open} />
      )}
      <span className={styles.points}>{points(question.points)} p</span>
    </SortableItem>
  );
}

function OpenQuestion({
  question,
  number,
  keep,
}: {
  question: Question;
  number: number;
  keep: KeepQuestion<Question>;
}) {
  const { Edit } = viewOf(question);
  return (
    <div className={styles.editing}>
      <Textarea
        id="field-stem"
        aria-label={`Text of question ${number}`}
        placeholder="What is asked"
        autosize
        minRows={2}
        value={question.stem}
        onChange={(event) =>
          keep(
            { ...question, stem: event.currentTarget.value },
            `Question ${number} worded`,
            `stem-${question.id}`,
          )
        }
      />
      <Edit question={question} keep={keep} />
    </div>
  );
}

function ClosedQuestion({
  question,
  number,
  open,
}: {
  question: Question;
  number: number;
  open: (id: string) => void;
}) {
  const findings = questionFindings(question).length;
  const key = kindOf(question).keyText(question);
  return (
    <button
      type="button"
      className={styles.closed}
      aria-label={`Open question ${number}`}
      onClick={() => open(question.id)}
    >
      <span className={`keepLines ${styles.stem}`}>{question.stem || 'No text yet'}</span>
      <span className={styles.keyLine}>
        {kindOf(question).label}
        {key && ` · ${key}`}
        {question.tags.length > 0 && ` · ${question.tags.join(', ')}`}
        {findings > 0 && <span className={styles.toLook}> · {findings} to look at</span>}
      </span>
    </button>
  );
}
