import { kindOf, type Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import type { Finding } from '../basics/common';
import { openableLink } from '../basics/link';
import type { PaperContent, PaperPart } from '../model/paper';
import type { RichText } from '../basics/richText';
import { isEmptyRich, picturesWithoutText } from '../basics/richWords';
import { paperPoints, sectionsOf } from '../model/parts';
import { sumPoints } from '../basics/points';

/** Everything in a paper that is not ready, in its order on the paper. Empty: ready to be sat. */
export function paperFindings(paper: PaperContent): Finding[] {
  const findings: Finding[] = [];
  if (!paper.title.trim()) findings.push({ level: 'stops', code: 'noTitle', field: 'title' });
  if (paper.questions.length === 0) findings.push({ level: 'stops', code: 'noQuestions' });
  if (picturesWithoutText(paper.instructions) > 0)
    findings.push({ level: 'stops', code: 'pictureWithoutText', field: 'instructions' });
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
    const pictures: Finding[] =
      picturesWithoutText(part.instructions) > 0
        ? [{ level: 'stops', code: 'pictureWithoutText', ...place }]
        : [];
    return [...pictures, ...drawFindings(part, questions, place)];
  });
}

function drawFindings(
  part: PaperPart,
  questions: readonly Question[],
  place: Pick<Finding, 'partId' | 'field' | 'detail'>,
): Finding[] {
  if (questions.length === 0) return [{ level: 'look', code: 'emptyPart', ...place }];
  if (part.draw === null) return [];
  if (part.draw > questions.length) return [{ level: 'stops', code: 'drawTooMany', ...place }];
  const uneven = questions.some((question) => question.points !== questions[0]?.points);
  return uneven && part.draw < questions.length ? [{ level: 'look', code: 'unevenDraw', ...place }] : [];
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
  for (const text of richTextsOf(question))
    if (picturesWithoutText(text.rich) > 0)
      findings.push({
        level: 'stops',
        code: 'pictureWithoutText',
        questionId: question.id,
        field: text.field,
      });
  for (const hint of question.hints ?? [])
    if (!hint.text.trim())
      findings.push({
        level: 'look',
        code: 'emptyHint',
        questionId: question.id,
        field: `hint-${hint.id}`,
      });
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

/** The texts of a question in which pictures may stand, with the fields they are written in. */
function richTextsOf(question: Question): { rich: RichText; field: string }[] {
  return [{ rich: question.stem, field: 'stem' }, ...(kindOf(question).richTexts?.(question) ?? [])];
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
