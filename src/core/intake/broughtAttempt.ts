import { omit } from 'remeda';
import type { Question } from '../kinds';
import type { Attempt, EarlierAnswer } from '../model/sitting';
import type { AnswerRow } from './sheetRows';

/** Where an attempt that is brought in belongs. */
export interface BroughtPlace {
  id: string;
  sittingId: string;
  studentId: string;
  number: number;
  paperVersion: number;
  /** ISO */
  now: string;
}

/**
 * The attempt that a row of a sheet is. It was handed in when the row says so, else when it was brought in; when it was begun is
 * not known unless the row says that too.
 */
export function broughtAttempt(
  row: AnswerRow,
  questions: readonly Question[],
  { now, ...place }: BroughtPlace,
): Attempt {
  const handedInAt = row.handedInAt ?? row.startedAt ?? now;
  return {
    ...place,
    questionIds: questions.map(({ id }) => id),
    answers: Object.fromEntries(
      Object.entries(row.answers).map(([id, response]) => [id, { response, at: handedInAt }]),
    ),
    comeBack: [],
    startedAt: row.startedAt !== null && row.startedAt <= handedInAt ? row.startedAt : handedInAt,
    lastSeenAt: handedInAt,
    handedInAt,
    collectedAt: null,
    events: [{ kind: 'broughtIn', at: now }],
    source: 'sheet',
  };
}

/** The attempt with the answers that a row has now; what was there before is kept as an earlier version. */
export function broughtAgain(
  attempt: Attempt,
  row: AnswerRow,
  changed: readonly string[],
  now: string,
): Attempt {
  const answers = omit(attempt.answers, changed);
  const earlier: EarlierAnswer[] = [...(attempt.earlier ?? [])];
  for (const questionId of changed) {
    const [was, response] = [attempt.answers[questionId], row.answers[questionId]];
    if (was) earlier.push({ ...was, questionId });
    if (response) answers[questionId] = { response, at: now };
  }
  return {
    ...attempt,
    answers,
    ...(earlier.length > 0 && { earlier }),
    lastSeenAt: now,
    events: [...attempt.events, { kind: 'broughtIn', at: now }],
  };
}
