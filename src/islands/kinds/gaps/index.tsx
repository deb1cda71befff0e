import { Fragment } from 'react';
import { plainText } from '@/core/basics/richWords';
import { fillingText } from '@/core/kinds/gaps/gapText';
import { segmentsOf } from '@/core/kinds/gaps/gapText';
import type { GapsResponse, StudentGap, StudentGaps } from '@/core/kinds/gaps/schema';
import { NativeSelect, TextInput } from '@/ui/plain/fields';
import type { KindView, ShowProps, SitProps } from '../KindView';
import styles from '../sit.module.css';

function Sit({ question, response, respond, labelledBy, disabled }: SitProps<StudentGaps, GapsResponse>) {
  const filled = response?.gaps ?? {};
  const fill = (gap: StudentGap, text: string) => respond({ gaps: { ...filled, [gap.id]: text } });
  return (
    <div role="group" aria-labelledby={labelledBy} className={`keepLines ${styles.gapText}`}>
      {segmentsOf(question.text, question.gaps).map((segment, index) =>
        'text' in segment ? (
          <Fragment key={index}>{segment.text}</Fragment>
        ) : segment.gap.options ? (
          <NativeSelect
            key={index}
            className={styles.gap ?? ''}
            aria-label={`Gap ${segment.gap.number}`}
            disabled={disabled ?? false}
            value={filled[segment.gap.id] ?? ''}
            data={[
              { value: '', label: 'choose' },
              ...segment.gap.options.map(({ id, text }) => ({ value: id, label: plainText(text) })),
            ]}
            onChange={(event) => fill(segment.gap, event.currentTarget.value)}
          />
        ) : (
          <TextInput
            key={index}
            className={styles.gap ?? ''}
            aria-label={`Gap ${segment.gap.number}`}
            autoComplete="off"
            maxLength={2000}
            disabled={disabled ?? false}
            value={filled[segment.gap.id] ?? ''}
            onChange={(event) => fill(segment.gap, event.currentTarget.value)}
          />
        ),
      )}
    </div>
  );
}

function Show({ question, response }: ShowProps<StudentGaps, GapsResponse>) {
  return (
    <p className={`keepLines ${styles.gapText}`}>
      {segmentsOf(question.text, question.gaps).map((segment, index) => {
        if ('text' in segment) return <Fragment key={index}>{segment.text}</Fragment>;
        const filling = response?.gaps[segment.gap.id]?.trim() ?? '';
        const words = fillingText(segment.gap, filling);
        return (
          <span key={index} className={words ? styles.filled : styles.empty}>
            {words || 'not answered'}
          </span>
        );
      })}
    </p>
  );
}

export const gapsView: KindView<StudentGaps, GapsResponse> = { Sit, Show };
