import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { brokenLimit } from './brokenLimit';

const Row = z.object({
  title: z.string().min(1).max(5),
  points: z.number().max(10),
  tries: z.number().int().min(1),
  share: z.number().positive().optional(),
});
const good = { title: 'Tides', points: 10, tries: 1 };

function refused(row: object, schema: z.ZodType = Row): unknown {
  return schema.safeParse(row).error;
}

describe('a limit that is not kept', () => {
  it.each([
    [
      { ...good, title: 'Currents' },
      { of: 'text', is: 'most', limit: 5 },
    ],
    [
      { ...good, title: '' },
      { of: 'text', is: 'least', limit: 1 },
    ],
    [
      { ...good, points: 11 },
      { of: 'number', is: 'most', limit: 10 },
    ],
    [
      { ...good, tries: 0 },
      { of: 'number', is: 'least', limit: 1 },
    ],
    [
      { ...good, share: 0 },
      { of: 'number', is: 'least', limit: 0, beyond: true },
    ],
    // The first of them.
    [
      { title: 'Currents', points: 11, tries: 0 },
      { of: 'text', is: 'most', limit: 5 },
    ],
  ])('%j', (row, limit) => expect(brokenLimit(refused(row))).toEqual(limit));

  it('is found within a list, and of the list itself', () => {
    const Rows = z.object({ rows: Row.array().max(2) });
    expect(brokenLimit(refused({ rows: [good, { ...good, points: 11 }] }, Rows))).toMatchObject({
      limit: 10,
    });
    expect(brokenLimit(refused({ rows: [good, good, good] }, Rows))).toEqual({
      of: 'list',
      is: 'most',
      limit: 2,
    });
  });

  it('is found in what may be of several shapes', () => {
    expect(
      brokenLimit(
        refused({ ...good, title: 'Currents' }, z.object({ title: z.union([Row, Row.shape.title]) })),
      ),
    ).toEqual({ of: 'text', is: 'most', limit: 5 });
  });

  it('is no other fault', () => {
    expect(brokenLimit(refused({ ...good, title: 7 }))).toBeNull();
    expect(brokenLimit(new Error('title too_big'))).toBeNull();
  });
});
