import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { withAsciiDigits } from '@/core/digits';
import { numberFrom } from '@/core/kinds/number/numberFrom';
import { asThousands, plainNumber } from '@/core/kinds/number/plainNumber';
import type { StudentNumberQuestion } from '@/core/kinds/number/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
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
      {!disabled && <Doubt text={text} mean={(meant) => respond({ text: meant })} />}
    </div>
  );
}

/** Asks which is meant where a comma or point may set off decimals or thousands. */
function Doubt({ text, mean }: { text: string; mean: (text: string) => void }) {
  const [sure, setSure] = useState('');
  const thousands = asThousands(text);
  const decimal = numberFrom(text);
  if (!thousands || !decimal || sure === text) return null;
  // The digits of the one, and what stands behind them.
  const rest = withAsciiDigits(text).replace(/^\s*[+\-−]?\s*\d+[.,]\d+/, '');
  return (
    <div className={styles.doubt} role="group" aria-label="Which number do you mean?">
      <span>
        In doubt: it counts as {plainNumber(decimal.value)}. Do you mean {plainNumber(decimal.value)} or{' '}
        {plainNumber(thousands.value)}?
      </span>
      <Button onClick={() => setSure(text)}>{plainNumber(decimal.value)}</Button>
      <Button onClick={() => mean(`${thousands.digits}${rest}`)}>{plainNumber(thousands.value)}</Button>
    </div>
  );
}

/** What was understood of a number, in words. */
export function understood(text: string, unitAsked: StudentNumberQuestion['unitAsked']): string {
  if (text.trim() === '') return unitAsked === 'required' ? 'A number with its unit.' : '';
  const written = numberFrom(text);
  if (!written) return 'This cannot be read as a number.';
  const number = plainNumber(written.value);
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
