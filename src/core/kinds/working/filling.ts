import type { AnswerFilling } from '../QuestionKind';
import type { WorkingResponse } from './schema';
import { waysTaken } from './ways';

export const workingFilling: AnswerFilling<unknown, WorkingResponse> = {
  isBlank: (response) => waysTaken(response).length === 0,
};
