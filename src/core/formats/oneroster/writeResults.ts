import { isGuest, registerName } from '../../model/names';
import type { GradeScale } from '../../model/gradeScale';
import { wholeAttempt } from '../../model/mark';
import type { Group } from '../../model/people';
import type { Sitting } from '../../model/sitting';
import { endOf } from '../../attempts/terms';
import { gradeOf, linesDown } from '../../scoring/gradeOf';
import { marksThatCount } from '../../scoring/marksThatCount';
import { isIn, type Seat } from '../../seats/seats';
import { csvFrom, type Cell } from '../csv/table';
import { packed } from '../zip';

/** What results for a register are made from. */
export interface RegisterResults {
  sitting: Sitting;
  seats: readonly Seat[];
  groups: readonly Group[];
  scale: GradeScale | null;
  /** ms since 1970 */
  now: number;
}

/** Something that a register's results cannot hold. */
export type RegisterLoss =
  /** Students whom the register knows by nothing: they have no number. */
  | { code: 'noNumber'; names: string[] }
  | { code: 'guests'; count: number }
  /** Points of single questions, their comments, and how often a result was opened. */
  | { code: 'onlyTotals' }
  /** Classes go by the name they have here. */
  | { code: 'classNames' }
  | { code: 'noGrades' };

const scoreStatus = {
  full: 'fully graded',
  part: 'partially graded',
  submitted: 'submitted',
  none: 'not submitted',
} as const;

/** One row a student of one line item, as the register takes it. */
export interface RegisterResult {
  sourcedId: string;
  lineItemSourcedId: string;
  studentSourcedId: string;
  classSourcedId: string;
  scoreStatus: (typeof scoreStatus)[keyof typeof scoreStatus];
  score: number | null;
  textScore: string;
  scoreDate: string;
  comment: string;
  late: boolean;
  missing: boolean;
}

const day = (ms: number) => new Date(ms).toISOString().slice(0, 10);

/** The results of a sitting for a register, and what is lost on the way. A total is told once all of it is marked. */
export function registerResults({ sitting, seats, groups, scale, now }: RegisterResults): {
  results: RegisterResult[];
  losses: RegisterLoss[];
} {
  const own = new Set(groups.map(({ id }) => id));
  const named = seats.filter(({ student }) => !isGuest(student));
  const known = named.filter(({ student }) => student.number.trim() !== '');
  const without = named.filter(({ student }) => student.number.trim() === '');
  const results = known.map((seat): RegisterResult => {
    const { student, scorecard, attempt, terms, marks } = seat;
    const end = attempt && endOf(attempt, terms, now);
    const whole = isIn(seat) && scorecard?.final === true ? scorecard : null;
    const status = whole
      ? scoreStatus.full
      : !isIn(seat)
        ? scoreStatus.none
        : scorecard && scorecard.scoredMax > 0
          ? scoreStatus.part
          : scoreStatus.submitted;
    return {
      sourcedId: `${sitting.id}.${student.number}`,
      lineItemSourcedId: sitting.id,
      studentSourcedId: student.number,
      classSourcedId: student.groupIds.find((id) => own.has(id)) ?? '',
      scoreStatus: status,
      score: whole ? whole.total : null,
      textScore: whole && scale ? (gradeOf(scale, { points: whole.total, max: whole.max }) ?? '') : '',
      scoreDate: day(end ?? now),
      comment: marksThatCount(marks).get(wholeAttempt)?.comment ?? '',
      late: end !== null && end !== undefined && terms.closesAt !== null && end > terms.closesAt,
      missing: !isIn(seat) && terms.start === 'over',
    };
  });
  const guests = seats.length - named.length;
  return {
    results,
    losses: [
      ...(without.length > 0
        ? [{ code: 'noNumber' as const, names: without.map(({ student }) => registerName(student)) }]
        : []),
      ...(guests > 0 ? [{ code: 'guests' as const, count: guests }] : []),
      ...[{ code: 'onlyTotals' as const }, { code: 'classNames' as const }],
      ...(scale ? [] : [{ code: 'noGrades' as const }]),
    ],
  };
}

/**
 * The results that a register has not, or has otherwise.
 *
 * @param sent each result as it took it last, as JSON, by its id there
 */
export const resultsDue = (
  results: readonly RegisterResult[],
  sent: ReadonlyMap<string, string>,
): { due: RegisterResult[]; corrections: number } => {
  const due = results.filter((row) => sent.get(row.sourcedId) !== JSON.stringify(row));
  return { due, corrections: due.filter(({ sourcedId }) => sent.has(sourcedId)).length };
};

/** The largest total of a sitting: what the results are out of. */
export const resultMaximum = (seats: readonly Seat[]): number =>
  seats.reduce((most, { scorecard }) => Math.max(most, scorecard?.max ?? 0), 0);

/** The line item of a sitting, one for each class. */
export function lineItemOf({ sitting, seats, groups, now }: RegisterResults) {
  return {
    sourcedId: sitting.id,
    title: sitting.title,
    assignDate: day(Date.parse(sitting.opensAt)),
    dueDate: day(sitting.closesAt === null ? now : Date.parse(sitting.closesAt)),
    classSourcedId: groups[0]?.id ?? '',
    categorySourcedId: 'gribbet',
    resultValueMin: 0,
    resultValueMax: resultMaximum(seats),
  };
}

/**
 * A OneRoster 1.2 package of results (1EdTech OneRoster 1.2, CSV Binding, Gradebook; from memory): manifest.csv, categories.csv,
 * lineItems.csv, results.csv, scoreScales.csv.
 */
export function resultsPackage(about: RegisterResults): {
  zip: Uint8Array<ArrayBuffer>;
  losses: RegisterLoss[];
} {
  const { results, losses } = registerResults(about);
  const files = resultFiles(about, results);
  const has = (name: string) => (`${name}.csv` in files ? 'bulk' : 'absent');
  files['manifest.csv'] = [
    ['propertyName', 'value'],
    ['manifest.version', '1.0'],
    ['oneroster.version', '1.2'],
    ...['academicSessions', 'classes', 'courses', 'demographics', 'enrollments', 'orgs', 'users'].map(
      (name) => [`file.${name}`, 'absent'],
    ),
    ...['categories', 'lineItems', 'results', 'scoreScales'].map((name) => [`file.${name}`, has(name)]),
    ['source.systemName', 'Gribbet'],
  ];
  const encoder = new TextEncoder();
  // A register reads each cell as it is: nothing stands in front of it.
  const bytes = Object.fromEntries(
    Object.entries(files).map(([name, rows]) => [
      name,
      encoder.encode(csvFrom(rows, { mark: false, guard: false })),
    ]),
  );
  return { zip: packed(bytes), losses };
}

/** The tables of the package by their files' names, each with its heading row. */
function resultFiles(
  about: RegisterResults,
  results: ReturnType<typeof registerResults>['results'],
): Record<string, Cell[][]> {
  const { scale, now } = about;
  const item = lineItemOf(about);
  const status: Cell[] = ['active', new Date(now).toISOString()];
  return {
    'categories.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'title', 'weight'],
      ['gribbet', ...status, 'Tests', null],
    ],
    'lineItems.csv': [
      [
        ...['sourcedId', 'status', 'dateLastModified', 'title', 'description', 'assignDate', 'dueDate'],
        ...['classSourcedId', 'categorySourcedId', 'gradingPeriodSourcedId', 'academicSessionSourcedId'],
        ...['schoolSourcedId', 'resultValueMin', 'resultValueMax'],
      ],
      [
        ...[item.sourcedId, ...status, item.title, null, item.assignDate, item.dueDate],
        ...[item.classSourcedId, item.categorySourcedId, null, null],
        ...[null, item.resultValueMin, item.resultValueMax],
      ],
    ],
    'results.csv': [
      [
        ...['sourcedId', 'status', 'dateLastModified', 'lineItemSourcedId', 'studentSourcedId'],
        ...['scoreStatus', 'score', 'textScore', 'scoreDate', 'comment', 'classSourcedId'],
        ...['inProgress', 'incomplete', 'late', 'missing'],
      ],
      ...results.map((row): Cell[] => [
        ...[row.sourcedId, ...status, row.lineItemSourcedId, row.studentSourcedId],
        ...[row.scoreStatus, row.score, row.textScore, row.scoreDate, row.comment, row.classSourcedId],
        ...[String(row.scoreStatus === scoreStatus.part), String(row.scoreStatus !== scoreStatus.full)],
        ...[String(row.late), String(row.missing)],
      ]),
    ],
    ...(scale && {
      'scoreScales.csv': [
        [
          ...['sourcedId', 'status', 'dateLastModified', 'title', 'type', 'orgSourcedId', 'courseSourcedId'],
          ...['classSourcedId', 'scoreScaleValue'],
        ],
        [
          ...['scale', ...status, 'Grades', 'textual', '', '', item.classSourcedId],
          linesDown(scale)
            .map(({ grade, from }) => `${grade}:${from}`)
            .join(';'),
        ],
      ],
    }),
  };
}
