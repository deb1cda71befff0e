import type { Group } from '../model/people';
import type { Sitting } from '../model/sitting';
import type { SittingProgress } from '../seats/progress';
import { pressure } from '../seats/strip';

/** What of a sitting says where it lies on the desk. */
export interface DeskRow {
  sitting: Sitting;
  /** Null for an archived one: how it stands is not looked at. */
  progress: SittingProgress | null;
  groups: readonly Group[];
}

/** Sittings of one course and term, the latest first. */
export interface DeskSection<R> {
  /** Empty: none was given. */
  course: string;
  term: string;
  rows: R[];
}

/** The desk in its order. */
export interface DeskOrder<R> {
  /** Those with something to do, the most pressing first. */
  pressing: R[];
  /** The rest by course and term, the latest first. */
  sections: DeskSection<R>[];
  archived: R[];
}

/** Course and term of a sitting: its own, or else what all its groups have in common. */
export function courseOf({ sitting, groups }: Pick<DeskRow, 'sitting' | 'groups'>): {
  course: string;
  term: string;
} {
  const common = (field: 'course' | 'term') => {
    const of = new Set(groups.map((group) => group[field] ?? ''));
    const [only = ''] = of.size === 1 ? of : [''];
    return sitting[field] ?? only;
  };
  return { course: common('course'), term: common('term') };
}

/** Whether a sitting wants something of its teacher: it runs or is to come, or is not marked or handed back yet. */
function wantsSomething({ sitting, progress }: DeskRow, now: number): boolean {
  if (!progress) return false;
  const over = sitting.closesAt !== null && Date.parse(sitting.closesAt) <= now;
  return progress.in === 0 && progress.working === 0 ? !over : pressure(progress) > 0;
}

/** @param now ms since 1970 */
export function deskOrder<R extends DeskRow>(rows: readonly R[], now: number): DeskOrder<R> {
  const latest = [...rows].sort((a, b) => b.sitting.opensAt.localeCompare(a.sitting.opensAt));
  const here = latest.filter(({ sitting }) => sitting.archivedAt === undefined);
  const pressing = here.filter((row) => wantsSomething(row, now));
  const sections = new Map<string, DeskSection<R>>();
  for (const row of here) {
    if (pressing.includes(row)) continue;
    const { course, term } = courseOf(row);
    const key = JSON.stringify([course, term]);
    const section = sections.get(key) ?? { course, term, rows: [] };
    section.rows.push(row);
    sections.set(key, section);
  }
  const worth = ({ progress }: R) => (progress ? pressure(progress) : 0);
  return {
    pressing: pressing.sort((a, b) => worth(b) - worth(a)),
    sections: [...sections.values()],
    archived: latest.filter(({ sitting }) => sitting.archivedAt !== undefined),
  };
}

/** Whether a sitting answers to all words that were typed, in its title, course, term or groups. */
export function answersTo(row: Pick<DeskRow, 'sitting' | 'groups'>, typed: string): boolean {
  const { course, term } = courseOf(row);
  const text = [row.sitting.title, course, term, ...row.groups.map(({ name }) => name)]
    .join(' ')
    .toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
