import { z } from 'zod';
import { sumBy } from 'remeda';
import { base64UrlFrom } from '../../basics/base64';
import { Instant } from '../../basics/common';
import { sha256 } from '../../basics/crypto';
import { PartId } from '../../model/deskCopy';
import { deskTableNames, keyOfRow, tableEntry, type DeskTableName } from '../../model/desk';
import { noRows, type DeskRows } from './desk';
import { fieldOf, type AnyRows } from './deskPart';

/**
 * A desk in pieces: rows that belong together and change together. The same rows are the same piece, wherever they are; so
 * what changed since is known by its pieces, and nothing else has to travel. See docs/formats.md.
 */

/** Something of a desk that is kept or changed as one: a sitting, a paper, or one of the tables of neither. */
export type Unit = `sittings/${string}` | `papers/${string}` | `rest/${string}`;

export interface Piece {
  /** Of which unit it is, and which piece of it: `sittings/ab12/3of4`. */
  key: string;
  /** Its rows, a line of JSON each: the table and the row. */
  text: string;
  /** SHA-256 of it in the letters of Base64url. */
  digest: string;
  /** The same rows as they were given. */
  rows: PieceRow[];
}

/** A row of a desk, and its table. */
export type PieceRow = [DeskTableName, object];

/** What a desk is made of: every piece, what is in it, and the sealed part that it is. */
export const DeskIndex = z.object({
  savedAt: Instant,
  /** The version of Gribbet that wrote it. */
  savedBy: z.string().max(100),
  pieces: z
    .object({ key: z.string().max(200), digest: PartId, part: PartId })
    .array()
    .max(100_000),
});
export type DeskIndex = z.infer<typeof DeskIndex>;

/** A piece is meant to have about so many letters. */
const meantSize = 256 * 1024;
/** So many entries of the log are one piece: what is added to it touches the last alone. */
const entriesTogether = 256;

/** What a row belongs to. */
export function unitOf(table: DeskTableName, row: object): Unit {
  const owners = tableEntry(table).owners ?? {};
  const of = (field: string) => String(fieldOf(row, field));
  if (table === 'sittings') return `sittings/${of('id')}`;
  if (table === 'papers') return `papers/${of('id')}`;
  if (table === 'students') return 'rest/students';
  if (owners.sittings !== undefined) return `sittings/${of(owners.sittings)}`;
  if (owners.papers !== undefined) return `papers/${of(owners.papers)}`;
  return `rest/${table}`;
}

/** The unit of which a piece is. */
export const unitOfPiece = (key: string): Unit => key.slice(0, key.lastIndexOf('/')) as Unit; // as it was put together

/** What is marked or answered together lies together: a change of one mark touches the marks of its question alone. */
const placeOf = (table: DeskTableName, row: object): string =>
  table === 'marks'
    ? `marks ${String(fieldOf(row, 'questionId'))}`
    : `${table} ${keyOfRow(table, row).join(' ')}`;

/** FNV-1a over 32 bits (draft-eastlake-fnv): where a row lies only has to be the same everywhere. */
function spread(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return hash >>> 0;
}

/** The pieces of a desk, its files without their bytes. */
export async function piecesOf(rows: DeskRows): Promise<Piece[]> {
  const units = new Map<Unit, PlacedRow[]>();
  for (const table of deskTableNames)
    for (const row of (rows as AnyRows)[table]) {
      const unit = unitOf(table, row);
      const line = `${JSON.stringify([table, row])}\n`;
      const all = units.get(unit) ?? [];
      if (all.length === 0) units.set(unit, all);
      const place = isLog(table) ? String(fieldOf(row, 'seq')) : placeOf(table, row);
      all.push({ place, line, row: [table, row] });
    }
  const texts = [...units].flatMap(([unit, all]) => textsOfUnit(unit, all));
  return Promise.all(
    texts.map(async ({ key, text, rows: its }) => ({
      ...{ key, text, rows: its },
      digest: base64UrlFrom(await sha256(new TextEncoder().encode(text))),
    })),
  );
}

const isLog = (table: string): boolean => table === 'log' || table === 'logChanges';

interface PlacedRow {
  place: string;
  line: string;
  row: PieceRow;
}

function textsOfUnit(unit: Unit, all: readonly PlacedRow[]): Omit<Piece, 'digest'>[] {
  const size = sumBy(all, ({ line }) => line.length);
  // Doubled where it grows, so that a row that is added moves nothing else.
  let of = 1;
  while (size / of > meantSize) of *= 2;
  const texts = new Map<string, { lines: string[]; rows: PieceRow[] }>();
  for (const { place, line, row } of all) {
    const name = isLog(unit.slice(5))
      ? String(Math.floor(Number(place) / entriesTogether))
      : `${spread(place) % of}of${of}`;
    const piece = texts.get(name) ?? { lines: [], rows: [] };
    if (piece.lines.length === 0) texts.set(name, piece);
    piece.lines.push(line);
    piece.rows.push(row);
  }
  return [...texts].map(([name, { lines, rows }]) => ({
    key: `${unit}/${name}`,
    text: lines.join(''),
    rows,
  }));
}

/** The rows of pieces, by table. @throws where a piece is none */
export function rowsOfPieces(texts: Iterable<string>): Record<DeskTableName, object[]> {
  const all: PieceRow[] = [];
  for (const text of texts)
    for (const line of text.split('\n')) if (line !== '') all.push(JSON.parse(line) as PieceRow);
  return rowsByTable(all);
}

/** Rows by table, every table there is. */
export function rowsByTable(all: Iterable<PieceRow>): Record<DeskTableName, object[]> {
  const rows: Record<DeskTableName, object[]> = noRows();
  for (const [table, row] of all) rows[table].push(row);
  return rows;
}

/** The units of which the pieces are not the same. */
export function unitsChanged(
  before: ReadonlyMap<string, string>,
  after: ReadonlyMap<string, string>,
): Set<Unit> {
  const changed = new Set<Unit>();
  for (const key of new Set([...before.keys(), ...after.keys()]))
    if (before.get(key) !== after.get(key)) changed.add(unitOfPiece(key));
  return changed;
}
