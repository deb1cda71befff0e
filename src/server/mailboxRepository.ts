import { createHash } from 'node:crypto';
import { customAlphabet, nanoid } from 'nanoid';
import {
  mailboxKeys,
  keyText,
  type MailboxRelease,
  type MailboxRow,
  type MailboxTable,
  type SealedCode,
  type SealedPaper,
} from '@/core/exchange/mailbox';
import type { ExchangeKeep, ExchangeRepository } from '@/core/exchange/repository';
import type { Presence } from '@/core/exchange/presence';
import { unsealerWith } from '@/core/formats/packet/sealed';
import { ScriptPacket } from '@/core/handback/script';
import { Asset } from '@/core/basics/asset';
import { PaperVersion } from '@/core/model/paper';
import { Student } from '@/core/model/people';
import { stagesOf } from '@/core/model/release';
import { joinCodeAlphabet } from '@/core/basics/joinCode';
import type { Allowance, Attempt, Sitting } from '@/core/model/sitting';
import { wholeTotals } from '@/core/handback/wholeTotals';
import { scoredQuestions } from '@/core/repair/scoredQuestions';
import { seatsOf } from '@/core/seats/seats';
import type { ExchangeStore, KeptChange } from './exchangeStore';

/** The keys under which the mailbox keeps things. Codes are looked up by their digest: how long that takes tells nothing. */
export const keys = {
  of: <T extends MailboxTable>(table: T, row: MailboxRow<T>) =>
    `${table}/${keyText(mailboxKeys[table](row))}`,
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
  access: (sittingId: string) => `access/${keyText([sittingId])}`,
  file: (id: string) => `files/${keyText([id])}`,
  desk: (tokenDigest: string) => `desks/${tokenDigest}`,
};

/** What every request of a student at work begins with: rows, and beginnings of keys. */
export const readsOf = ({
  studentId,
  sittingId,
}: Pick<Attempt, 'studentId' | 'sittingId'>): [keys: string[], prefixes: string[]] => [
  [keys.student(studentId), keys.sitting(sittingId), keys.access(sittingId)],
  [`attempts/${keyText([studentId])}/`, `allowances/${keyText([studentId, sittingId])}/`],
];

/** A student as the mailbox has him, with the fields it was not given empty. */
const studentFrom = (row: unknown): Student => ({ ...(row as Student), number: '', email: '' });

/** For so long the figures of a class are not computed anew. */
const classHoldsMs = 15_000;

const sixOf = customAlphabet(joinCodeAlphabet, 6);

/**
 * The mailbox of the server as the exchange knows it.
 *
 * @param secret of the teacher: opens the papers that were put in sealed
 * @param presence is told of every sign of life
 */
export function mailboxRepository(
  store: ExchangeStore,
  secret: string,
  presence: Presence,
): ExchangeRepository {
  const unseal = unsealerWith(secret);
  const codes = new Map<string, string>();
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
      opened.get(known) ?? unseal(found.seal).then((text) => text && PaperVersion.parse(JSON.parse(text)));
    opened.set(known, open as Promise<PaperVersion | null>);
    return open as Promise<PaperVersion | null>;
  };

  /** A sitting with its access code, which lies sealed: opened once, in memory only. */
  const withCode = async (sitting: Sitting): Promise<Sitting> => {
    const found = await row<SealedCode>(keys.access(sitting.id));
    if (!found) return sitting;
    const { nonce } = found.seal;
    const accessCode = codes.get(nonce) ?? (await unseal(found.seal));
    // Sealed with a secret that is no longer this server's: nobody gets in by guessing.
    if (accessCode === null) return { ...sitting, accessCode: nonce };
    codes.set(nonce, accessCode);
    return { ...sitting, accessCode };
  };

  const paperVersion = async (paperId: string, version: number) => {
    await store.readAhead([keys.sealed(paperId, version), keys.paper(paperId, version)]);
    return (await withKey(paperId, version)) ?? row<PaperVersion>(keys.paper(paperId, version));
  };

  /** The whole totals of a class, by the key alone: what is marked by hand is on the desk. */
  const totalsNow = async (sitting: Sitting, now: number): Promise<number[]> => {
    const version = sitting.paperVersion;
    const paper = version === null ? undefined : await paperVersion(sitting.paperId, version);
    if (!paper) return [];
    const ofSitting = <T extends { sittingId: string }>(all: readonly T[]) =>
      all.filter(({ sittingId }) => sittingId === sitting.id);
    const attempts = ofSitting(await rows<Attempt>('attempts/'));
    const who = new Set(attempts.map(({ studentId }) => studentId));
    const records = {
      ...{ sitting, questions: scoredQuestions(paper, []), attempts, marks: [], releases: [], openings: [] },
      students: (await rows<Student>('students/')).filter(({ id }) => who.has(id)).map(studentFrom),
      allowances: ofSitting(await rows<Allowance>('allowances/')),
    };
    return wholeTotals(seatsOf(records, now));
  };
  const totals = new Map<string, { at: number; all: Promise<number[]> }>();
  const totalsHeld = (sitting: Sitting, now: number): Promise<number[]> => {
    const known = totals.get(sitting.id);
    if (known && now >= known.at && now - known.at < classHoldsMs) return known.all;
    const all = totalsNow(sitting, now);
    totals.set(sitting.id, { at: now, all });
    return all;
  };

  const place: ExchangeRepository = {
    studentWith: async (joinCode) => {
      const id = await row<string>(keys.code(joinCode));
      const found = id === undefined ? undefined : await row<Student>(keys.student(id));
      return found && studentFrom(found);
    },
    groups: async (ids) =>
      (await Promise.all(ids.map((id) => row<MailboxRow<'groups'>>(`groups/${keyText([id])}`)))).filter(
        (group) => group !== undefined,
      ),
    sitting: async (id) => {
      const found = await row<Sitting>(keys.sitting(id));
      return found && withCode(found);
    },
    sittingsOf: async (groupIds) =>
      Promise.all(
        (await rows<Sitting>('sittings/'))
          .filter((sitting) => sitting.groupIds.some((id) => groupIds.includes(id)))
          .map(withCode),
      ),
    guestSittings: async () =>
      Promise.all((await rows<Sitting>('sittings/')).filter(({ guests }) => guests === true).map(withCode)),
    guestsOf: async (sittingId) =>
      (await rows<Student>('students/')).filter(({ onlySittingId }) => onlySittingId === sittingId).length,
    attemptsOf: (studentId, sittingId) => rows<Attempt>(ofStudent('attempts', studentId, sittingId)),
    allowancesOf: (studentId, sittingId) => rows(ofStudent('allowances', studentId, sittingId)),
    requestsOf: (studentId, sittingId) => rows(ofStudent('requests', studentId, sittingId)),
    releaseOf: async (studentId, sittingId) => {
      const found = await row<MailboxRelease>(keys.release(studentId, sittingId));
      if (!found) return undefined;
      const release = {
        sittingId,
        studentId,
        releasedAt: found.releasedAt,
        stages: found.stages ?? stagesOf(found, null),
        invites: found.invites,
      };
      if (!found.seal) return { ...release, packet: found.packet };
      const text = await unseal(found.seal);
      return text === null ? undefined : { ...release, packet: ScriptPacket.parse(JSON.parse(text)) };
    },
    // What was marked by hand is on the desk; what students may see of it comes as a script.
    marksOf: async () => [],
    repairsOf: async () => [],
    gradesOf: async () => null,
    classTotals: (sitting, now) => totalsHeld(sitting, now),
    paperOf: async ({ paperId, paperVersion: version }) =>
      version === null ? undefined : paperVersion(paperId, version),
    paperVersion,
    file: async (id) => {
      const ref = await row<Omit<Asset, 'bytes'>>(keys.file(id));
      const bytes = ref && (await store.bytes(id));
      return ref && bytes ? Asset.parse({ ...ref, bytes: Uint8Array.from(bytes) }) : undefined;
    },
    newId: () => nanoid(12),
    seen: ({ id }, now) => presence.saw(id, now),
    within: (studentId, _keeps, work) =>
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
      const key = keys.release(release.studentId, release.sittingId);
      const lies = await row<MailboxRelease>(key);
      if (lies) changes.push({ key, value: { ...lies, openedAt: [...lies.openedAt, at] } });
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
