// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import type { RichNode, RichText } from '../../basics/richText';
import { mathsSvg } from './mathsSvg';
import { hasMaths, leading, setText } from './setText';
import { svgOf } from './svgOf';
import { wrapped, type Measure } from './wrapped';

const plain: Measure = (text, size) => text.length * size * 0.18;
const measure: Measure = Object.assign((...of: Parameters<Measure>) => plain(...of), { maths: mathsSvg });

const doc = (...content: RichNode[]): RichText => ({
  type: 'doc',
  content: [{ type: 'paragraph', content }],
});
const words = (text: string): RichNode => ({ type: 'text', text });
const formula = (latex: string): RichNode => ({ type: 'inlineMath', attrs: { latex } });
const em = (10 * 25.4) / 72;

describe('a formula', () => {
  // From memory: The TeXbook, chapter 17: the axis is a quarter of an em above the line; a fraction stands on both sides of it.
  it('has the size TeX gives it: a digit on the line, a fraction above and below', () => {
    const digit = mathsSvg('2', false);
    expect(digit?.w).toBeCloseTo(0.5, 2);
    expect(digit?.below).toBeLessThan(0.05);
    const fraction = mathsSvg('\\frac{a}{b}', true);
    expect(fraction?.above).toBeGreaterThan(1);
    expect(fraction?.below).toBeGreaterThan(0.5);
    expect(mathsSvg('a+b', false)?.w).toBeGreaterThan(mathsSvg('ab', false)?.w ?? 0);
  });

  it('that is none is nothing, and stands as it was typed', () => {
    expect(mathsSvg('\\nothing{', false)).toBeNull();
    const set = setText(doc(words('Say '), formula('\\nothing{')), { width: 100, size: 10 }, measure);
    expect(set.at(0, 0)).toMatchObject([{ as: 'text', text: 'Say \\nothing{' }]);
  });
});

describe('a text in lines', () => {
  it('without formulas is the lines that the width allows, one under another', () => {
    const text = 'When does the tide turn at the outer mark, and why is it later than at the inner one?';
    const set = setText(text, { width: 60, size: 10 }, measure);
    const lines = wrapped(text, 60, 10, plain);
    expect(set.at(5, 20).map((piece) => piece.as === 'text' && piece.text)).toEqual(lines);
    expect(set.h).toBeCloseTo(lines.length * leading(10), 9);
  });

  it('has its formulas between the words, each behind what stands before it, and makes room for high ones', () => {
    const set = setText(
      doc(words('so '), formula('x^2'), words(' is '), formula('\\frac{a}{\\frac{b}{c}}')),
      { width: 100, size: 10 },
      measure,
    );
    const [so, square, is, fraction] = set.at(0, 0);
    expect([so?.as, square?.as, is?.as, fraction?.as]).toEqual(['text', 'maths', 'text', 'maths']);
    expect(square?.x).toBeCloseTo(plain('so ', 10), 9);
    expect(is?.x).toBeCloseTo(plain('so ', 10) + (mathsSvg('x^2', false)?.w ?? 0) * em, 9);
    expect(set.h).toBeGreaterThan(leading(10));
    if (fraction?.as !== 'maths' || so?.as !== 'text') throw new Error('they are these');
    expect(fraction.base).toBeCloseTo(so.y, 9);
    expect(fraction.y).toBeGreaterThanOrEqual(0);
    expect(fraction.y + fraction.h).toBeLessThanOrEqual(set.h);
  });

  it('breaks lines at formulas too, and sets them apart where they stand apart', () => {
    const long = doc(...Array.from({ length: 12 }, () => [formula('x+y'), words(' and ')]).flat());
    const set = setText(long, { width: 50, size: 10 }, measure);
    for (const piece of set.at(0, 0)) {
      const width = piece.as === 'text' ? plain(piece.text.trimEnd(), 10) : piece.w;
      expect(piece.x + width).toBeLessThanOrEqual(50 + 1e-9);
    }
    const apart: RichText = {
      type: 'doc',
      content: [
        { type: 'paragraph', content: [words('The sum')] },
        { type: 'blockMath', attrs: { latex: '\\sum_{i=1}^n i' } },
      ],
    };
    const [said, sum] = setText(apart, { width: 50, size: 10 }, measure).at(0, 0);
    expect([said?.x, sum?.x]).toEqual([0, 0]);
    expect(sum?.as === 'maths' && said && sum.base > said.y).toBe(true);
    expect([hasMaths(apart), hasMaths('x'), hasMaths(doc(words('x')))]).toEqual([true, false, false]);
  });

  it('as a picture is one that any reader of XML takes, with its words in it', () => {
    const set = setText(doc(words('A < B & '), formula('\\sqrt{2}')), { width: 60, size: 10 }, measure);
    const parsed = new DOMParser().parseFromString(svgOf(set, 60), 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    expect(parsed.querySelector('text')?.textContent?.replace('\u00a0', ' ')).toBe('A < B & ');
    expect(parsed.querySelectorAll('path').length).toBeGreaterThan(0);
  });
});
