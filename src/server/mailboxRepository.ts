import { customAlphabet, nanoid } from 'nanoid';
import { keyText, type MailboxRelease, type MailboxRow } from '@/core/exchange/mailbox';
import type { ExchangeKeep, ExchangeRepository } from '@/core/exchange/repository';
import type { Presence } from '@/core/exchange/presence';
import { unsealerWith } from '@/core/formats/packet/sealed';
import { ScriptPacket } from '@/core/handback/script';
import { Asset } from '@/core/basics/asset';
import { Student } from '@/core/model/people';
import { stagesOf } from '@/core/model/release';
import { joinCodeAlphabet } from '@/core/basics/joinCode';
import type { Attempt, Sitting } from '@/core/model/sitting';
import type { ExchangeStore, KeptChange } from './exchangeStore';
import { heldTotals } from './heldTotals';
import { keys } from './mailboxKeys';
import { rowsIn, sealedRows, studentFrom } from './sealedRows';

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
  const { row, rows } = rowsIn(store);
  const { withCode, paperVersion } = sealedRows(store, unseal);
  const ofStudent = (table: string, studentId: string, sittingId?: string) =>
    `${table}/${keyText(sittingId === undefined ? [studentId] : [studentId, sittingId])}/`;

  return {
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
    releaseOf: (studentId, sittingId) => releaseIn(store, unseal, studentId, sittingId),
    // What was marked by hand is on the desk; what students may see of it comes as a script.
    marksOf: async () => [],
    repairsOf: async () => [],
    gradesOf: async () => null,
    classTotals: heldTotals({ row, rows }, paperVersion),
    paperOf: async ({ paperId, paperVersion: version }) =>
      version === null ? undefined : paperVersion(paperId, version),
    paperVersion,
    file: (id) => fileIn(store, id),
    newId: () => nanoid(12),
    seen: ({ id }, now) => presence.saw(id, now),
    within: (studentId, _keeps, work) =>
      store.locked(studentId, async () => {
        const changes: KeptChange[] = [];
        const result = await work(keepIn(store, changes));
        await store.commit(changes);
        return result;
      }),
  };
}

/** A release with what the student may see of it, which lies sealed. */
async function releaseIn(
  store: ExchangeStore,
  unseal: ReturnType<typeof unsealerWith>,
  studentId: string,
  sittingId: string,
): ReturnType<ExchangeRepository['releaseOf']> {
  const found = (await store.get(keys.release(studentId, sittingId))) as MailboxRelease | undefined;
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
}

async function fileIn(store: ExchangeStore, id: string): Promise<Asset | undefined> {
  const ref = (await store.get(keys.file(id))) as Omit<Asset, 'bytes'> | undefined;
  const bytes = ref && (await store.bytes(id));
  return ref && bytes ? Asset.parse({ ...ref, bytes: Uint8Array.from(bytes) }) : undefined;
}

const sixOf = customAlphabet(joinCodeAlphabet, 6);

/** Gathers what one piece of work keeps: it is committed together. */
const keepIn = (store: ExchangeStore, changes: KeptChange[]): ExchangeKeep => ({
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
    const lies = (await store.get(key)) as MailboxRelease | undefined;
    if (lies) changes.push({ key, value: { ...lies, openedAt: [...lies.openedAt, at] } });
  },
  file: async ({ bytes, ...ref }) => {
    await store.putBytes(ref.id, bytes);
    changes.push({ key: keys.file(ref.id), value: ref });
  },
  // The desk fixes a paper before it puts the sitting in.
  freeze: async () => null,
});
