import { ActionIcon, Button, Checkbox, Group, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { nanoid } from 'nanoid';
import type { AcceptedAnswer, ShortText, StudentShortText } from '@/core/kinds/shortText/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import { roundPoints } from '@/core/scoring/points';
import { points } from '@/ui/format';
import { PointsField } from '@/ui/PointsField';
import type { EditProps, KindView } from '../KindView';
import { TextAnswer, WrittenAnswer } from '../text/TextAnswer';
import styles from './Edit.module.css';

function Edit({ question, keep }: EditProps<ShortText>) {
  const keepAccepted = (accepted: AcceptedAnswer[], said: string, field?: string) =>
    keep({ ...question, accepted }, said, field);
  return (
    <div className={styles.accepted} id="field-accepted">
      <div className={styles.head} aria-hidden>
        <span>Accepted answer</span>
        <span>% of points</span>
        <span>Comment for whoever writes it</span>
      </div>
      {question.accepted.map((accepted, index) => (
        <AcceptedRow
          key={accepted.id}
          accepted={accepted}
          number={index + 1}
          max={question.points}
          change={(next, said, field) =>
            keepAccepted(
              question.accepted.map((each) => (each.id === next.id ? next : each)),
              said,
              field,
            )
          }
          remove={() =>
            keepAccepted(
              question.accepted.filter((each) => each.id !== accepted.id),
              `Accepted answer ${index + 1} taken out`,
            )
          }
        />
      ))}
      <Button
        size="compact-sm"
        className={styles.add}
        onClick={() =>
          keepAccepted(
            [...question.accepted, { id: nanoid(12), text: '', share: 1, comment: '' }],
            'Accepted answer added',
          )
        }
      >
        One more accepted answer
      </Button>
      <Group gap="lg" role="group" aria-label="What is forgiven">
        <span className={styles.label}>Does not matter:</span>
        {(['case', 'spaces', 'accents'] as const).map((what) => (
          <Checkbox
            key={what}
            size="sm"
            label={{ case: 'capital or small', spaces: 'spaces', accents: 'accents' }[what]}
            checked={question.forgive[what]}
            onChange={(event) =>
              keep(
                { ...question, forgive: { ...question.forgive, [what]: event.currentTarget.checked } },
                'What is forgiven changed',
              )
            }
          />
        ))}
      </Group>
    </div>
  );
}

interface AcceptedRowProps {
  accepted: AcceptedAnswer;
  number: number;
  max: number;
  change: (accepted: AcceptedAnswer, said: string, field?: string) => void;
  remove: () => void;
}

function AcceptedRow({ accepted, number, max, change, remove }: AcceptedRowProps) {
  return (
    <div className={styles.row}>
      <TextInput
        id={`field-accepted-${accepted.id}`}
        aria-label={`Accepted answer ${number}`}
        size="sm"
        value={accepted.text}
        onChange={(event) =>
          change(
            { ...accepted, text: event.currentTarget.value },
            `Accepted answer ${number} worded`,
            `accepted-${accepted.id}`,
          )
        }
      />
      <PointsField
        size="sm"
        w="100%"
        label={`Percent of the points for answer ${number}`}
        value={Math.round(accepted.share * 10_000) / 100}
        max={100}
        rightSection={<span className={styles.worth}>{points(roundPoints(accepted.share * max))} p</span>}
        rightSectionWidth={46}
        onPoints={(percent) => {
          if (percent !== null)
            change(
              { ...accepted, share: percent / 100 },
              `Share of answer ${number} set`,
              `share-${accepted.id}`,
            );
        }}
      />
      <TextInput
        aria-label={`Comment on answer ${number}`}
        size="sm"
        value={accepted.comment}
        onChange={(event) =>
          change(
            { ...accepted, comment: event.currentTarget.value },
            `Comment on answer ${number}`,
            `accepted-comment-${accepted.id}`,
          )
        }
      />
      <ActionIcon
        variant="subtle"
        color="gray"
        aria-label={`Take out accepted answer ${number}`}
        onClick={remove}
      >
        <IconX size={16} />
      </ActionIcon>
    </div>
  );
}

export const shortTextView: KindView<ShortText, StudentShortText, TextResponse> = {
  Edit,
  Sit: (props) => <TextAnswer {...props} rows={1} />,
  Show: WrittenAnswer,
};
