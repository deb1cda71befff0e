import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { samples } from '../../../tests/unit/samples';
import type { OpenText } from './openText/schema';
import { copiedScheme, schemeFindings } from './handMarked';
import { itemsOf } from './items';
import { kindOf, type Question } from './index';
import {
  differsFromScheme,
  schemePoints,
  schemeRange,
  schemeReach,
  switchedLines,
  type WorthScheme,
} from './schemePoints';

const line = (id: string, points: number, groupId?: string) => ({ id, points, ...(groupId && { groupId }) });
const plain = (...points: number[]): WorthScheme => ({
  lines: points.map((worth, at) => line(`l${at}`, worth)),
  groups: [],
});
const all = ({ lines }: WorthScheme) => lines.map(({ id }) => id);

// Common practice, no source: three points for who, one for when, one for where; at most four.
const capped: WorthScheme = {
  lines: [line('who', 3, 'g'), line('when', 1, 'g'), line('where', 1, 'g'), line('units', -1)],
  groups: [{ id: 'g', as: 'lines', cap: 4 }],
};

// Common practice, no source: two criteria in levels, as a holistic grid.
const grid: WorthScheme = {
  lines: [
    line('c1', 1, 'content'),
    line('c2', 3, 'content'),
    line('c3', 6, 'content'),
    line('s1', 1, 'style'),
    line('s2', 2, 'style'),
  ],
  groups: [
    { id: 'content', as: 'levels' },
    { id: 'style', as: 'levels' },
  ],
};

describe('points by a mark scheme', () => {
  it('add up, take off, and stay within the question', () => {
    expect(schemePoints(plain(2, 1), ['l0', 'l1'], 3)).toBe(3);
    expect(schemePoints(plain(2, 2), ['l0', 'l1'], 3)).toBe(3);
    expect(schemePoints(plain(-1), ['l0'], 3)).toBe(0);
    expect(schemePoints(plain(0.1, 0.2), ['l0', 'l1'], 3)).toBe(0.3);
  });

  it('a group gives no more than its cap; what takes off outside it still does', () => {
    expect(schemePoints(capped, ['who', 'when'], 5)).toBe(4);
    expect(schemePoints(capped, ['who', 'when', 'where'], 5)).toBe(4);
    expect(schemePoints(capped, ['who', 'when', 'where', 'units'], 5)).toBe(3);
    expect(schemePoints(capped, ['when', 'units'], 5)).toBe(0);
  });

  it('one level of a criterion is picked: another takes its place, the same again takes it away', () => {
    expect(switchedLines(grid, ['c1', 's2'], 'c3')).toEqual(['c3', 's2']);
    expect(switchedLines(grid, ['c3', 's2'], 'c3')).toEqual(['s2']);
    expect(switchedLines(capped, ['who'], 'when')).toEqual(['who', 'when']);
    expect(schemePoints(grid, ['c2', 's2'], 8)).toBe(5);
  });

  it('fine steps within a level agree with it, and others differ', () => {
    expect(schemeRange(grid, ['c2'], 8)).toEqual({ above: 1, most: 3 });
    expect(differsFromScheme(grid, ['c2'], 2, 8)).toBe(false);
    expect(differsFromScheme(grid, ['c2'], 2.75, 8)).toBe(false);
    expect(differsFromScheme(grid, ['c2'], 1, 8)).toBe(true);
    expect(differsFromScheme(grid, ['c2'], 3.25, 8)).toBe(true);
    // The lowest level has no steps below it.
    expect(differsFromScheme(grid, ['c1'], 0.5, 8)).toBe(true);
    expect(differsFromScheme(capped, ['who'], 2, 5)).toBe(true);
    expect(differsFromScheme(capped, [], 2, 5)).toBe(false);
  });

  it('can reach its best levels and its caps', () => {
    expect(schemeReach(grid)).toBe(8);
    expect(schemeReach(capped)).toBe(4);
  });

  it('whatever is switched: within the question, one level a criterion, and what it gives agrees with itself', () => {
    const scheme: WorthScheme = {
      lines: [...capped.lines, ...grid.lines],
      groups: [...capped.groups, ...grid.groups],
    };
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...all(scheme)), { maxLength: 30 }),
        fc.integer({ min: 0, max: 15 }),
        (pressed, max) => {
          const met = pressed.reduce((before, id) => switchedLines(scheme, before, id), [] as string[]);
          const points = schemePoints(scheme, met, max);
          expect(points).toBeGreaterThanOrEqual(0);
          expect(points).toBeLessThanOrEqual(max);
          for (const levels of ['content', 'style'])
            expect(
              scheme.lines.filter(({ id, groupId }) => groupId === levels && met.includes(id)).length,
            ).toBeLessThan(2);
          expect(differsFromScheme(scheme, met, points, max)).toBe(false);
        },
      ),
    );
  });
});

describe('a scheme with groups in a question', () => {
  const question: OpenText = {
    ...(samples.openText as OpenText),
    points: 12,
    scheme: [...capped.lines, ...grid.lines].map((each) => ({ ...each, text: `Line ${each.id}` })),
    schemeGroups: [
      { id: 'g', text: 'The collision', as: 'lines', cap: 4 },
      { id: 'content', text: 'Content', as: 'levels' },
      { id: 'style', text: 'Style', as: 'levels' },
    ],
  };

  it('is kept by the schema, copied with ids of its own, and never given to students', () => {
    expect(kindOf(question).schema.parse(question)).toEqual(question);
    let next = 0;
    const copy = copiedScheme(question, () => `new${next++}`);
    expect(copy.schemeGroups?.map(({ text, cap }) => [text, cap])).toEqual([
      ['The collision', 4],
      ['Content', undefined],
      ['Style', undefined],
    ]);
    const groupOf = (id: string) => copy.schemeGroups?.find((group) => group.id === id)?.text;
    expect(copy.scheme.map(({ groupId = '' }) => groupOf(groupId))).toEqual([
      ...['The collision', 'The collision', 'The collision', undefined],
      ...['Content', 'Content', 'Content', 'Style', 'Style'],
    ]);
    const given = JSON.stringify(kindOf(question).forStudent(question, 's'));
    expect(given).not.toMatch(/collision|Content|levels/);
  });

  it('goes with the working of a question', () => {
    const { scheme, schemeGroups } = question;
    const asked = {
      ...samples.number,
      working: { keyShare: 0.5, modelAnswer: '', scheme, schemeGroups },
    } as Question;
    expect(itemsOf([asked])[1]).toMatchObject({ scheme, schemeGroups });
  });

  it('is checked: caps out of reach, levels out of order, groups without lines, too few points', () => {
    expect(schemeFindings({ ...question, points: 12 })).toEqual([]);
    const codes = (part: Partial<OpenText>) =>
      schemeFindings({ ...question, ...part }).map(({ code, field }) => `${code} ${field}`);
    const [, ...levels] = question.schemeGroups ?? [];
    expect(codes({ schemeGroups: [{ id: 'g', text: '', as: 'lines', cap: 6 }, ...levels] })).toEqual([
      'capOutOfReach scheme-group-g',
    ]);
    const swapped = question.scheme.map((each) => (each.id === 'c2' ? { ...each, points: 7 } : each));
    expect(codes({ scheme: swapped })).toContain('levelsOutOfOrder scheme-group-content');
    expect(codes({ scheme: question.scheme.filter(({ groupId }) => groupId !== 'style') })).toEqual([
      'emptySchemeGroup scheme-group-style',
      'schemeBelowPoints scheme',
    ]);
  });
});
