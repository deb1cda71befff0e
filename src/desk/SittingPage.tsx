import type { ReactNode } from 'react';
import type { StageName } from '@/core/seats/strip';
import { readingWords } from '@/words/attempts';
import { dayAndTime } from '@/words/format';
import { Strip } from '../ui/Strip';
import { EmptyState } from '../ui/EmptyState';
import { later } from '../ui/later';
import { DeskReady } from './DeskReady';
import type { Shortcut } from './Help';
import styles from './SittingPage.module.css';
import { stripStages } from './stripStages';
import { useSitting, type SittingData } from './useSitting';

// Few sittings are a share of marking.
const ShareHead = later(async () => (await import('./ShareHead')).ShareHead);

interface SittingPageProps {
  sittingId: string;
  current?: StageName;
  shortcuts?: Shortcut[];
  /** How often what depends on the time is looked at again. */
  tickMs?: number;
  /** Whether a large sitting is shown while its attempts are still read. */
  soFar?: boolean;
  children: (sitting: SittingData) => ReactNode;
}

/** A page inside a sitting: its strip across the top, and the stage below. */
export function SittingPage({ sittingId, current, shortcuts, tickMs, soFar, children }: SittingPageProps) {
  const sitting = useSitting(sittingId, tickMs, soFar);
  return (
    <DeskReady
      {...(shortcuts && { shortcuts })}
      strip={sitting && <SittingStrip sitting={sitting} {...(current ? { current } : {})} />}
    >
      {sitting === null && <NoSuchSitting />}
      {sitting && children(sitting)}
    </DeskReady>
  );
}

export function SittingStrip({ sitting, current }: { sitting: SittingData; current?: StageName }) {
  const { sitting: record, paper, progress, groups, reading, now } = sitting;
  return (
    <section className={styles.top} aria-label={record.title}>
      <div className={styles.title}>
        <h1>{record.title}</h1>
        <span className={styles.about}>
          {record.share
            ? `a share of marking, given ${dayAndTime(record.opensAt, now)}`
            : `${groups.map((group) => group.name).join(', ')} · ${dayAndTime(record.opensAt, now)}`}
          {record.closesAt && ` to ${dayAndTime(record.closesAt, now)}`}
        </span>
      </div>
      {record.share && !reading && <ShareHead sitting={sitting} />}
      {reading && (
        <p role="status" className={styles.reading}>
          {readingWords(reading)}
        </p>
      )}
      {!record.share && !reading && (
        <Strip
          label={`Stages of ${record.title}`}
          stages={stripStages(record, paper, progress, now, sitting.pending)}
          {...(current ? { current } : {})}
        />
      )}
    </section>
  );
}

function NoSuchSitting() {
  return (
    <EmptyState title="Sitting not found" action={<a href="/">Go to the desk</a>}>
      It may have been deleted, or it may be in another browser.
    </EmptyState>
  );
}
