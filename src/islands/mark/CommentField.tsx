import { Combobox, useCombobox } from '@mantine/core';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { fewestLetters, foundComments, type OfferedComment } from '@/core/marking/commentBank';
import { counted, points } from '@/words/format';
import { useAnew } from '@/ui/useAnew';
import { KeptTextarea } from '@/ui/KeptTextarea';
import styles from './mark.module.css';

interface CommentFieldProps {
  label: string;
  placeholder: string;
  value: string;
  /** The answers it is for, and how many they are. */
  about: string;
  answers: number;
  keep: (text: string) => void;
  /** The comments that can be used again; asked for once something is typed. */
  offered: () => readonly OfferedComment[];
  /** A comment of the bank was chosen: what it gives or takes off goes with it. */
  chosen?: (comment: OfferedComment) => void;
  /** Where the focus goes by Enter or Escape. */
  done?: () => void;
}

/** So many comments are shown at once. */
const mostShown = 6;

/** A comment, with those of the bank that begin like what is typed. */
export const CommentField = memo(function CommentField({
  label,
  placeholder,
  value,
  about,
  answers,
  keep,
  offered,
  chosen,
  done,
}: CommentFieldProps) {
  const combobox = useCombobox({ onDropdownClose: () => combobox.resetSelectedOption() });
  const [typed, setTyped] = useState('');
  /** Put away until something else is typed. */
  const [closed, setClosed] = useState(true);
  useAnew(about, () => {
    setTyped('');
    setClosed(true);
  });
  const replacing = useRef<((text: string) => void) | null>(null);
  // What is typed is looked for again when comments come in while the list is open.
  const found = useMemo(
    () =>
      typed.trim().length < fewestLetters
        ? []
        : foundComments(typed, offered(), { text: value, answers }).slice(0, mostShown),
    [typed, offered, value, answers],
  );
  const look = (next: string) => {
    setTyped(next);
    setClosed(false);
  };
  const show = found.length > 0 && !closed;
  const { openDropdown, closeDropdown } = combobox;
  useEffect(() => {
    if (show) openDropdown();
    else closeDropdown();
  }, [show, openDropdown, closeDropdown]);
  const take = (text: string) => {
    const comment = found.find((each) => each.text === text);
    replacing.current?.(text);
    setTyped('');
    if (comment) chosen?.(comment);
  };
  return (
    <Combobox store={combobox} onOptionSubmit={take} position="bottom-start" width="target">
      <Combobox.Target targetType="input">
        <KeptTextarea
          size="xs"
          aria-label={label}
          placeholder={placeholder}
          value={value}
          about={about}
          onKeep={keep}
          onTyping={look}
          replacing={replacing}
          onBlur={() => setClosed(true)}
          onKeyDown={(event) => {
            const choosing = show && combobox.getSelectedOptionIndex() >= 0;
            if (event.key === 'Escape' && show) {
              event.preventDefault();
              event.stopPropagation();
              setClosed(true);
            } else if (
              (event.key === 'Escape' || (event.key === 'Enter' && !event.shiftKey && !choosing)) &&
              done
            ) {
              event.preventDefault();
              done();
            }
          }}
        />
      </Combobox.Target>
      <Combobox.Dropdown hidden={found.length === 0}>
        <Combobox.Options aria-label="Comments used before" className={styles.bank}>
          {found.map((comment) => (
            <Combobox.Option key={comment.text} value={comment.text}>
              {comment.code && <strong>{comment.code} </strong>}
              {comment.text}
              <span className={styles.soft}> {usesWords(comment)}</span>
            </Combobox.Option>
          ))}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
});

/** "−0.5, used 12 times here, 3 times at other questions". */
export function usesWords({ points: worth, uses, usesElsewhere }: OfferedComment): string {
  const parts = [
    ...(worth === null || worth === 0 ? [] : [`${worth > 0 ? '+' : '−'}${points(Math.abs(worth))}`]),
    ...(uses > 0 ? [`used ${counted(uses, 'time')} here`] : []),
    ...(usesElsewhere > 0 ? [`${counted(usesElsewhere, 'time')} at other questions`] : []),
  ];
  return parts.join(', ');
}
