import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { counter, plottedCourse, runDistance, samples } from '../../../../tests/unit/samples';
import { kindOf } from '..';
import { isTaken, sortWords } from '../file/sorts';
import { itemsOf } from '../items';
import { Drawing } from './drawing';
import { heightOf, sheetHeight, thinned, withoutLinesAt } from './strokes';
import { noWorking } from './ways';

const kind = kindOf(plottedCourse);
const photo = { id: 'p1', name: 'sheet.jpg', mediaType: 'image/jpeg', size: 40_000 };

describe('a drawing', () => {
  it('keeps the points that say something, in whole units of its sheet', () => {
    expect(
      thinned([
        [10.4, 10.4],
        [11, 11],
        [14, 14],
        [-5, 9000],
      ]),
    ).toEqual([10, 10, 14, 14, 0, 4000]);
  });

  it('a dot stays a dot, and a short dash keeps its end', () => {
    expect(thinned([[5, 5]])).toEqual([5, 5]);
    expect(
      thinned([
        [5, 5],
        [6, 6],
      ]),
    ).toEqual([5, 5, 6, 6]);
  });

  it('whatever is drawn can be kept', () => {
    const point = fc.tuple(
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 80 }), (points) => {
        expect(Drawing.safeParse([thinned(points)]).success).toBe(true);
      }),
    );
  });

  // Plane geometry: from (50, 40) the distance to the segment (0, 0)–(100, 0) is 40, from (130, 40) to its end 50.
  it('the rubber takes lines that pass near, between their points too', () => {
    const line = [0, 0, 100, 0];
    expect(withoutLinesAt([line], 50, 40, 40)).toEqual([]);
    expect(withoutLinesAt([line], 50, 40, 39)).toEqual([line]);
    expect(withoutLinesAt([line], 130, 40, 50)).toEqual([]);
    expect(withoutLinesAt([line], 130, 40, 49)).toEqual([line]);
  });

  it('a sheet is as high as its picture asks', () => {
    expect(heightOf(undefined)).toBe(sheetHeight);
    expect(heightOf({ width: 800, height: 600 })).toBe(750);
    expect(heightOf({ width: 10, height: 10_000 })).toBe(4000);
  });

  it('is bounded, so that an answer stays a row', () => {
    const long = Array.from({ length: 7 }, () => Array.from({ length: 10_000 }, () => 1));
    expect(Drawing.safeParse(long).success).toBe(false);
  });
});

describe('a working', () => {
  it('in words: the ways, one under the other', () => {
    const response = {
      words: ' By dead reckoning ',
      maths: ['d=vt', ' '],
      drawing: [[1, 1]],
      photos: [photo],
    };
    expect(kind.asText(plottedCourse, response)).toBe(
      'By dead reckoning\nd=vt\n[drawing of 1 line]\n[photo sheet.jpg]',
    );
  });

  it('equal workings are one thing to mark, drawn ones only when every line is the same', () => {
    const same = (part: object) => kind.sameAs(plottedCourse, { ...noWorking, ...part });
    expect(same({ words: 'Course  090' })).toBe(same({ words: 'course 090' }));
    expect(same({ maths: ['d = vt'] })).toBe(same({ maths: ['d=vt', ''] }));
    expect(same({ drawing: [[1, 2]] })).not.toBe(same({ drawing: [[1, 3]] }));
    expect(same({ photos: [photo] })).not.toBe(same({ words: '[photo sheet.jpg]' }));
  });

  it('of a question: its ways come with it; without any it is words, as it was', () => {
    const working = { keyShare: 0.5, modelAnswer: '', scheme: [] };
    const item = (ways?: ('drawing' | 'words')[]) =>
      itemsOf([{ ...runDistance, working: { ...working, ...(ways && { ways }) } }])[1];
    expect(item()).toMatchObject({ kind: 'openText', workingOf: 'q6' });
    expect(item(['drawing', 'words'])).toMatchObject({
      kind: 'working',
      ways: ['drawing', 'words'],
      workingOf: 'q6',
    });
  });

  it('the check: no way at all stops, only drawing is worth a look, a picture needs its words', () => {
    const codes = (part: object) =>
      kind.findings({ ...plottedCourse, ...part } as never).map(({ code }) => code);
    expect(codes({ ways: [] })).toContain('noWays');
    expect(codes({ ways: ['drawing'] })).toContain('onlyDrawing');
    expect(codes({ canvas: { asset: 'a', alt: ' ', decoration: false, width: 1, height: 1 } })).toContain(
      'pictureWithoutText',
    );
    expect(codes({})).toEqual([]);
  });

  it('a copy keeps the picture to draw on', () => {
    expect(kind.copy(plottedCourse, counter('c'))).toMatchObject({ canvas: { asset: 'chart' } });
  });
});

describe('a file', () => {
  it('is taken by its type, or by its name where the device does not say', () => {
    expect(isTaken({ name: 'plan.pdf', mediaType: 'application/pdf' }, ['pdf'])).toBe(true);
    expect(isTaken({ name: 'PLAN.PDF', mediaType: '' }, ['pdf'])).toBe(true);
    expect(isTaken({ name: 'plan.exe', mediaType: 'application/x-msdownload' }, ['pdf', 'sheet'])).toBe(
      false,
    );
    expect(isTaken({ name: 'anything', mediaType: '' }, [])).toBe(true);
  });

  it('is asked for in words', () => {
    expect(sortWords([])).toBe('a file of any sort');
    expect(sortWords(['picture'])).toBe('a picture');
    expect(sortWords(['pdf', 'sheet'])).toBe('a PDF or sheet file');
    expect(kindOf(samples.file).asText(samples.file, { files: [photo, photo] })).toBe('sheet.jpg\nsheet.jpg');
  });
});
