import { Button, Textarea, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { optionLetter } from '@/core/kinds/options';
import type { OpenText, SchemeLine, StudentOpenText } from '@/core/kinds/openText/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import { schemeTotal } from '@/core/marking/schemePoints';
import { points } from '@/ui/format';
import { PointsField } from '@/ui/PointsField';
import type { EditProps, KindView } from '../KindView';
import { TakeOut } from '../text/AcceptedRows';
import { TextAnswer, WrittenAnswer } from '../text/TextAnswer';
import styles from '../edit.module.css';

function Edit({ question, keep }: EditProps<OpenText>) {
  const keepScheme = (scheme: SchemeLine[], said: string, field?: string) =>
    keep({ ...question, scheme }, said, field);
  return (
    <div className={styles.rows}>
      <Textarea
        id="field-modelAnswer"
        label="Model answer"
        autosize
        minRows={2}
        size="sm"
        value={question.modelAnswer}
        onChange={(event) =>
          keep(
            { ...question, modelAnswer: event.currentTarget.value },
            'Model answer worded',
            `model-${question.id}`,
          )
        }
      />
      <div className={styles.rows} id="field-scheme">
        <span className={styles.label}>
          Mark scheme: what to look for, worth {points(schemeTotal(question.scheme))} together (the question
          has {points(question.points)})
        </span>
        {question.scheme.map((line, index) => (
          <SchemeRow
            key={line.id}
            line={line}
            letter={optionLetter(index)}
            change={(next, said, field) =>
              keepScheme(
                question.scheme.map((each) => (each.id === next.id ? next : each)),
                said,
                field,
              )
            }
            remove={() =>
              keepScheme(
                question.scheme.filter((each) => each.id !== line.id),
                `Line ${optionLetter(index)} taken out`,
              )
            }
          />
        ))}
        {question.scheme.length < 26 && (
          <Button
            size="compact-sm"
            className={styles.add}
            onClick={() =>
              keepScheme([...question.scheme, { id: nanoid(12), text: '', points: 1 }], 'Scheme line added')
            }
          >
            One more line
          </Button>
        )}
      </div>
    </div>
  );
}

interface SchemeRowProps {
  line: SchemeLine;
  letter: string;
  change: (line: SchemeLine, said: string, field?: string) => void;
  remove: () => void;
}

function SchemeRow({ line, letter, change, remove }: SchemeRowProps) {
  return (
    <div className={`${styles.row} ${styles.line}`}>
      <span aria-hidden className={styles.letter}>
        {letter}
      </span>
      <TextInput
        id={`field-line-${line.id}`}
        aria-label={`Scheme line ${letter}`}
        size="sm"
        value={line.text}
        onChange={(event) =>
          change({ ...line, text: event.currentTarget.value }, `Line ${letter} worded`, `line-${line.id}`)
        }
      />
      <PointsField
        size="sm"
        label={`Points for line ${letter}`}
        min={-1000}
        value={line.points}
        onPoints={(worth) => {
          if (worth !== null)
            change({ ...line, points: worth }, `Points of line ${letter}`, `line-points-${line.id}`);
        }}
      />
      <TakeOut what={`line ${letter}`} onClick={remove} />
    </div>
  );
}

export const openTextView: KindView<OpenText, StudentOpenText, TextResponse> = {
  Edit,
  Sit: (props) => <TextAnswer {...props} rows={5} />,
  Show: WrittenAnswer,
};
