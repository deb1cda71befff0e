import { describe, expect, it } from 'vitest';
import { questionFigures, totalFigures } from '@/core/analysis/sittingFigures';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { seatsOf, type SittingRecords } from '@/core/seats/seats';
import { progressOf } from '@/core/seats/progress';
import { paperFindings, readyToSit } from '@/core/scoring/paperFindings';
import { kindNames, kindOf } from '@/core/kinds';
import { assetId } from '@/core/basics/assetBytes';
import { assetsIn } from '@/core/basics/fileRules';
import { filesIn } from '@/core/basics/filesIn';
import { readFileSync } from 'node:fs';
import { pagePictures } from './onPaper';
import { buildDemo } from './buildDemo';

const now = Date.parse('2026-11-23T18:20:00.000Z');
const desk = buildDemo(now);

function recordsOf(id: string): SittingRecords {
  const sitting = desk.sittings.find((each) => each.id === id);
  if (!sitting) throw new Error(id);
  const questions =
    desk.paperVersions.find((version) => version.paperId === sitting.paperId)?.questions ?? [];
  return {
    sitting,
    questions,
    students: desk.students.filter((student) =>
      student.groupIds.some((group) => sitting.groupIds.includes(group)),
    ),
    allowances: desk.allowances.filter((row) => row.sittingId === id),
    attempts: desk.attempts.filter((row) => row.sittingId === id),
    marks: desk.marks.filter((row) => row.sittingId === id),
    releases: desk.releases.filter((row) => row.sittingId === id),
    openings: [],
  };
}

function questionOf(id: string) {
  const found = desk.papers.flatMap(({ questions }) => questions).find((question) => question.id === id);
  if (!found) throw new Error(id);
  return found;
}

describe('Tidewater Evening School', () => {
  it('is three groups, 92 students with names and join codes of their own, and six papers of every kind', () => {
    expect(desk.groups).toHaveLength(3);
    expect(new Set(desk.students.map((student) => `${student.givenName} ${student.familyName}`)).size).toBe(
      92,
    );
    expect(new Set(desk.students.map((student) => student.joinCode)).size).toBe(92);
    expect(desk.papers).toHaveLength(6);
    const kinds = desk.papers.flatMap((paper) => paper.questions.map((question) => question.kind));
    expect([...new Set(kinds)].sort()).toEqual([...kindNames].sort());
  });

  it('its pictures are kept under the id of their bytes', async () => {
    for (const { id, base64 } of desk.assets)
      expect(await assetId(Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0)))).toBe(id);
    const used = [
      ...assetsIn(desk.papers),
      ...filesIn(desk.attempts.map(({ answers }) => answers)).map(({ id }) => id),
    ];
    expect(new Set(desk.assets.map((asset) => asset.id))).toEqual(new Set(used));
  });

  it('tells of nothing that was done later than now, on whatever day and hour it is laid out', () => {
    for (let hours = 0; hours < 7 * 24; hours += 7) {
      const at = now + hours * 3_600_000;
      const { attempts, marks, shares, releases, openings, requests, allowances, outbox } = buildDemo(at);
      const times = [
        ...attempts.flatMap((attempt) => [attempt.startedAt, attempt.lastSeenAt, attempt.handedInAt ?? '']),
        ...marks.map((mark) => mark.at),
        ...shares.flatMap(({ givenAt, heardAt }) => [givenAt, heardAt ?? '']),
        ...releases.map(({ releasedAt }) => releasedAt),
        ...openings.flatMap((opening) => opening.at),
        ...[...requests, ...allowances].map((each) => each.at),
        ...outbox.map((message) => message.at),
      ];
      expect(times.filter((time) => time > new Date(at).toISOString())).toEqual([]);
    }
  });

  it('is the same from the same seed, and moves with the day', () => {
    expect(buildDemo(now)).toEqual(desk);
    expect(buildDemo(now + 86_400_000).students).toEqual(desk.students);
  });

  it('one paper is being written and not ready; the others are', () => {
    const ready = desk.papers.map((paper) => [paper.id, readyToSit(paper)]);
    expect(Object.fromEntries(ready)).toEqual({
      'paper-lights': true,
      'paper-tides': true,
      'paper-rules': true,
      'paper-passage': true,
      'paper-weather': false,
      'paper-symbols': true,
    });
    expect(desk.papers.filter((paper) => paper.id !== 'paper-weather').flatMap(paperFindings)).toEqual([]);
  });

  it('one runs, with some working and some to start; one waits to be marked; one is handed back', () => {
    expect(progressOf(recordsOf('rules'), now)).toMatchObject({
      students: 32,
      notStarted: 4,
      working: 10,
      in: 18,
    });
    expect(progressOf(recordsOf('tides'), now)).toMatchObject({ in: 92, waiting: 338, released: 0 });
    expect(progressOf(recordsOf('lights'), now)).toMatchObject({
      in: 92,
      waiting: 0,
      ready: 92,
      released: 92,
    });
  });

  it('one is on paper, half of it scanned: ticks are scored, some are asked about, what is written waits', async () => {
    expect(progressOf(recordsOf('symbols'), now)).toMatchObject({ students: 29, notStarted: 14, in: 15 });
    const { waiting, notRead } = progressOf(recordsOf('symbols'), now);
    expect([waiting > 10, notRead > 15]).toEqual([true, true]);
    const reasons = new Set(desk.attempts.flatMap(({ unread }) => Object.values(unread ?? {})));
    expect([...reasons].sort()).toEqual(['pageMissing', 'tooManyTicks', 'written']);
    for (const { id, file } of pagePictures)
      expect(await assetId(readFileSync(new URL(`onPaper/${file}`, import.meta.url)))).toBe(id);
  });

  it('open answers are worded differently, with blank ones and equal ones among them', () => {
    const records = recordsOf('tides');
    const seats = seatsOf(records, now);
    for (const question of records.questions.filter((each) => each.kind === 'openText')) {
      const groups = sameAnswers(question, seats);
      expect(groups.length).toBeGreaterThan(40);
      expect(groups.some((group) => group.blank)).toBe(true);
      expect(groups.some((group) => !group.blank && group.answers.length > 1)).toBe(true);
    }
  });

  it('its figures look like those of a class: spread out, hard questions harder', () => {
    const records = recordsOf('lights');
    const seats = seatsOf(records, now);
    const totals = totalFigures(seats);
    expect((totals?.mean ?? 0) / (totals?.max ?? 1)).toBeGreaterThan(0.45);
    expect(totals?.standardDeviation).toBeGreaterThan(2);
    const facility = new Map(
      questionFigures(records.questions, seats).map((row) => [row.question.id, row.facility ?? 0]),
    );
    expect(facility.get('l1')).toBeGreaterThan(facility.get('l9') ?? 1);
  });

  // The arithmetic of the questions themselves, by the rules they teach: twelfths 1 2 3 3 2 1; magnetic = true + west;
  // true = compass + east − west. From memory: any handbook of coastal navigation.
  it('teaches what is right', () => {
    expect(1.0 + (4.8 * (1 + 2)) / 12).toBeCloseTo(2.2, 10);
    expect((6 * 40) / 60).toBe(4);
    expect(95 + 4).toBe(99);
    expect(120 + 3 - 5).toBe(118);
    // On the chart of the bay 80 points are a mile: the triangle of track, stream and course.
    const [east, north] = [(520 - 120) / 80, (410 - 200) / 80];
    const [track, set] = [Math.atan2(east, north), Math.atan2(335 - 300, 236 - 296.6)];
    const steer = track - Math.asin((1.8 * Math.sin(set - track)) / 5);
    const speed = 5 * Math.cos(track - steer) + 1.8 * Math.cos(set - track);
    const degrees = (angle: number) => Math.round((angle * 180) / Math.PI);
    expect([degrees(track), degrees(set), degrees(steer)]).toEqual([62, 150, 41]);
    expect(speed).toBeCloseTo(4.7, 1);
    expect(Math.round((60 * Math.hypot(east, north)) / speed)).toBe(72);
    const working = questionOf('p9');
    expect(working.kind === 'working' && working.modelAnswer).toMatch(/062°.*041°, 4\.7 knots.*1 h 12 min/);
    // Who ignores the stream steers the track, and is not within the three degrees of the scheme.
    expect(Math.abs(degrees(track) - degrees(steer))).toBeGreaterThan(3);
    expect(Math.round((Math.asin(2 / 5) * 180) / Math.PI)).toBe(24);
  });

  // What a teacher of the subject would call right, in the words that students use. From memory: handbooks of coastal
  // navigation; Rules 27 to 34 of the collision regulations; the buoyage of Region A.
  it.each([
    ['l3', 'Q', 'VQ', 'quick flashing', 'very quick flashing', 'Q or VQ, white', 'Quick or very quick'],
    ['l7', '225', '225°', '225 deg', '225 degrees'],
    ['r4', '2', 'two', '2 short blasts', '2 blasts', 'Two short blasts'],
    ['r6', 'a ball', '1 ball', 'one black ball', 'one black ball forward', 'A black ball forward'],
    ['t2', '2.2 m', '2.20 m', '2,2 m', '2.2', '2.2m'],
    ['t4', '2 h', '2 hrs', '120 min', '120 minutes', 'two hours'],
    ['t6', '118°', '118', '118 degrees', '118 deg', '118° T'],
  ])('%s gives right answers all points, however they are put', (id, ...texts) => {
    for (const text of texts) {
      const question = questionOf(id);
      expect(kindOf(question).score(question, { text }).share, text).toBe(1);
    }
  });

  it('gaps: the middle hours in any words', () => {
    const question = questionOf('p4');
    for (const hours of ['third and fourth', '3rd and 4th', '3 and 4', 'middle two', 'middle']) {
      const response = { gaps: { p4a: 'p4a2', p4b: '2', p4c: hours } };
      expect(kindOf(question).score(question, response).share, hours).toBe(1);
    }
  });

  // The topmark, light and safe side of a south cardinal mark, read off the words of each answer: another way to the
  // same marks than that by which they were made up.
  it('open answers of the quiz that was handed back were marked by what they say', () => {
    const says = {
      l10a: /points? (?:are )?down|cones? (?:point )?down|downwards|point to the bottom/i,
      l10b: /six quick|Q\(6\)|6 flashes/i,
      l10c: /south (?:of|side)|pass south|, south$|to the south|go south/i,
    };
    const marked = desk.marks.filter(({ questionId }) => questionId === 'l10');
    expect(marked).toHaveLength(92);
    let read = 0;
    for (const mark of marked) {
      const response = desk.attempts.find(({ id }) => id === mark.attemptId)?.answers.l10?.response;
      const text = response && 'text' in response ? response.text : '';
      const lines = Object.entries(says).flatMap(([line, words]) => (words.test(text) ? [line] : []));
      // A slip of the keys may hide a word from this reader; it never adds one.
      for (const line of lines) expect(mark.lines, text).toContain(line);
      if (lines.length === mark.lines.length) read += 1;
      expect(mark.points, text).toBe(mark.lines.length);
    }
    // The ten others were read by hand: each has a slip in the word that matters.
    expect(read).toBe(82);
  });

  it('each group sits on its day, at its hour', () => {
    const days = { group1: 1, group2: 3, group3: 6 } as Record<string, number>;
    const groupOf = new Map(desk.students.map(({ id, groupIds }) => [id, groupIds[0] ?? '']));
    for (const { sittingId, studentId, startedAt } of desk.attempts) {
      // Of what is on paper nobody knows when it was begun.
      if (sittingId === 'rules' || sittingId === 'symbols') continue;
      const group = groupOf.get(studentId) ?? '';
      const at = new Date(startedAt);
      expect(at.getDay()).toBe(days[group]);
      expect(at.getHours()).toBe(group === 'group3' ? 10 : 18);
    }
    for (const { sittingId, releasedAt } of desk.releases) {
      const sitting = desk.sittings.find(({ id }) => id === sittingId);
      expect(releasedAt > (sitting?.closesAt ?? '')).toBe(true);
      expect(Date.parse(releasedAt)).toBeLessThan(now - 7 * 86_400_000);
    }
  });
});
