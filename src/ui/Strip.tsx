import type { StageName } from '@/core/seats/strip';
import styles from './Strip.module.css';

/** One stage as the strip draws it. */
export interface StripStage {
  stage: StageName;
  /** What is left to do, in words. */
  words: string;
  /** How much is done, 0 to 1. */
  done: number;
  next: boolean;
  /** The way in; none while the stage cannot be entered. */
  href: string | null;
}

export const stageNames: Record<StageName, string> = {
  write: 'Write',
  run: 'Run',
  mark: 'Mark',
  analyse: 'Analyse',
  handBack: 'Hand back',
};

/** A sitting as a row of five stages, each saying what is left to do and leading in. */
export function Strip({
  label,
  stages,
  current,
}: {
  label: string;
  stages: StripStage[];
  current?: StageName;
}) {
  return (
    <nav aria-label={label} className={styles.strip}>
      {stages.map((stage) => (
        <Stage key={stage.stage} {...stage} current={stage.stage === current} />
      ))}
    </nav>
  );
}

function Stage({ stage, words, done, next, href, current }: StripStage & { current: boolean }) {
  const inside = (
    <>
      <span className={styles.name}>{stageNames[stage]}</span>
      <span className={styles.words}>{words}</span>
      <span className={styles.gauge} aria-hidden>
        <span className={styles.level} style={{ width: `${Math.round(done * 100)}%` }} />
      </span>
    </>
  );
  const className = [styles.stage, next && styles.next, current && styles.current].filter(Boolean).join(' ');
  return href ? (
    <a className={className} href={href} aria-current={current ? 'page' : undefined}>
      {inside}
    </a>
  ) : (
    <span className={className}>{inside}</span>
  );
}
