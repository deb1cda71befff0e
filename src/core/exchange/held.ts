import type { Became } from './messages';
import type { Response } from '../kinds';
import type { Answer, Answers, EarlierAnswer } from '../model/sitting';
import { knownOf, knows, sameTyping, type Choice } from '../attempts/versions';

/** The answers of one attempt as a student's device holds them. Nothing leaves it before it was told what became of it. */
export interface HeldAnswers {
  /** Those on the screen. */
  answers: Answers;
  /** The questions among them whose answer has not been acknowledged. */
  unsent: string[];
  /** Typed here, not acknowledged, and not on the screen: something newer is. */
  apart: EarlierAnswer[];
}

/** What a page of a device remembers while it is open. One that is opened anew remembers nothing. */
export interface PageMemory {
  /** A name that no other page has. */
  name: string;
  /** How far each line has got in which this page types. */
  tops: Record<string, number>;
  /** The answers of which it was told what became of them: not to be taken up again from another page. */
  told: Set<string>;
}

export const pageMemory = (name: string): PageMemory => ({ name, tops: {}, told: new Set() });

const typingKey = ({ stamp }: Answer) => stamp && `${stamp.line} ${stamp.n}`;

/**
 * An answer typed here, on top of what is on the screen.
 *
 * @param at when, ISO instant
 * @param inView other versions that the student had before him and chose between
 */
export function typed<T extends HeldAnswers>(
  held: T,
  questionId: string,
  response: Response,
  at: string,
  page: PageMemory,
  inView: readonly Answer[] = [],
): T {
  const current = held.answers[questionId];
  // What was chosen between is kept, so that it does not go on in the line of either.
  const goesOn = inView.length === 0 && current?.stamp && page.tops[current.stamp.line] === current.stamp.n;
  const line = goesOn ? current.stamp?.line : undefined;
  const name = line ?? `${page.name}.${Object.keys(page.tops).length}`;
  const n = (page.tops[name] ?? 0) + 1;
  page.tops[name] = n;
  const known = knownOf([...(current ? [current] : []), ...inView]);
  const answer: Answer = { response, at, stamp: { line: name, n, knows: { ...known, [name]: n } } };
  return {
    ...held,
    answers: { ...held.answers, [questionId]: answer },
    unsent: [...new Set([...held.unsent, questionId])],
  };
}

/** What is to be handed over next: of each question at most one answer, what stands apart first. */
export function outgoing({ answers, unsent, apart }: HeldAnswers): Answers {
  const next: Answers = {};
  for (const id of unsent) if (answers[id]) next[id] = answers[id];
  for (const { questionId, ...answer } of [...apart].reverse()) next[questionId] = answer;
  return next;
}

/** What is held after the other side has said what became of what was sent, and where there is a choice. */
export function acknowledged<T extends HeldAnswers>(
  held: T,
  sent: Answers,
  became: Readonly<Record<string, Became>>,
  choices: readonly Choice[],
  page: PageMemory,
): T {
  for (const [id, answer] of Object.entries(sent)) {
    const key = typingKey(answer);
    if (became[id] !== undefined && key) page.told.add(key);
  }
  const isTold = (questionId: string, answer: Answer | undefined) => {
    const gone = sent[questionId];
    return (
      became[questionId] !== undefined && gone !== undefined && answer !== undefined && isSame(gone, answer)
    );
  };
  const unsent = held.unsent.filter((id) => !isTold(id, held.answers[id]));
  const apart = held.apart.filter((each) => !isTold(each.questionId, each));
  const answers = { ...held.answers };
  // What counts is on the screen; what was typed here without knowing of it is kept there, and can be chosen.
  for (const { questionId, counts } of choices) {
    const here = answers[questionId];
    if (!unsent.includes(questionId) && !(here && isSame(here, counts))) answers[questionId] = counts;
  }
  const changed = choices.some(({ questionId }) => answers[questionId] !== held.answers[questionId]);
  return { ...held, unsent, apart, answers: changed ? answers : held.answers };
}

const isSame = (a: Answer, b: Answer) =>
  sameTyping(a, b) || (!a.stamp && !b.stamp && a.at === b.at && a.response === b.response);

/**
 * What a page begins with: what the other side has, with what was typed on this device and not acknowledged laid over it
 * where it was typed knowing of it; what was not is held apart, to be handed over.
 */
export function heldFrom(there: Answers, before: HeldAnswers | null): HeldAnswers {
  const answers = { ...there };
  const unsent: string[] = [];
  const apart = [...(before?.apart ?? [])];
  for (const id of before?.unsent ?? []) {
    const typedHere = before?.answers[id];
    const now = there[id];
    if (!typedHere) continue;
    // It arrived, and only the word of it was lost.
    if (now && typedHere.stamp && knows(now, typedHere)) continue;
    if (!now || !typedHere.stamp || knows(typedHere, now)) {
      answers[id] = typedHere;
      unsent.push(id);
    } else apart.push({ ...typedHere, questionId: id });
  }
  return { answers, unsent, apart };
}

/** What is held here, with what another page of this device holds and has not been told of. */
export function withOthers<T extends HeldAnswers>(held: T, others: HeldAnswers, page: PageMemory): T {
  const theirs = [
    ...others.apart,
    ...others.unsent.flatMap((questionId) => {
      const answer = others.answers[questionId];
      return answer ? [{ ...answer, questionId }] : [];
    }),
  ];
  const more = theirs.filter(({ questionId, ...answer }) => {
    if (page.told.has(typingKey(answer) ?? '')) return false;
    const here = held.answers[questionId];
    const known = here !== undefined && (isSame(here, answer) || (answer.stamp && knows(here, answer)));
    return !known && !held.apart.some((each) => each.questionId === questionId && isSame(each, answer));
  });
  return more.length === 0 ? held : { ...held, apart: [...held.apart, ...more] };
}
