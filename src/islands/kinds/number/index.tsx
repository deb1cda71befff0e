import { TextInput } from '@mantine/core';
import { numberFrom } from '@/core/kinds/number/numberFrom';
import type { StudentNumberQuestion } from '@/core/kinds/number/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import { exactNumber } from '@/ui/format';
import { PrintedLines } from '../printed';
import type { KindView, SitProps } from '../KindView';
import styles from '../sit.module.css';
import { WrittenAnswer } from '../text/TextAnswer';

function Sit({
  question,
  response,
  respond,
  labelledBy,
  disabled,
}: SitProps<StudentNumberQuestion, TextResponse>) {
  const text = response?.text ?? '';
  const id = `understood-${question.id}`;
  return (
    <div>
      <TextInput
        aria-labelledby={labelledBy}
        aria-describedby={id}
        size="md"
        maw="20rem"
        autoComplete="off"
        maxLength={200}
        disabled={disabled ?? false}
        value={text}
        onChange={(event) => respond({ text: event.currentTarget.value })}
      />
      <p id={id} className={styles.understood} aria-live="polite">
        {understood(text, question.unitAsked)}
      </p>
    </div>
  );
}

/** What was understood of a number, in words. */
export function understood(text: string, unitAsked: StudentNumberQuestion['unitAsked']): string {
  if (text.trim() === '') return unitAsked === 'required' ? 'A number with its unit.' : '';
  const written = numberFrom(text);
  if (!written) return 'This cannot be read as a number.';
  const number = exactNumber(written.value);
  if (unitAsked === 'none' && written.unit)
    return `Understood: ${number}, and “${written.unit}” behind it. No unit is asked for.`;
  if (unitAsked === 'required' && !written.unit) return `Understood: ${number}. The unit is missing.`;
  return `Understood: ${number}${written.unit && ` ${written.unit}`}`;
}

export const numberView: KindView<StudentNumberQuestion, TextResponse> = {
  Sit,
  Show: WrittenAnswer,
  Printed: ({ room }) => <PrintedLines count={room ? 1 : 0} />,
};
