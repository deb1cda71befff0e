import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LayerMark, WorkMark } from '../../model/workMark';
import { layerCounts, markedPages, marksOn, surfaces, textMarks } from './layer';
import { layerPoints, markAt } from './layerPoints';

const mark = (is: LayerMark['is'], on: string, points: number[], text = ''): LayerMark => ({
  ...{ id: `${is} ${on}`, is, on, points, text },
});
const struck: WorkMark = { id: 's', is: 'struck', from: 0, to: 3, quote: 'ebb', text: '' };

describe('marks on what is no text', () => {
  it('lie on their surface alone: a drawing, a photo, a page of a file', () => {
    const work: WorkMark[] = [
      struck,
      mark('tick', surfaces.drawing, [500, 100]),
      mark('pen', surfaces.file('plan', 3), [0, 0, 40, 40]),
      mark('note', surfaces.file('plan', 12), [1, 1], 'Here'),
      mark('cross', surfaces.file('planet'), [1, 1]),
    ];
    expect(marksOn(work, surfaces.drawing).map(({ is }) => is)).toEqual(['tick']);
    expect(marksOn(work, surfaces.file('plan', 1))).toEqual([]);
    expect(markedPages(work, 'plan')).toEqual([3, 12]);
    expect(textMarks(work)).toEqual([struck]);
    expect(layerCounts(marksOn(work, surfaces.file('plan', 3)))).toEqual({ pen: 1 });
    for (const each of work) expect(WorkMark.parse(each)).toEqual(each);
  });

  it('are made of whole thousandths; an arrow that goes nowhere is none', () => {
    expect(layerPoints('tick', [[10.4, 20.6]])).toEqual([10, 21]);
    expect(
      layerPoints('arrow', [
        [0, 0],
        [30, 2],
        [60.2, 40],
      ]),
    ).toEqual([0, 0, 60, 40]);
    expect(
      layerPoints('arrow', [
        [5, 5],
        [7, 6],
      ]),
    ).toBeNull();
    expect(layerPoints('pen', [])).toBeNull();
    // A scribble that goes on and on keeps fewer of its points, and is no less a mark.
    const scribble = Array.from({ length: 9_000 }, (_, n): [number, number] => [
      (n * 37) % 1000,
      (n * 91) % 1000,
    ]);
    const kept = layerPoints('pen', scribble) ?? [];
    expect(kept.length).toBeLessThanOrEqual(4_000);
    expect(LayerMark.safeParse(mark('pen', 'drawing', kept)).success).toBe(true);
    const places = fc.array(
      fc.tuple(fc.double({ min: 0, max: 1000, noNaN: true }), fc.double({ min: 0, max: 3000, noNaN: true })),
      {
        minLength: 1,
        maxLength: 300,
      },
    );
    fc.assert(
      fc.property(places, (line) => {
        const points = layerPoints('pen', line);
        expect(LayerMark.safeParse(mark('pen', 'drawing', points ?? [])).success).toBe(true);
      }),
    );
  });

  it('the one that was made last is found where several pass', () => {
    const marks = [mark('pen', 'drawing', [0, 0, 100, 0]), mark('tick', 'drawing', [50, 10])];
    expect(markAt(marks, [52, 4])?.is).toBe('tick');
    expect(markAt(marks, [95, 5])?.is).toBe('pen');
    expect(markAt(marks, [500, 500])).toBeUndefined();
  });
});
