import type { TextMark, WorkMark } from '../../model/workMark';
import { textMarks } from './layer';

/** A run of a text with the marks that lie over all of it, and what is inserted before it. */
export interface TextRun {
  text: string;
  marks: TextMark[];
  inserted: TextMark[];
}

export interface MarkedText {
  runs: TextRun[];
  /** Words in the margin, in the order of the places they are about. */
  margin: TextMark[];
  /** Marks whose letters are no longer there. */
  loose: TextMark[];
}

/** Whether a mark's letters stand where it was made. */
const holds = (text: string, { from, to, quote }: TextMark) =>
  from >= 0 && from <= to && to <= text.length && text.slice(from, to) === quote;

/**
 * A text cut where marks begin and end. The runs together are the text itself, letter by letter.
 *
 * @param work marks in any order; those on other than text are left out
 */
export function textRuns(text: string, work: readonly WorkMark[]): MarkedText {
  const marks = textMarks(work);
  const held = marks.filter((mark) => holds(text, mark)).sort((a, b) => a.from - b.from || a.to - b.to);
  const cuts = [...new Set([0, text.length, ...held.flatMap(({ from, to }) => [from, to])])].sort(
    (a, b) => a - b,
  );
  const inserted = held.filter(({ is }) => is === 'inserted');
  const over = held.filter(({ is }) => is !== 'inserted');
  const runs = cuts.map((from, at): TextRun => {
    const to = cuts[at + 1] ?? from;
    return {
      text: text.slice(from, to),
      marks: over.filter((mark) => mark.from < to && mark.to > from),
      inserted: inserted.filter((mark) => mark.from === from),
    };
  });
  return {
    runs: runs.filter((run) => run.text !== '' || run.inserted.length > 0),
    margin: held.filter(({ is }) => is === 'words'),
    loose: marks.filter((mark) => !holds(text, mark)),
  };
}

/** The word at a place of a text: from where to where. Between words, the one behind. */
export function wordAt(text: string, place: number): { from: number; to: number } {
  const words = [...text.matchAll(/[\p{L}\p{N}\p{M}'’.,:°%-]+/gu)];
  const word = words.find(({ index, 0: found }) => place < index + found.length) ?? words.at(-1) ?? null;
  return word ? { from: word.index, to: word.index + word[0].length } : { from: 0, to: 0 };
}

/** The word before or behind, for moving over a text by keys. */
export function nextWord(text: string, place: number, by: 1 | -1): { from: number; to: number } {
  const { from, to } = wordAt(text, place);
  if (by === 1) return wordAt(text, to);
  const before = [...text.slice(0, from).matchAll(/[\p{L}\p{N}\p{M}'’.,:°%-]+/gu)].at(-1);
  return before ? { from: before.index, to: before.index + before[0].length } : { from, to };
}
