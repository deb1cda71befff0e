import type { Category } from '../QuestionKind';
import { lacksWords } from '../../basics/fileRules';
import type { Finding } from '../../basics/common';
import { forgiveAll, forgiven } from '../forgiving';
import { byHand, copied, emptyScheme, schemeFindings } from '../handMarked';
import { emptyQuestionFields, studentFields, bareFields, type QuestionKind } from '../QuestionKind';
import { saidFrom } from '../guesses';
import { workingFilling } from './filling';
import { StudentWorking, Working, WorkingResponse } from './schema';
import { allWays, noWorking, waysTaken, written } from './ways';
import type { WorkingWay } from './WorkingWay';

/** The way to an answer: in words, typed maths, drawn by hand, or as a photo of a sheet. Marked by hand. */
export const working: QuestionKind<Working, StudentWorking, WorkingResponse> = {
  ...workingFilling,
  ...byHand,
  kind: 'working',
  takesFiles: true,
  label: 'Working',
  schema: Working,
  studentSchema: StudentWorking,
  responseSchema: WorkingResponse,

  empty: (newId) => ({
    ...emptyQuestionFields,
    id: newId(),
    kind: 'working',
    ...emptyScheme(newId),
    ways: allWays,
  }),
  copy: copied,
  findings: workingFindings,
  guess: (question, chance) => ({ ...noWorking, words: saidFrom(question, chance) }),
  sameAs: (_question, response) => {
    const { words, maths, drawing, photos } = response;
    if (waysTaken(response).length === 0) return '';
    return JSON.stringify([
      forgiven(words, forgiveAll),
      written(maths).map((line) => line.replace(/\s+/g, '')),
      drawing,
      photos.map((photo) => photo.id),
    ]);
  },
  asText: (_question, { words, maths, drawing, photos }) =>
    [
      words.trim(),
      ...written(maths),
      drawing.length > 0 ? `[drawing of ${drawing.length} ${drawing.length === 1 ? 'line' : 'lines'}]` : '',
      ...photos.map((photo) => `[photo ${photo.name}]`),
    ]
      .filter(Boolean)
      .join('\n'),
  fromText: (_question, text) => ({ ...noWorking, words: text.trim() }),
  pieces: (question, { words, maths, drawing, photos }) => ({
    words: [words.trim(), ...written(maths)].filter(Boolean).join('\n'),
    ...(written(maths).length > 0 && { set: { words: words.trim(), maths: written(maths) } }),
    ...(drawing.length > 0 && { drawing: { lines: drawing, canvas: question.canvas } }),
    files: photos,
  }),
  keyText: (question) => question.modelAnswer,
  categoriesOf: (_question, response) => {
    const taken = waysTaken(response);
    return [
      { id: `ways:${taken.join('+')}`, label: wayLabels(taken), share: null, offered: false },
    ] satisfies Category[];
  },
  keyedBy: (question, { words, maths }) => ({
    ...question,
    modelAnswer: [words.trim(), ...written(maths)].filter(Boolean).join('\n') || question.modelAnswer,
  }),
  withoutKey: (question) => ({
    ...bareFields(question),
    kind: 'working',
    modelAnswer: '',
    scheme: [],
    ways: question.ways,
    ...(question.canvas && { canvas: question.canvas }),
    ...(question.workingOf !== undefined && { workingOf: question.workingOf }),
  }),
  forStudent: (question) => ({
    ...studentFields(question),
    kind: 'working',
    ways: question.ways,
    ...(question.canvas && { canvas: question.canvas }),
    ...(question.workingOf !== undefined && { workingOf: question.workingOf }),
  }),
};

const labels: Record<WorkingWay, string> = {
  words: 'in words',
  maths: 'in maths',
  drawing: 'drawn',
  photo: 'a photo',
};

const wayLabels = (ways: readonly WorkingWay[]) => ways.map((way) => labels[way]).join(', ');

function workingFindings(question: Working): Finding[] {
  const questionId = question.id;
  const findings: Finding[] = [];
  if (question.ways.length === 0)
    findings.push({ level: 'stops', code: 'noWays', questionId, field: 'ways' });
  // Who cannot draw with a pointer needs another way (WCAG 2.2, 2.1.1 and 2.5.7).
  else if (question.ways.every((way) => way === 'drawing'))
    findings.push({ level: 'look', code: 'onlyDrawing', questionId, field: 'ways' });
  if (question.canvas && lacksWords(question.canvas))
    findings.push({ level: 'stops', code: 'pictureWithoutText', questionId, field: 'canvas' });
  return [...findings, ...schemeFindings(question)];
}
