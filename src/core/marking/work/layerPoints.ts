import { distanceTo, thinned } from '../../kinds/working/strokes';
import { mostNumbers, type LayerMark } from '../../model/workMark';

/** Where marks of a layer are made and found: what only the marker's side needs. */

/** A place on a surface, in thousandths of its width. */
export type Place = readonly [x: number, y: number];

const whole = ([x, y]: Place): number[] => [Math.round(x), Math.round(y)];

/** What a mark is made of the places the pen or the keys went over; null for an arrow that goes nowhere. */
export function layerPoints(is: LayerMark['is'], places: readonly Place[]): number[] | null {
  const [first] = places;
  const last = places.at(-1);
  if (!first || !last) return null;
  if (is === 'pen') return line(places);
  if (is !== 'arrow') return whole(first);
  return Math.hypot(last[0] - first[0], last[1] - first[1]) < shortest
    ? null
    : [...whole(first), ...whole(last)];
}

/** A line with as many of its points as a mark can hold. */
function line(places: readonly Place[]): number[] {
  let apart = 3;
  let points = thinned(places, apart);
  while (points.length > mostNumbers) points = thinned(places, (apart *= 2));
  return points;
}

/** An arrow that is shorter has no direction. */
const shortest = 10;

/** The mark that was made last of those that pass within `reach` of a place. */
export const markAt = (marks: readonly LayerMark[], [x, y]: Place, reach = 25): LayerMark | undefined =>
  marks.findLast(({ points }) => distanceTo(points, x, y) <= reach);
