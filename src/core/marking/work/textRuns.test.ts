import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { TextMark } from '../../model/workMark';
import { nextWord, textRuns, wordAt } from './textRuns';

const text = 'The stream sets north at two knots.';
const mark = (is: TextMark['is'], quote: string, words = ''): TextMark => {
  const from = text.indexOf(quote);
  return { is, id: `${is}-${quote}`, from, to: from + quote.length, quote, text: words };
};

describe('marks on a text', () => {
  it('cut it where they begin and end, and lie over one another', () => {
    const { runs } = textRuns(text, [mark('underlined', 'sets north'), mark('struck', 'north at')]);
    expect(runs.map((run) => [run.text, run.marks.map(({ is }) => is)])).toEqual([
      ['The stream ', []],
      ['sets ', ['underlined']],
      ['north', ['underlined', 'struck']],
      [' at', ['struck']],
      [' two knots.', []],
    ]);
  });

  it('insert between letters, also at the ends, and speak in the margin', () => {
    const at = (from: number, words: string): TextMark => ({
      is: 'inserted',
      id: words,
      from,
      to: from,
      quote: '',
      text: words,
    });
    const marked = textRuns(text, [
      at(0, 'First: '),
      at(text.length, ' Why?'),
      mark('words', 'north', 'true?'),
    ]);
    expect(marked.runs.map((run) => [run.inserted.map((each) => each.text), run.text])).toEqual([
      [['First: '], 'The stream sets '],
      [[], 'north'],
      [[], ' at two knots.'],
      [[' Why?'], ''],
    ]);
    expect(marked.margin.map((each) => [each.quote, each.text])).toEqual([['north', 'true?']]);
  });

  it('stand by themselves once the letters are others: nothing is marked that was not meant', () => {
    const late = 'The stream sets south at two knots.';
    const { runs, loose } = textRuns(late, [mark('struck', 'north'), mark('underlined', 'stream')]);
    expect(loose.map(({ quote }) => quote)).toEqual(['north']);
    expect(runs.flatMap((run) => run.marks.map(({ quote }) => quote))).toEqual(['stream']);
  });

  it('whatever is marked, the text stays letter by letter', () => {
    const place = fc.integer({ min: -3, max: 60 });
    const kinds = fc.constantFrom('struck', 'underlined', 'highlighted', 'inserted', 'words' as const);
    fc.assert(
      fc.property(
        fc.string({ maxLength: 40, unit: 'grapheme' }),
        fc.array(fc.tuple(kinds, place, place), { maxLength: 8 }),
        (words, places) => {
          const marks = places.map(([is, from, to], index): TextMark => ({
            is: is as TextMark['is'],
            id: `${index}`,
            from,
            to: is === 'inserted' ? from : to,
            quote: words.slice(from, is === 'inserted' ? from : to),
            text: '',
          }));
          const { runs } = textRuns(words, marks);
          expect(runs.map((run) => run.text).join('')).toBe(words);
        },
      ),
    );
  });

  it('words are found for the keys', () => {
    expect(wordAt(text, 5)).toEqual({ from: 4, to: 10 });
    expect(nextWord(text, 4, 1)).toEqual({ from: 11, to: 15 });
    expect(nextWord(text, 4, -1)).toEqual({ from: 0, to: 3 });
    expect(nextWord(text, 0, -1)).toEqual({ from: 0, to: 3 });
    expect(wordAt('', 0)).toEqual({ from: 0, to: 0 });
  });
});
