/** Which comes first in "03/04/2026". */
export type DayOrder = 'dayFirst' | 'monthFirst';

const written =
  /^(\d{1,4})[./-](\d{1,2})[./-](\d{1,4})(?:,?[ T]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([ap])?\.?m?\.?)?\s*(?:GMT|UTC|Z)?$/i;

/** The order that a column of dates can only have; null where either is possible. */
export function dayOrderOf(cells: readonly string[]): DayOrder | null {
  for (const cell of cells) {
    const found = written.exec(cell.trim());
    if (!found || (found[1] ?? '').length === 4) continue;
    if (Number(found[1]) > 12) return 'dayFirst';
    if (Number(found[2]) > 12) return 'monthFirst';
  }
  return null;
}

/**
 * An instant as forms and spreadsheets write it: ISO 8601, "2026-11-23 14:05", "23/11/2026 14:05:09", "11/23/26 2:05 PM". Without
 * a zone it is in the reader's. Null where it is none.
 */
export function instantFrom(cell: string, order: DayOrder): string | null {
  const text = cell.trim();
  if (/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}.*(Z|[+-]\d{2}:?\d{2})$/.test(text)) {
    const ms = Date.parse(text);
    return Number.isNaN(ms) ? null : new Date(ms).toISOString();
  }
  const found = written.exec(text);
  if (!found) return null;
  const [a = '', b = '', c = ''] = found.slice(1, 4);
  const [year, month, day] = a.length === 4 ? [a, b, c] : order === 'dayFirst' ? [c, b, a] : [c, a, b];
  const half = found[7]?.toLowerCase();
  const hour = Number(found[4] ?? 0);
  const hours = half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour;
  const years = Number(year) < 100 ? 2000 + Number(year) : Number(year);
  const [minutes, seconds] = [Number(found[5] ?? 0), Number(found[6] ?? 0)];
  const at = new Date(years, Number(month) - 1, Number(day), hours, minutes, seconds);
  const isThere =
    at.getFullYear() === years &&
    at.getMonth() === Number(month) - 1 &&
    at.getDate() === Number(day) &&
    hours < 24 &&
    minutes < 60 &&
    seconds < 60;
  return isThere ? at.toISOString() : null;
}
