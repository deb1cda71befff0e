import type { UnreadScan } from '@/core/model/scan';
import type { NotRead } from '@/core/model/sitting';
import { points } from './format';

/** What is printed on answer papers beside the questions. */
export const paperWords = {
  rule: 'Cross the box of your answer. To take a cross back, fill its box completely and cross another one.',
  name: 'Name',
  number: 'Your student number: in each line cross one figure.',
  points: (worth: number) => (worth === 1 ? '1 point' : `${points(worth)} points`),
  page: (page: number, of: number) => `page ${page} of ${of}`,
};

/** Why an answer on paper is not read yet. */
export const notReadWords: Record<NotRead, string> = {
  pageMissing: 'its page isn’t scanned',
  doubtful: 'what is ticked isn’t clear',
  scansDiffer: 'two scans of its page differ',
  tooManyTicks: 'more is ticked than can be an answer',
  written: 'written by hand',
};

/** Why a scanned page is asked about. */
export const unreadScanWords: Record<UnreadScan, string> = {
  noCode: 'no code of an answer paper was found on it',
  otherPrint: 'it belongs to answer papers of another sitting',
  notStraight: 'its corner squares were not found: it is cut off, or too dark',
};

/** "scan.pdf, page 3" */
export const fromWords = ({ file, page }: { file: string; page: number }) => `${file}, page ${page}`;
