// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { sumBy } from 'remeda';
import { draw } from '../../tests/unit/screen';
import { GroupSelect } from './GroupSelect';
import { KeptTextarea } from './KeptTextarea';
import { PointsField } from './PointsField';
import { VirtualRows } from './VirtualRows';

describe('the points field', () => {
  function Field({ kept, max = 5 }: { kept: (points: number | null) => void; max?: number }) {
    const [value, setValue] = useState<number | null>(2);
    const take = (points: number | null) => (setValue(points), kept(points));
    return <PointsField label="Points" value={value} max={max} onPoints={take} />;
  }

  it('takes a decimal comma and a decimal point alike', async () => {
    const kept = vi.fn();
    const { hand } = draw(<Field kept={kept} />);
    const field = screen.getByRole('textbox', { name: 'Points' });
    for (const [typed, points] of [
      ['1,5', 1.5],
      ['2.25', 2.25],
      ['0', 0],
    ] as const) {
      await hand.clear(field);
      await hand.type(field, typed);
      expect(kept).toHaveBeenLastCalledWith(points);
    }
  });

  it('says what can be taken, and keeps nothing else', async () => {
    const kept = vi.fn();
    const { hand } = draw(<Field kept={kept} />);
    const field = screen.getByRole('textbox', { name: 'Points' });
    await hand.clear(field);
    await hand.type(field, '7');
    // Emptied on the way: what was there before stays.
    expect(kept).toHaveBeenLastCalledWith(2);
    expect(screen.getByText('0 to 5')).toBeTruthy();
    await hand.clear(field);
    await hand.type(field, 'x');
    expect(screen.getByText('0 to 5')).toBeTruthy();
    expect(kept.mock.calls.every(([points]) => points === null || points === 2)).toBe(true);
  });

  it('left with something that cannot be taken, it shows what is kept', async () => {
    const { hand } = draw(<Field kept={() => undefined} />);
    const field = screen.getByRole<HTMLInputElement>('textbox', { name: 'Points' });
    await hand.type(field, '99');
    await hand.tab();
    expect(field.value).toBe('2');
    expect(screen.getByText('99: 0 to 5')).toBeTruthy();
  });

  it('the beginning of what cannot be taken is not kept either', async () => {
    const kept = vi.fn();
    const { hand } = draw(<Field kept={kept} />);
    const field = screen.getByRole<HTMLInputElement>('textbox', { name: 'Points' });
    await hand.clear(field);
    await hand.type(field, '45');
    expect(kept).toHaveBeenLastCalledWith(2);
    await hand.tab();
    expect(field.value).toBe('2');
  });
});

describe('a field that keeps by itself', () => {
  it('keeps what was typed when it is left, and what was typed last when it goes away', async () => {
    const keep = vi.fn();
    const { hand, unmount } = draw(<KeptTextarea aria-label="Comment" value="" onKeep={keep} />);
    await hand.type(screen.getByRole('textbox'), 'Good');
    await hand.tab();
    expect(keep).toHaveBeenLastCalledWith('Good');
    await hand.type(screen.getByRole('textbox'), ' and clear');
    unmount();
    expect(keep).toHaveBeenLastCalledWith('Good and clear');
  });

  it('what could not be kept stays in it; what is kept, here or elsewhere, shows once it is left', async () => {
    function Comment() {
      const [stored, setStored] = useState('');
      return (
        <>
          <KeptTextarea aria-label="Comment" value={stored} onKeep={() => undefined} />
          <button onClick={() => setStored('Good')}>keep it</button>
          <button onClick={() => setStored('Changed elsewhere')}>elsewhere</button>
        </>
      );
    }
    const { hand } = draw(<Comment />);
    const field = screen.getByRole('textbox');
    await hand.type(field, 'Good');
    await hand.tab();
    expect(field).toHaveProperty('value', 'Good');
    await hand.click(screen.getByRole('button', { name: 'keep it' }));
    expect(field).toHaveProperty('value', 'Good');
    await hand.click(screen.getByRole('button', { name: 'elsewhere' }));
    expect(field).toHaveProperty('value', 'Changed elsewhere');
  });

  it('keeps a moment after the last key, once for a run of typing', async () => {
    const keep = vi.fn();
    draw(<KeptTextarea aria-label="Comment" value="" onKeep={keep} />);
    // Keys without a rest between them, however slow the machine is.
    for (const value of ['t', 'tidal', 'tidal stream'])
      fireEvent.change(screen.getByRole('textbox'), { target: { value } });
    expect(keep).not.toHaveBeenCalled();
    await waitFor(() => expect(keep).toHaveBeenCalledWith('tidal stream'));
    expect(keep).toHaveBeenCalledTimes(1);
  });
});

describe('choosing a group', () => {
  const groups = [
    { id: 'g1', name: 'Monday' },
    { id: 'g2', name: 'Tuesday' },
  ].map((group) => ({ ...group, createdAt: '2026-11-23T10:00:00.000Z' }));

  it('offers all together, then each', async () => {
    const choose = vi.fn();
    const { hand } = draw(<GroupSelect groups={groups} value="" choose={choose} />);
    expect(screen.getAllByRole('option').map((option) => option.textContent)).toEqual([
      'All groups',
      'Monday',
      'Tuesday',
    ]);
    await hand.selectOptions(screen.getByRole('combobox', { name: 'Group' }), 'Tuesday');
    expect(choose).toHaveBeenCalledWith('g2');
  });

  it('is not there where there is nothing to choose', () => {
    draw(<GroupSelect groups={groups.slice(0, 1)} value="" choose={() => undefined} />);
    expect(screen.queryByRole('combobox')).toBeNull();
  });
});

describe('a long table', () => {
  it('draws the rows in sight and keeps room for the rest', () => {
    const rows = Array.from({ length: 600 }, (_, index) => index);
    const { container } = draw(
      <div data-scroller>
        <table>
          <VirtualRows rows={rows} height={30}>
            {(row) => (
              <tr key={row}>
                <td>row {row}</td>
              </tr>
            )}
          </VirtualRows>
        </table>
      </div>,
    );
    const drawn = screen.getAllByText(/^row \d+$/);
    expect(drawn[0]?.textContent).toBe('row 0');
    expect(drawn.length).toBeLessThan(100);
    const room = [...container.querySelectorAll<HTMLElement>('tr[aria-hidden]')];
    const heights = sumBy(room, (row) => Number.parseFloat(row.style.height));
    expect(heights + drawn.length * 30).toBe(600 * 30);
  });
});
