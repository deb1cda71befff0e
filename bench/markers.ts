import 'fake-indexeddb/auto';
import { sumBy } from 'remeda';
import { ownMarker, type HandMark } from '@/core/model/mark';
import type { MarksBack } from '@/core/model/share';
import type { Attempt } from '@/core/model/sitting';
import { samples } from '../tests/unit/samples';
import { marksText, readMarks } from '@/core/formats/packet/shareFile';
import { agreementOf, differing, markedTwice } from '@/core/analysis/compareMarkers';
import { emptyTables, replaceDesk } from '@/store/backup';
import { takeMarks } from '@/store/sharedMarks';
import { giveShares } from '@/store/shares';
import { desk } from '@/store/tables';
import { row } from './measure';

/**
 * 550 students, 15 markers: each has a fifteenth of the scripts and 30 that all have, with three open questions; their files
 * come back at once. In Node with a database in memory: what takes time is reading, checking and writing.
 */

const at = '2026-11-23T10:00:00.000Z';
const [students, markers, common] = [550, 15, 30];
const questions = ['q1', 'q2', 'q3'].map((id) => ({ ...samples.openText, id }));
const content = { title: 'Tides', instructions: '', questions };
const attempts = Array.from({ length: students }, (_, n): Attempt => ({
  ...{ id: `a${n}`, sittingId: 's', studentId: `s${n}`, number: 1, paperVersion: 1 },
  ...{ startedAt: at, lastSeenAt: at, handedInAt: at, collectedAt: null, comeBack: [], events: [] },
  questionIds: questions.map(({ id }) => id),
  answers: Object.fromEntries(
    questions.map(({ id }) => [id, { response: { text: `answer ${n} to ${id}` }, at }]),
  ),
}));
await replaceDesk({
  ...emptyTables,
  papers: [{ ...content, id: 'p', createdAt: at, changedAt: at }],
  paperVersions: [{ ...content, paperId: 'p', version: 1, frozenAt: at }],
  sittings: [
    {
      ...{ id: 's', paperId: 'p', paperVersion: 1, title: 'Tides', groupIds: [], opensAt: at, createdAt: at },
      ...{ closesAt: null, timeLimitMs: null, accessCode: '', closedToStartsAt: null },
    },
  ],
  attempts,
});
const wishes = Array.from({ length: markers }, (_, m) => ({
  ...{ marker: `Marker ${m + 1}`, purpose: 'marker' as const, way: 'file' as const },
  answers: questions.map(({ id: questionId }) => ({
    questionId,
    attemptIds: attempts.flatMap(({ id }, n) => (n < common || n % markers === m ? [id] : [])),
  })),
}));
const { result: shares } = await giveShares('s', wishes, at);
const chance = (length: number) => crypto.getRandomValues(new Uint8Array(length));
const files = await Promise.all(
  shares.map((share, m) => {
    const marks = share.answers.flatMap(({ questionId, attemptIds }) =>
      attemptIds.map((_, n): HandMark => ({
        ...{ attemptId: `${share.id}.${n}`, questionId, sittingId: share.id, markerId: ownMarker, at },
        ...{
          points: (n % 4) * (n % 7 === m % 7 ? 0.5 : 1),
          lines: [],
          comment: n % 5 ? '' : 'Which chart?',
          aside: false,
        },
        history: [{ at, by: ownMarker, why: '', before: null }],
      })),
    );
    return marksText({ shareId: share.id, savedAt: at, marks }, 'Tides', share.secret, chance);
  }),
);

const start = performance.now();
const secrets = new Map(shares.map(({ id, secret }) => [id, secret]));
const backs: MarksBack[] = [];
for (const file of files) {
  const read = await readMarks(new TextEncoder().encode(file), (id) => secrets.get(id));
  if (read.outcome === 'read') backs.push(read.back);
}
const { result } = await takeMarks('s', backs, at);
const tookMs = performance.now() - start;
const kept = await desk.marks.toArray();
if (kept.length !== sumBy(result, ({ marked }) => marked)) throw new Error('marks are missing');
row(
  `${markers} files of markers taken in: 550 students, ${kept.length} marks (in Node, a database in memory)`,
  `${Math.round(tookMs).toLocaleString('en')} ms`,
);
const again = performance.now();
const [first, second] = shares;
const twice = markedTwice(kept, first?.id ?? '', second?.id ?? '');
agreementOf(twice);
row(
  `two of the markers compared: ${twice.length} answers, ${differing(twice).length} differ`,
  `${Math.round(performance.now() - again)} ms`,
);
