import { done } from '@/words/done';
import { CommandFault } from '@/core/model/commandFault';
import type { ExceptionRequest } from '@/core/model/sitting';
import { runCommand, together } from './command';
import { desk } from './tables';

/** Says yes or no to a request. What was granted is done by its own act, before. */
export async function answerRequest(id: string, granted: boolean, words: string, now: string) {
  const request = await desk.requests.get(id);
  const student = request && (await desk.students.get(request.studentId));
  if (!request) throw new CommandFault('requestGone');
  const said = done.requestAnswered(student, granted);
  return runCommand({ command: 'answerRequest', said, about: request.sittingId }, now, (record) =>
    record.put('requests', {
      ...request,
      answer: { granted, words: words.trim(), at: now },
    } satisfies ExceptionRequest),
  );
}

/** Grants a request: what it asks for is done and the student is told, as one step. */
export async function grantRequest(
  id: string,
  words: string,
  now: string,
  doing: () => Promise<{ said: string }>,
) {
  const request = await desk.requests.get(id);
  const student = request && (await desk.students.get(request.studentId));
  const said = done.requestAnswered(student, true);
  return together({ command: 'grantRequest', said, about: request?.sittingId ?? null }, now, async () => {
    await doing();
    await answerRequest(id, true, words, now);
  });
}

/** Every request with whose it is and where, those that wait first, then the newest. */
export async function requestRows(sittingId?: string) {
  const requests = await (sittingId === undefined
    ? desk.requests.toArray()
    : desk.requests.where({ sittingId }).toArray());
  const rows = await Promise.all(
    requests.map(async (request) => ({
      request,
      student: await desk.students.get(request.studentId),
      sitting: await desk.sittings.get(request.sittingId),
    })),
  );
  return rows
    .flatMap(({ request, student, sitting }) => (student && sitting ? [{ request, student, sitting }] : []))
    .sort(
      (a, b) =>
        Number(a.request.answer !== null) - Number(b.request.answer !== null) ||
        b.request.at.localeCompare(a.request.at),
    );
}
export type RequestRow = Awaited<ReturnType<typeof requestRows>>[number];
