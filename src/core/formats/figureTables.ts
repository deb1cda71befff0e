import type { AnswerFigures } from '../analysis/answerFigures';

/** A question as it is taken out with its figures. */
export interface FigureRow {
  number: string;
  stem: string;
  max: number;
  given: number;
  scored: number;
  blank: number;
  facility: number | null;
  meanPoints: number | null;
  discrimination: number | null;
  upperLower: number | null;
  alphaWithout: number | null;
  answers: AnswerFigures;
}

type Cell = string | number | null;

const rounded = (value: number | null) => (value === null ? null : Math.round(value * 10_000) / 10_000);

/** The questions with their figures, one a row. Shares and correlations as numbers, 0 to 1 and −1 to 1. */
export const questionsTable = (rows: readonly FigureRow[]): Cell[][] => [
  [
    ...['Question', 'Text', 'Maximum', 'Given', 'With points', 'Left blank', 'Facility', 'Mean points'],
    ...['Discrimination', 'Upper − lower 27%', 'Alpha without it', 'Median seconds'],
  ],
  ...rows.map((row) => [
    ...[row.number, row.stem, row.max, row.given, row.scored, row.blank],
    ...[row.facility, row.meanPoints, row.discrimination, row.upperLower, row.alphaWithout].map(rounded),
    rounded(row.answers.seconds?.middle ?? null),
  ]),
];

/** What was answered to every question, one a row, by thirds of the class. */
export const answersTable = (rows: readonly FigureRow[]): Cell[][] => [
  [
    ...['Question', 'Answer', 'Share of the points', 'Students', 'Weakest third', 'Middle third'],
    ...['Strongest third', 'Correlation with the rest'],
  ],
  ...rows.flatMap(({ number, answers }) =>
    answers.categories.map(({ label, share, count, thirds, correlation }) => [
      ...[number, label, share, count, ...thirds, rounded(correlation)],
    ]),
  ),
];
