import type { Question } from '@/core/kinds';
import { RichField } from '@/desk/RichField';
import { editorOf } from '../kinds/editors';
import type { KeepQuestion } from '../kinds/KindView';
import styles from './questions.module.css';

interface QuestionFieldsProps {
  question: Question;
  /** What it is called in the names of its fields: "question 3". */
  name: string;
  keep: KeepQuestion<Question>;
}

/** What is asked, and what belongs to its kind. */
export function QuestionFields({ question, name, keep }: QuestionFieldsProps) {
  const Edit = editorOf(question);
  return (
    <div className={styles.editing}>
      <RichField
        id="field-stem"
        label={`Text of ${name}`}
        placeholder="Question text"
        value={question.stem}
        change={(stem) => keep({ ...question, stem }, `${capital(name)} edited`, `stem-${question.id}`)}
      />
      <Edit question={question} keep={keep} />
    </div>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
