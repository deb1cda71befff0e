/**
 * How far marks on a picture are moved, so that none lies over another: pairs that are too near go apart by half each, until
 * none is, or no more is gained by it. Marks of one place go apart sideways.
 *
 * @param places in pixels
 * @param least between the middles of two, in pixels
 * @returns for each place how far right and down it is moved, in pixels
 */
export function apart(places: readonly (readonly [number, number])[], least: number): [number, number][] {
  const at = places.map(([x, y]): [number, number] => [x, y]);
  for (let round = 0, moved = true; moved && round < mostRounds; round++) {
    moved = false;
    for (const [index, one] of at.entries())
      for (const other of at.slice(index + 1)) {
        const [dx, dy] = [other[0] - one[0], other[1] - one[1]];
        const far = Math.hypot(dx, dy);
        if (far >= least - 0.5) continue;
        const [ux, uy] = far === 0 ? [1, 0] : [dx / far, dy / far];
        const by = (least - far) / 2;
        one[0] -= ux * by;
        one[1] -= uy * by;
        other[0] += ux * by;
        other[1] += uy * by;
        moved = true;
      }
  }
  return at.map(([x, y], index) => [x - (places[index]?.[0] ?? x), y - (places[index]?.[1] ?? y)]);
}
const mostRounds = 50;
