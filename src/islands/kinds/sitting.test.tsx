// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import {
  lightColours,
  openQuestion,
  runDistance,
  samples,
  sides,
  sternLight,
  streamGaps,
  tideOrder,
} from '../../../tests/unit/samples';
import { draw, fetched } from '../../../tests/unit/screen';
import { kindOf, type Question, type Response } from '@/core/kinds';
import type { NumberQuestion } from '@/core/kinds/number/schema';
import { moved } from '@/ui/moved';
import { viewOf } from '.';
import { printOf } from './prints';
import { understood } from './number';
import { NumberField } from './number/NumberField';
import { workedLine } from './PartPoints';

/** A question as a student has it on the page, with the last response given to it. */
function sit(question: Question, first: Response | null = null) {
  const given: Response[] = [];
  const forStudent = kindOf(question).forStudent(question, 'attempt1');
  const { Sit } = viewOf(question);
  function Sitting() {
    const [response, setResponse] = useState(first);
    return (
      <>
        <p id="stem">{String(question.stem)}</p>
        <Sit
          question={forStudent}
          response={response}
          respond={(next) => {
            given.push(next);
            setResponse(next);
          }}
          labelledBy="stem"
        />
      </>
    );
  }
  return { ...draw(<Sitting />), last: () => given.at(-1), share: () => shareOf(question, given.at(-1)) };
}

const shareOf = (question: Question, response: Response | undefined) =>
  response ? kindOf(question).score(question, response).share : null;

/** How an answer is shown again, in words. */
function shown(question: Question, response: Response | null): string {
  const { Show } = viewOf(question);
  const { container, unmount } = draw(
    <Show question={kindOf(question).forStudent(question, 'attempt1')} response={response} />,
  );
  // Mantine puts its styles beside what is drawn.
  const words = container.querySelector('p, ul, ol')?.textContent ?? '';
  unmount();
  return words;
}

describe('sitting true or false', () => {
  it('is two to choose from, one of them right', async () => {
    const { hand, share } = sit(sternLight);
    await hand.click(screen.getByRole('radio', { name: /True/ }));
    expect(share()).toBe(1);
    await hand.click(screen.getByRole('radio', { name: /False/ }));
    expect(share()).toBe(0);
  });
});

describe('sitting a number', () => {
  it('says what was understood while it is typed', async () => {
    const { hand, share } = sit(runDistance);
    await hand.type(screen.getByRole('textbox', { name: 'How far does she run?' }), '18,0 nautical miles');
    expect(screen.getByText('Read as 18 nautical miles')).toBeTruthy();
    expect(share()).toBe(1);
  });

  it('asks where a comma may set off thousands, and takes what is meant', async () => {
    const { hand, last } = sit(runDistance);
    const field = screen.getByRole('textbox', { name: 'How far does she run?' });
    await hand.type(field, '12,500 m');
    expect(screen.getByText('Read as 12.5 m')).toBeTruthy();
    expect(screen.getByRole('group', { name: 'Which number did you mean?' }).textContent).toContain(
      'counted as 12.5',
    );
    await hand.click(screen.getByRole('button', { name: '12\u202f500' }));
    expect(last()).toEqual({ text: '12500 m' });
    expect(document.activeElement).toBe(field);
    expect(screen.queryByRole('group', { name: 'Which number did you mean?' })).toBeNull();
    await hand.clear(field);
    await hand.type(field, '1.234');
    await hand.click(screen.getByRole('button', { name: '1.234' }));
    expect(last()).toEqual({ text: '1.234' });
    expect(screen.queryByRole('group', { name: 'Which number did you mean?' })).toBeNull();
  });

  it.each<[string, NumberQuestion['unitAsked'], string]>([
    ['', 'required', 'A number with its unit.'],
    ['', 'optional', ''],
    ['about ten', 'none', 'This can’t be read as a number.'],
    ['12', 'required', 'Read as 12. The unit is missing.'],
    ['12 nm', 'none', 'Read as 12, with “nm” after it. No unit is needed.'],
    ['43 279.16829', 'none', 'Read as 43\u202f279.16829'],
    ['−1/4 °', 'optional', 'Read as -0.25 °'],
  ])('“%s”, unit %s: “%s”', (text, unit, words) => expect(understood(text, unit)).toBe(words));
});

describe('sitting gaps', () => {
  it('each gap has a name; what is typed and picked is kept by gap', async () => {
    const { hand, last, share } = sit(streamGaps);
    await hand.type(screen.getByRole('textbox', { name: 'Gap 1' }), 'secret flood');
    await hand.selectOptions(screen.getByRole('combobox', { name: 'Gap 2' }), 'ebb');
    expect(last()).toEqual({ gaps: { g1: 'secret flood', g2: 'ge' } });
    // The accepted answer has a hyphen, and punctuation is not forgiven here.
    expect(share()).toBe(0.5);
  });

  it('shows the text with what was filled in', () => {
    expect(shown(streamGaps, { gaps: { g1: 'flow', g2: 'gs' } })).toBe(
      'The stream that comes in is the flow, the one that goes out the slack.',
    );
    expect(shown(streamGaps, null)).toContain('not answered');
  });
});

describe('sitting matching and categories', () => {
  it('each item has its list; a choice can be taken back', async () => {
    const { hand, last, share } = sit(lightColours);
    await hand.selectOptions(screen.getByRole('combobox', { name: 'port' }), 'red');
    await hand.selectOptions(screen.getByRole('combobox', { name: 'stern' }), 'white');
    expect(share()).toBeCloseTo(2 / 3, 12);
    await hand.selectOptions(screen.getByRole('combobox', { name: 'port' }), 'choose');
    expect(last()).toEqual({ pairs: { i2: 't2' } });
  });

  it('offers every target for every item, in an order that is not the key’s', () => {
    sit(lightColours);
    const lists = screen.getAllByRole('combobox');
    expect(lists).toHaveLength(3);
    for (const list of lists) expect(within(list).getAllByRole('option')).toHaveLength(5);
  });

  it('shows what was put where', () => {
    const words = shown(sides, { pairs: { m0: 's1' } });
    expect(words).toContain('red can → to starboard');
    expect(words).toContain('green cone → not answered');
  });
});

describe('sitting an ordering', () => {
  it('is not answered until something is moved, or the order is said to be right', async () => {
    const { hand, last } = sit(tideOrder);
    await fetched();
    const before = screen.getAllByRole('listitem').map((item) => item.textContent);
    expect(last()).toBeUndefined();
    await hand.click(screen.getByRole('button', { name: 'They are already in order' }));
    expect((last() as { order: string[] }).order).toHaveLength(4);
    expect(screen.getByText('This order is your answer.')).toBeTruthy();
    expect(screen.getAllByRole('listitem').map((item) => item.textContent)).toEqual(before);
  });

  it('items are put earlier and later by buttons, to their ends and no further', async () => {
    const { hand, share } = sit(tideOrder);
    await fetched();
    for (const [place, text] of ['low water', 'flood', 'high water', 'ebb'].entries())
      for (let presses = 0; presses < 4; presses++) {
        const items = screen.getAllByRole('listitem').map((item) => item.textContent ?? '');
        if (items[place]?.includes(text)) break;
        await hand.click(screen.getByRole('button', { name: `Put ${text} earlier` }));
      }
    expect(share()).toBe(1);
    // At its end a button does nothing more, says so, and keeps the focus.
    for (const name of ['Put low water earlier', 'Put ebb later']) {
      const button = screen.getByRole('button', { name });
      expect(button.getAttribute('aria-disabled')).toBe('true');
      button.focus();
      await hand.click(button);
      expect(document.activeElement).toBe(button);
    }
    expect(share()).toBe(1);
  });

  it('shows the order given, or that there is none', () => {
    expect(shown(tideOrder, { order: ['p1', 'p0', 'p2', 'p3'] })).toBe('1 flood2 low water3 high water4 ebb');
    expect(shown(tideOrder, { order: [] })).toBe('not answered');
  });

  it('moving within a list keeps everything and stops at the ends', () => {
    expect(moved(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a']);
    expect(moved(['a', 'b', 'c'], 2, 0)).toEqual(['c', 'a', 'b']);
    expect(moved(['a', 'b'], 0, 2)).toEqual(['a', 'b']);
    expect(moved(['a', 'b'], 5, 0)).toEqual(['a', 'b']);
  });
});

describe('on paper', () => {
  it.each(Object.values(samples).map((question) => [question.kind, question] as const))(
    '%s: everything to answer with is there, and nothing of the key',
    (_, question) => {
      const Printed = printOf(question);
      const { container } = draw(<Printed question={kindOf(question).forStudent(question, 'print')} room />);
      expect(container.textContent).not.toContain('SECRET');
      if ('options' in question)
        for (const option of question.options) expect(container.textContent).toContain(option.text);
      if ('items' in question)
        for (const item of question.items) expect(container.textContent).toContain(item.text);
    },
  );

  it('room to write is there only when it is wanted', () => {
    const Printed = printOf(openQuestion);
    const forStudent = kindOf(openQuestion).forStudent(openQuestion, 'print');
    const { container, rerender } = draw(<Printed question={forStudent} room />);
    const lines = () => container.querySelectorAll('div > div').length;
    const withRoom = lines();
    rerender(<Printed question={forStudent} room={false} />);
    expect(withRoom).toBeGreaterThan(lines());
  });
});

describe('the worked line under a rule', () => {
  it('is worked from the question itself', () => {
    expect(workedLine(tideOrder)).toBe(
      'For example, “1 flood; 2 low water; 3 high water; 4 ebb” gives 2.5 of 3.',
    );
    expect(workedLine(sides)).toMatch(/red can → to starboard; green cone/);
  });

  it('asks for more where there is nothing to work with yet', () => {
    expect(workedLine({ ...lightColours, key: {} } as Question)).toMatch(/^Write more to see/);
  });
});

describe('a field for any number', () => {
  it('keeps what can be read, says what cannot, and shows what is kept when it is left', async () => {
    const change = vi.fn();
    const { hand } = draw(<NumberField label="Value" value={3} change={change} />);
    const field = screen.getByRole<HTMLInputElement>('textbox', { name: 'Value' });
    await hand.clear(field);
    expect(change).toHaveBeenLastCalledWith(null);
    await hand.type(field, '1,5e3');
    expect(change).toHaveBeenLastCalledWith(1500);
    await hand.clear(field);
    change.mockClear();
    await hand.type(field, 'x');
    expect(change).not.toHaveBeenCalled();
    expect(screen.getByText('not a number')).toBeTruthy();
    await hand.tab();
    expect(field.value).toBe('3');
  });
});
