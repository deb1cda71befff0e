import type { PackedAsset } from '../../basics/asset';
import { filesIn, withFiles, withoutFileNames } from '../../basics/filesIn';
import { roundPoints } from '../../basics/points';
import { numbersOf } from '../../kinds/itemNumbers';
import { itemsOf } from '../../kinds/items';
import { countedAnswers } from '../../attempts/late';
import { ownMarker, type HandMark } from '../../model/mark';
import type { PaperVersion } from '../../model/paper';
import type { WorkMark } from '../../model/workMark';
import type { Student } from '../../model/people';
import type { MarkingShare, MarksBack, ShareContent, TakenShare } from '../../model/share';
import type { Answers, Attempt, Sitting } from '../../model/sitting';
import { isLayerMark } from '../work/layer';
import { scriptsOf } from './deal';

/** What goes to another marker, what is made of it on that desk, and what comes back. */

/** The n-th script of a share, as an attempt is named. */
export const scriptId = (shareId: string, n: number) => `${shareId}.${n}`;

/** Which script of the share that is; null for none. */
function scriptNumber(shareId: string, id: string): number | null {
  const n = id.startsWith(`${shareId}.`) ? id.slice(shareId.length + 1) : '';
  return /^\d{1,6}$/.test(n) ? Number(n) : null;
}

/** The questions of a paper that are, or hold, some of these items. */
const holding = ({ questions }: PaperVersion, ids: ReadonlySet<string>) =>
  questions.filter((question) => itemsOf([question]).some(({ id }) => ids.has(id)));

/** The files that the answers of a share name, by id. */
export function filesOfShare(share: Pick<MarkingShare, 'answers'>, attempts: readonly Attempt[]): string[] {
  return [...new Set(scriptAnswers(share, attempts).flatMap(({ answers }) => filesIn(answers)))].map(
    ({ id }) => id,
  );
}

function scriptAnswers({ answers }: Pick<MarkingShare, 'answers'>, attempts: readonly Attempt[]) {
  const byId = new Map(attempts.map((attempt) => [attempt.id, attempt]));
  const asked = new Map<string, string[]>();
  for (const { questionId, attemptIds } of answers)
    for (const id of attemptIds) {
      const before = asked.get(id);
      if (before) before.push(questionId);
      else asked.set(id, [questionId]);
    }
  return scriptsOf(answers).map((id) => {
    const attempt = byId.get(id);
    const questionIds = asked.get(id) ?? [];
    const counted = attempt ? countedAnswers(attempt) : {};
    return {
      questionIds,
      answers: Object.fromEntries(
        questionIds.flatMap((each) => (counted[each] ? [[each, counted[each]]] : [])),
      ) satisfies Answers,
    };
  });
}

/**
 * What a share holds: the answers that it names and nothing else of their attempts. Who wrote them, when, and what files
 * were called stays on the desk.
 *
 * @param title of the sitting
 * @param assets the pictures of the paper and the files of the answers
 * @param renamed ids of files that are others on their way, by the id that answers know them by
 */
export function shareContent(
  share: MarkingShare,
  title: string,
  paper: PaperVersion,
  attempts: readonly Attempt[],
  assets: readonly PackedAsset[],
  renamed: ReadonlyMap<string, string> = new Map(),
): ShareContent {
  const { id, marker, purpose, way, secret, givenAt, answers } = share;
  const ids = new Set(answers.map(({ questionId }) => questionId));
  const { parts: _parts, ...rest } = paper;
  return {
    shareId: id,
    title,
    marker,
    purpose,
    way,
    secret,
    givenAt,
    paper: {
      ...rest,
      questions: holding(paper, ids).map(({ partId: _part, ...question }) => question as typeof question),
    },
    numbers: Object.fromEntries(
      [...numbersOf(itemsOf(paper.questions))].filter(([questionId]) => ids.has(questionId)),
    ),
    scripts: scriptAnswers(share, attempts).map((script) => ({
      questionIds: script.questionIds,
      answers: Object.fromEntries(
        Object.entries(script.answers).map(([questionId, { response }]) => [
          questionId,
          {
            response: withFiles(withoutFileNames(response), (file) => ({
              ...file,
              id: renamed.get(file.id) ?? file.id,
            })),
            at: givenAt,
          },
        ]),
      ),
    })),
    assets: assets.map((asset) => ({ ...asset, name: 'file' })),
  };
}

/** The rows that a share becomes on the marker's desk: a sitting of scripts without names. */
export interface ShareRows {
  sitting: Sitting;
  paper: PaperVersion;
  students: Student[];
  attempts: Attempt[];
  taken: TakenShare;
}

/**
 * What a share becomes on the desk of who marks it.
 *
 * @param code what opened it
 * @param joinCode draws one that nobody has
 */
export function shareRows(
  content: ShareContent,
  code: string,
  joinCode: () => string,
  now: string,
): ShareRows {
  const { shareId, title, marker, purpose, way, secret, givenAt, scripts } = content;
  const sitting: Sitting = {
    id: shareId,
    paperId: shareId,
    paperVersion: 1,
    title,
    groupIds: [],
    opensAt: givenAt,
    closesAt: null,
    timeLimitMs: null,
    accessCode: '',
    closedToStartsAt: givenAt,
    createdAt: now,
    share: true,
  };
  return {
    sitting,
    paper: { ...content.paper, paperId: shareId, version: 1 },
    students: scripts.map((_script, n) => ({
      id: scriptId(shareId, n),
      familyName: String(n + 1),
      givenName: 'Script',
      number: '',
      email: '',
      joinCode: joinCode(),
      groupIds: [],
      role: 'guest',
      onlySittingId: shareId,
    })),
    attempts: scripts.map(({ questionIds, answers }, n) => ({
      id: scriptId(shareId, n),
      sittingId: shareId,
      studentId: scriptId(shareId, n),
      number: 1,
      paperVersion: 1,
      questionIds,
      answers,
      comeBack: [],
      startedAt: givenAt,
      lastSeenAt: givenAt,
      handedInAt: givenAt,
      collectedAt: null,
      events: [],
    })),
    taken: {
      ...{ sittingId: shareId, marker, purpose, way, code, secret, takenAt: now },
      ...(content.numbers && { numbers: content.numbers }),
    },
  };
}

/** A mark on a file that went out as another lies on the one that is here. */
function onOwnFile(mark: WorkMark, renamed: MarkingShare['renamed'] = {}): WorkMark {
  if (!isLayerMark(mark)) return mark;
  const [id = '', page = ''] = mark.on.split('#');
  const here = Object.hasOwn(renamed, id) ? renamed[id] : undefined;
  return here === undefined ? mark : { ...mark, on: `${here}#${page}` };
}

/** What was taken of marks that came back. */
export interface TakenBack {
  marks: HandMark[];
  /** Marks of answers that were not in the share, or of more than the maximum without a reason. */
  leftOut: number;
}

/**
 * Marks that came back, as the desk keeps them: under the name of the share, each at the attempt its script was made of.
 * What came from elsewhere is not trusted to be about what was given.
 *
 * @param most the points of each question, by id
 */
export function takenBack(
  share: MarkingShare,
  back: Pick<MarksBack, 'marks'>,
  most: ReadonlyMap<string, number>,
): TakenBack {
  const scripts = scriptsOf(share.answers);
  const given = new Map(share.answers.map(({ questionId, attemptIds }) => [questionId, new Set(attemptIds)]));
  const marks: HandMark[] = [];
  let leftOut = 0;
  for (const mark of back.marks) {
    const n = scriptNumber(share.id, mark.attemptId);
    const attemptId = n === null ? undefined : scripts[n];
    const max = most.get(mark.questionId);
    if (attemptId === undefined || max === undefined || !given.get(mark.questionId)?.has(attemptId))
      leftOut++;
    else if (mark.points !== null && mark.points > max && !mark.adjustment) leftOut++;
    else
      marks.push({
        ...mark,
        ...(mark.points !== null && { points: roundPoints(mark.points) }),
        attemptId,
        sittingId: share.sittingId,
        markerId: share.id,
        ...(mark.work && { work: mark.work.map((each) => onOwnFile(each, share.renamed)) }),
        history: mark.history.map((step) => ({ ...step, by: step.by === ownMarker ? share.id : step.by })),
      });
  }
  return { marks, leftOut };
}
