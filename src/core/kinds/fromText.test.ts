import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blanks,
  lightColours,
  plottedCourse,
  samples,
  sides,
  springChoices,
  sternLight,
  streamGaps,
  tideChoice,
  tideOrder,
} from '../../../tests/unit/samples';
import { chanceFrom } from '../basics/chance';
import { kindNames, kindOf, type Question } from '.';
import { meant, meantSeveral } from './meant';

/** The words of the answer that was understood; null where none was. */
function understood(question: Question, text: string): string | null {
  const kind = kindOf(question);
  const response = kind.fromText(question, text);
  return response && kind.asText(question, response);
}

describe('an answer that someone wrote', () => {
  it.each(kindNames.filter((name) => name !== 'file'))(
    '%s: what an answer says in words is read as that answer',
    (name) => {
      const question = samples[name];
      const kind = kindOf(question);
      fc.assert(
        fc.property(fc.integer(), (seed) => {
          const answer = kind.guess(question, chanceFrom(seed));
          const text = kind.asText(question, answer);
          if (!text.trim()) return;
          const again = kind.fromText(question, text);
          expect(again).not.toBeNull();
          expect(kind.sameAs(question, again ?? blanks[name])).toBe(kind.sameAs(question, answer));
          expect(kind.responseSchema.safeParse(again).success).toBe(true);
        }),
        { numRuns: 30 },
      );
    },
  );

  it('one choice: by words, letter or number; another word is none', () => {
    for (const text of ['3/12', ' 3/12 ', 'B', 'b)', '2', 'B  3/12'])
      expect(understood(tideChoice, text)).toBe('B  3/12');
    for (const text of ['4/12', 'D', '9', 'A  3/12']) expect(understood(tideChoice, text)).toBeNull();
  });

  it('options that are numbers are meant by their words alone', () => {
    const options = ['4', '5', '1'].map((text) => ({ id: text, text }));
    expect(meant(options, '1')?.id).toBe('1');
    expect(meant(options, '3')).toBeUndefined();
  });

  it('several choices: separators may stand in an option too; letters may stand together', () => {
    const options = ['fog, thick', 'gale', 'swell'].map((text) => ({ id: text, text }));
    const ids = (text: string) => meantSeveral(options, text)?.map(({ id }) => id) ?? null;
    expect(ids('gale, fog, thick')).toEqual(['gale', 'fog, thick']);
    expect(ids('A; C')).toEqual(['fog, thick', 'swell']);
    expect(ids('AC')).toEqual(['fog, thick', 'swell']);
    expect(ids('gale;;')).toEqual(['gale']);
    expect(ids('gale, gale')).toBeNull();
    expect(ids('gale, mist')).toBeNull();
    expect(kindOf(springChoices).fromText(springChoices, 'nothing of it')).toBeNull();
  });

  it('true or false in the words of a form', () => {
    for (const text of ['TRUE', 'yes', 't', '1']) expect(understood(sternLight, text)).toBe('True');
    for (const text of ['False', 'no', '0']) expect(understood(sternLight, text)).toBe('False');
    expect(understood(sternLight, 'perhaps')).toBeNull();
  });

  it('pairs with an arrow, an equals sign, or the targets alone in order', () => {
    for (const question of [lightColours, sides]) {
      const kind = kindOf(question);
      const right = kind.rightAnswer(question);
      if (!right) throw new Error('it has a key');
      const text = kind.asText(question, right);
      expect(understood(question, text.replaceAll('→', '='))).toBe(text);
      const targets = text.split('; ').map((pair) => pair.split(' → ')[1]);
      if (question === lightColours) expect(understood(question, targets.join('; '))).toBe(text);
      expect(understood(question, 'nothing → nowhere')).toBeNull();
    }
  });

  it('an order by its items, numbered or not; a stranger among them is none', () => {
    const kind = kindOf(tideOrder);
    const text = kind.keyText(tideOrder);
    expect(understood(tideOrder, text.replace(/\d+ /g, '').replaceAll('; ', ' > '))).toBe(text);
    expect(understood(tideOrder, `${text}; noon`)).toBeNull();
  });

  it('gaps one after another; more than there are is no answer', () => {
    expect(understood(streamGaps, Array.from({ length: 9 }, () => 'x').join(';'))).toBeNull();
    expect(understood(plottedCourse, 'because of the set')).toBe('because of the set');
  });
});
