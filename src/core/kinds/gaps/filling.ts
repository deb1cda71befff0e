import type { AnswerFilling } from '../QuestionKind';
import { gapsInText } from './gapText';
import type { Gap, Gaps, GapsResponse, StudentGap, StudentGaps } from './schema';

export const gapsFilling: AnswerFilling<Gaps | StudentGaps, GapsResponse> = {
  isBlank: (response) => Object.values(response.gaps).every((text) => text.trim() === ''),
  isHalf: (question, response) =>
    gapsInText<Gap | StudentGap>(question.text, question.gaps).some(({ id }) => !response.gaps[id]?.trim()),
};
