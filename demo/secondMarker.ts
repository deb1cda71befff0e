import { ownMarker, type HandMark } from '@/core/model/mark';
import type { MarkingShare } from '@/core/model/share';
import { chanceFrom } from '@/core/basics/chance';
import type { Sketched } from './pictures/sketch';
import { sketchQuestion as questionId } from './sketches';

/** The photo question of the exam: some marked by the teacher, some by a colleague, most of them by both. */

const sittingId = 'tides';
const shareId = 'ines';
const ownCount = 28;
const sharedCount = 24;
/** The first of the teacher's that are not in the share. */
const ownAlone = 6;
const seed = 4_711;

/** The share, and the marks of both. The colleague is now and then stricter with the second line. */
export function secondMarker(sketches: ReadonlyMap<string, Sketched>, ownAt: string, sharedAt: string) {
  const chance = chanceFrom(seed);
  const drawn = [...sketches].map(([attemptId, shows]) => ({ attemptId, ...shows }));
  const own = drawn.slice(0, ownCount);
  const given = drawn.slice(ownAlone, ownAlone + sharedCount);
  const share: MarkingShare = {
    id: shareId,
    sittingId,
    marker: 'Inês Carvalho',
    purpose: 'marker',
    way: 'file',
    code: 'TK4WQ-9HM7R',
    secret: '7d'.repeat(32),
    answers: [{ questionId, attemptIds: given.map(({ attemptId }) => attemptId) }],
    givenAt: ownAt,
    heardAt: sharedAt,
  };
  const mark = (sketch: Drawn, markerId: string, from: string, place: number, strict: boolean): HandMark => {
    const lines = [...(sketch.stream ? ['t13a'] : []), ...(sketch.boat && !strict ? ['t13b'] : [])];
    const at = new Date(Date.parse(from) + place * 25_000).toISOString();
    return {
      ...{ attemptId: sketch.attemptId, questionId, sittingId, markerId, at },
      points: lines.length,
      lines,
      comment: strict ? 'The line must begin at the end of the stream.' : '',
      aside: false,
      history: [{ at, by: markerId, why: '', before: null }],
    };
  };
  const strict = (sketch: Drawn) => sketch.boat && chance.happens(0.3);
  return {
    share,
    marks: [
      ...own.map((sketch, place) => mark(sketch, ownMarker, ownAt, place, false)),
      ...given.map((sketch, place) => mark(sketch, shareId, sharedAt, place, strict(sketch))),
    ],
  };
}

type Drawn = Sketched & { attemptId: string };
