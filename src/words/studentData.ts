import { fullName } from '@/core/model/names';
import type { Allowance } from '@/core/model/sitting';
import type { AttemptData, StudentData, StudentSitting, WrittenAnswer } from '@/core/people/studentData';
import { eventWords, sourceWords } from './attempts';
import { dayAndTime, points } from './format';
import { asksWords } from './requests';

/** One student's data as a page that any browser shows (HTML), for the student to read. */

const versionWords: Record<WrittenAnswer['version'], string> = {
  counts: '',
  earlier: 'an earlier version',
  late: 'came after the end',
  correction: 'a correction',
};

/** Never "today": it is read on another day. */
const when = (instant: string) => dayAndTime(instant, 0);

/**
 * @param now when it is made, as an instant
 * @returns the whole page
 */
export function studentDataPage({ student, groups, typed, sittings }: StudentData, now: string): string {
  const name = fullName(student);
  const register: [string, string][] = [
    ['Family name', student.familyName],
    ['Given name', student.givenName],
    ['Number', student.number],
    ['Email', student.email],
    ['Join code', student.joinCode],
    ['Groups', groups.join(', ')],
    ['Extra time', student.extraPercent ? `${student.extraPercent}%` : ''],
    ['Archived', student.archivedAt ? when(student.archivedAt) : ''],
    ...Object.entries(student.fields ?? {}),
  ];
  return [
    '<!doctype html><html lang="en"><head><meta charset="utf-8">',
    `<title>${safe(name)}</title>`,
    '<style>body{font:16px/1.5 sans-serif;max-width:50rem;margin:2rem auto;padding:0 1rem}table{border-collapse:collapse;margin-bottom:1rem}th,td{text-align:left;vertical-align:top;padding:.2rem .8rem .2rem 0;border-bottom:1px solid #ccc;white-space:pre-wrap}</style>',
    `</head><body><h1>${safe(name)}</h1><p>What this desk holds about this student, ${safe(when(now))}. Files and pictures of pages are named here; they are handed over by themselves.</p>`,
    '<h2>Register</h2>',
    rows(register.filter(([, value]) => value !== '')),
    ...sittings.map((sitting) => sittingPart(sitting)),
    typed.length > 0 ? '<h2>Mark books</h2>' : '',
    table(
      ['Mark book', 'Column', 'Points', ''],
      typed.map(({ book, column, points: given, excused }) => [
        book,
        column,
        given === null ? '' : points(given),
        excused ? 'excused' : '',
      ]),
    ),
    '</body></html>',
  ].join('\n');
}

function sittingPart(sitting: StudentSitting): string {
  const { allowances, requests, messages, handedBackAt, openedAt } = sitting;
  const facts: [string, string][] = [
    ...allowances.map((each): [string, string] => [
      'Exception',
      `${allowanceWords(each)}, ${when(each.at)}${each.reason ? `: ${each.reason}` : ''}`,
    ]),
    ...requests.map((each): [string, string] => [
      'Request',
      `${asksWords[each.asks]}, ${when(each.at)}: ${each.words}${each.answer ? `\nAnswer, ${when(each.answer.at)}: ${each.answer.words}` : ''}`,
    ]),
    ...messages.map((each): [string, string] => [
      'Message',
      `${when(each.at)}${each.email && `, to ${each.email}`}\n${each.subject}\n${each.text}`,
    ]),
    ...(handedBackAt ? [['Handed back', when(handedBackAt)] as [string, string]] : []),
    ...(sitting.heldBack === null ? [] : [['Held back', sitting.heldBack] as [string, string]]),
    ...(sitting.pages > 0 ? [['Scanned pages', String(sitting.pages)] as [string, string]] : []),
    ...(openedAt.length > 0 ? [['Opened', openedAt.map(when).join(', ')] as [string, string]] : []),
  ];
  return [
    `<h2>${safe(sitting.title)}, ${safe(when(sitting.opensAt))}</h2>`,
    rows(facts),
    ...sitting.attempts.map((each) => attemptPart(each)),
  ].join('\n');
}

function attemptPart({ attempt, answers, marks }: AttemptData): string {
  const ended = attempt.handedInAt ?? attempt.collectedAt;
  const facts: [string, string][] = [
    ['Started', when(attempt.startedAt)],
    ['Ended', ended ? when(ended) : ''],
    ['Set aside', attempt.setAsideAt ? when(attempt.setAsideAt) : ''],
    ['Imported', attempt.source ? sourceWords[attempt.source] : ''],
    ['Files', (attempt.files ?? []).map((file) => file.name).join(', ')],
  ];
  const given = answers.map(({ number, asks, version, text, at }) => [
    number,
    asks,
    text,
    [versionWords[version], when(at)].filter(Boolean).join(', '),
  ]);
  const marked = marks.flatMap((mark) =>
    [
      ...mark.history.flatMap(({ before, at, why }) =>
        before ? [{ ...before, when: `${when(at)}, before it was changed${why && `: ${why}`}` }] : [],
      ),
      { ...mark, when: when(mark.at) },
    ].map((values) => [
      mark.number || 'whole script',
      values.points === null ? '' : points(values.points),
      [
        values.comment,
        values.adjustment && `Adjusted by ${points(values.adjustment.points)}: ${values.adjustment.reason}`,
        values.note && `For markers: ${values.note}`,
      ]
        .filter(Boolean)
        .join('\n'),
      values.when,
    ]),
  );
  const happened = attempt.events.map(({ kind, at, reason }) => [
    when(at),
    [eventWords[kind], reason].filter(Boolean).join(': '),
  ]);
  return [
    `<h3>Attempt ${attempt.number}</h3>`,
    rows(facts.filter(([, value]) => value !== '')),
    table(['Question', 'Asks', 'Answer', 'When'], given),
    table(['Question', 'Points by hand', 'Comment', 'When'], marked),
    table(['When', 'What happened'], happened),
  ].join('\n');
}

function allowanceWords(given: Allowance): string {
  switch (given.kind) {
    case 'minutes':
      return `${given.minutes} more minutes`;
    case 'percent':
      return `${given.percent}% extra time`;
    case 'attempt':
      return 'another attempt';
    case 'lateStart':
      return 'may start late';
    case 'window':
      return `other times: ${[given.opensAt, given.closesAt].map((at) => (at ? when(at) : 'as for everyone')).join(' to ')}`;
  }
}

const safe = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

const rows = (facts: readonly [string, string][]) =>
  facts.length === 0
    ? ''
    : `<table>${facts.map(([title, value]) => `<tr><th scope="row">${safe(title)}</th><td>${safe(value)}</td></tr>`).join('')}</table>`;

const table = (heads: readonly string[], lines: readonly (readonly string[])[]) =>
  lines.length === 0
    ? ''
    : `<table><tr>${heads.map((head) => `<th scope="col">${safe(head)}</th>`).join('')}</tr>${lines
        .map((line) => `<tr>${line.map((cell) => `<td>${safe(cell)}</td>`).join('')}</tr>`)
        .join('')}</table>`;
