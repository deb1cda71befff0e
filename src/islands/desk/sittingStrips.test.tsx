// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { screen, waitFor, within } from '@testing-library/react';
import { useLiveQuery } from 'dexie-react-hooks';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, paperQuestions, sittingOf } from '../../../tests/unit/samples';
import { draw } from '../../../tests/unit/screen';
import { describeGroup } from '@/store/people';
import { deskRows } from '@/store/queries';
import { desk } from '@/store/tables';
import { deskHeading, SittingStrips } from './SittingStrips';

const now = Date.parse(at);
const iso = (days: number) => new Date(now + days * 86_400_000).toISOString();

function OnDesk() {
  const rows = useLiveQuery(() => deskRows(now));
  return rows ? (
    <>
      <h1 id={deskHeading} tabIndex={-1}>
        On the desk
      </h1>
      <SittingStrips rows={rows.sittings} now={now}>
        <p>drafts</p>
      </SittingStrips>
    </>
  ) : null;
}

/** Finished sittings of two courses, and one that is to come. */
async function laidOut(finished: number): Promise<void> {
  await desk.groups.bulkAdd([
    { id: 'g1', name: 'Monday', createdAt: at, course: 'Coastal', term: 'Autumn' },
    { id: 'g2', name: 'Friday', createdAt: at },
  ]);
  const paper = { title: 'Tides', instructions: '', questions: paperQuestions };
  await desk.papers.add({ id: 'paper1', ...paper, createdAt: at, changedAt: at });
  await desk.paperVersions.add({ paperId: 'paper1', version: 1, frozenAt: at, ...paper });
  await desk.sittings.bulkAdd([
    sittingOf({ id: 'coming', title: 'To come', groupIds: ['g2'], opensAt: iso(1), closesAt: iso(2) }),
    ...Array.from({ length: finished }, (_, index) =>
      sittingOf({
        id: `s${index}`,
        title: `Week ${index}`,
        groupIds: [index % 2 ? 'g2' : 'g1'],
        opensAt: iso(-9 - index),
        closesAt: iso(-8 - index),
      }),
    ),
  ]);
}

beforeEach(async () => {
  await desk.delete();
  await desk.open();
});

const titles = () =>
  screen.getAllByRole('article').map((each) => within(each).getByRole('heading').textContent);

describe('the strips of a desk', () => {
  it('few lie open, with what wants something before the drafts', async () => {
    await laidOut(2);
    draw(<OnDesk />);
    expect(await screen.findByText('drafts')).toBeTruthy();
    expect(titles()).toEqual(['To come', 'Week 0', 'Week 1']);
    expect(screen.queryByLabelText('Filter sittings')).toBeNull();
  });

  it('many lie folded by course and term, and are drawn once they are unfolded', async () => {
    await laidOut(14);
    const { hand } = draw(<OnDesk />);
    await screen.findByText('drafts');
    expect(titles()).toEqual(['To come']);
    const folded = screen.getAllByRole('group').map((each) => each.querySelector('summary')?.textContent);
    expect(folded).toEqual(['Coastal, Autumn 7 sittings', 'Finished 7 sittings']);
    await hand.click(screen.getByText('Coastal, Autumn'));
    await waitFor(() => expect(titles()).toHaveLength(8));
    await hand.click(screen.getByRole('button', { name: 'Archive these 7 sittings' }));
    expect(await screen.findByText('Archived')).toBeTruthy();
    expect((await desk.sittings.toArray()).filter(({ archivedAt }) => archivedAt)).toHaveLength(7);
    // Its button is gone: the focus has somewhere to be.
    await waitFor(() => expect(document.activeElement?.id).toBe(deskHeading));
  });

  it('are filtered by title, course, term and group, archived ones too, and restored', async () => {
    await laidOut(14);
    await desk.sittings.update('s4', { archivedAt: at });
    const { hand } = draw(<OnDesk />);
    const filter = await screen.findByLabelText('Filter sittings');
    await hand.type(filter, 'coastal week 4');
    expect(await screen.findByText('1 sitting')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Restore Week 4' }));
    await waitFor(async () => expect(await desk.sittings.get('s4')).not.toHaveProperty('archivedAt'));
    await hand.clear(filter);
    await hand.type(filter, 'no such thing');
    expect(await screen.findByText('No sittings match.')).toBeTruthy();
  });

  it('a group given a course takes its sittings there', async () => {
    await laidOut(14);
    await describeGroup('g2', { course: ' Inland ', term: '' }, at);
    expect(await desk.groups.get('g2')).toMatchObject({ course: 'Inland' });
    draw(<OnDesk />);
    expect(await screen.findByText('Inland')).toBeTruthy();
    await describeGroup('g2', { course: '', term: '' }, at);
    expect(await desk.groups.get('g2')).not.toHaveProperty('course');
  });
});
