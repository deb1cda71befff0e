import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { sum, sumBy } from 'remeda';
import {
  openQuestion,
  sittingOf,
  springChoices,
  studentOf,
  tideChoice,
  courseText,
} from '../../tests/unit/samples';
import { readinessOf } from '@/core/handback/readiness';
import { answerFigures } from '@/core/analysis/answerFigures';
import { copyKey, notReadByCopy } from '@/core/intake/paper/notReadByCopy';
import { questionFigures } from '@/core/analysis/sittingFigures';
import { kindOf } from '@/core/kinds';
import { laidOut } from '@/core/intake/paper/layout';
import { askedRows } from '@/core/intake/paper/askedRows';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { Scan, TickState } from '@/core/model/scan';
import { scriptPacket } from '@/core/handback/script';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { seatsOf, type Seat } from '@/core/seats/seats';
import { makeForeign, makePrint, pagesAgain, removePrint, type LayOut } from './answerPapers';
import { keepAsset } from './assets';
import { undo } from './command';
import { markAnswers } from './marks';
import { sittingRecords } from './queries';
import {
  bringScans,
  nameCopies,
  nameCopy,
  placeScan,
  settleRow,
  takeScanBack,
  throwOut,
  throwPicturesAway,
  typeAnswers,
} from './scans';
import { desk } from './tables';

const now = '2026-11-28T10:00:00.000Z';
const questions = [tideChoice, springChoices, courseText, openQuestion];
const measure = (text: string, size: number) => text.length * size * 0.18;
const layOut = (...[asked, words, form]: Parameters<LayOut>) =>
  Promise.resolve(laidOut(asked, words, measure, form));

let print: AnswerPaper;

beforeEach(async () => {
  await Promise.all(desk.tables.map((table) => table.clear()));
  const people = ['s1', 's2', 's3'].map((id) => studentOf({ id, joinCode: id, groupIds: ['group1'] }));
  await desk.students.bulkAdd(people);
  await desk.groups.add({ id: 'group1', name: 'Evening', createdAt: now });
  await desk.papers.add({
    id: 'paper1',
    title: 'On paper',
    instructions: '',
    questions,
    createdAt: now,
    changedAt: now,
  });
  await desk.sittings.add(
    sittingOf({
      id: 'sitting1',
      paperId: 'paper1',
      paperVersion: null,
      groupIds: ['group1'],
      opensAt: now,
      closesAt: null,
    }),
  );
  print = await makePrint(
    { sittingId: 'sitting1', name: '', mixed: false, sheet: false, digits: 0, copies: ['s1', 's2', null] },
    layOut,
    now,
  );
});

let scans = 0;
/** A scan of one page of a copy, in which these boxes are so and all others empty; areas are written in. */
async function scanOf(
  copy: number,
  page: number,
  states: Record<string, TickState> = {},
  written = true,
): Promise<Scan> {
  const n = ++scans;
  const regions = print.pages[page - 1] ?? [];
  const boxes = regions.filter(({ box }) => box !== null);
  return {
    ...{ id: `scan${n}`, sittingId: 'sitting1', at: now, is: 'read' },
    from: { file: 'scans.pdf', digest: 'digest', page: n },
    picture: await keepAsset({ name: 'scan.jpg', mediaType: 'image/jpeg', bytes: new Uint8Array([n]) }),
    place: { printId: print.id, copy, page },
    boxes: boxes.map(({ questionId, box }) => ({ state: states[`${questionId} ${box}`] ?? 'empty', ink: 0 })),
    areas: regions.filter(({ box }) => box === null).map(() => written),
  };
}
const everyPage = (copy: number, states: Record<string, TickState> = {}, written = true) =>
  Promise.all(print.pages.map((_, at) => scanOf(copy, at + 1, states, written)));

async function seatOf(studentId: string): Promise<Seat> {
  const records = await sittingRecords('sitting1');
  const seat =
    records && seatsOf(records, Date.parse(now) + 60_000).find(({ student }) => student.id === studentId);
  if (!seat) throw new Error('there is a seat');
  return seat;
}
const awardOf = async (studentId: string, questionId: string) =>
  (await seatOf(studentId)).scorecard?.awards.find((award) => award.questionId === questionId);
const right = { [`${tideChoice.id} b`]: 'ticked' } as const;
const bring = async (...all: Scan[][]) => bringScans('sitting1', all.flat(), now);

describe('answers on paper', () => {
  it('fix the paper; what is ticked is scored by the key, what is written waits or is not read yet', async () => {
    expect((await desk.sittings.get('sitting1'))?.paperVersion).toBe(1);
    await bring(await everyPage(1, right));
    const attempt = (await desk.attempts.toArray())[0];
    expect(attempt).toMatchObject({
      studentId: 's1',
      source: 'paper',
      number: 1,
      copy: { printId: print.id, number: 1 },
    });
    expect(await awardOf('s1', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
    expect(await awardOf('s1', springChoices.id)).toMatchObject({ state: 'notAnswered', points: 0 });
    expect(await awardOf('s1', openQuestion.id)).toMatchObject({
      state: 'waiting',
      answered: true,
      points: null,
    });
    expect(await awardOf('s1', courseText.id)).toMatchObject({ state: 'notRead', points: null, byKey: null });
    const seat = await seatOf('s1');
    expect(seat.scorecard).toMatchObject({ waiting: 1, notRead: 1, final: false });
    expect(readinessOf(seat)).toEqual({ ready: false, why: 'notRead', count: 1 });
  });

  it('that are not read yet are neither wrong nor blank in any figure', async () => {
    await bring(await everyPage(1, { [`${tideChoice.id} a`]: 'doubtful' }), await everyPage(2, right));
    const records = await sittingRecords('sitting1');
    const seats = records ? seatsOf(records, Date.parse(now) + 60_000) : [];
    const figures = questionFigures(questions, seats);
    const of = figures.find(({ question }) => question.id === tideChoice.id);
    expect(of).toMatchObject({ given: 2, scored: 1, blank: 0, facility: 1 });
    expect(figures.find(({ question }) => question.id === courseText.id)).toMatchObject({
      scored: 0,
      blank: 0,
    });
  });

  it('whose page is missing wait for it, and are read once it comes; a second time changes nothing', async () => {
    const [first, ...rest] = await everyPage(1, right);
    if (!first) throw new Error('there is a page');
    if (rest.length > 0) {
      await bring([first]);
      expect(Object.values((await desk.attempts.toArray())[0]?.unread ?? {})).toContain('pageMissing');
      await bring(rest);
    } else await bring([first]);
    const before = await desk.attempts.toArray();
    expect(Object.values(before[0]?.unread ?? {})).not.toContain('pageMissing');
    await bring([first, ...rest]);
    expect(await desk.scans.count()).toBe(1 + rest.length);
    expect(await desk.attempts.toArray()).toEqual(before);
  });

  it('that are doubtful are asked about by row, and settled by one act that undo takes back', async () => {
    await bring(await everyPage(1, { [`${tideChoice.id} a`]: 'doubtful', [`${tideChoice.id} b`]: 'ticked' }));
    const all = await desk.scans.toArray();
    const [row] = askedRows([print], () => questions, all);
    expect(row).toMatchObject({
      copy: 1,
      questionId: tideChoice.id,
      why: 'doubtful',
      single: true,
      forward: ['b'],
    });
    expect(row?.boxes.map(({ letter, state }) => [letter, state]).slice(0, 2)).toEqual([
      ['A', 'doubtful'],
      ['B', 'ticked'],
    ]);
    const { seq } = await settleRow(
      'sitting1',
      { printId: print.id, copy: 1 },
      { questionId: tideChoice.id, part: 'options', number: '1' },
      ['a'],
      now,
    );
    expect((await desk.attempts.toArray())[0]?.answers[tideChoice.id]?.response).toEqual({ picked: ['a'] });
    expect(askedRows([print], () => questions, await desk.scans.toArray())).toEqual([]);
    await undo(now, seq ?? undefined);
    expect((await desk.attempts.toArray())[0]?.unread?.[tideChoice.id]).toBe('doubtful');
  });

  it('none meant is a blank answer, also where a box was filled alone', async () => {
    await bring(await everyPage(1, { [`${tideChoice.id} a`]: 'filled' }));
    expect((await desk.attempts.toArray())[0]?.unread?.[tideChoice.id]).toBe('doubtful');
    await settleRow(
      'sitting1',
      { printId: print.id, copy: 1 },
      { questionId: tideChoice.id, part: 'options', number: '1' },
      [],
      now,
    );
    expect(await awardOf('s1', tideChoice.id)).toMatchObject({ state: 'notAnswered', points: 0 });
  });

  it('two scans of a page that say different things are asked about; with one thrown out the other counts', async () => {
    await bring(await everyPage(1, right));
    const again = await everyPage(1, { [`${tideChoice.id} c`]: 'ticked' });
    await bring(again);
    expect((await desk.attempts.toArray())[0]?.unread?.[tideChoice.id]).toBe('scansDiffer');
    await throwOut(again, now);
    expect(await awardOf('s1', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
    const [first] = again;
    if (first) await takeScanBack(first, now);
    expect((await desk.attempts.toArray())[0]?.unread?.[tideChoice.id]).toBe('scansDiffer');
  });

  it('typed by the teacher are scored by the key, stay through later scans, and can be taken back', async () => {
    const [first, ...rest] = await everyPage(1, right);
    await bring([first ?? []].flat());
    await bring(rest);
    const ids = (await desk.attempts.toArray()).map(({ id }) => id);
    const accepted = kindOf(courseText).asText(
      courseText,
      kindOf(courseText).rightAnswer(courseText) ?? { text: '' },
    );
    expect(await typeAnswers(courseText, ids, accepted, now)).toBe(true);
    expect(await awardOf('s1', courseText.id)).toMatchObject({ state: 'byKey', points: courseText.points });
    await bring(await everyPage(1, right));
    expect(await awardOf('s1', courseText.id)).toMatchObject({ state: 'byKey', points: courseText.points });
    expect(await typeAnswers(courseText, ids, '  ', now)).toBe(true);
    expect(await awardOf('s1', courseText.id)).toMatchObject({ state: 'notRead' });
  });

  it('marked by hand have the marker’s points although nobody typed them', async () => {
    await bring(await everyPage(1, right));
    const [attempt] = await desk.attempts.toArray();
    const place = { sittingId: 'sitting1', questionId: courseText.id, attemptIds: [attempt?.id ?? ''] };
    await markAnswers(place, { points: 1 }, 'Marked', now);
    expect(await awardOf('s1', courseText.id)).toMatchObject({ state: 'overridden', points: 1 });
    // The page of papers counts what is not read as the strip and the result do.
    const seat = await seatOf('s1');
    const byCopy = notReadByCopy(questions, [seat]);
    expect([...byCopy]).toEqual([[copyKey(print.id, 1), 0]]);
    expect(seat.scorecard?.notRead).toBe(0);
  });

  it('that are not read are in nothing that figures of answers are shares of', async () => {
    await bring(await everyPage(1, { [`${tideChoice.id} a`]: 'doubtful' }), await everyPage(2, right));
    const figures = answerFigures(tideChoice, [await seatOf('s1'), await seatOf('s2')]);
    expect(figures.blank).toBe(0);
    expect(sum(figures.thirds)).toBe(1);
    expect(sumBy(figures.categories, ({ count }) => count)).toBe(1);
  });

  it('that somebody else wrote are put right: marks and answers go over with the paper', async () => {
    await bring(await everyPage(1, right));
    await nameCopy('sitting1', { printId: print.id, copy: 1 }, 's3', now);
    expect((await seatOf('s1')).attempt).toBeNull();
    expect(await awardOf('s3', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
  });

  it('each written one is an answer of its own, blank ones are together', async () => {
    await bring(await everyPage(1, right), await everyPage(2, right, false));
    const groups = sameAnswers(openQuestion, [await seatOf('s1'), await seatOf('s2')]);
    expect(groups.map(({ onPaper, blank, answers }) => [onPaper, blank, answers.length])).toEqual([
      [true, false, 1],
      [false, true, 1],
    ]);
    expect(groups[0]?.answers[0]?.pictures.length).toBe(1);
    expect(await awardOf('s2', openQuestion.id)).toMatchObject({ state: 'waiting', answered: false });
  });

  it('without a name are nobody’s until somebody says whose they are, and one student has one copy', async () => {
    await bring(await everyPage(3, right));
    expect(await desk.attempts.count()).toBe(0);
    await expect(nameCopy('sitting1', { printId: print.id, copy: 3 }, 's1', now)).rejects.toThrow(
      'copyTaken',
    );
    const { seq } = await nameCopy('sitting1', { printId: print.id, copy: 3 }, 's3', now);
    expect(await awardOf('s3', tideChoice.id)).toMatchObject({ state: 'byKey' });
    await undo(now, seq ?? undefined);
    expect(await desk.attempts.count()).toBe(0);
  });

  it('on a page that nobody knows are read once it is placed', async () => {
    const [page, ...rest] = await everyPage(1, right);
    if (!page) throw new Error('there is a page');
    await bring([{ ...page, is: 'noCode', place: null, boxes: [], areas: [] }, ...rest]);
    expect(await awardOf('s1', tideChoice.id)).not.toMatchObject({ state: 'byKey' });
    const unknown = (await desk.scans.toArray()).find(({ is }) => is === 'noCode');
    if (unknown) await placeScan(unknown, page, now);
    expect(await awardOf('s1', tideChoice.id)).toMatchObject({ state: 'byKey' });
  });

  it('brought in are undone whole', async () => {
    const { seq } = await bring(await everyPage(1), await everyPage(2));
    expect(await desk.attempts.count()).toBe(2);
    await undo(now, seq ?? undefined);
    expect([await desk.attempts.count(), await desk.scans.count()]).toEqual([0, 0]);
  });

  it('keep what was read when their pictures are thrown away', async () => {
    await bring(await everyPage(1, right));
    await throwPicturesAway(await desk.scans.toArray(), now);
    expect(await desk.assets.count()).toBe(0);
    expect(await awardOf('s1', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
  });

  it('are seen by their student only where answers are let out', async () => {
    await bring(await everyPage(1, right));
    const seat = await seatOf('s1');
    if (!seat.attempt) throw new Error('there is an attempt');
    const source = {
      ...{
        sittingId: 'sitting1',
        title: '',
        questions,
        attempt: seat.attempt,
        marks: [],
        releasedAt: now,
        firstName: '',
      },
    };
    const shows = {
      total: true,
      points: true,
      answers: true,
      rightOrWrong: false,
      accepted: false,
      comments: false,
    };
    expect(scriptPacket(source, shows).questions.every(({ pictures }) => pictures?.length === 1)).toBe(true);
    const without = JSON.stringify(scriptPacket(source, { ...shows, answers: false }));
    for (const { id } of seat.attempt.files ?? []) expect(without).not.toContain(id);
  });
});

describe('answer papers', () => {
  it('can be made again as they were, and are removed only while nothing of them was scanned', async () => {
    const { pages } = await pagesAgain(print, layOut);
    expect(pages.map(({ regions }) => regions)).toEqual(print.pages);
    await bring(await everyPage(1));
    await removePrint(print, now);
    expect(await desk.prints.count()).toBe(1);
  });

  it('that would be laid out otherwise now are not made again: their map would be wrong', async () => {
    const other: typeof layOut = async (...of) =>
      (await layOut(...of)).map((page) => ({ ...page, regions: page.regions.slice(1) }));
    await expect(pagesAgain(print, other)).rejects.toThrow('printChanged');
  });

  it('of a second version have questions in another order, and are read all the same', async () => {
    const mixed = await makePrint(
      { sittingId: 'sitting1', name: 'B', mixed: true, sheet: false, digits: 0, copies: ['s3'] },
      layOut,
      now,
    );
    const order = (of: AnswerPaper) => [...new Set(of.pages.flat().map(({ questionId }) => questionId))];
    expect([...order(mixed)].sort()).toEqual([...order(print)].sort());
    print = mixed;
    await bring(await everyPage(1, right));
    expect(await awardOf('s3', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
  });

  it('with boxes for the number find their student by it, where it is clear and nobody else has it', async () => {
    await desk.students.update('s3', { number: '2107' });
    const wish = { sittingId: 'sitting1', name: '', mixed: false, sheet: false };
    print = await makePrint({ ...wish, digits: 5, copies: [null, null, null] }, layOut, now);
    const figures = (number: string): Record<string, TickState> =>
      Object.fromEntries([...number].map((figure, at) => [`#number ${at + 1} ${figure}`, 'ticked']));
    const numbered = async (copy: number, number: string): Promise<Scan[]> => {
      const states = figures(number);
      const boxes = (print.pages[0] ?? []).filter(({ box }) => box !== null);
      return (await everyPage(copy, right)).map((scan, at) =>
        at > 0
          ? scan
          : {
              ...scan,
              boxes: scan.boxes.map((box, index) => {
                const { questionId, part, box: id } = boxes[index] ?? {};
                return states[`${questionId} ${part} ${id}`] ? { ...box, state: 'ticked' as const } : box;
              }),
            },
      );
    };
    await bring(await numbered(1, '2107'));
    expect((await desk.prints.get(print.id))?.copies).toEqual(['s3', null, null]);
    expect(await awardOf('s3', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
    // Nobody's number, and one that is another paper's already.
    await bring(await numbered(2, '9999'), await numbered(3, '2107'));
    expect((await desk.prints.get(print.id))?.copies).toEqual(['s3', null, null]);
    expect(await desk.attempts.count()).toBe(1);
    // A number that comes into the register later names its paper with the next thing that is done.
    await desk.students.update('s2', { number: '9999' });
    await throwOut([(await desk.scans.where({ sittingId: 'sitting1' }).first()) as Scan], now);
    expect(await awardOf('s2', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
  });

  it('as a sheet have the same boxes and areas, on fewer pages, and are read the same', async () => {
    const wish = { sittingId: 'sitting1', name: '', mixed: false, digits: 0 };
    const sheet = await makePrint({ ...wish, sheet: true, copies: ['s3'] }, layOut, now);
    const places = (of: AnswerPaper) =>
      of.pages
        .flat()
        .map(({ questionId, part, box }) => `${questionId} ${part} ${box}`)
        .sort();
    expect(places(sheet)).toEqual(places(print));
    expect(sheet.pages.length).toBeLessThanOrEqual(print.pages.length);
    print = sheet;
    await bring(await everyPage(1, right));
    expect(await awardOf('s3', tideChoice.id)).toMatchObject({ state: 'byKey', points: tideChoice.points });
  });

  it('printed elsewhere can bring questions of their own, while nobody sat the paper', async () => {
    const blanks = [{ id: 'blank1', name: 'blank.jpg', mediaType: 'image/jpeg', size: 3 }];
    const foreign = {
      ...{ sittingId: 'sitting1', name: 'Theirs', blanks, nameAt: null, regions: [[]] },
      fresh: [{ id: 'new1', stem: 'Why so late?', points: 4 }],
    };
    await expect(makeForeign(foreign, now)).rejects.toThrow('paperSat');
    const sitting = await desk.sittings.get('sitting1');
    if (!sitting) throw new Error('there is a sitting');
    await desk.sittings.put({ ...sitting, paperVersion: null });
    await makeForeign(foreign, now);
    const after = await desk.sittings.get('sitting1');
    const version = await desk.paperVersions.get(['paper1', after?.paperVersion ?? 0]);
    expect(version?.questions.map(({ id }) => id)).toEqual([...questions.map(({ id }) => id), 'new1']);
    expect(version?.questions.at(-1)).toMatchObject({ kind: 'openText', stem: 'Why so late?', points: 4 });
    await undo(now);
    expect((await desk.papers.get('paper1'))?.questions.length).toBe(questions.length);
    expect((await desk.sittings.get('sitting1'))?.paperVersion).toBeNull();
  });

  it('printed elsewhere are named by a sticker, or all at once', async () => {
    const blanks = [{ id: 'blank1', name: 'blank.jpg', mediaType: 'image/jpeg', size: 3 }];
    const foreign = { sittingId: 'sitting1', name: 'Theirs', blanks, nameAt: null, regions: [[]] };
    await makeForeign(foreign, now);
    const theirs = (await desk.prints.toArray()).find(({ foreign: elsewhere }) => elsewhere);
    if (!theirs) throw new Error('there is a print');
    const scan = (copy: number, sticker?: string): Scan => ({
      ...{ id: `scan${copy}`, sittingId: 'sitting1', at: now, is: 'read', boxes: [], areas: [] },
      from: { file: 'pile.pdf', digest: 'pile', page: copy },
      picture: { id: 'blank1', name: 'scan.jpg', mediaType: 'image/jpeg', size: 3 },
      place: { printId: theirs.id, copy, page: 1 },
      ...(sticker !== undefined && { sticker }),
    });
    // A student of another group is not meant, nor is one who has a paper already.
    await bringScans('sitting1', [scan(1), scan(2, 's2'), scan(3, 's2'), scan(4, 'stranger')], now);
    const copiesNow = async () => (await desk.prints.get(theirs.id))?.copies;
    expect(await copiesNow()).toEqual([null, 's2', null, null]);
    const at = (copy: number, studentId: string) => ({ printId: theirs.id, copy, studentId });
    await nameCopies('sitting1', [at(1, 's1'), at(3, 's3')], now);
    expect(await copiesNow()).toEqual(['s1', 's2', 's3', null]);
    await undo(now);
    expect(await copiesNow()).toEqual([null, 's2', null, null]);
  });

  it('hold nothing of the key', () => {
    expect(JSON.stringify(print)).not.toContain('SECRET');
  });
});
