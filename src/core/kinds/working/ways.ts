import type { WorkingResponse } from './schema';
import type { WorkingWay } from './WorkingWay';

export const allWays: WorkingWay[] = ['words', 'maths', 'drawing', 'photo'];

export const noWorking: WorkingResponse = { words: '', maths: [], drawing: [], photos: [] };

/** Lines of maths that have something in them. */
export const written = (lines: readonly string[]) => lines.map((line) => line.trim()).filter(Boolean);

/** The ways an answer was shown in. */
export function waysTaken({ words, maths, drawing, photos }: WorkingResponse): WorkingWay[] {
  const taken = {
    words: words.trim() !== '',
    maths: written(maths).length > 0,
    drawing: drawing.length > 0,
    photo: photos.length > 0,
  };
  return allWays.filter((way) => taken[way]);
}
