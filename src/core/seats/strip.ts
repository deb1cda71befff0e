import type { SittingProgress } from './progress';

export type StageName = 'write' | 'run' | 'mark' | 'analyse' | 'handBack';

/** One stage of a strip: how much of it is done, 0 to 1, and what is left as data. */
export interface StageStatus {
  stage: StageName;
  done: number;
  /** True for the stage where the next thing to do is. */
  next: boolean;
}

/** When a sitting starts and ends, for the strip. Instants in ms since 1970. */
export interface StripTimes {
  opensAt: number;
  closesAt: number | null;
}

/**
 * The five stages of a sitting with their fill. The next stage is the first one with something left for the
 * teacher: marking goes before waiting for stragglers, handing back comes once nothing waits, and none is next
 * when everyone has it.
 */
export function stripOf(progress: SittingProgress, times: StripTimes, now: number): StageStatus[] {
  const share = (part: number, whole: number) => (whole === 0 ? 0 : part / whole);
  const over = times.closesAt !== null && now >= times.closesAt;
  const everyoneIn = progress.students > 0 && progress.in === progress.students;
  const run = over && progress.working === 0 ? 1 : share(progress.in, progress.students);
  const toMark = progress.waiting + progress.noKey + progress.notRead + progress.aside;
  const mark =
    progress.in === 0
      ? 0
      : progress.byHand === 0
        ? progress.noKey + progress.notRead
          ? 0.5
          : 1
        : 1 - share(progress.waiting, progress.byHand);
  const handBack = share(progress.released, progress.in);
  const running = !over && !everyoneIn;
  const next: StageName | null =
    toMark > 0 ? 'mark' : running ? 'run' : progress.in > 0 && handBack < 1 ? 'handBack' : null;
  const done: Record<StageName, number> = {
    write: 1,
    run,
    mark,
    analyse: progress.in === 0 ? 0 : mark,
    handBack,
  };
  const stages: StageName[] = ['write', 'run', 'mark', 'analyse', 'handBack'];
  return stages.map((stage) => ({ stage, done: done[stage], next: stage === next }));
}

/** How pressing a sitting is; more first. Working students before waiting answers before results to hand back. */
export function pressure(progress: SittingProgress): number {
  if (progress.working > 0) return 3_000_000 + progress.working;
  if (progress.waiting > 0) return 2_000_000 + progress.waiting;
  if (progress.in > progress.released) return 1_000_000 + progress.in - progress.released;
  return progress.in === 0 ? 500_000 : 0;
}
