import { createHash } from 'node:crypto';
import { customAlphabet, nanoid } from 'nanoid';
import {
  boxKeys,
  keyText,
  type BoxRelease,
  type BoxRow,
  type BoxTable,
  type SealedPaper,
} from '@/core/exchange/box';
import type { ExchangeKeep, ExchangePlace } from '@/core/exchange/place';
import { unsealed } from '@/core/formats/packet/sealed';
import { Asset } from '@/core/model/asset';
import { PaperVersion } from '@/core/model/paper';
import { joinCodeAlphabet, Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import type { ExchangeStore, KeptChange } from './exchangeStore';

/** The keys under which the box keeps things. Codes are looked up by their digest: how long that takes tells nothing. */
export const keys = {
  of: <T extends BoxTable>(table: T, row: BoxRow<T>) => `${table}/${keyText(boxKeys[table](row))}`,
  student: (id: string) => `students/${keyText([id])}`,
  code: (joinCode: string) => `codes/${createHash('sha256').update(joinCode).digest('hex')}`,
  sitting: (id: string) => `sittings/${keyText([id])}`,
  attempt: ({ studentId, sittingId, id }: Pick<Attempt, 'studentId' | 'sittingId' | 'id'>) =>
    `attempts/${keyText([studentId, sittingId, id])}`,
  /** Where an attempt lies, and the tokens that may work on it. */
  session: (attemptId: string) => `sessions/${keyText([attemptId])}`,
  paper: (paperId: string, version: number) => `papers/${keyText([paperId, String(version)])}`,
  sealed: (paperId: string, version: number) => `sealed/${keyText([paperId, String(version)])}`,
  release: (studentId: string, sittingId: string) => `releases/${keyText([studentId, sittingId])}`,
  file: (id: string) => `files/${keyText([id])}`,
  desk: (tokenDigest: string) => `desks/${tokenDigest}`,
};

/** A student as the box has him, with the fields it was not given empty. */
const studentFrom = (row: unknown): Student => ({ ...(row as Student), number: '', email: '' });

const sixOf = customAlphabet(joinCodeAlphabet, 6);

/**
 * The box of the server as the exchange knows it.
 *
 * @param secret of the teacher: opens the papers that were put in sealed
 */
export function boxPlace(store: ExchangeStore, secret: string): ExchangePlace {
  const opened = new Map<string, Promise<PaperVersion | null>>();
  const row = async <T>(key: string) => (await store.get(key)) as T | undefined;
  const rows = async <T>(prefix: string) => (await store.list(prefix)).map(({ value }) => value as T);
  const ofStudent = (table: string, studentId: string, sittingId?: string) =>
    `${table}/${keyText(sittingId === undefined ? [studentId] : [studentId, sittingId])}/`;

  /** The paper with its key, where it was put in sealed. Opened once, in memory only. */
  const withKey = async (paperId: string, version: number): Promise<PaperVersion | null> => {
    const found = await row<SealedPaper>(keys.sealed(paperId, version));
    if (!found) return null;
    const known = `${paperId} ${version} ${found.seal.nonce}`;
    const open =
      opened.get(known) ??
      unsealed(found.seal, secret).then((text) => text && PaperVersion.parse(JSON.parse(text)));
    opened.set(known, open as Promise<PaperVersion | null>);
    return open as Promise<PaperVersion | null>;
  };

  const paperVersion = async (paperId: string, version: number) =>
    (await withKey(paperId, version)) ?? row<PaperVersion>(keys.paper(paperId, version));

  const place: ExchangePlace = {
    studentWith: async (joinCode) => {
      const id = await row<string>(keys.code(joinCode));
      const found = id === undefined ? undefined : await row<Student>(keys.student(id));
      return found && studentFrom(found);
    },
    groups: async (ids) =>
      (await Promise.all(ids.map((id) => row<BoxRow<'groups'>>(`groups/${keyText([id])}`)))).filter(
        (group) => group !== undefined,
      ),
    sitting: (id) => row<Sitting>(keys.sitting(id)),
    sittingsOf: async (groupIds) =>
      (await rows<Sitting>('sittings/')).filter((sitting) =>
        sitting.groupIds.some((id) => groupIds.includes(id)),
      ),
    guestSittings: async () => (await rows<Sitting>('sittings/')).filter(({ guests }) => guests === true),
    guestsOf: async (sittingId) =>
      (await rows<Student>('students/')).filter(({ onlySittingId }) => onlySittingId === sittingId).length,
    attemptsOf: (studentId, sittingId) => rows<Attempt>(ofStudent('attempts', studentId, sittingId)),
    allowancesOf: (studentId, sittingId) => rows(ofStudent('allowances', studentId, sittingId)),
    requestsOf: (studentId, sittingId) => rows(ofStudent('requests', studentId, sittingId)),
    releaseOf: (studentId, sittingId) => row<BoxRelease>(keys.release(studentId, sittingId)),
    // What was marked by hand is on the desk; what students may see of it comes as a script.
    marksOf: async () => [],
    paperOf: async ({ paperId, paperVersion: version }) =>
      version === null ? undefined : paperVersion(paperId, version),
    paperVersion,
    file: async (id) => {
      const ref = await row<Omit<Asset, 'bytes'>>(keys.file(id));
      const bytes = ref && (await store.bytes(id));
      return ref && bytes ? Asset.parse({ ...ref, bytes: Uint8Array.from(bytes) }) : undefined;
    },
    newId: () => nanoid(12),
    within: (studentId, work) =>
      store.locked(studentId, async () => {
        const changes: KeptChange[] = [];
        const result = await work(keepIn(changes));
        await store.commit(changes);
        return result;
      }),
  };

  const keepIn = (changes: KeptChange[]): ExchangeKeep => ({
    attempt: async (attempt) => {
      changes.push({ key: keys.attempt(attempt), value: attempt });
    },
    guest: async (guest) => {
      let joinCode = sixOf();
      while (await store.get(keys.code(joinCode))) joinCode = sixOf();
      const student = Student.parse({ ...guest, joinCode });
      changes.push({ key: keys.student(student.id), value: student });
      changes.push({ key: keys.code(joinCode), value: student.id });
      return student;
    },
    request: async (request) => {
      changes.push({ key: keys.of('requests', request), value: request });
    },
    opened: async (release, at) => {
      const value = { ...release, openedAt: [...release.openedAt, at] };
      changes.push({ key: keys.release(release.studentId, release.sittingId), value });
    },
    file: async ({ bytes, ...ref }) => {
      await store.putBytes(ref.id, bytes);
      changes.push({ key: keys.file(ref.id), value: ref });
    },
    // The desk fixes a paper before it puts the sitting in.
    freeze: async () => null,
  });
  return place;
}
