import { z } from 'zod';
import { Answers, Attempt, AttemptEvent, EarlierAnswer, LateAnswer } from '../model/sitting';
import { sameLate } from '../attempts/late';

/**
 * What one side did to an attempt that both have: the desk, where the teacher acts, and the server, where the student
 * works. It is told against what both had before, so that neither undoes what the other did meanwhile.
 */
export const AttemptChange = z.object({
  /** Fields with what they are now; null for those that are gone. */
  set: Attempt.omit({ id: true, answers: true, events: true, earlier: true, late: true })
    .partial()
    .extend({ unset: z.string().max(40).array().max(40).optional() }),
  /** Answers given or changed. */
  answers: Answers,
  added: AttemptEvent.array(),
  dropped: AttemptEvent.array(),
  /** Versions of answers, and late answers, that came or changed, and those that are gone. */
  earlier: z.object({ added: EarlierAnswer.array(), dropped: EarlierAnswer.array() }).optional(),
  late: z.object({ added: LateAnswer.array(), dropped: LateAnswer.array() }).optional(),
});
export type AttemptChange = z.infer<typeof AttemptChange>;

type Fields = Record<string, unknown>;

const merged = new Set(['id', 'answers', 'events', 'earlier', 'late']);
const text = (value: unknown) => JSON.stringify(value);

/**
 * What was done to an attempt since `before`; null where nothing was.
 *
 * @param before as both sides had it; null: only this side has it, and all of it is new
 */
export function attemptChange(before: Attempt | null, after: Attempt): AttemptChange | null {
  const [old, now] = [(before ?? {}) as Fields, after as Fields];
  const set: Fields = {};
  for (const [field, value] of Object.entries(now))
    if (!merged.has(field) && text(old[field]) !== text(value)) set[field] = value;
  const unset = Object.keys(old).filter(
    (field) => !merged.has(field) && now[field] === undefined && old[field] !== undefined,
  );
  if (unset.length > 0) set.unset = unset;
  const answers = Object.fromEntries(
    Object.entries(after.answers).filter(([id, answer]) => text(before?.answers[id]) !== text(answer)),
  );
  const added = without(after.events, before?.events ?? []);
  const dropped = without(before?.events ?? [], after.events);
  const earlier = difference(before?.earlier, after.earlier);
  const late = difference(before?.late, after.late);
  const nothing =
    Object.keys(set).length + Object.keys(answers).length + added.length + dropped.length === 0 &&
    earlier === null &&
    late === null;
  return nothing
    ? null
    : {
        set: set as AttemptChange['set'],
        answers,
        added,
        dropped,
        ...(earlier && { earlier }),
        ...(late && { late }),
      };
}

/**
 * An attempt with what the other side did to it. Doing so twice is the same as once; an answer that is newer here stays,
 * and so does a later sign of life.
 *
 * @param attempt null where this side does not have it
 * @throws where what comes out is no attempt
 */
export function withChange(id: string, attempt: Attempt | null, change: AttemptChange): Attempt {
  const { unset = [], ...set } = change.set;
  const gone = new Set(unset);
  const here = Object.entries<unknown>({ ...attempt }).filter(([field]) => !gone.has(field));
  const answers = { ...attempt?.answers };
  for (const [questionId, answer] of Object.entries(change.answers)) {
    const before = answers[questionId];
    if (!before || before.at < answer.at) answers[questionId] = answer;
  }
  const kept = without(attempt?.events ?? [], change.dropped);
  const events = [...kept, ...without(change.added, kept)];
  const earlier = joined(attempt?.earlier, change.earlier, (a, b) => text(a) === text(b));
  // What was decided about a late answer takes the place of the same answer undecided.
  const late = joined(attempt?.late, change.late, sameLate);
  const seen = [attempt?.lastSeenAt, set.lastSeenAt].filter((at) => at !== undefined).sort();
  return Attempt.parse({
    ...Object.fromEntries(here),
    ...set,
    id,
    answers,
    events: events.sort((a, b) => a.at.localeCompare(b.at)),
    ...(earlier && { earlier }),
    ...(late && { late }),
    ...(seen.length > 0 && { lastSeenAt: seen.at(-1) }),
  });
}

/** What came to a list and what left it; null where it is the same. */
function difference<T>(before: readonly T[] = [], after: readonly T[] = []) {
  const minus = (these: readonly T[], those: readonly T[]) => {
    const known = new Set(those.map(text));
    return these.filter((each) => !known.has(text(each)));
  };
  const [added, dropped] = [minus(after, before), minus(before, after)];
  return added.length + dropped.length === 0 ? null : { added, dropped };
}

/** A list with what came to it and without what left it. */
function joined<T>(
  here: readonly T[] | undefined,
  change: { added: T[]; dropped: T[] } | undefined,
  same: (a: T, b: T) => boolean,
): T[] | undefined {
  if (!change) return here && [...here];
  const gone = new Set(change.dropped.map(text));
  const left = (here ?? []).filter(
    (each) => !gone.has(text(each)) && !change.added.some((one) => same(one, each)),
  );
  return [...left, ...change.added];
}

/** The events that are not among the others. */
function without(events: readonly AttemptEvent[], others: readonly AttemptEvent[]): AttemptEvent[] {
  const known = new Set(others.map(eventText));
  return events.filter((event) => !known.has(eventText(event)));
}

const eventText = ({ kind, at, reason, questionId }: AttemptEvent) => text([kind, at, reason, questionId]);
