import { ActionIcon, Button, Checkbox } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { IconMathFunction, IconMessage, IconPin, IconPinFilled, IconX } from '@/ui/icons';
import { nanoid } from 'nanoid';
import { useState, type ReactNode } from 'react';
import type { Option } from '@/core/kinds/options';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { RichText } from '@/core/basics/richText';
import { RichField } from '@/desk/RichField';
import styles from './OptionRows.module.css';

interface OptionRowsProps {
  options: Option[];
  /** The control that makes an option right. */
  keyControl: (option: Option, letter: string) => ReactNode;
  keep: (options: Option[], said: string, field?: string) => void;
  /** Goes before the names of the fields where there are several such lists: "Gap 1, ". */
  prefix?: string;
  /** Whether the options can be shuffled; null where they cannot. */
  shuffle?: { on: boolean; change: (on: boolean) => void } | null;
}

/** The options of a choice question: each with its letter, whether it is right, its text and its comment. */
export function OptionRows({ options, keyControl, keep, prefix = '', shuffle = null }: OptionRowsProps) {
  const change = (option: Option, said: string, field?: string) =>
    keep(
      options.map((each) => (each.id === option.id ? option : each)),
      said,
      field,
    );
  const add = () => {
    const made = { id: nanoid(12), text: '', comment: '' };
    keep([...options, made], 'Option added');
    focusOption(made.id);
  };
  /** Enter goes on to the next option, and begins one after the last. */
  const next = (index: number) => {
    const following = options[index + 1];
    if (following) focusOption(following.id);
    else if (options[index]?.text !== '') add();
  };
  return (
    <div className={styles.options} id="field-options">
      <span className={styles.hint}>
        Tick the right answer{shuffle && ' (or Alt 1, Alt 2…)'}. Enter adds the next option.
      </span>
      {options.map((option, index) => (
        <OptionRow
          key={option.id}
          option={option}
          letter={optionLetter(index)}
          name={`${prefix}${prefix ? 'option' : 'Option'} ${optionLetter(index)}`}
          pinnable={shuffle?.on ?? false}
          marking={prefix === ''}
          keyControl={keyControl(option, optionLetter(index))}
          change={change}
          next={() => next(index)}
          remove={() =>
            keep(
              options.filter((each) => each.id !== option.id),
              `Option ${optionLetter(index)} removed`,
            )
          }
        />
      ))}
      <Button size="compact-sm" onClick={add} className={styles.add}>
        Add an option
      </Button>
      {shuffle && (
        <Checkbox
          size="sm"
          className={styles.shuffle}
          label="Each student gets them in an order of their own; a pinned option keeps its place"
          checked={shuffle.on}
          onChange={(event) => shuffle.change(event.currentTarget.checked)}
        />
      )}
    </div>
  );
}

/** Puts the cursor into an option, as soon as it is on the page. */
function focusOption(id: string): void {
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      const field = document.getElementById(`field-option-${id}`);
      const typable = field?.matches('textarea')
        ? field
        : field?.querySelector<HTMLElement>('[contenteditable]');
      typable?.focus();
    }),
  );
}

interface OptionRowProps {
  option: Option;
  letter: string;
  name: string;
  pinnable: boolean;
  /** Whether its text may have markup. */
  marking: boolean;
  keyControl: ReactNode;
  change: (option: Option, said: string, field?: string) => void;
  next: () => void;
  remove: () => void;
}

function OptionRow(props: OptionRowProps) {
  const { option, letter, name, pinnable, marking, keyControl, change, next, remove } = props;
  const [commenting, setCommenting] = useState(option.comment !== '');
  // Most options are a few plain words; markup, maths and pictures come with a press.
  const [marked, setMarked] = useState(typeof option.text !== 'string');
  const word = (text: RichText) =>
    change({ ...option, text }, `Option ${letter} edited`, `option-${option.id}`);
  return (
    <div className={styles.option}>
      {keyControl}
      <span aria-hidden className={styles.letter}>
        {letter}
      </span>
      <div className={styles.texts}>
        {marked || typeof option.text !== 'string' ? (
          <RichField id={`field-option-${option.id}`} label={name} low value={option.text} change={word} />
        ) : (
          <GrowingTextarea
            id={`field-option-${option.id}`}
            aria-label={name}
            size="sm"
            value={option.text}
            onChange={(event) => word(event.currentTarget.value)}
            onKeyDown={(event) => {
              const plain = !event.shiftKey && !event.ctrlKey && !event.metaKey && !event.altKey;
              if (event.key !== 'Enter' || !plain || event.nativeEvent.isComposing) return;
              event.preventDefault();
              next();
            }}
          />
        )}
        {commenting && (
          <GrowingTextarea
            aria-label={`Comment for students who choose ${letter}`}
            placeholder={`Shown to students who choose ${letter}`}
            size="xs"
            value={option.comment}
            onChange={(event) =>
              change(
                { ...option, comment: event.currentTarget.value },
                `Comment on option ${letter}`,
                `comment-${option.id}`,
              )
            }
          />
        )}
      </div>
      {pinnable && (
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={`Keep ${name} in place when shuffling`}
          aria-pressed={option.pinned ?? false}
          onClick={() =>
            change(
              { ...option, pinned: !option.pinned },
              option.pinned ? `${name} unpinned` : `${name} pinned`,
            )
          }
        >
          {option.pinned ? <IconPinFilled size={16} /> : <IconPin size={16} />}
        </ActionIcon>
      )}
      {marking && !marked && (
        <ActionIcon
          variant="subtle"
          color="gray"
          title="Markup, maths or a picture"
          aria-label={`Markup, maths or a picture in ${name.replace('Option', 'option')}`}
          onClick={() => setMarked(true)}
        >
          <IconMathFunction size={16} />
        </ActionIcon>
      )}
      <ActionIcon
        variant="subtle"
        color="gray"
        aria-label={`Comment on ${name.replace('Option', 'option')}`}
        aria-pressed={commenting}
        onClick={() => setCommenting(!commenting)}
      >
        <IconMessage size={16} />
      </ActionIcon>
      <ActionIcon
        variant="subtle"
        color="gray"
        aria-label={`Remove ${name.replace('Option', 'option')}`}
        onClick={remove}
      >
        <IconX size={16} />
      </ActionIcon>
    </div>
  );
}
