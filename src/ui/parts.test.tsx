// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { draw } from '../../tests/unit/screen';
import { paperQuestions } from '../../tests/unit/samples';
import type { Finding } from '@/core/basics/common';
import { EmptyState } from './EmptyState';
import { FillGlyph, glyphWords } from './FillGlyph';
import { findingWords } from '@/words/findings';
import { counted, countdown, dayAndTime, duration } from '@/words/format';
import { fromLocalField, toLocalField } from './localField';
import { Strip, type StripStage } from './Strip';

describe('the fill glyph', () => {
  it('says in words what it draws', () => {
    expect(glyphWords({ share: null, answered: false })).toBe('not answered');
    expect(glyphWords({ share: 0, answered: false })).toBe('not answered');
    expect(glyphWords({ share: null, answered: true, waiting: true })).toBe('waits for a mark');
    expect(glyphWords({ share: null, answered: true })).toBe('answered');
    expect(glyphWords({ share: 2 / 3, answered: true })).toBe('67% of the points');
    expect(glyphWords({ share: 1, answered: true, overridden: true })).toBe(
      '100% of the points, overridden by hand',
    );
  });

  it('is as full as the share of the points', () => {
    const { container } = draw(<FillGlyph share={0.5} answered />);
    expect(container.querySelector('rect')?.getAttribute('height')).toBe('5');
    expect(screen.getByRole('img', { name: '50% of the points' })).toBeTruthy();
  });

  it('no two states look the same', () => {
    const states = [
      { share: null, answered: false },
      { share: null, answered: true },
      { share: null, answered: true, waiting: true },
      { share: 0, answered: true },
      { share: 0.5, answered: true },
      { share: 0.5, answered: true, overridden: true },
    ];
    const drawn = states.map((state) => {
      const { container } = draw(<FillGlyph {...state} label="same" />);
      return container.innerHTML.replace(/<style.*?<\/style>/gs, '');
    });
    expect(new Set(drawn).size).toBe(states.length);
  });
});

describe('the strip', () => {
  const stage = (part: Partial<StripStage>): StripStage => ({
    stage: 'run',
    words: '2 still working',
    done: 0.5,
    next: false,
    href: '/sittings/s/run',
    ...part,
  });

  it('leads into each stage that can be entered, and says where we are', () => {
    const stages = [
      stage({}),
      stage({ stage: 'mark', words: '14 answers wait', next: true, href: '/sittings/s/mark' }),
      stage({ stage: 'handBack', words: 'nothing handed in', href: null }),
    ];
    draw(<Strip label="Stages of Tides" stages={stages} current="mark" />);
    const strip = within(screen.getByRole('navigation', { name: 'Stages of Tides' }));
    expect(strip.getAllByRole('link').map((link) => link.textContent)).toEqual([
      'Run2 still working',
      'Mark14 answers wait',
    ]);
    expect(strip.getByRole('link', { name: /Mark/ }).getAttribute('aria-current')).toBe('page');
    expect(strip.getByText('Hand back').closest('a')).toBeNull();
  });
});

describe('an empty view', () => {
  it('says what to do first and has the button for it', () => {
    draw(
      <EmptyState title="No groups yet" action={<button>Create a group</button>}>
        A group is a class.
      </EmptyState>,
    );
    expect(screen.getByRole('heading', { name: 'No groups yet' })).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Create a group' })).toBeTruthy();
  });
});

describe('findings in words', () => {
  const finding = (part: Partial<Finding>): Finding => ({ level: 'look', code: 'noKey', ...part });

  it('name the question by its place on the paper', () => {
    const [, second] = paperQuestions;
    if (!second) throw new Error('no sample');
    expect(findingWords(finding({ questionId: second.id }), paperQuestions)).toMatch(/^Question 2: there is/);
  });

  it('about the paper begin with a capital, and hold their detail', () => {
    expect(findingWords(finding({ code: 'noTitle' }), [])).toBe('The paper has no title');
    expect(findingWords(finding({ code: 'equalOptions', detail: 'A and C' }), [])).toContain('A and C');
  });
});

describe('figures in words', () => {
  it('counts one and many', () => {
    expect(counted(1, 'answer')).toBe('1 answer');
    expect(counted(0, 'answer')).toBe('0 answers');
    expect(counted(2, 'good one', 'good ones')).toBe('2 good ones');
    expect(counted(1234.5, 'point')).toBe('1,234.5 points');
  });

  it('lengths of time', () => {
    expect(duration(42 * 60_000)).toBe('42 min');
    expect(duration(65 * 60_000)).toBe('1 h 05 min');
    expect(countdown(581_000)).toBe('09:41');
    expect(countdown(3_600_000)).toBe('1:00:00');
    expect(countdown(-5)).toBe('00:00');
  });

  it('days near today have names', () => {
    const now = new Date(2026, 10, 23, 12).getTime();
    const hours = (count: number) => now + count * 3_600_000;
    expect(dayAndTime(hours(1), now)).toMatch(/^today /);
    expect(dayAndTime(hours(24), now)).toMatch(/^tomorrow /);
    expect(dayAndTime(hours(-24), now)).toMatch(/^yesterday /);
    expect(dayAndTime(hours(24 * 9), now)).toMatch(/2/);
  });

  it('a time field gives back the instant it was given, to the minute', () => {
    const instant = '2026-11-23T10:05:00.000Z';
    expect(fromLocalField(toLocalField(instant))).toBe(instant);
    expect(fromLocalField('never')).toBeNull();
  });
});
