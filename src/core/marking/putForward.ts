import { sumBy } from 'remeda';
import type { Question } from '../kinds';
import { schemePoints } from '../kinds/schemePoints';
import { groupLines } from './groupMark';
import { linesByParts } from './parts/linesByParts';
import { pointsByParts } from './parts/pointsByParts';
import type { AnswerEntry } from './piles/arrange';
import { likeOf, waitingIn, type LikeMark } from './piles/like';
import { marksOf, type SameAnswers } from './sameAnswers';
import { wholeScheme } from './scheme';

/** What equal answers to the same question have in an earlier sitting, by what they have in common. */
export type EarlierMarks = ReadonlyMap<string, EarlierMark>;
export interface EarlierMark {
  points: number;
  lines: string[];
  times: number;
  /** The sitting's title. */
  sitting: string;
}

/** The names of the parts that answers are made of, by the id of the row; absent: not known. */
export type AnswerParts = ReadonlyMap<string, readonly string[]>;

/**
 * What is put forward for the answers that wait, by the id of the row: what equal ones have, here or in an earlier sitting;
 * what similar ones of the pile have; or what follows from the parts of the answers that are marked. Given by nothing but
 * the marker.
 *
 * @param parts what answers are made of; empty where they are no texts
 */
export function putForward(
  question: Question,
  entries: readonly AnswerEntry[],
  earlier: EarlierMarks,
  parts: AnswerParts,
): Map<string, LikeMark> {
  const byParts =
    parts.size > 0
      ? told(
          question,
          entries.map(({ group }) => group),
          parts,
        )
      : null;
  const all = new Map<string, LikeMark>();
  for (const entry of entries) {
    const { group } = entry;
    if (group.waiting === 0 || group.blank || group.onPaper) continue;
    const like = likeOf(entry);
    // Similar ones of a pile that is only put forward may say more or less than this one.
    const alike =
      like?.from === 'equal' || (entry.pile ?? entry.fits)?.agreed || samePartsAsMarked(entry, parts);
    const forward =
      (like?.from === 'equal' ? like : likeEarlier(group, earlier)) ??
      (alike ? like : null) ??
      byParts?.(group);
    if (forward) all.set(group.id, forward);
  }
  return all;
}

/** Whether the marked answers of a pile are made of the same parts as this one, as far as that is known. */
function samePartsAsMarked({ group, pile }: AnswerEntry, parts: AnswerParts): boolean {
  const own = parts.get(group.id);
  if (!own) return true;
  const marked = (pile?.members ?? []).filter((each) => marksOf(each).some(({ points }) => points !== null));
  return marked.every(({ id }) => {
    const theirs = parts.get(id);
    return !theirs || (theirs.length === own.length && theirs.every((part) => own.includes(part)));
  });
}

function likeEarlier(group: SameAnswers, earlier: EarlierMarks): LikeMark | null {
  const mark = earlier.get(group.id);
  if (!mark) return null;
  return { ...mark, text: group.text, from: 'earlier', attemptIds: waitingIn(group) };
}

/** What follows from the marked answers for one that waits: by lines where marks have lines, else by points. */
function told(
  question: Question,
  groups: readonly SameAnswers[],
  partsOf: AnswerParts,
): (group: SameAnswers) => LikeMark | null {
  const scheme = wholeScheme(question);
  const marked = groups.flatMap((group) => {
    const marks = marksOf(group);
    if (group.blank || group.onPaper || group.points === null || marks.some(({ adjustment }) => adjustment))
      return [];
    return [
      {
        parts: partsOf.get(group.id) ?? [],
        points: group.points,
        lines: groupLines(marks),
        count: marks.length,
      },
    ];
  });
  if (marked.length === 0) return () => null;
  const byLines = marked.some(({ lines }) => lines.length > 0);
  // Points typed over lines, or without any, say nothing of lines.
  const agreeing = marked.filter(
    ({ points, lines }) => points === schemePoints(scheme, lines, question.points),
  );
  const lines = byLines
    ? linesByParts(
        agreeing,
        scheme.lines.map(({ id }) => id),
      )
    : null;
  const points = byLines ? null : pointsByParts(marked, question.points);
  return (group) => {
    const parts = partsOf.get(group.id) ?? [];
    const met = lines?.(parts) ?? null;
    const worth = met ? schemePoints(scheme, met, question.points) : (points?.(parts) ?? null);
    if (worth === null) return null;
    const has = new Set(parts);
    const times = sumBy(
      (byLines ? agreeing : marked).filter((each) => each.parts.some((part) => has.has(part))),
      ({ count }) => count,
    );
    return {
      ...{ points: worth, lines: met ?? [], text: group.text, times },
      ...{ from: 'parts', attemptIds: waitingIn(group) },
    };
  };
}
