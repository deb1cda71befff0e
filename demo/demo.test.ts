import { describe, expect, it } from 'vitest';
import { questionFigures, totalFigures } from '@/core/analysis/sittingFigures';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { seatsOf, standingOf, type SittingRecords } from '@/core/running/standing';
import { paperFindings, readyToSit } from '@/core/scoring/paperFindings';
import { kindNames } from '@/core/kinds';
import { assetId } from '@/core/model/asset';
import { assetsIn } from '@/core/model/file';
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

describe('Tidewater Evening School', () => {
  it('is three groups, 92 students with names and join codes of their own, and five papers of every kind', () => {
    expect(desk.groups).toHaveLength(3);
    expect(new Set(desk.students.map((student) => `${student.givenName} ${student.familyName}`)).size).toBe(
      92,
    );
    expect(new Set(desk.students.map((student) => student.joinCode)).size).toBe(92);
    expect(desk.papers).toHaveLength(5);
    const kinds = desk.papers.flatMap((paper) => paper.questions.map((question) => question.kind));
    expect([...new Set(kinds)].sort()).toEqual([...kindNames].sort());
  });

  it('its pictures are kept under the id of their bytes', async () => {
    for (const { id, base64 } of desk.assets)
      expect(await assetId(Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0)))).toBe(id);
    expect([...assetsIn(desk.papers)]).toEqual(desk.assets.map((asset) => asset.id));
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
    });
    expect(desk.papers.filter((paper) => paper.id !== 'paper-weather').flatMap(paperFindings)).toEqual([]);
  });

  it('one runs, with some working and some to start; one waits to be marked; one is handed back', () => {
    expect(standingOf(recordsOf('rules'), now)).toMatchObject({
      students: 32,
      notStarted: 4,
      working: 10,
      in: 18,
    });
    expect(standingOf(recordsOf('tides'), now)).toMatchObject({ in: 92, waiting: 276, released: 0 });
    expect(standingOf(recordsOf('lights'), now)).toMatchObject({
      in: 92,
      waiting: 0,
      ready: 92,
      released: 92,
    });
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
    const [track, set] = [Math.atan2(east, north), Math.atan2(352 - 300, 330 - 308)];
    const steer = track - Math.asin((1.8 * Math.sin(set - track)) / 5);
    const speed = 5 * Math.cos(track - steer) + 1.8 * Math.cos(set - track);
    const degrees = (angle: number) => Math.round((angle * 180) / Math.PI);
    expect([degrees(track), degrees(set), degrees(steer)]).toEqual([62, 67, 61]);
    expect(speed).toBeCloseTo(6.8, 1);
    expect(Math.round((60 * Math.hypot(east, north)) / speed)).toBe(50);
    expect(Math.round((Math.asin(2 / 5) * 180) / Math.PI)).toBe(24);
  });
});
