// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { paperQuestions, samples } from '../../../tests/unit/samples';
import { draw, fetched } from '../../../tests/unit/screen';
import { kindOf, type Question, type Response } from '@/core/kinds';
import { plainText } from '@/core/basics/richWords';
import { viewOf } from '.';
import { editorOf } from './editors';

describe.each(Object.values(samples).map((question) => [question.kind, question] as const))(
  '%s',
  (_, question) => {
    const kind = kindOf(question);
    const { Sit, Show } = viewOf(question);
    const Edit = editorOf(question);
    const forStudent = kind.forStudent(question, 'attempt1');

    it('sat: has no answer to begin with, and shows nothing secret', async () => {
      const respond = vi.fn();
      const { container } = draw(
        <>
          <p id="stem">{plainText(question.stem)}</p>
          <Sit question={forStudent} response={null} respond={respond} labelledBy="stem" />
        </>,
      );
      await fetched();
      expect(container.textContent).not.toContain('SECRET');
      expect(respond).not.toHaveBeenCalled();
    });

    it('sat: every control has a name', async () => {
      draw(
        <>
          <p id="stem">{plainText(question.stem)}</p>
          <Sit question={forStudent} response={null} respond={() => undefined} labelledBy="stem" />
        </>,
      );
      await fetched();
      const controls = [...document.querySelectorAll('input, textarea, select, button')];
      expect(controls.length).toBeGreaterThan(0);
      for (const control of controls) {
        const role = control.getAttribute('role') ?? undefined;
        expect(
          screen.getAllByLabelText(/.+/).includes(control as HTMLElement) || control.textContent || role,
        ).toBeTruthy();
      }
    });

    it('shown: a blank answer is drawn without fault', () => {
      const { container } = draw(<Show question={forStudent} response={null} />);
      expect(container.textContent).not.toContain('SECRET');
    });

    it('written: each step that the editor keeps is a valid question that says what was done', async () => {
      const kept: [Question, string][] = [];
      const { hand } = draw(<Edit question={question} keep={(next, said) => kept.push([next, said])} />);
      for (const box of screen.queryAllByRole('textbox').slice(0, 6)) await hand.type(box, '1');
      for (const box of screen.queryAllByRole('checkbox').slice(0, 4)) await hand.click(box);
      for (const button of screen.queryAllByRole('button', { name: /^(One more|Take out)/ }).slice(0, 8))
        await hand.click(button);
      for (const radio of screen.queryAllByRole('radio').slice(0, 2)) await hand.click(radio);
      expect(kept.length).toBeGreaterThan(0);
      for (const [next, said] of kept) {
        expect(kind.schema.safeParse(next).error).toBeUndefined();
        expect(said).not.toBe('');
        expect(next.id).toBe(question.id);
      }
    });
  },
);

describe('choosing', () => {
  const [one, several] = paperQuestions as [Question, Question];

  function sit(question: Question, response: Response | null) {
    const given: Response[] = [];
    const { Sit } = viewOf(question);
    const drawn = draw(
      <Sit
        question={kindOf(question).forStudent(question, 'attempt1')}
        response={response}
        respond={(next) => given.push(next)}
        labelledBy="stem"
      />,
    );
    return { ...drawn, given };
  }

  it('one: a second pick takes the place of the first, and can be taken back', async () => {
    const { hand, given } = sit(one, { picked: ['a'] });
    await hand.click(screen.getByRole('radio', { name: /3\/12/ }));
    await hand.click(screen.getByRole('button', { name: 'Clear my choice' }));
    expect(given).toEqual([{ picked: ['b'] }, { picked: [] }]);
  });

  it('several: picks add up, and a second press takes one back', async () => {
    const { hand, given } = sit(several, { picked: ['o0'] });
    await hand.click(screen.getByRole('checkbox', { name: /streams faster/ }));
    await hand.click(screen.getByRole('checkbox', { name: /range larger/ }));
    expect(given).toEqual([{ picked: ['o0', 'o1'] }, { picked: [] }]);
  });
});
