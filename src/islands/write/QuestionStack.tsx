import { Checkbox } from '@mantine/core';
import { plainText } from '@/core/basics/richWords';
import { kindOf, type Question } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { Paper } from '@/core/model/paper';
import { questionFindings } from '@/core/scoring/paperFindings';
import { points } from '@/words/format';
import { SortableItem, SortableList } from '@/ui/Sortable';
import type { KeepQuestion } from '../kinds/KindView';
import { rowId, rowsOf, withoutPart, withPart } from './paperEdits';
import { PartRow } from './PartRow';
import { QuestionFields } from '../questions/QuestionFields';
import type { KeepPaper } from './usePaperDraft';
import styles from './write.module.css';

interface QuestionStackProps {
  paper: Paper;
  openId: string | null;
  open: (id: string | null) => void;
  move: (from: number, to: number) => void;
  keep: KeepQuestion<Question>;
  keepPaper: KeepPaper;
  /** The questions picked to be changed together; null while none can be. */
  picked: ReadonlySet<string> | null;
  pick: (picked: ReadonlySet<string>) => void;
}

/** Parts and questions in their order; one question at a time is open to be written. */
export function QuestionStack(props: QuestionStackProps) {
  const { paper, openId, open, move, keep, keepPaper, picked, pick } = props;
  const rows = rowsOf(paper);
  const numbers = numbersOf(rows.flatMap((row) => ('question' in row ? row.question : [])));
  const toggle = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    pick(next);
  };
  return (
    <SortableList ids={rows.map(rowId)} noun="Question" move={move} className={styles.stack}>
      {rows.map((row) =>
        'part' in row ? (
          <PartRow
            key={row.part.id}
            part={row.part}
            number={(paper.parts ?? []).indexOf(row.part) + 1}
            count={paper.questions.filter((question) => question.partId === row.part.id).length}
            keep={(part, said, field) => keepPaper(withPart(paper, part), said, field)}
            remove={() => keepPaper(withoutPart(paper, row.part.id), 'Part heading removed')}
          />
        ) : (
          <QuestionItem
            key={row.question.id}
            question={row.question}
            number={numbers.get(row.question.id) ?? ''}
            opened={row.question.id === openId}
            open={open}
            keep={keep}
            picked={picked && picked.has(row.question.id)}
            toggle={() => toggle(row.question.id)}
          />
        ),
      )}
    </SortableList>
  );
}

interface QuestionItemProps {
  question: Question;
  number: string;
  opened: boolean;
  open: (id: string | null) => void;
  keep: KeepQuestion<Question>;
  picked: boolean | null;
  toggle: () => void;
}

function QuestionItem({ question, number, opened, open, keep, picked, toggle }: QuestionItemProps) {
  return (
    <SortableItem
      id={question.id}
      label={`Move question ${number}`}
      className={opened ? styles.opened : styles.item}
    >
      {picked === null ? (
        <span className={styles.number}>{number}</span>
      ) : (
        <Checkbox
          size="sm"
          className={styles.pick ?? ''}
          label={number}
          aria-label={`Select question ${number}`}
          checked={picked}
          onChange={toggle}
        />
      )}
      {opened ? (
        <QuestionFields question={question} name={`question ${number}`} keep={keep} />
      ) : (
        <ClosedQuestion question={question} number={number} open={open} />
      )}
      <span className={styles.points}>{points(question.points)} p</span>
    </SortableItem>
  );
}

function ClosedQuestion({
  question,
  number,
  open,
}: {
  question: Question;
  number: string;
  open: (id: string) => void;
}) {
  const findings = questionFindings(question).length;
  const key = kindOf(question).keyText(question);
  return (
    <button type="button" className={styles.closed} onClick={() => open(question.id)}>
      <span className="visuallyHidden">Open question {number}: </span>
      <span className={`keepLines ${styles.stem}`}>{plainText(question.stem) || 'No text yet'}</span>
      <span className={styles.keyLine}>
        {kindOf(question).label}
        {question.working && ', with working'}
        {key && ` · ${key}`}
        {question.tags.length > 0 && ` · ${question.tags.join(', ')}`}
        {findings > 0 && <span className={styles.toLook}> · {findings} to check</span>}
      </span>
    </button>
  );
}
