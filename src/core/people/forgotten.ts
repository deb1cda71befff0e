import { z } from 'zod';
import { base64UrlFrom } from '../basics/base64';
import type { Setting } from '../basics/asset';
import { sha256 } from '../basics/crypto';

/** Who was forgotten stays so, on whatever computer: a desk knows them by digests, which tell no name and no id. */

export const forgottenKey = 'forgotten';

/** SHA-256 of a student's id, in the letters of Base64url. */
export const forgottenDigest = async (studentId: string): Promise<string> =>
  base64UrlFrom(await sha256(new TextEncoder().encode(studentId)));

/** The digests of those whom a desk has forgotten. */
export const forgottenIn = (settings: readonly Setting[]): Set<string> =>
  new Set(
    z
      .string()
      .array()
      .catch([])
      .parse(settings.find(({ key }) => key === forgottenKey)?.value),
  );

/** Those of these students who were forgotten. */
export async function forgottenAmong(
  studentIds: Iterable<string>,
  digests: ReadonlySet<string>,
): Promise<Set<string>> {
  const found = new Set<string>();
  if (digests.size === 0) return found;
  for (const id of new Set(studentIds)) if (digests.has(await forgottenDigest(id))) found.add(id);
  return found;
}
