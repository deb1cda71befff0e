import type { DeskTables } from '@/core/formats/backup';
import { paperAttempt } from '@/core/intake/paper/paperAttempt';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { Scan } from '@/core/model/scan';
import made from './onPaper/symbols.json';
import { symbols } from './papers/symbols';

/** The sitting of the demo that is on paper: what scripts/demoScans.ts printed, filled in and scanned, half of the group's papers. */

type Iso = (ms: number) => string;

const group = 'group3';

/** Adds the sitting on paper, its print and its scans, and the attempts that they are. */
export function withPaper(desk: DeskTables, opensAt: number, scannedAt: string, iso: Iso): void {
  const { title, instructions, questions } = symbols;
  const at = iso(opensAt);
  const asked = questions.map(({ question }) => question);
  desk.paperVersions.push({
    paperId: 'paper-symbols',
    version: 1,
    title,
    instructions,
    questions: asked,
    frozenAt: at,
  });
  desk.sittings.push({
    ...{ id: 'symbols', paperId: 'paper-symbols', paperVersion: 1, title, groupIds: [group] },
    ...{ opensAt: at, closesAt: iso(opensAt + 1_200_000), timeLimitMs: null, accessCode: '' },
    ...{ closedToStartsAt: at, createdAt: at },
  });
  const print = { ...made.print, at } as AnswerPaper; // as the script made it
  desk.prints.push(print);
  const scans = made.scans.map(({ id, copy, page, picture, boxes, areas }, index): Scan => ({
    ...{ id, sittingId: 'symbols', at: scannedAt, is: 'read', picture, areas },
    from: { file: 'chart room.pdf', digest: 'made-up', page: index + 1 },
    place: { printId: print.id, copy, page },
    boxes: boxes as Scan['boxes'],
  }));
  desk.scans.push(...scans);
  for (const [index, studentId] of print.copies.entries()) {
    const attempt = paperAttempt(print, index + 1, asked, scans, null, {
      ...{ id: `symbols-${studentId}`, sittingId: 'symbols', studentId: studentId ?? '', number: 1 },
      ...{ paperVersion: 1, now: scannedAt },
    });
    if (attempt) desk.attempts.push(attempt);
  }
}

/** The pictures of its pages, by id: where each is fetched from. */
export const pagePictures: readonly { id: string; name: string; file: string }[] = made.scans.map(
  ({ picture: { id, name }, file }) => ({ id, name, file }),
);
