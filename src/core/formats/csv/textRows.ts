import { sumBy } from 'remeda';
import { Refused } from '../../basics/refused';
import { mostCells, mostRows } from '../sheet/bounds';
import { tableFrom, type TableRow } from './table';

/**
 * The rows of separated text.
 *
 * @throws {Refused} where it is no text, a quote in it is never closed, or it is too long
 */
export function textRows(text: string): TableRow[] {
  const at = text.search(/[\u0000-\u0008\u000e-\u001f]/); // eslint-disable-line no-control-regex -- they are in no text
  if (at >= 0) throw new Refused('notSheet', `line ${text.slice(0, at).split('\n').length}`);
  const rows = tableFrom(text);
  if (rows.length > mostRows)
    throw new Refused('tooManyCells', `line ${rows[mostRows]?.line ?? mostRows}`, `${mostRows} rows`);
  if (sumBy(rows, ({ cells }) => cells.length) > mostCells)
    throw new Refused('tooManyCells', '', `${mostCells} cells`);
  return rows;
}
