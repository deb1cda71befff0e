// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { draw } from '../../../tests/unit/screen';
import { StudentCell } from './StudentCell';

function table(keep: (place: string, value: string) => boolean) {
  const values = [
    ['a', 'b'],
    ['c', 'd'],
  ];
  return draw(
    <table>
      <tbody>
        {values.map((cells, row) => (
          <tr key={row}>
            {cells.map((value, column) => (
              <td key={column}>
                <StudentCell
                  row={row}
                  column={column}
                  label={`Cell ${row}${column}`}
                  value={value}
                  keep={(typed) => keep(`${row}${column}`, typed)}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>,
  );
}

const focused = () => document.activeElement?.getAttribute('aria-label');

describe('a table that is written in', () => {
  it('arrows move between cells, and stop at its edges', async () => {
    const { hand } = table(() => true);
    screen.getByRole('button', { name: 'Cell 00: a' }).focus();
    await hand.keyboard('{ArrowRight}{ArrowDown}');
    expect(focused()).toBe('Cell 11: d');
    await hand.keyboard('{ArrowRight}{ArrowDown}');
    expect(focused()).toBe('Cell 11: d');
  });

  it('typing begins anew, Enter keeps and goes down, and keeps once', async () => {
    const keep = vi.fn(() => true);
    const { hand } = table(keep);
    screen.getByRole('button', { name: 'Cell 00: a' }).focus();
    await hand.keyboard('xy{Enter}');
    expect(keep.mock.calls).toEqual([['00', 'xy']]);
    expect(focused()).toBe('Cell 10: c');
  });

  it('what cannot be kept stays to be put right; Escape leaves it as it was', async () => {
    const keep = vi.fn(() => false);
    const { hand } = table(keep);
    screen.getByRole('button', { name: 'Cell 00: a' }).focus();
    await hand.keyboard('bad{Enter}');
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Cell 00' }).value).toBe('bad');
    await hand.keyboard('{Escape}');
    expect(focused()).toBe('Cell 00: a');
  });

  it('unchanged, nothing is kept; leaving by the pointer keeps', async () => {
    const keep = vi.fn(() => true);
    const { hand } = table(keep);
    await hand.click(screen.getByRole('button', { name: 'Cell 00: a' }));
    await hand.keyboard('{Enter}');
    expect(keep).not.toHaveBeenCalled();
    await hand.click(screen.getByRole('button', { name: 'Cell 01: b' }));
    await hand.keyboard('!');
    await hand.click(screen.getByRole('button', { name: 'Cell 11: d' }));
    expect(keep.mock.calls).toEqual([['01', 'b!']]);
  });
});
