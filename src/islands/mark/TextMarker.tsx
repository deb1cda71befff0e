import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { nextWord, wordAt } from '@/core/marking/work/textRuns';
import { isLayerMark, textMarks } from '@/core/marking/work/layer';
import type { TextMark, WorkMark, WorkStep } from '@/core/model/workMark';
import { KeyHint } from '@/ui/KeyHint';
import styles from './mark.module.css';

interface TextMarkerProps {
  text: string;
  work: readonly WorkMark[];
  /** Changes the marks; the same where it changes nothing. */
  change: (step: WorkStep, said: string) => void;
  done: () => void;
}

interface Picked {
  from: number;
  to: number;
}

const acts: { is: TextMark['is']; key: string; label: string; said: string; asks: boolean }[] = [
  { is: 'struck', key: 's', label: 'Strike out', said: 'Words struck out', asks: false },
  { is: 'underlined', key: 'u', label: 'Underline', said: 'Words underlined', asks: false },
  { is: 'highlighted', key: 'h', label: 'Highlight', said: 'Words highlighted', asks: false },
  { is: 'inserted', key: 'i', label: 'Insert before', said: 'Words inserted', asks: true },
  { is: 'words', key: 'w', label: 'Words beside', said: 'Words written beside', asks: true },
];

/**
 * Marks on a student's text: words are picked by the arrow keys or by selecting them, and marked by a letter or a button. The
 * text itself stays as it is.
 */
export function TextMarker({ text, work, change, done }: TextMarkerProps) {
  const [picked, setPicked] = useState<Picked>(() => wordAt(text, 0));
  const [asking, setAsking] = useState<TextMark['is'] | null>(null);
  const field = useRef<HTMLDivElement>(null);
  useEffect(() => field.current?.focus(), []);
  const act = (is: TextMark['is'], words = '') => {
    const to = is === 'inserted' ? picked.from : picked.to;
    const mark: TextMark = {
      ...{ id: nanoid(12), is, from: picked.from, to },
      ...{ quote: text.slice(picked.from, to), text: words },
    };
    const same = (other: WorkMark) =>
      !isLayerMark(other) &&
      other.is === is &&
      other.from === mark.from &&
      other.to === mark.to &&
      words === '';
    const { said } = acts.find((each) => each.is === is) ?? { said: '' };
    // The same again takes it away.
    change((before) => (before.some(same) ? before.filter((each) => !same(each)) : [...before, mark]), said);
    setAsking(null);
    field.current?.focus();
  };
  const over = textMarks(work).filter(({ from, to }) => from < picked.to && to >= picked.from);
  const clear = () => {
    const ids = new Set(over.map(({ id }) => id));
    change((before) => before.filter(({ id }) => !ids.has(id)), 'Marks on the text removed');
  };
  const onKey = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : null;
    const chosen = acts.find(({ key }) => key === event.key.toLowerCase());
    if (by !== null) {
      const next = nextWord(text, by === 1 ? picked.to - 1 : picked.from, by);
      setPicked(
        event.shiftKey ? { from: Math.min(picked.from, next.from), to: Math.max(picked.to, next.to) } : next,
      );
    } else if (event.key === 'Escape') done();
    else if (event.key === 'Backspace' || event.key === 'Delete') clear();
    else if (chosen && !event.ctrlKey && !event.metaKey) {
      if (chosen.asks) setAsking(chosen.is);
      else act(chosen.is);
    } else return;
    event.preventDefault();
  };
  const selected = () => {
    const range = field.current && selectedIn(field.current);
    if (range) setPicked({ from: wordAt(text, range.from).from, to: wordAt(text, range.to - 1).to });
  };
  const before = text.slice(0, picked.from);
  return (
    <div className={styles.textMarker} data-own-keys>
      <div
        ref={field}
        role="textbox"
        aria-readonly
        aria-multiline
        tabIndex={0}
        aria-label={`Words to mark: “${text.slice(picked.from, picked.to)}”. Arrow keys pick words.`}
        aria-describedby="text-marker-keys"
        className={styles.pickable}
        onKeyDown={onKey}
        onMouseUp={selected}
      >
        <p className="keepLines">
          {before}
          <span className={styles.picked}>{text.slice(picked.from, picked.to)}</span>
          {text.slice(picked.to)}
        </p>
      </div>
      <p className="visuallyHidden" role="status">
        {text.slice(picked.from, picked.to)}
      </p>
      <div className={styles.pileActs} id="text-marker-keys">
        {acts.map(({ is, key, label, asks }) => (
          <Button key={is} size="compact-sm" onClick={() => (asks ? setAsking(is) : act(is))}>
            {label}&ensp;
            <KeyHint keys={key.toUpperCase()} />
          </Button>
        ))}
        {over.length > 0 && (
          <Button size="compact-sm" onClick={clear}>
            Remove marks here
          </Button>
        )}
        <Button size="compact-sm" onClick={done}>
          Done&ensp;
          <KeyHint keys="Esc" />
        </Button>
      </div>
      {asking && (
        <form
          className={styles.adjust}
          onSubmit={(event) => {
            event.preventDefault();
            const words = String(new FormData(event.currentTarget).get('words') ?? '').trim();
            if (words) act(asking, words);
          }}
        >
          <TextInput
            data-autofocus
            autoFocus
            size="xs"
            name="words"
            maxLength={500}
            className={styles.reason}
            aria-label={asking === 'inserted' ? 'Words to insert' : 'Words to write beside'}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              setAsking(null);
              field.current?.focus();
            }}
          />
          <Button size="compact-sm" type="submit">
            {asking === 'inserted' ? 'Insert' : 'Write'}
          </Button>
        </form>
      )}
    </div>
  );
}

/** What is selected in an element, as counts of the letters of its text; null where nothing is. */
function selectedIn(element: HTMLElement): Picked | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  if (!element.contains(range.commonAncestorContainer)) return null;
  const lead = document.createRange();
  lead.selectNodeContents(element);
  lead.setEnd(range.startContainer, range.startOffset);
  const from = lead.toString().length;
  return { from, to: from + range.toString().length };
}
