import { counted } from '../../basics/counted';
import { byHand, copied, emptyScheme, schemeFindings } from '../handMarked';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import { fileFilling } from './filling';
import { FileQuestion, FilesResponse, StudentFileQuestion } from './schema';

/** An answer that is a file, or several: a picture, a PDF, a sheet. Marked by hand. */
export const file: QuestionKind<FileQuestion, StudentFileQuestion, FilesResponse> = {
  ...fileFilling,
  ...byHand,
  kind: 'file',
  takesFiles: true,
  label: 'File',
  schema: FileQuestion,
  studentSchema: StudentFileQuestion,
  responseSchema: FilesResponse,

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'file',
    ...emptyScheme(newId),
    sorts: ['picture', 'pdf'],
    most: 1,
  }),
  copy: copied,
  findings: schemeFindings,
  // A made-up student has no file to hand in.
  guess: () => ({ files: [] }),
  sameAs: (_question, response) => response.files.map(({ id }) => id).join(' '),
  asText: (_question, response) => response.files.map(({ name }) => name).join('\n'),
  // A name is not the file.
  fromText: () => null,
  pieces: (_question, { files }) => ({ words: '', files }),
  keyText: (question) => question.modelAnswer,
  categoriesOf: (_question, { files }) => [
    {
      id: `files:${files.length}`,
      label: counted(files.length, 'file'),
      share: null,
      offered: false,
    },
  ],
  // A file is no model answer to show beside others.
  keyedBy: (question) => question,
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'file',
    modelAnswer: '',
    scheme: [],
    sorts: question.sorts,
    most: question.most,
  }),
  forStudent: ({ sorts, most, ...question }) => ({
    ...studentFields({ ...question, kind: 'file' }),
    kind: 'file',
    sorts,
    most,
  }),
};
