import { kindOf, type Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import type { Finding } from '../model/common';
import { openableLink } from '../model/link';
import type { PaperContent } from '../model/paper';
import { isEmptyRich } from '../model/richText';
import { paperPoints, sectionsOf } from '../model/parts';
import { sumPoints } from './points';

/** Everything in a paper that is not ready, in its order on the paper. Empty: ready to be sat. */
export function paperFindings(paper: PaperContent): Finding[] {
  const findings: Finding[] = [];
  if (!paper.title.trim()) findings.push({ level: 'stops', code: 'noTitle', field: 'title' });
  if (paper.questions.length === 0) findings.push({ level: 'stops', code: 'noQuestions' });
  for (const question of paper.questions) findings.push(...questionFindings(question));
  return [...findings, ...partFindings(paper), ...totalFindings(paper)];
}

function partFindings(paper: PaperContent): Finding[] {
  return sectionsOf(paper).flatMap(({ part, questions }): Finding[] => {
    if (part === null) return [];
    const place = {
      partId: part.id,
      field: `part-${part.id}`,
      detail: part.title || 'a part without a title',
    };
    if (questions.length === 0) return [{ level: 'look', code: 'emptyPart', ...place }];
    if (part.draw === null) return [];
    if (part.draw > questions.length) return [{ level: 'stops', code: 'drawTooMany', ...place }];
    const uneven = questions.some((question) => question.points !== questions[0]?.points);
    return uneven && part.draw < questions.length ? [{ level: 'look', code: 'unevenDraw', ...place }] : [];
  });
}

function totalFindings(paper: PaperContent): Finding[] {
  const { least, most } = paperPoints(paper);
  const { wantedPoints } = paper;
  if (wantedPoints === undefined || (least === wantedPoints && most === wantedPoints)) return [];
  return [{ level: 'look', code: 'wrongTotal', field: 'wantedPoints', detail: String(wantedPoints) }];
}

export function questionFindings(question: Question): Finding[] {
  const findings: Finding[] = [];
  if (isEmptyRich(question.stem))
    findings.push({ level: 'stops', code: 'noStem', questionId: question.id, field: 'stem' });
  if (question.points === 0)
    findings.push({ level: 'look', code: 'noPoints', questionId: question.id, field: 'points' });
  if (question.link?.href && openableLink(question.link.href) === null)
    findings.push({
      level: 'look',
      code: 'badLink',
      questionId: question.id,
      field: 'link',
      detail: question.link.href,
    });
  return [...findings, ...kindOf(question).findings(question), ...workingFindings(question)];
}

/** The working of a question is checked as what it is marked as. */
function workingFindings(question: Question): Finding[] {
  const working = question.working && itemsOf([question])[1];
  if (!working) return [];
  return kindOf(working)
    .findings(working)
    .map((finding) => ({ ...finding, questionId: question.id, field: 'working' }));
}

/** True when nothing stops students from sitting it. */
export function readyToSit(paper: PaperContent): boolean {
  return paperFindings(paper).every((finding) => finding.level !== 'stops');
}

export function totalPoints(questions: readonly Question[]): number {
  return sumPoints(questions.map((question) => question.points));
}
