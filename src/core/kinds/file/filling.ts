import type { AnswerFilling } from '../QuestionKind';
import type { FilesResponse } from './schema';

export const fileFilling: AnswerFilling<unknown, FilesResponse> = {
  isBlank: (response) => response.files.length === 0,
};
