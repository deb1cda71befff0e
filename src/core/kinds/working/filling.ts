import type { AnswerFilling } from '../QuestionKind';
import type { StudentWorking, Working, WorkingResponse } from './schema';
import { waysTaken } from './ways';

export const workingFilling: AnswerFilling<Working | StudentWorking, WorkingResponse> = {
  isBlank: (response) => waysTaken(response).length === 0,
  workingOf: (question) => question.workingOf,
};
