import { describe, expect, it } from 'vitest';
import { passage } from '../../../../demo/papers/passage';
import { weather } from '../../../../demo/papers/weather';
import { counter, samples } from '../../../../tests/unit/samples';
import type { Question } from '../../kinds';
import type { PaperContent } from '../../model/paper';
import { papersFromQti } from './readPackage';
import { qtiPackage } from './writePackage';

const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
const pictures = [
  ...new Set(
    ['chart', ...JSON.stringify(passage).matchAll(/"asset":"([^"]+)"/g)].map((each) =>
      typeof each === 'string' ? each : (each[1] ?? ''),
    ),
  ),
].map((id) => ({ id, mediaType: 'image/png', bytes: png }));

const paperOf = (...questions: Question[]): PaperContent => ({ title: 'Tides', instructions: '', questions });

/** Out and in again, with pictures under the names they had. */
async function roundTrip(paper: PaperContent) {
  const written = qtiPackage(paper, pictures);
  const read = await papersFromQti(written.bytes, 'file', counter('new'));
  const [back] = read.papers;
  if (!back) throw new Error('nothing came back');
  return { written, read, back };
}

const sorted = (each: object) => Object.entries(each).sort(([a], [b]) => (a < b ? -1 : 1));

/** A question to compare: ids named by their order, pictures by no name, fields that say nothing left out. */
function bare(value: unknown): unknown {
  const names = new Map<string, string>();
  const walk = (each: unknown): unknown => {
    if (Array.isArray(each)) return each.map(walk);
    if (each === null || typeof each !== 'object') return each;
    for (const [name, inside] of sorted(each))
      if (name === 'id' && typeof inside === 'string' && !names.has(inside))
        names.set(inside, `#${names.size}`);
    return Object.fromEntries(
      sorted(each)
        .filter(
          ([name, inside]) =>
            inside !== undefined && inside !== false && name !== 'bankId' && name !== 'asset',
        )
        .map(([name, inside]) => [name, walk(inside)]),
    );
  };
  return JSON.parse(
    JSON.stringify(walk(value), (_key, each: unknown) =>
      each !== null && typeof each === 'object' && !Array.isArray(each)
        ? Object.fromEntries(
            Object.entries(each)
              .map(([name, inside]) => [names.get(name) ?? name, inside] as const)
              .sort(([a], [b]) => (a < b ? -1 : 1)),
          )
        : typeof each === 'string'
          ? (names.get(each) ?? each)
          : each,
    ),
  );
}

describe('out and in again', () => {
  it.each(Object.values(samples).map((question) => [question.kind, question] as const))(
    '%s',
    async (_, question) => {
      const { back, read } = await roundTrip(paperOf(question));
      expect(read.losses).toEqual([]);
      expect(bare(back.questions)).toEqual(bare([question]));
      expect(back.questions[0]?.id).not.toBe(question.id);
    },
  );

  it.each([passage, weather])('the demo: $title', async (paper) => {
    const { back, read } = await roundTrip(paper);
    expect(read.losses).toEqual([]);
    expect(bare(back)).toEqual(bare(paper));
  });
});
