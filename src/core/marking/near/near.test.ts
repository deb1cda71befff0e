import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { openText } from '../../kinds/openText';
import { differences } from './differences';
import { languageOf } from './language';
import { nearPiles } from './piles';

const Questions = z
  .object({ language: z.string(), question: z.string(), answers: z.tuple([z.string(), z.string()]).array() })
  .array();
// From memory: answers made up and labelled for this test; those with one label would get the same mark.
const labelled = z
  .object({ questions: Questions, heldBack: Questions })
  .parse(JSON.parse(readFileSync('tests/reference/near-answers.json', 'utf8')));

/** Of the pairs put together, the share that belongs together; and of different answers the share of piles that is left. */
function measured(questions: z.infer<typeof Questions>) {
  let [right, together, piles, different] = [0, 0, 0, 0];
  for (const { language, answers } of questions) {
    const question = openText.empty(() => 'q');
    const once = new Map(
      answers.map(([label, text]) => [openText.sameAs(question, { text }), { label, text }]),
    );
    const all = [...once.values()];
    different += all.length;
    for (const pile of nearPiles(
      all.map(({ text }) => text),
      language,
    )) {
      piles++;
      for (const a of pile)
        for (const b of pile)
          if (a < b) {
            together++;
            if (all[a]?.label === all[b]?.label) right++;
          }
    }
  }
  return { right: right / together, left: piles / different, different };
}

describe('near answers', () => {
  it('on a labelled set of 330 answers to nine questions in four languages: who is together belongs together', () => {
    const { right, left, different } = measured(labelled.questions);
    expect(different).toBeGreaterThan(300);
    expect(right).toBeGreaterThanOrEqual(0.97);
    expect(left).toBeLessThanOrEqual(0.6);
  });

  it('and on 106 that were written after the rules were made', () => {
    const { right, left } = measured(labelled.heldBack);
    expect(right).toBeGreaterThanOrEqual(0.97);
    expect(left).toBeLessThanOrEqual(0.6);
  });

  const together = (language: string, a: string, b: string) => nearPiles([a, b], language).length === 1;

  it.each([
    ['en', 'It does float', 'It does not float'],
    ['en', "The axis isn't tilted", 'The axis is tilted'],
    ['de', 'Das Wasser gefriert', 'Das Wasser gefriert nicht'],
    ['de', 'Es gibt Licht', 'Es gibt kein Licht'],
    ['fr', 'La glace fond', 'La glace ne fond pas'],
    ['es', 'Tiene aire', 'No tiene aire'],
    ['en', 'It takes 12 minutes', 'It takes 21 minutes'],
    ['en', 'It is 18 km away', 'It is 18 nm away'],
    ['en', 'Three of them are red', 'Four of them are red'],
    ['en', 'Turn to port', 'Turn to starboard'],
    ['en', 'Pressure rises quickly', 'Pressure falls quickly'],
    ['en', 'The ship heels because the cargo shifts', 'The cargo shifts because the ship heels'],
    ['en', 'The tide turns before the wind drops', 'The wind drops before the tide turns'],
    ['en', 'Copper is harder than tin', 'Tin is harder than copper'],
    ['fr', 'La Terre tourne autour du Soleil', 'Le Soleil tourne autour de la Terre'],
  ])('%s: “%s” and “%s” stay apart', (language, a, b) => expect(together(language, a, b)).toBe(false));

  it.each([
    ['en', 'Metal expands when heated', 'the metals expand when they are heated'],
    ['en', 'Metal expands when heated', 'Metal exapnds when heated'],
    ['de', 'Blaues Licht wird stärker gestreut', 'weil das blaue Licht stärker gestreut wird'],
    ['fr', 'Le sel fait fondre la glace', 'parce que le sel fait fondre la glace'],
    // A language without lists: words, numbers and letters alone.
    ['fi', 'Vesi jäätyy talvella', 'vesi jäätyy talvella!'],
  ])('%s: “%s” and “%s” lie together', (language, a, b) => expect(together(language, a, b)).toBe(true));

  it('each answer lies in exactly one pile, whatever is written', () => {
    const words = fc.array(
      fc.constantFrom('ebb', 'flood', 'not', '12', 'nm', 'before', 'streams', 'stream', '—', '🙂'),
    );
    const answers = fc.array(
      fc.oneof(
        fc.string({ unit: 'binary' }),
        words.map((some) => some.join(' ')),
      ),
      { maxLength: 25 },
    );
    fc.assert(
      fc.property(
        answers,
        fc.constantFrom('en', 'de', 'fr', 'xx', ''),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (all, language, threshold) => {
          const piles = nearPiles(all, language, threshold);
          expect(piles.flat().sort((a, b) => a - b)).toEqual(all.map((_, place) => place));
        },
      ),
    );
  });

  it('a higher threshold never puts more together', () => {
    const [first] = labelled.questions;
    const texts = first?.answers.map(([, text]) => text) ?? [];
    const counts = [0.4, 0.6, 0.8, 1].map((threshold) => nearPiles(texts, 'en', threshold).length);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
  });

  it('the language is told by its little words', () => {
    for (const { language, answers } of [...labelled.questions, ...labelled.heldBack])
      expect(
        languageOf(
          answers.map(([, text]) => text),
          'xx',
        ),
      ).toBe(language);
    expect(languageOf(['42', '…'], 'de')).toBe('de');
  });

  it('what differs is said word by word', () => {
    expect(differences('the blue light', 'The red light')).toEqual([
      { text: 'The ', is: 'same' },
      { text: 'blue', is: 'leftOut' },
      { text: 'red', is: 'putIn' },
      { text: ' light', is: 'same' },
    ]);
  });
});
