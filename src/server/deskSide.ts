import { withChange, type AttemptChange } from '@/core/exchange/attemptChange';
import {
  mailboxKeys,
  keyText,
  type MailboxChange,
  type MailboxNews,
  type MailboxRelease,
  type MailboxStudent,
} from '@/core/exchange/mailbox';
import type { Attempt, ExceptionRequest, Sitting } from '@/core/model/sitting';
import { keys } from './mailboxKeys';
import type { ExchangeStore, KeptChange } from './exchangeStore';
import { Refused } from './respond';
import type { Session } from './sessions';

/** What the teacher's desk puts into the mailbox, and what it takes out. */

/** Takes the desk's changes in, in their order. */
export async function takeChanges(store: ExchangeStore, changes: readonly MailboxChange[]): Promise<void> {
  for (const change of changes)
    if ('drop' in change) await drop(store, change.drop, change.key, change.rev ?? 0);
    else if (change.table === 'attempts') await changeAttempt(store, change.id, change.change);
    else await put(store, change);
}

async function put(
  store: ExchangeStore,
  change: Exclude<MailboxChange, { drop: string } | { table: 'attempts' }>,
) {
  const { table, row } = change;
  // Each table has its key, which the types of a union cannot say.
  const key = `${table}/${keyText((mailboxKeys[table] as (row: unknown) => string[])(row))}`;
  const writes: KeptChange[] = [{ key, value: row }];
  if (table === 'students') {
    const before = (await store.get(key)) as MailboxStudent | undefined;
    if (before && before.joinCode !== row.joinCode) writes.push(...(await codeGone(store, before)));
    writes.push({ key: keys.code(row.joinCode), value: row.id });
  }
  if (table !== 'releases') return store.commit(writes);
  return store.locked(row.studentId, async () => {
    const before = (await store.get(key)) as MailboxRelease | undefined;
    const openedAt = [...new Set([...row.openedAt, ...(before?.openedAt ?? [])])].sort();
    await store.commit([{ key, value: { ...row, openedAt } }]);
  });
}

/** With nobody else taking the attempt's session meanwhile: a token given just now must not be lost. */
const changeAttempt = (store: ExchangeStore, id: string, change: AttemptChange): Promise<void> =>
  store.locked(keys.session(id), () => changeOwnAttempt(store, id, change));

async function changeOwnAttempt(store: ExchangeStore, id: string, change: AttemptChange): Promise<void> {
  const sessionKey = keys.session(id);
  const session = (await store.get(sessionKey)) as Session | undefined;
  const studentId = session?.studentId ?? change.set.studentId ?? '';
  await store.locked(studentId, async () => {
    const before = session && keys.attempt({ id, ...session });
    const current = before ? ((await store.get(before)) as Attempt | undefined) : undefined;
    let after: Attempt;
    try {
      after = withChange(id, current ?? null, change);
    } catch {
      throw new Refused('badRequest', `attempt ${id}`);
    }
    const key = keys.attempt(after);
    const place: Session = {
      studentId: after.studentId,
      sittingId: after.sittingId,
      tokens: session?.tokens ?? [],
    };
    await store.commit([
      // A guest was found on the list: the attempt is that student's from now on.
      ...(before && before !== key ? [{ key: before, value: null }] : []),
      { key, value: after },
      { key: sessionKey, value: place },
    ]);
  });
}

async function drop(store: ExchangeStore, table: string, key: string, rev: number): Promise<void> {
  if (table === 'sittings') return dropSitting(store, decodeURIComponent(key), rev);
  if (table === 'attempts') {
    const sessionKey = `sessions/${key}`;
    const session = (await store.get(sessionKey)) as Session | undefined;
    if (!session) return;
    const attempt = (await store.get(keys.attempt({ id: decodeURIComponent(key), ...session }))) as
      Attempt | undefined;
    return dropAttempts(store, attempt ? [attempt] : []);
  }
  const writes: KeptChange[] = [{ key: `${table}/${key}`, value: null }];
  const row = await store.get(`${table}/${key}`);
  if (table === 'students' && row) writes.push(...(await codeGone(store, row as MailboxStudent)));
  await store.commit(writes);
}

/** A code leads nowhere any more, unless it is somebody else's by now. */
async function codeGone(store: ExchangeStore, { id, joinCode }: MailboxStudent): Promise<KeptChange[]> {
  const key = keys.code(joinCode);
  return (await store.get(key)) === id ? [{ key, value: null }] : [];
}

/**
 * Takes a sitting off the server with everything of it, once the desk has all that students did.
 *
 * @param rev up to where the desk took its news in
 * @throws {Refused} something came since: the desk has to take it in first
 */
async function dropSitting(store: ExchangeStore, sittingId: string, rev: number): Promise<void> {
  const key = keys.sitting(sittingId);
  const sitting = await store.get(key);
  // Without its sitting no answer is acknowledged any more. What is being taken right now is waited for.
  await store.commit([{ key, value: null }]);
  for (const { value } of await store.list('students/'))
    await store.locked((value as MailboxStudent).id, async () => undefined);
  const news = await newsAfter(store, rev, 0);
  const told = [...news.attempts, ...news.requests].some((row) => row.sittingId === sittingId);
  if (sitting && (told || news.more)) {
    await store.commit([{ key, value: sitting }]);
    throw new Refused('notYet', 'sittings');
  }
  const of = async <T>(prefix: string) =>
    (await store.list(prefix)).filter(
      ({ value }) => (value as { sittingId?: string }).sittingId === sittingId,
    ) as {
      key: string;
      value: T;
    }[];
  await dropAttempts(
    store,
    (await of<Attempt>('attempts/')).map(({ value }) => value),
  );
  const guests = (await store.list('students/')).filter(
    ({ value }) => (value as MailboxStudent).onlySittingId === sittingId,
  );
  const others = (await store.list('sittings/')).map(({ value }) => (value as Sitting).paperId);
  const { paperId } = (sitting as Sitting | undefined) ?? { paperId: '' };
  const papers = others.includes(paperId)
    ? []
    : [...(await store.list('papers/')), ...(await store.list('sealed/'))].filter(
        ({ value }) => (value as { paperId: string }).paperId === paperId,
      );
  const left = [
    ...papers,
    ...(await of('allowances/')),
    ...(await of('requests/')),
    ...(await of('releases/')),
    ...(await of('access/')),
    ...guests,
    ...guests.map(({ value }) => ({ key: keys.code((value as MailboxStudent).joinCode) })),
  ];
  await store.commit(left.map(({ key }) => ({ key, value: null })));
}

async function dropAttempts(store: ExchangeStore, attempts: readonly Attempt[]): Promise<void> {
  const gone = new Set(attempts.map(({ id }) => id));
  await store.commit(
    attempts.flatMap((attempt) => [
      { key: keys.attempt(attempt), value: null },
      { key: keys.session(attempt.id), value: null },
    ]),
  );
  const files = new Set(attempts.flatMap(({ files }) => files ?? []).map(({ id }) => id));
  if (files.size === 0) return;
  const named = (await store.list('attempts/'))
    .map(({ value }) => value as Attempt)
    .filter(({ id }) => !gone.has(id))
    .flatMap((attempt) => attempt.files ?? []);
  for (const { id } of named) files.delete(id);
  await store.commit([...files].map((id) => ({ key: keys.file(id), value: null })));
  for (const id of files) await store.dropBytes(id);
}

/** About so many rows are told at once. */
const mostNews = 200;

/** What has changed on the students' side after a revision, oldest first. */
export async function newsAfter(
  store: ExchangeStore,
  after: number,
  now: number,
): Promise<Omit<MailboxNews, 'stopped' | 'holds'>> {
  const { rows, rev, more } = await store.changed(
    after,
    ['attempts/', 'students/', 'requests/', 'releases/'],
    mostNews,
  );
  const of = <T>(table: string) =>
    rows.filter(({ key }) => key.startsWith(table)).map(({ value }) => value as T);
  return {
    mailbox: store.id,
    rev,
    now,
    more,
    attempts: of<Attempt>('attempts/'),
    guests: of<MailboxStudent>('students/').filter(({ role }) => role === 'guest'),
    requests: of<ExceptionRequest>('requests/'),
    opened: of<MailboxRelease>('releases/').map(({ sittingId, studentId, openedAt }) => ({
      sittingId,
      studentId,
      openedAt,
    })),
  };
}

export async function sittingsIn(store: ExchangeStore): Promise<{ id: string; title: string }[]> {
  return (await store.list('sittings/')).map(({ value }) => {
    const { id, title } = value as Sitting;
    return { id, title };
  });
}
