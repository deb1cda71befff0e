import {
  isShown,
  showing,
  shownThings,
  showsSame,
  timedStage,
  type PlanStage,
  type Shown,
  type Shows,
} from '../model/release';
import { planPeriods, type PlanPeriod } from './planPeriods';
import { givesKeyAway } from './readiness';

/** Something in a plan that gets in its own way, and how it could be mended: a stage as it would be, null without it. */
export type PlanFinding = { stageId: string; mend: PlanStage | null } & (
  | { code: 'neverOpens' }
  /** An end and a length of which one never takes effect. */
  | { code: 'deadLimit'; limit: 'until' | 'lastsMs' }
  /** All it shows is seen without it. */
  | { code: 'addsNothing' }
  /** Its end takes away what was seen, while other things are seen afterwards. */
  | { code: 'takesAway'; at: string; lost: Shown[] }
  /** Its end leaves nothing to see until a later stage begins. */
  | { code: 'gap'; at: string; until: string }
  /** It would tell what is right while some may still sit the paper. */
  | { code: 'spoils'; mayStillSit: number }
);

/** What findings go by besides the stages. */
export interface PlanCircumstances {
  /** When results are, or would be, handed back. */
  releasedAt: string;
  /** When the last may no longer sit, ms since 1970; Infinity: never, null: not asked. */
  lastMaySit: number | null;
  /** How many may still sit. */
  mayStillSit: number;
}

/** Where the stages of a plan undo each other, say something that never holds, or give away what others still have to sit. */
export function planFindings(stages: readonly PlanStage[], about: PlanCircumstances): PlanFinding[] {
  const { releasedAt } = about;
  const timed = (all: readonly PlanStage[]) => all.flatMap((stage) => timedStage(stage, releasedAt) ?? []);
  const periods = planPeriods(timed(stages), releasedAt);
  const findings: PlanFinding[] = [];
  for (const stage of stages) {
    const own = ofItself(stage, releasedAt);
    if (own) findings.push(own);
    if (own?.code === 'neverOpens') continue;
    const without = stages.filter(({ id }) => id !== stage.id);
    if (isTimed(stage) && stages.length > 1 && samePeriods(planPeriods(timed(without), releasedAt), periods))
      findings.push({ code: 'addsNothing', stageId: stage.id, mend: null });
    const end = timedStage(stage, releasedAt)?.until ?? null;
    const taken = end === null ? null : lostAt(periods, end);
    const mend = { ...stage, until: null, lastsMs: null };
    if (taken) findings.push({ stageId: stage.id, mend, ...taken });
    if (spoils(stage, about))
      findings.push({
        ...{ code: 'spoils', stageId: stage.id, mayStillSit: about.mayStillSit },
        mend: { ...stage, starts: 'sat', at: atOf(about.lastMaySit) },
      });
  }
  return findings;
}

const atOf = (ms: number | null) => (ms === null || !Number.isFinite(ms) ? null : new Date(ms).toISOString());

const isTimed = ({ starts, at }: PlanStage) => starts === 'handedBack' || at !== null;

function ofItself(stage: PlanStage, releasedAt: string): PlanFinding | null {
  const { id: stageId, starts, at, until, lastsMs } = stage;
  const from = starts === 'handedBack' ? releasedAt : at;
  if (from === null) return null;
  if (until !== null && until <= from)
    return { code: 'neverOpens', stageId, mend: { ...stage, until: null } };
  if (until === null || lastsMs === null) return null;
  const length = Date.parse(from) + lastsMs;
  const limit = length <= Date.parse(until) ? 'until' : 'lastsMs';
  return { code: 'deadLimit', stageId, limit, mend: { ...stage, [limit]: null } };
}

const samePeriods = (a: readonly PlanPeriod[], b: readonly PlanPeriod[]) =>
  a.length === b.length &&
  a.every((period, index) => period.from === b[index]?.from && showsSame(period.shows, b[index].shows));

/** What is no longer seen from an instant on, where something else is, then or later; null where the result just ends. */
function lostAt(
  periods: readonly PlanPeriod[],
  at: string,
): { code: 'takesAway'; at: string; lost: Shown[] } | { code: 'gap'; at: string; until: string } | null {
  const index = periods.findIndex(({ from }) => from === at);
  const [before, after, next] = [periods[index - 1], periods[index], periods[index + 1]];
  if (!before?.shows || !after) return null;
  if (!after.shows) return next?.shows && after.until ? { code: 'gap', at, until: after.until } : null;
  const [had, has] = [before.shows, after.shows];
  const lost = shownThings.filter((what) => isShown(had, what) && !isShown(has, what));
  return lost.length > 0 ? { code: 'takesAway', at, lost } : null;
}

function spoils(stage: PlanStage, { lastMaySit, mayStillSit, releasedAt }: PlanCircumstances): boolean {
  if (mayStillSit === 0 || lastMaySit === null || !givesKeyAway(stage.shows)) return false;
  if (stage.starts === 'sat' || stage.starts === 'marked') return false;
  const from = stage.starts === 'handedBack' ? releasedAt : stage.at;
  return from !== null && Date.parse(from) < lastMaySit;
}

/** A plan with one thing mended. */
export const mendedPlan = (stages: readonly PlanStage[], { stageId, mend }: PlanFinding): PlanStage[] =>
  stages.flatMap((stage) => (stage.id !== stageId ? [stage] : mend ? [mend] : []));

const most: Shows = showing(
  ...([
    'total',
    'percent',
    'points',
    'answers',
    'rightOrWrong',
    'accepted',
    'comments',
    'work',
    'lines',
  ] as const),
);
const first: Shows = showing('total', 'percent', 'points');

/** Plans to begin with. */
export const planTemplates = ['all', 'pointsThenAll', 'pointsThenSat', 'dayThenSat', 'cameIn'] as const;
export type PlanTemplate = (typeof planTemplates)[number];

/**
 * The stages of a template.
 *
 * @param friday ISO: the day that it begins with, where it names one
 */
export function templateStages(template: PlanTemplate, friday: string, newId: () => string): PlanStage[] {
  const stage = (starts: PlanStage['starts'], shows: Shows, at: string | null = null): PlanStage => ({
    ...{ id: newId(), starts, at, until: null, lastsMs: null, shows },
  });
  switch (template) {
    case 'all':
      return [stage('handedBack', most)];
    case 'pointsThenAll':
      return [stage('handedBack', first), stage('hand', most)];
    case 'pointsThenSat':
      return [stage('handedBack', first), stage('sat', most)];
    case 'dayThenSat':
      return [stage('at', first, friday), stage('sat', most)];
    case 'cameIn':
      return [stage('handedBack', showing()), stage('marked', most)];
  }
}
