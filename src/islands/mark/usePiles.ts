import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useRef, useState } from 'react';
import { kindOf, type Question } from '@/core/kinds';
import type { AnswerParts } from '@/core/marking/putForward';
import { usualThreshold } from '@/core/marking/near/threshold';
import { arranged, shuffledEntries, type AnswerEntry } from '@/core/marking/piles/arrange';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { Pile } from '@/core/model/pile';
import { pilesOf } from '@/store/piles';
import { nearAnswers, partsOfAnswers } from '@/workers/nearAnswers';
import type { Work } from '@/workers/stoppable';
import { sameList, useHeld } from '@/ui/useHeld';
import { viewOf } from '../kinds';

/** How far a worker is with looking. */
export interface Looking {
  /** 0 to 1. */
  done: number;
  /** Null once it was stopped. */
  stop: (() => void) | null;
}

interface Looked<T> {
  ids: readonly string[];
  is: T;
}
/** What was found last, by what was looked for: it holds until the answers change. */
const found = new Map<string, Looked<unknown>>();

/** Whether answers of this kind are words that can be near each other. */
export const hasNearAnswers = (question: Question): boolean =>
  kindOf(question).scoredBy === 'hand' && viewOf(question).drawn !== true;

export interface Words {
  ids: readonly string[];
  texts: readonly string[];
}

/** The different answers in words, with their ids: what a worker looks at. The same object until one of them changes. */
function useWords(question: Question, groups: readonly SameAnswers[]): Words {
  const words = useMemo(() => wordsOf(question, groups), [question, groups]);
  const ids = useHeld(words.ids);
  const texts = useHeld(words.texts);
  return useMemo(() => ({ ids, texts }), [ids, texts]);
}

function wordsOf(question: Question, groups: readonly SameAnswers[]): Words {
  const words = { ids: [] as string[], texts: [] as string[] };
  if (!hasNearAnswers(question)) return words;
  // In one pass: of ten thousand answers it is asked at every mark.
  for (const { id, text, blank, onPaper } of groups)
    if (!blank && !onPaper) {
      words.ids.push(id);
      words.texts.push(text);
    }
  return words;
}

/**
 * What a worker found for these answers, once it has; what it found for those of before until then.
 *
 * @param name what is looked for
 */
function useFound<T>(
  name: string,
  { ids, texts }: Words,
  look: (texts: readonly string[], progress: (done: number) => void) => Work<T>,
): { found: { ids: readonly string[]; is: T } | null; looking: Looking | null } {
  const known = (found.get(name) as Looked<T> | undefined) ?? null; // put there below, by the same name
  const holds = useMemo(() => known !== null && sameList(known.ids, ids), [known, ids]);
  const [, setLooked] = useState(0);
  const [under, setUnder] = useState<{ asked: string; done: number; work: Work<T> | null } | null>(null);
  const asked = useMemo(
    () => (holds || ids.length < 2 ? null : JSON.stringify([texts, ids])),
    [holds, texts, ids],
  );
  const latest = useRef(look);
  useEffect(() => {
    latest.current = look;
  });
  useEffect(() => {
    if (asked === null) return;
    const [all, of] = JSON.parse(asked) as [string[], string[]];
    let here = true;
    const work = begun(() =>
      latest.current(all, (done) => here && setUnder((now) => now && { ...now, done })),
    );
    if (work === null) return;
    setUnder({ asked, done: 0, work });
    work.result.then(
      (is) => {
        found.set(name, { ids: of, is });
        if (here) setLooked((count) => count + 1);
      },
      // Stopped, or it could not be done: each answer stands by itself.
      () => here && setUnder((now) => now && { ...now, work: null }),
    );
    return () => {
      here = false;
      work.stop();
    };
  }, [name, asked]);
  const now = under?.asked === asked ? under : null;
  const looking = asked === null ? null : { done: now?.done ?? 0, stop: now?.work?.stop ?? null };
  return { found: known, looking };
}

/** Null where nothing can work in the background: then each answer stands by itself. */
function begun<T>(work: () => Work<T>): Work<T> | null {
  try {
    return work();
  } catch {
    return null;
  }
}

const language = () => document.documentElement.lang;

/** Which answers are near each other, by their ids; `looking` while a worker is at it. */
function useNear(question: Question, words: Words, threshold: number) {
  const { found: near, looking } = useFound(`${question.id} piles ${threshold}`, words, (texts, progress) =>
    nearAnswers(texts, language(), threshold, progress),
  );
  // Until the new ones are there, those of another threshold stand: nothing jumps.
  const [before, setBefore] = useState<typeof near>(null);
  if (near !== null && near !== before) setBefore(near);
  const shown = near ?? before;
  const proposed = useMemo(
    () => (shown ? shown.is.map((pile) => pile.map((at) => shown.ids[at] ?? '')) : none),
    [shown],
  );
  return { proposed, looking };
}
const none: string[][] = [];

/** Of more different answers than this the parts are not looked at: every mark would be followed through all of them. */
const mostByParts = 2_000;

/** What the answers in words are made of, as far as a worker has looked. */
export function useAnswerParts(question: Question, words: Words): AnswerParts {
  const few = words.ids.length <= mostByParts ? words : noWords;
  const { found: parts } = useFound(`${question.id} parts`, few, (texts) =>
    partsOfAnswers(texts, language()),
  );
  return useMemo(
    () => (parts ? new Map(parts.ids.map((id, at) => [id, parts.is[at] ?? []])) : noParts),
    [parts],
  );
}
const noWords: Words = { ids: [], texts: [] };
const noParts: AnswerParts = new Map();

export interface Piles {
  /** The answers in the order in which they stand, each with its pile. */
  entries: AnswerEntry[];
  words: Words;
  stored: Pile[];
  threshold: number;
  setThreshold: (threshold: number) => void;
  /** Null where all has been looked at. */
  looking: Looking | null;
}

interface PilesAsked {
  /** Answers stand in an order by this; null: large piles and short answers first. */
  seed: string | null;
  /** Whether it is looked which are near each other: not before all are there. */
  look: boolean;
}

/** The answers to a question in piles: what the marker made, and what is put forward. */
export function usePiles(
  sittingId: string,
  question: Question,
  groups: SameAnswers[],
  { seed, look }: PilesAsked,
): Piles {
  const [threshold, setThreshold] = useState(usualThreshold);
  const words = useWords(question, look ? groups : noGroups);
  const { proposed, looking } = useNear(question, words, threshold);
  const kept = useLiveQuery(() => pilesOf(sittingId, question.id), [sittingId, question.id]);
  const stored = kept ?? noPiles;
  const entries = useMemo(() => {
    const inOrder = arranged(groups, stored, proposed);
    return seed === null ? inOrder : shuffledEntries(inOrder, `${seed} ${question.id}`);
  }, [groups, stored, proposed, seed, question.id]);
  return { entries, words, stored, threshold, setThreshold, looking };
}
const noPiles: Pile[] = [];
const noGroups: SameAnswers[] = [];
