// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { at } from '../../../tests/unit/samples';
import { draw } from '../../../tests/unit/screen';
import { createGroup } from '@/store/people';
import { desk } from '@/store/tables';
import { BringIn } from './BringIn';

beforeEach(async () => {
  await desk.delete();
  await desk.open();
});

async function bringing(list: string) {
  const id = (await createGroup('Monday', at)).result;
  const group = await desk.groups.get(id);
  if (!group) throw new Error('no group');
  const done = vi.fn();
  const drawn = draw(<BringIn group={group} firstOnes done={done} />);
  fireEvent.change(screen.getByLabelText('List of students'), { target: { value: list } });
  return { ...drawn, done, id };
}

describe('bringing students in', () => {
  it('shows what was understood before anything is kept, then keeps it', async () => {
    const { hand, done, id } = await bringing('Name;No\nOkafor, Amara;2101\nTran, Linh;2102');
    const button = await screen.findByRole('button', { name: 'Import 2 students' });
    expect(await desk.students.count()).toBe(0);
    await hand.click(button);
    await waitFor(() => expect(done).toHaveBeenCalled());
    const students = await desk.students.where('groupIds').equals(id).toArray();
    expect(students.map(({ familyName, givenName, number }) => [familyName, givenName, number])).toEqual(
      expect.arrayContaining([
        ['Okafor', 'Amara', '2101'],
        ['Tran', 'Linh', '2102'],
      ]),
    );
  });

  it('names bad rows by line and reason, and takes the good ones or none', async () => {
    const { hand, done } = await bringing(
      'Family name,Given name,Number,Email\nOkafor,Amara,2101,amara@example.org\n,,2102,\nTran,Linh,2101,\nSilva,Rui,2104,rui(at)example.org',
    );
    const alert = await screen.findByRole('alert');
    expect(alert.textContent).toMatch(/3 rows couldn’t be read/);
    expect(alert.textContent).toMatch(/row 3: it has no name/);
    expect(alert.textContent).toMatch(/row 4: student number 2101 is already in row 2/);
    expect(alert.textContent).toMatch(/row 5: “rui\(at\)example.org” isn’t a valid email address/);
    await hand.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(done).toHaveBeenCalled();
    expect(await desk.students.count()).toBe(0);
  });

  it('a column guessed wrong is set right by the teacher', async () => {
    const { hand } = await bringing('Amara,Okafor,2101\nLinh,Tran,2102');
    await screen.findByRole('button', { name: /^Import/ });
    const first = screen.getByRole('combobox', { name: 'Column 1 is' });
    await hand.selectOptions(first, 'given name');
    await hand.selectOptions(screen.getByRole('combobox', { name: 'Column 2 is' }), 'family name');
    await hand.click(screen.getByRole('button', { name: 'Import 2 students' }));
    await waitFor(async () => expect(await desk.students.count()).toBe(2));
    expect((await desk.students.toArray()).map((student) => student.familyName).sort()).toEqual([
      'Okafor',
      'Tran',
    ]);
  });

  it('a title above the heading makes no student, and a column can be the group', async () => {
    const { hand, done, id } = await bringing(
      'Autumn term\nFamily name;Given name;No;Group\nOkafor;Amara;2101;Wednesday\nTran;Linh;2102;\nSilva;Rui;2103;monday',
    );
    const heading = await screen.findByRole('combobox', { name: 'Column names are in' });
    expect((heading as HTMLSelectElement).selectedOptions[0]?.textContent).toMatch(/^row 2: Family name/);
    expect(await screen.findByText('Into Wednesday (a new group): 1, Monday: 2')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Import 3 students' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    const groups = await desk.groups.toArray();
    expect(groups.map(({ name }) => name).sort()).toEqual(['Monday', 'Wednesday']);
    const wednesday = groups.find(({ name }) => name === 'Wednesday')?.id;
    const of = new Map((await desk.students.toArray()).map(({ number, groupIds }) => [number, groupIds]));
    expect([of.get('2101'), of.get('2102'), of.get('2103')]).toEqual([[wednesday], [id], [id]]);
  });

  it('more than the first rows are shown by asking for them, and a heading of its own can be chosen', async () => {
    const rows = Array.from({ length: 20 }, (_, index) => `Okafor${index},Amara${index},${2100 + index}`);
    const { hand } = await bringing(rows.join('\n'));
    expect(await screen.findByText('and 5 more rows')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Show all rows' }));
    expect(screen.getByText('Okafor19')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Column names are in'), { target: { value: '2' } });
    expect(await screen.findByText('Import 17 students')).toBeTruthy();
  });

  it('a quotation mark that is never closed is named with its line, and nothing is taken', async () => {
    await bringing('Family name,Given name\nOkafor,Amara\n"Tran,Linh\nSilva,Rui');
    expect((await screen.findByRole('alert')).textContent).toMatch(/quotation mark.*\(line 3\)/);
    expect(screen.queryByRole('button', { name: /^Import/ })).toBeNull();
  });

  it('someone on the desk already is said to be, and joins the group without a double', async () => {
    const { hand, unmount } = await bringing('Name,Number\nOkafor Amara,2101');
    await hand.click(await screen.findByRole('button', { name: 'Import 1 student' }));
    await waitFor(async () => expect(await desk.students.count()).toBe(1));
    unmount();
    const again = await bringing('Name,Number\nOkafor Amara,2101');
    expect(await screen.findByText(/unchanged/)).toBeTruthy();
    await again.hand.click(screen.getByRole('button', { name: 'Import 1 student' }));
    await waitFor(() => expect(again.done).toHaveBeenCalled());
    expect(await desk.students.count()).toBe(1);
    expect((await desk.students.toArray())[0]?.groupIds).toHaveLength(2);
  });
});
