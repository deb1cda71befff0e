import type { RichText } from '../basics/richText';
import { richDoc } from '../basics/richWords';
import { roundPoints } from '../basics/points';
import { kindOf, type Question } from './index';

/** The id of the working that belongs to a question. */
export const workingId = (questionId: string) => `${questionId}.working`;

/**
 * What a paper is sat, scored and marked as. A question that asks for working is two items: its answer, scored by
 * the key for a share of the points, and the working, marked by hand for the rest. All others are one.
 */
export function itemsOf(questions: readonly Question[]): Question[] {
  return questions.flatMap((question) => {
    const { working, ...rest } = question;
    if (!working || kindOf(question).scoredBy === 'hand') return [question];
    const byKey = roundPoints(question.points * working.keyShare);
    const item: Question = {
      ...(working.ways ? { kind: 'working', ways: working.ways } : { kind: 'openText' }),
      id: workingId(question.id),
      workingOf: question.id,
      stem: workingStem(question.stem),
      points: roundPoints(question.points - byKey),
      ...(question.pointStep && { pointStep: question.pointStep }),
      tags: question.tags,
      commentRight: '',
      commentWrong: '',
      note: question.note,
      modelAnswer: working.modelAnswer,
      scheme: working.scheme,
      ...(working.schemeGroups && { schemeGroups: working.schemeGroups }),
      ...(question.partId !== undefined && { partId: question.partId }),
    };
    return [{ ...rest, points: byKey } as Question, item]; // the kind's own fields are untouched
  });
}

/** "Working:", and what is asked. */
function workingStem(stem: RichText): RichText {
  if (typeof stem === 'string') return `Working: ${stem}`;
  return { ...stem, content: [...richDoc('Working:').content, ...stem.content] };
}
