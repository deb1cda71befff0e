import type { LayerMark } from '../../model/workMark';

/** The line of a mark, as the data of an SVG path, in thousandths of the width of what it lies on. */
export function layerPath({ is, points }: LayerMark): string {
  const [x = 0, y = 0, toX = x, toY = y] = points;
  switch (is) {
    case 'tick':
      return `M${x - 22} ${y - 4}l16 20l30 -46`;
    case 'cross':
      return `M${x - 18} ${y - 18}l36 36M${x + 18} ${y - 18}l-36 36`;
    case 'arrow': {
      const along = Math.atan2(toY - y, toX - x);
      const head = (turn: number) =>
        `M${toX} ${toY}l${Math.round(26 * Math.cos(along + turn))} ${Math.round(26 * Math.sin(along + turn))}`;
      return `M${x} ${y}L${toX} ${toY}${head(Math.PI - 0.45)}${head(Math.PI + 0.45)}`;
    }
    default: {
      const pairs = Array.from(
        { length: points.length / 2 },
        (_, at) => `${points[2 * at] ?? 0} ${points[2 * at + 1] ?? 0}`,
      );
      return pairs.length === 1 ? `M${pairs[0] ?? ''}l1 0` : `M${pairs.join('L')}`;
    }
  }
}
