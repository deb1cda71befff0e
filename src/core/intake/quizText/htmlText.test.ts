// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { quizPaper } from './quizPaper';
import { textOfHtml } from './htmlText';
import { linesFrom } from './signs';

const textOf = (html: string) => textOfHtml(new DOMParser().parseFromString(html, 'text/html').body);
const keysOf = (html: string) => {
  let made = 0;
  const { paper } = quizPaper(linesFrom(textOf(html)), () => `id${++made}`);
  return paper.questions.map((question) =>
    question.kind === 'oneChoice'
      ? [question.stem, question.options.findIndex(({ id }) => id === question.key)]
      : [question.stem, question.kind],
  );
};

describe('a document as text', () => {
  it('has the numbers and letters of nested lists, and the right one is the bold one', () => {
    const html =
      '<ol><li>Which is red?<ol><li>starboard</li><li><strong>port</strong></li></ol></li><li>Which is green?<ul><li><u>starboard</u></li><li>port</li></ul></li></ol>';
    expect(textOf(html)).toBe(
      '1. Which is red?\na) starboard\nb) **port**\n\n2. Which is green?\na) **starboard**\nb) port',
    );
    expect(keysOf(html)).toEqual([
      ['Which is red?', 1],
      ['Which is green?', 0],
    ]);
  });

  it('takes typed numbers with lists of options below them', () => {
    const html =
      '<p>1. Which dries?</p><ol><li>a bank</li><li><b>a drying height</b></li></ol><p>2) Which floats?</p><p>a) <strong>a buoy</strong></p><p>b) a rock</p>';
    expect(keysOf(html)).toEqual([
      ['Which dries?', 1],
      ['Which floats?', 0],
    ]);
  });

  it('goes on counting where a list was broken by a paragraph, and bold words within a text say nothing', () => {
    const html =
      '<h1>Tides</h1><ol><li>What is <b>neap</b>?</li></ol><p>Answer: the small one</p><ol><li>What is spring?</li></ol><p>Answer: the large one</p>';
    expect(textOf(html)).toContain('1. What is neap?');
    expect(keysOf(html)).toEqual([
      ['What is neap?', 'shortText'],
      ['What is spring?', 'shortText'],
    ]);
  });
});
