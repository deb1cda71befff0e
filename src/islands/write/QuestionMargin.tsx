import { Button, TagsInput, Textarea } from '@mantine/core';
import { kindOf, type Question } from '@/core/kinds';
import { KeyHint } from '@/ui/KeyHint';
import { PointsField } from '@/ui/PointsField';
import { MarginBlock } from '@/ui/TwoColumns';
import type { KeepQuestion } from '../kinds/KindView';
import styles from './write.module.css';

interface QuestionMarginProps {
  question: Question;
  number: number;
  keep: KeepQuestion<Question>;
  duplicate: () => void;
  remove: () => void;
}

/** What belongs to the open question: its points, tags, comments and note. */
export function QuestionMargin({ question, number, keep, duplicate, remove }: QuestionMarginProps) {
  const byHand = kindOf(question).scoredBy === 'hand';
  return (
    <MarginBlock title={`Question ${number}, ${kindOf(question).label.toLowerCase()}`}>
      <div className={styles.pointsRow}>
        <PointsField
          id="field-points"
          label={`Points of question ${number}`}
          value={question.points}
          onPoints={(value) => {
            if (value !== null)
              keep(
                { ...question, points: value },
                `Points of question ${number} set`,
                `points-${question.id}`,
              );
          }}
        />
        <span>points, {byHand ? 'given by hand' : 'given by the key'}</span>
      </div>
      <TagsInput
        label="Tags"
        size="xs"
        value={question.tags}
        onChange={(tags) => keep({ ...question, tags }, `Tags of question ${number}`)}
        clearable={false}
      />
      <CommentField
        label="Comment when right"
        value={question.commentRight}
        change={(commentRight) =>
          keep({ ...question, commentRight }, 'Comment when right', `right-${question.id}`)
        }
      />
      <CommentField
        label="Comment when not wholly right"
        value={question.commentWrong}
        change={(commentWrong) =>
          keep({ ...question, commentWrong }, 'Comment when wrong', `wrong-${question.id}`)
        }
      />
      <CommentField
        label="Note to yourself, never shown to students"
        value={question.note}
        change={(note) => keep({ ...question, note }, 'Note', `note-${question.id}`)}
      />
      <div className={styles.actions}>
        <Button onClick={duplicate} rightSection={<KeyHint keys="Ctrl D" />} justify="space-between">
          Duplicate
        </Button>
        <Button onClick={remove} justify="start">
          Delete the question
        </Button>
      </div>
    </MarginBlock>
  );
}

function CommentField({
  label,
  value,
  change,
}: {
  label: string;
  value: string;
  change: (value: string) => void;
}) {
  return (
    <Textarea
      label={label}
      autosize
      minRows={1}
      maxRows={6}
      size="xs"
      value={value}
      onChange={(event) => change(event.currentTarget.value)}
    />
  );
}
