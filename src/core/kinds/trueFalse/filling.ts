import type { PickedResponse } from '../options';
import type { AnswerFilling } from '../QuestionKind';

export const trueFalseFilling: AnswerFilling<unknown, PickedResponse> = {
  isBlank: ({ picked }) => picked.length === 0,
};
