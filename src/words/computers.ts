import type { Difference, RestTopic, SideFacts, TakeOverFault } from '@/core/formats/backup/twoDesks';
import { deskTableNames, type DeskTableName } from '@/core/model/desk';
import { backupFaultWords } from './backups';
import { counted, dayAndTime } from './format';

/** What differs on one side of a topic, as the end of a line: "12 marks and 1 answer paper". */
export function sideWords({ exists, differing }: SideFacts): string {
  if (!exists) return 'not there';
  const parts = deskTableNames.flatMap((table) => {
    const count = differing[table] ?? 0;
    return count === 0 ? [] : [thingWords(table, count)];
  });
  return parts.length === 0
    ? 'nothing that the other lacks'
    : new Intl.ListFormat('en', { type: 'conjunction' }).format(parts);
}

const things: Partial<Record<DeskTableName, string>> = {
  students: 'student',
  groups: 'group',
  allowances: 'exception',
  attempts: 'attempt',
  marks: 'mark',
  piles: 'pile',
  shares: 'share of marking',
  repairs: 'repair',
  releases: 'result',
  openings: 'look at a result',
  requests: 'request',
  outbox: 'message',
  scans: 'scanned page',
  prints: 'print',
  markBooks: 'mark book',
  gradeTemplates: 'set of grade lines',
  bank: 'question in the bank',
  commentBank: 'comment',
  messageTemplates: 'message template',
  templates: 'template',
  paperVersions: 'version',
  settings: 'setting',
};

const severals: Partial<Record<DeskTableName, string>> = {
  shares: 'shares of marking',
  openings: 'looks at results',
  gradeTemplates: 'sets of grade lines',
  bank: 'questions in the bank',
};

function thingWords(table: DeskTableName, count: number): string {
  if (table === 'sittings') return 'its own rules and title';
  if (table === 'papers') return 'its questions';
  return counted(count, things[table] ?? 'entry', severals[table] ?? (things[table] ? undefined : 'entries'));
}

/** What a topic is called. */
export function topicWords({ topic, title }: Pick<Difference, 'topic' | 'title'>): string {
  if (topic.startsWith('sittings/')) return `${title} (sitting)`;
  if (topic.startsWith('papers/')) return `${title} (paper)`;
  return restWords[topic as RestTopic]; // the others are those
}

const restWords: Record<RestTopic, string> = {
  people: 'Students and groups',
  markBooks: 'Mark books and grade lines',
  bank: 'Bank, comments and templates',
  settings: 'Settings',
};

/** Why a desk was not taken over. */
export function takeOverFaultWords(fault: TakeOverFault): string {
  switch (fault.code) {
    case 'nothingThere':
      return 'There is no copy of this desk on the server yet. Open it on the other computer, and wait until Backup says when it was backed up there.';
    case 'takenElsewhere':
      return 'The desk was changed or taken over at the same moment on another computer. Nothing was changed here. Try again.';
    default:
      return `The desk on the server can’t be read: ${backupFaultWords(fault)}`;
  }
}

interface Elsewhere {
  computer: string;
  since: string;
  why: 'taken' | 'giving' | 'taking' | 'forgotten';
}

/** That a desk was taken over; also where the other computer could not say whether it had sent all. */
export function takenWords(from: string, sentAll: boolean): string {
  if (from === '') return 'The desk is here now';
  const said = `The desk is here now, no longer on ${from}`;
  return sentAll ? said : `${said}. It didn’t answer: what it hadn’t sent is shown once it is back`;
}

/** That the last changes did not come from the computer that holds a desk. @param since what came from there is from then */
export const unansweredWords = (from: string, since: string) =>
  `${from} didn’t answer: what was done there after ${since} hasn’t come, and is shown once it is back.`;

/** How long two desks stay as they were before one is made of them. @param forgotten students who were forgotten on one of them */
export const keptWords = (forgotten: number) =>
  forgotten === 0
    ? 'Both desks as they were are kept for 90 days'
    : `${counted(forgotten, 'student')} forgotten on one computer will be forgotten here too. Both desks as they were are therefore kept only until the next backup`;

/** What the line across the page says of a desk that is elsewhere. */
export function elsewhereWords({ computer, since, why }: Elsewhere, now: number): string {
  switch (why) {
    case 'forgotten':
      return 'This browser was forgotten by the server. What is here is for reading only.';
    case 'giving':
      return `${computer} is taking this desk over. What was done here is being sent.`;
    case 'taking':
      return `Taking this desk over from ${computer} isn’t finished. Until then it is for reading only here.`;
    case 'taken':
      return `This desk is on ${computer} since ${dayAndTime(since, now)}. Here it is for reading only.`;
  }
}
