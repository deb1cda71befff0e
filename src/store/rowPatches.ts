import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { PatchOperation, type RowChange } from '@/core/model/log';
import type { TableName } from '@/core/model/tables';

/** Rows as they are stored, and what a change of one is: patches there and back (JSON Patch, RFC 6902). */

/** A row as it is stored: a field without a value is a field that is not there. Bytes stay as they are. */
export function plainRow<T>(value: T): T {
  if (Array.isArray(value)) return value.map((each: unknown) => plainRow(each)) as T;
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype)
    return value;
  const fields = Object.entries(value).filter(([, each]) => each !== undefined);
  return Object.fromEntries(fields.map(([field, each]) => [field, plainRow(each as unknown)])) as T;
}

/** Keys are kept as text; the version in the key of a paper version is a number again. */
export function dexieKey(key: readonly string[], table: TableName): string | (string | number)[] {
  if (table === 'paperVersions') return [key[0] ?? '', Number(key[1])];
  return key.length === 1 ? (key[0] ?? '') : [...key];
}

/** Why something cannot be taken back: it has changed since. */
export class ChangedSince extends Error {}

/**
 * What makes one row of another, and back; null where they are alike. Invertible patches carry tests, by which an undo
 * notices that someone has changed the same place since.
 */
export function patchBetween(
  table: TableName,
  key: string[],
  before: object,
  after: object,
): RowChange | null {
  const forth = jsonPatch.compare(before, after, true);
  if (forth.length === 0) return null;
  return {
    how: 'patched',
    table,
    key,
    forth: plain(forth),
    back: plain(jsonPatch.compare(after, before, true)),
  };
}

/** Operations as plain rows of the log. */
const plain = (operations: Operation[]) => PatchOperation.array().parse(operations);

/** @throws {ChangedSince} where the row is not as the patch was made for */
export function patched(row: object, operations: readonly object[]): object {
  try {
    return jsonPatch.applyPatch(structuredClone(row), operations as Operation[], true).newDocument;
  } catch {
    throw new ChangedSince();
  }
}

/** SHA-256 (FIPS 180-4) of a row as it is stored. */
export const digestOf = (row: object): string => bytesToHex(sha256(utf8ToBytes(JSON.stringify(row))));

/** Whether two rows say the same. */
export const sameRow = (a: object, b: object): boolean => jsonPatch.compare(a, b).length === 0;
