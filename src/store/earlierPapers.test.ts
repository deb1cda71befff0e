import 'fake-indexeddb/auto';
import { beforeAll, expect, it } from 'vitest';
import { buildDemo } from '../../demo/buildDemo';
import { replaceDesk } from './backup';
import { earlierPapers, studentResults } from './earlierPapers';
import { progress } from './queries';
import { desk } from './tables';

const now = Date.now();
beforeAll(() => replaceDesk(buildDemo(now)));

it('a student’s results stand in their order, each beside the mean of the class, whether that was kept or not', async () => {
  await desk.progress.clear();
  const results = await studentResults('student03', now);
  expect(results.map(({ sittingId }) => sittingId)).toEqual(['lights', 'tides', 'rules']);
  for (const { sittingId, classMean } of results) {
    const sitting = await desk.sittings.get(sittingId);
    expect(classMean).toBe(sitting && (await progress(sitting, now))?.progress.meanShare);
    expect(classMean).toBeGreaterThan(0);
  }
});

it('topics are those of the paper’s questions, over what has points', async () => {
  const [tides] = (await earlierPapers('student03', 'rules', now)).filter(
    ({ sittingId }) => sittingId === 'tides',
  );
  const paper = await desk.papers.get('paper-tides');
  const tags = new Set(paper?.questions.flatMap((question) => question.tags));
  expect(tides?.topics.length).toBeGreaterThan(2);
  expect(tides?.topics.every(({ name, share }) => tags.has(name) && share >= 0 && share <= 1)).toBe(true);
});
