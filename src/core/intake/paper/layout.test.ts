import { describe, expect, it } from 'vitest';
import { openQuestion, springChoices, tideChoice } from '../../../../tests/unit/samples';
import { inWords } from '../../basics/pictures';
import type { RichText } from '../../basics/richText';
import { kindOf } from '../../kinds';
import type { PaperContent } from '../../model/paper';
import { laidOut, type PartHead } from './layout';
import { printedParts, printedQuestions } from './paperAttempt';
import { body } from './sheet';

const words = { title: 'T', instructions: '', rule: '', number: 'Number', points: String };
const measure = (text: string, size: number) => text.length * size * 0.18;

const pictured = (text: string, asset: string, width: number, height: number): RichText => ({
  type: 'doc',
  content: [
    { type: 'paragraph', content: [{ type: 'text', text }] },
    { type: 'picture', attrs: { asset, alt: 'A buoy', decoration: false, width, height } },
  ],
});

const texts = (pages: ReturnType<typeof laidOut>) =>
  pages.flatMap(({ drawn }) => drawn.flatMap((each) => (each.as === 'text' ? [each.text] : [])));

describe('a paper laid out', () => {
  if (tideChoice.kind !== 'oneChoice') throw new Error('it is one');
  const question = {
    ...tideChoice,
    stem: pictured('Which buoy?', 'big', 3000, 1500),
    options: tideChoice.options.map((option, at) =>
      at === 0 ? { ...option, text: pictured('This one', 'small', 300, 150) } : option,
    ),
  };
  const given = kindOf(question).forStudent(question, 'A');

  it('has the pictures of its questions and options within the page, and not their words too', () => {
    const pages = laidOut([given], words, measure);
    const pictures = pages.flatMap(({ drawn }) => drawn.filter(({ as }) => as === 'picture'));
    // 3000 × 1500 pixels are shrunk to the width there is; 300 × 150 are 50.8 × 25.4 mm at 150 dots an inch.
    expect(pictures.map((each) => ('h' in each ? [Math.round(each.w), each.h] : []))).toEqual([
      [body.w - 8, (body.w - 8) / 2],
      [51, 25.4],
    ]);
    for (const each of pictures)
      expect(each.x + ('w' in each ? each.w : 0)).toBeLessThanOrEqual(body.x + body.w);
    expect(texts(pages)).not.toContain('A buoy');
    // What comes after a picture stands below it.
    const [a, b] = pages[0]?.regions ?? [];
    expect((b?.y ?? 0) - (a?.y ?? 0)).toBeGreaterThan(25);
  });

  it('in words alone says what its pictures show, and is laid out as before there were pictures', () => {
    const pages = laidOut([inWords(given)], words, measure);
    expect(texts(pages)).toContain('A buoy');
    expect(pages.flatMap(({ drawn }) => drawn).some(({ as }) => as === 'picture')).toBe(false);
  });

  const part = (id: string, newPage: boolean) => ({
    ...{ id, title: `Part ${id}`, instructions: `Read this for ${id}.`, draw: null, shuffle: false, newPage },
  });
  const paper: PaperContent = {
    ...{ title: 'T', instructions: '', parts: [part('one', false), part('two', true)] },
    questions: [
      tideChoice,
      { ...springChoices, partId: 'one' },
      { ...openQuestion, partId: 'two' },
    ] as PaperContent['questions'],
  };

  it('has the heading of each part before its first question, and a new page where the part wants one', () => {
    const order = { seed: 'A', layout: 2 as const };
    const parts: Map<string, PartHead> = printedParts(paper, order);
    const pages = laidOut(printedQuestions(paper, order), { ...words, parts }, measure);
    expect(texts(pages.slice(0, 1))).toEqual(expect.arrayContaining(['Part one', 'Read this for one.']));
    expect(texts(pages.slice(1))).toEqual(expect.arrayContaining(['Part two', 'Read this for two.']));
    const pageOf = (id: string) =>
      pages.findIndex(({ regions }) => regions.some((each) => each.questionId === id));
    expect([tideChoice, springChoices, openQuestion].map(({ id }) => pageOf(id))).toEqual([0, 0, 1]);
  });

  it('of the first prints has no headings: they come out as they were', () => {
    expect(printedParts(paper, { seed: 'A' }).size).toBe(0);
  });
});
