import { groupBy } from '../basics/groupBy';
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

/** What a sitting or a group belongs to, as it was typed; empty: nothing was said. */
export interface CourseNames {
  course: string;
  term: string;
}

/** A row with what it belongs to; nothing said is no field. */
export function withCourse<R extends { course?: string | undefined; term?: string | undefined }>(
  row: R,
  { course, term }: CourseNames,
): R {
  const { course: _c, term: _t, ...rest } = row;
  const said = { ...(course.trim() && { course: course.trim() }), ...(term.trim() && { term: term.trim() }) };
  return { ...rest, ...said } as R; // the same but for two fields that may lack
}

/** Course and term of a sitting: its own, or else what all its groups have in common. */
export function courseOf({ sitting, groups }: Pick<DeskRow, 'sitting' | 'groups'>): CourseNames {
  const common = (field: 'course' | 'term') => {
    const of = new Set(groups.map((group) => group[field] ?? ''));
    const [only = ''] = of.size === 1 ? of : [''];
    return sitting[field] ?? only;
  };
  return { course: common('course'), term: common('term') };
}

/** The sittings of each course, by its name; empty: of none. Made-up classes and other people's shares are no sittings of a course. */
export function sittingsByCourse(
  sittings: readonly Sitting[],
  groups: readonly Group[],
): Map<string, Sitting[]> {
  const byId = new Map(groups.map((group) => [group.id, group]));
  const own = sittings.filter(({ rehearsal, share }) => rehearsal !== true && share !== true);
  return groupBy(own, (sitting) => {
    const of = sitting.groupIds.flatMap((id) => byId.get(id) ?? []);
    return courseOf({ sitting, groups: of }).course;
  });
}

/** Whether a sitting wants something of its teacher: it runs or is to come, or is not marked or handed back yet. */
function wantsSomething({ sitting, progress }: DeskRow, now: number): boolean {
  if (!progress) return false;
  if (sitting.share) return progress.waiting > 0;
  const over = sitting.closesAt !== null && Date.parse(sitting.closesAt) <= now;
  return progress.in === 0 && progress.working === 0 ? !over : pressure(progress) > 0;
}

/** @param now ms since 1970 */
export function deskOrder<R extends DeskRow>(rows: readonly R[], now: number): DeskOrder<R> {
  const latest = [...rows].sort(latestFirst);
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

/** The sittings that answer to all words that were typed, in title, course, term or groups; the latest first. */
export function foundOnDesk<R extends Pick<DeskRow, 'sitting' | 'groups'>>(
  rows: readonly R[],
  typed: string,
): R[] {
  const words = typed.toLowerCase().split(/\s+/);
  return rows.filter((row) => words.every((word) => textOf(row).includes(word))).sort(latestFirst);
}

const latestFirst = (a: Pick<DeskRow, 'sitting'>, b: Pick<DeskRow, 'sitting'>) =>
  b.sitting.opensAt.localeCompare(a.sitting.opensAt);

function textOf(row: Pick<DeskRow, 'sitting' | 'groups'>): string {
  const { course, term } = courseOf(row);
  return [row.sitting.title, course, term, ...row.groups.map(({ name }) => name)].join(' ').toLowerCase();
}
