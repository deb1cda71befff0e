import { Button, NativeSelect, Radio } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { emptyGap } from '@/core/kinds/gaps';
import type { Gap, Gaps } from '@/core/kinds/gaps/schema';
import { points } from '@/words/format';
import edit from '../edit.module.css';
import type { EditProps } from '../KindView';
import { OptionRows } from '../options/OptionRows';
import { workedLine } from '../PartPoints';
import { AcceptedRows, ForgiveChoice, TakeOut } from '../text/AcceptedRows';

/** The text, and what each of its gaps takes. */
export function Edit({ question, keep }: EditProps<Gaps>) {
  const field = useRef<HTMLTextAreaElement>(null);
  const putGap = () => {
    const gap = emptyGap(question, () => nanoid(12));
    const at = field.current?.selectionStart ?? question.text.length;
    const end = field.current?.selectionEnd ?? at;
    // Words that are marked become the first accepted answer of the gap that takes their place.
    const marked = question.text.slice(at, end);
    const [first] = gap.accepted;
    if (marked && first) first.text = marked;
    const text = `${question.text.slice(0, at)}[${gap.number}]${question.text.slice(end)}`;
    keep({ ...question, text, gaps: [...question.gaps, gap] }, `Gap ${gap.number} added`);
  };
  const changeGap = (next: Gap, said: string, name?: string) =>
    keep({ ...question, gaps: question.gaps.map((gap) => (gap.id === next.id ? next : gap)) }, said, name);
  const removeGap = (gap: Gap) =>
    keep(
      {
        ...question,
        text: question.text.replace(`[${gap.number}]`, gap.accepted[0]?.text ?? ''),
        gaps: question.gaps.filter((each) => each.id !== gap.id),
      },
      `Gap ${gap.number} removed`,
    );
  return (
    <div className={edit.rows}>
      <GrowingTextarea
        ref={field}
        id="field-gapText"
        label="The text; [1] is where gap 1 stands"
        minRows={2}
        size="sm"
        value={question.text}
        onChange={(event) =>
          keep(
            { ...question, text: event.currentTarget.value },
            'Text with gaps edited',
            `gaps-${question.id}`,
          )
        }
      />
      <Button size="compact-sm" className={edit.add} onClick={putGap}>
        Add a gap at the cursor, or for the selected words
      </Button>
      {question.gaps.map((gap) => (
        <GapRows
          key={gap.id}
          gap={gap}
          max={question.points / question.gaps.length}
          change={changeGap}
          remove={() => removeGap(gap)}
        />
      ))}
      {question.gaps.some((gap) => gap.filledBy === 'typing') && (
        <ForgiveChoice
          forgive={question.forgive}
          change={(forgive, said) => keep({ ...question, forgive }, said)}
        />
      )}
      {question.gaps.length > 1 && (
        <span className={edit.soft}>
          Each gap is worth {points(Math.round((question.points / question.gaps.length) * 100) / 100)}.{' '}
          {workedLine(question)}
        </span>
      )}
    </div>
  );
}

interface GapRowsProps {
  gap: Gap;
  max: number;
  change: (gap: Gap, said: string, field?: string) => void;
  remove: () => void;
}

function GapRows({ gap, max, change, remove }: GapRowsProps) {
  const name = `Gap ${gap.number}`;
  const fillBy = (value: string) => {
    const filledBy = value === 'picking' ? 'picking' : 'typing';
    const options =
      filledBy === 'picking' && gap.options.length === 0
        ? Array.from({ length: 3 }, (_, index) => ({
            id: nanoid(12),
            text: index === 0 ? (gap.accepted[0]?.text ?? '') : '',
            comment: '',
          }))
        : gap.options;
    const key = gap.key ?? (gap.accepted[0]?.text ? (options[0]?.id ?? null) : null);
    change({ ...gap, filledBy, options, key }, `${name} changed`);
  };
  return (
    <div className={edit.gap} id={`field-gap-${gap.id}`} role="group" aria-label={name}>
      <div className={edit.gapHead}>
        <strong>[{gap.number}]</strong>
        <NativeSelect
          size="xs"
          aria-label={`${name} is filled by`}
          value={gap.filledBy}
          data={[
            { value: 'typing', label: 'typing' },
            { value: 'picking', label: 'choosing from a list' },
          ]}
          onChange={(event) => fillBy(event.currentTarget.value)}
        />
        <TakeOut what={name.toLowerCase()} onClick={remove} />
      </div>
      {gap.filledBy === 'typing' ? (
        <AcceptedRows
          accepted={gap.accepted}
          max={max}
          prefix={`${name}, `}
          keep={(accepted, said, field) => change({ ...gap, accepted }, said, field)}
        />
      ) : (
        <OptionRows
          options={gap.options}
          prefix={`${name}, `}
          keep={(options, said, field) =>
            change(
              { ...gap, options, key: options.some((option) => option.id === gap.key) ? gap.key : null },
              said,
              field,
            )
          }
          keyControl={(option, letter) => (
            <Radio
              name={`key-${gap.id}`}
              aria-label={`${name}: ${letter} is right`}
              checked={gap.key === option.id}
              onChange={() => change({ ...gap, key: option.id }, `${name}: key changed to ${letter}`)}
            />
          )}
        />
      )}
    </div>
  );
}
