import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runDistance } from '../../../tests/unit/samples';
import { itemsOf } from '../kinds/items';
import type { Question } from '../kinds';
import { RichDoc, RichText, type RichNode } from './richText';
import { isEmptyRich, picturesWithoutText, plainText, richDoc, simplest } from './richWords';

const text = (words: string, ...marks: RichNode['marks'] & object): RichNode => ({
  type: 'text',
  text: words,
  ...(marks.length > 0 && { marks }),
});
const paragraph = (...content: RichNode[]): RichNode => ({ type: 'paragraph', content });
const doc = (...content: RichNode[]): RichDoc => ({ type: 'doc', content });

describe('pictures in a text', () => {
  const picture = (alt: string, decoration = false): RichNode => ({
    type: 'picture',
    attrs: { asset: 'a', alt, decoration, width: 4, height: 3 },
  });

  it('a text with a picture alone is not empty, and reads as its words', () => {
    expect(isEmptyRich(doc(picture('')))).toBe(false);
    expect(plainText(doc(paragraph(text('See')), picture('a red can')))).toBe('See\na red can');
    expect(simplest(doc(picture('a red can')))).toEqual(doc(picture('a red can')));
  });

  it('those that lack words are counted, in lists and tables too', () => {
    const item: RichNode = { type: 'listItem', content: [picture(' '), picture('', true), picture('x')] };
    expect(picturesWithoutText(doc(picture(''), { type: 'bulletList', content: [item] }))).toBe(2);
    expect(picturesWithoutText('words')).toBe(0);
  });

  it('sizes that no picture has are refused', () => {
    const sized = (width: number) => doc({ type: 'picture', attrs: { asset: 'a', width, height: 3 } });
    expect(RichDoc.safeParse(sized(4)).success).toBe(true);
    for (const width of [0, -1, 1e9, 1.5]) expect(RichDoc.safeParse(sized(width)).success).toBe(false);
  });
});

const rule = doc(
  paragraph(text('The '), text('rule of twelfths', { type: 'bold' }), text(' says '), {
    type: 'inlineMath',
    attrs: { latex: '\\tfrac{3}{12}' },
  }),
  {
    type: 'bulletList',
    content: [
      { type: 'listItem', content: [paragraph(text('third hour'))] },
      { type: 'listItem', content: [paragraph(text('fourth hour'))] },
    ],
  },
  {
    type: 'table',
    content: [
      {
        type: 'tableRow',
        content: [
          { type: 'tableHeader', attrs: { colspan: 1 }, content: [paragraph(text('hour'))] },
          { type: 'tableCell', content: [paragraph(text('1/12'))] },
        ],
      },
    ],
  },
);

describe('text with markup', () => {
  it('reads as its words', () => {
    expect(plainText(rule)).toBe(
      'The rule of twelfths says \\tfrac{3}{12}\nthird hour\nfourth hour\nhour\t1/12',
    );
    expect(plainText('as it is')).toBe('as it is');
  });

  it('is kept as it was', () => {
    expect(RichText.parse(JSON.parse(JSON.stringify(rule)))).toEqual(rule);
    expect(simplest(rule)).toEqual(rule);
  });

  it('what has no markup is kept as plain text, and comes back the same', () => {
    fc.assert(
      fc.property(fc.string(), (words) => {
        const lines = words.replaceAll('\r', '');
        expect(simplest(richDoc(lines))).toBe(lines);
        expect(RichDoc.safeParse(richDoc(lines)).success).toBe(true);
      }),
    );
  });

  it('a line broken by hand is a line', () => {
    expect(simplest(doc(paragraph(text('one'), { type: 'hardBreak' }, text('two'))))).toBe('one\ntwo');
  });

  it('is empty when there is nothing to read, not when there is only maths', () => {
    expect(isEmptyRich(doc(paragraph()))).toBe(true);
    expect(isEmptyRich(' ')).toBe(true);
    expect(isEmptyRich(doc({ type: 'blockMath', attrs: { latex: 'v = d/t' } }))).toBe(false);
  });
});

describe('text from outside', () => {
  const refused = (value: unknown) => expect(RichText.safeParse(value).success).toBe(false);

  it('nodes, marks and addresses that are not known are refused', () => {
    refused(doc({ type: 'script', content: [text('alert(1)')] } as never));
    refused(doc(paragraph(text('x', { type: 'onclick' } as never))));
    for (const href of ['javascript:alert(1)', 'data:text/html,<b>', 'file:///etc/passwd', 'vbscript:x'])
      refused(doc(paragraph(text('x', { type: 'link', attrs: { href } }))));
    refused({ type: 'doc', content: 'x' });
  });

  it('attributes that are not known are dropped', () => {
    const dirty = doc({ ...paragraph(text('x')), attrs: { onclick: 'alert(1)', style: 'x' } } as never);
    expect(JSON.stringify(RichText.parse(dirty))).not.toMatch(/onclick|style/);
  });
});

it('the working of a question with markup asks with its markup', () => {
  const working = { keyShare: 0.5, modelAnswer: '', scheme: [] };
  const [, item] = itemsOf([{ ...runDistance, stem: rule, working } as Question]);
  expect(plainText(item?.stem ?? '')).toBe(`Working:\n${plainText(rule)}`);
});
