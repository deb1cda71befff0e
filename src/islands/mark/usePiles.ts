import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import { kindOf, type Question } from '@/core/kinds';
import { usualThreshold } from '@/core/marking/near/piles';
import { arranged, type AnswerEntry } from '@/core/marking/piles/arrange';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { Pile } from '@/core/model/pile';
import { pilesOf } from '@/store/piles';
import { nearAnswers } from '@/workers/nearAnswers';
import { viewOf } from '../kinds';

/** Which answers are near each other, by their ids; `looking` while a worker is at it. */
interface Near {
  proposed: string[][];
  looking: boolean;
}

interface Looked {
  ids: readonly string[];
  proposed: string[][];
}
/** What was found last of each question, at all and by how near: it holds until its answers change. */
const found = new Map<string, Looked>();

const sameList = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((each, index) => each === b[index]);

/** Whether answers of this kind are words that can be near each other. */
export const hasNearAnswers = (question: Question): boolean =>
  kindOf(question).scoredBy === 'hand' && viewOf(question).drawn !== true;

function useNear(question: Question, groups: readonly SameAnswers[], threshold: number): Near {
  const words = hasNearAnswers(question) ? groups.filter(({ blank }) => !blank) : [];
  const ids = words.map(({ id }) => id);
  const name = `${question.id} ${threshold}`;
  const known = found.get(name);
  const holds = known !== undefined && sameList(known.ids, ids);
  const [, setLooked] = useState(0);
  const texts = words.map(({ text }) => text);
  const asked = holds ? null : JSON.stringify([name, texts, ids]);
  useEffect(() => {
    if (asked === null) return;
    const [key, all, of] = JSON.parse(asked) as [string, string[], string[]];
    const work = looksFor(all, Number(key.split(' ').at(-1)));
    if (work === null) return;
    let here = true;
    work.result.then(
      (piles) => {
        const looked = { ids: of, proposed: piles.map((pile) => pile.map((at) => of[at] ?? '')) };
        found.set(key, looked);
        found.set(key.split(' ')[0] ?? '', looked);
        if (here) setLooked((count) => count + 1);
      },
      // Stopped, or it could not be done: each answer stands by itself.
      () => undefined,
    );
    return () => {
      here = false;
      work.stop();
    };
  }, [asked]);
  // Until the new ones are there, those of before stand: nothing jumps while an answer comes in.
  const proposed = (known ?? found.get(question.id))?.proposed ?? none;
  return { proposed, looking: !holds && ids.length > 1 };
}
const none: string[][] = [];

/** Null where nothing can work in the background: then each answer stands by itself. */
function looksFor(texts: readonly string[], threshold: number) {
  try {
    return nearAnswers(texts, document.documentElement.lang, threshold);
  } catch {
    return null;
  }
}

export interface Piles {
  /** The answers in the order in which they stand, each with its pile. */
  entries: AnswerEntry[];
  stored: Pile[];
  threshold: number;
  setThreshold: (threshold: number) => void;
  looking: boolean;
}

/** The answers to a question in piles: what the marker made, and what is put forward. */
export function usePiles(sittingId: string, question: Question, groups: SameAnswers[]): Piles {
  const [threshold, setThreshold] = useState(usualThreshold);
  const { proposed, looking } = useNear(question, groups, threshold);
  const kept = useLiveQuery(() => pilesOf(sittingId, question.id), [sittingId, question.id]);
  const stored = kept ?? noPiles;
  const entries = useMemo(() => arranged(groups, stored, proposed), [groups, stored, proposed]);
  return { entries, stored, threshold, setThreshold, looking };
}
const noPiles: Pile[] = [];
