import { kindOf, type Question } from '../kinds';
import type { Finding } from '../model/common';
import type { PaperContent } from '../model/paper';
import { sumPoints } from './points';

/** Everything in a paper that is not ready, in its order on the paper. Empty: ready to be sat. */
export function paperFindings(paper: PaperContent): Finding[] {
  const findings: Finding[] = [];
  if (!paper.title.trim()) findings.push({ level: 'stops', code: 'noTitle', field: 'title' });
  if (paper.questions.length === 0) findings.push({ level: 'stops', code: 'noQuestions' });
  for (const question of paper.questions) findings.push(...questionFindings(question));
  return findings;
}

export function questionFindings(question: Question): Finding[] {
  const findings: Finding[] = [];
  if (!question.stem.trim())
    findings.push({ level: 'stops', code: 'noStem', questionId: question.id, field: 'stem' });
  if (question.points === 0)
    findings.push({ level: 'look', code: 'noPoints', questionId: question.id, field: 'points' });
  return [...findings, ...kindOf(question).findings(question)];
}

/** True when nothing stops students from sitting it. */
export function readyToSit(paper: PaperContent): boolean {
  return paperFindings(paper).every((finding) => finding.level !== 'stops');
}

export function totalPoints(questions: readonly Question[]): number {
  return sumPoints(questions.map((question) => question.points));
}
