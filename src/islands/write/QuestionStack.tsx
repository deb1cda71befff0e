import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Textarea } from '@mantine/core';
import { IconGripVertical } from '@tabler/icons-react';
import { kindOf, type Question } from '@/core/kinds';
import type { Paper } from '@/core/model/paper';
import { questionFindings } from '@/core/scoring/paperFindings';
import { points } from '@/ui/format';
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
  const ids = paper.questions.map((question) => question.id);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, scrollBehavior: 'auto' }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) move(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{ announcements: announcementsFor(ids) }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className={styles.stack}>
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
        </ol>
      </SortableContext>
    </DndContext>
  );
}

/** What a screen reader says while a question is moved. */
function announcementsFor(ids: string[]): Announcements {
  const place = (id: UniqueIdentifier) => ids.indexOf(String(id)) + 1;
  return {
    onDragStart: ({ active }) => `Question ${place(active.id)} picked up`,
    onDragOver: ({ active, over }) =>
      over ? `Question ${place(active.id)} is over place ${place(over.id)}` : undefined,
    onDragEnd: ({ active, over }) =>
      `Question ${place(active.id)} put down at place ${place(over?.id ?? active.id)}`,
    onDragCancel: ({ active }) => `Question ${place(active.id)} stays where it was`,
  };
}

interface QuestionItemProps {
  question: Question;
  number: number;
  opened: boolean;
  open: (id: string | null) => void;
  keep: KeepQuestion<Question>;
}

function QuestionItem({ question, number, opened, open, keep }: QuestionItemProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: question.id });
  return (
    <li
      ref={setNodeRef}
      className={opened ? styles.opened : styles.item}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button
        type="button"
        className={styles.handle}
        aria-label={`Move question ${number}`}
        {...attributes}
        {...listeners}
      >
        <IconGripVertical size={16} />
      </button>
      <span className={styles.number}>{number}</span>
      {opened ? (
        <OpenQuestion question={question} number={number} keep={keep} />
      ) : (
        <ClosedQuestion question={question} number={number} open={open} />
      )}
      <span className={styles.points}>{points(question.points)} p</span>
    </li>
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
