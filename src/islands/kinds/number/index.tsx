import { useRef, useState } from 'react';
import { numberFrom } from '@/core/kinds/number/numberFrom';
import { asThousands, plainNumber } from '@/core/kinds/number/plainNumber';
import type { StudentNumberQuestion } from '@/core/kinds/number/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import { Button } from '@/ui/plain/Button';
import { TextInput } from '@/ui/plain/fields';
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
  const field = useRef<HTMLInputElement>(null);
  return (
    <div>
      <TextInput
        ref={field}
        aria-labelledby={labelledBy}
        aria-describedby={id}
        style={{ maxWidth: '20rem' }}
        autoComplete="off"
        maxLength={200}
        disabled={disabled ?? false}
        value={text}
        onChange={(event) => respond({ text: event.currentTarget.value })}
      />
      <p id={id} className={styles.understood} aria-live="polite">
        {understood(text, question.unitAsked)}
      </p>
      {!disabled && (
        <Doubt
          text={text}
          mean={(meant) => {
            if (meant !== text) respond({ text: meant });
            field.current?.focus();
          }}
        />
      )}
    </div>
  );
}

/**
 * Asks which is meant where a comma or point may set off decimals or thousands.
 *
 * @param props.mean takes the text that is meant, the same or another; the buttons go with it
 */
function Doubt({ text, mean }: { text: string; mean: (text: string) => void }) {
  const [sure, setSure] = useState('');
  const thousands = asThousands(text);
  const decimal = numberFrom(text);
  if (!thousands || !decimal || sure === text) return null;
  const [asDecimal, asWhole] = [plainNumber(decimal.value), plainNumber(thousands.value)];
  return (
    <div className={styles.doubt} role="group" aria-label="Which number did you mean?">
      <span>
        Ambiguous: counted as {asDecimal}. Did you mean {asDecimal} or {asWhole}?
      </span>
      <Button
        onClick={() => {
          setSure(text);
          mean(text);
        }}
      >
        {asDecimal}
      </Button>
      <Button onClick={() => mean(thousands.text)}>{asWhole}</Button>
    </div>
  );
}

/** What was understood of a number, in words. */
export function understood(text: string, unitAsked: StudentNumberQuestion['unitAsked']): string {
  if (text.trim() === '') return unitAsked === 'required' ? 'A number with its unit.' : '';
  const written = numberFrom(text);
  if (!written) return 'This can’t be read as a number.';
  const number = plainNumber(written.value);
  if (unitAsked === 'none' && written.unit)
    return `Read as ${number}, with “${written.unit}” after it. No unit is needed.`;
  if (unitAsked === 'required' && !written.unit) return `Read as ${number}. The unit is missing.`;
  return `Read as ${number}${written.unit && ` ${written.unit}`}`;
}

export const numberView: KindView<StudentNumberQuestion, TextResponse> = {
  Sit,
  Show: WrittenAnswer,
};
