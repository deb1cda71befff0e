import { Button, TextInput } from '@mantine/core';
import { useMemo, useState, type ReactNode } from 'react';
import { sumBy } from 'remeda';
import { deskOrder, foundOnDesk, type DeskSection } from '@/core/sittings/deskOrder';
import { act } from '@/desk/act';
import { stripStages } from '@/desk/stripStages';
import type { SittingRow } from '@/store/queries';
import { archiveSittings, restoreSitting } from '@/store/sittings';
import { isoNow } from '@/ui/clock';
import { Strip } from '@/ui/Strip';
import { counted, dayAndTime } from '@/words/format';
import styles from './DeskPage.module.css';

/** With more than so many that want nothing, they lie folded by course and term. */
const mostOpen = 8;
/** The heading above the strips. */
export const deskHeading = 'on-the-desk';

/** With so many or more there is a field to filter them by. */
const manySittings = 12;

interface SittingStripsProps {
  rows: SittingRow[];
  now: number;
  /** What lies between what wants something and what is done. */
  children: ReactNode;
}

/** Every sitting as a strip: what wants something on top, the rest by course and term, archived ones last. */
export function SittingStrips({ rows, now, children }: SittingStripsProps) {
  const [typed, setTyped] = useState('');
  const order = useMemo(() => deskOrder(rows, now), [rows, now]);
  const rest = sumBy(order.sections, (section) => section.rows.length);
  const named = order.sections.length > 1 || order.sections.some(({ course, term }) => course || term);
  const filter = rows.length >= manySittings && (
    <TextInput
      type="search"
      size="sm"
      className={styles.filter ?? ''}
      aria-label="Filter sittings"
      placeholder="Title, course, term or group"
      value={typed}
      onChange={(event) => setTyped(event.currentTarget.value)}
    />
  );
  if (filter && typed.trim() !== '') {
    const found = foundOnDesk(rows, typed.trim());
    return (
      <>
        {filter}
        <p role="status" className={styles.about}>
          {found.length === 0 ? 'No sittings match.' : counted(found.length, 'sitting')}
        </p>
        {found.map((row) => (
          <SittingStrip key={row.sitting.id} row={row} now={now} />
        ))}
      </>
    );
  }
  return (
    <>
      {filter}
      {order.pressing.map((row) => (
        <SittingStrip key={row.sitting.id} row={row} now={now} />
      ))}
      {children}
      {order.sections.map((section) => (
        <Folded
          key={`${section.course}\n${section.term}`}
          open={rest <= mostOpen}
          heading={named || rest > mostOpen ? sectionWords(section) : null}
          count={section.rows.length}
          action={<ArchiveAll rows={section.rows} />}
        >
          {section.rows.map((row) => (
            <SittingStrip key={row.sitting.id} row={row} now={now} />
          ))}
        </Folded>
      ))}
      {order.archived.length > 0 && (
        <Folded open={false} heading="Archived" count={order.archived.length}>
          {order.archived.map((row) => (
            <SittingStrip key={row.sitting.id} row={row} now={now} />
          ))}
        </Folded>
      )}
    </>
  );
}

const sectionWords = ({ course, term }: DeskSection<unknown>) =>
  [course, term].filter(Boolean).join(', ') || 'Finished';

interface FoldedProps {
  open: boolean;
  /** Null: nothing to fold. */
  heading: string | null;
  count: number;
  action?: ReactNode;
  children: ReactNode;
}

/** Strips that are drawn only once they are unfolded. */
function Folded({ open, heading, count, action, children }: FoldedProps) {
  const [shown, setShown] = useState(open);
  if (heading === null) return children;
  return (
    <details open={shown} className={styles.folded} onToggle={(event) => setShown(event.currentTarget.open)}>
      <summary>
        <h2>{heading}</h2> <span className={styles.about}>{counted(count, 'sitting')}</span>
      </summary>
      {shown && (
        <div className={styles.stack}>
          {children}
          {action}
        </div>
      )}
    </details>
  );
}

/** After an act that takes its own button away, the focus goes to the head of the desk. */
async function gone(work: Promise<unknown>): Promise<void> {
  if (await act(work)) document.getElementById(deskHeading)?.focus();
}

function ArchiveAll({ rows }: { rows: SittingRow[] }) {
  const ids = rows.map(({ sitting }) => sitting.id);
  return (
    <Button
      size="compact-sm"
      className={styles.archive ?? ''}
      onClick={() => void gone(archiveSittings(ids, isoNow()))}
    >
      Archive {ids.length === 1 ? 'this sitting' : `these ${ids.length} sittings`}
    </Button>
  );
}

function SittingStrip({ row, now }: { row: SittingRow; now: number }) {
  const { sitting, paper, progress, groups, pending } = row;
  return (
    <article>
      <div className={styles.title}>
        <h2>{sitting.title}</h2>
        <span className={styles.about}>
          {sitting.share
            ? `a share of marking, given ${dayAndTime(sitting.opensAt, now)}`
            : `${groups.map((group) => group.name).join(', ')} · ${dayAndTime(sitting.opensAt, now)}`}
          {sitting.closesAt && ` to ${dayAndTime(sitting.closesAt, now)}`}
        </span>
        {!progress && (
          <>
            <a href={`/sittings/${sitting.id}/${sitting.share ? 'mark' : 'analyse'}`}>Open {sitting.title}</a>
            <Button size="compact-sm" onClick={() => void gone(restoreSitting(sitting.id, isoNow()))}>
              Restore {sitting.title}
            </Button>
          </>
        )}
      </div>
      {progress && (
        <Strip
          label={`Stages of ${sitting.title}`}
          stages={stripStages(sitting, paper, progress, now, pending)}
        />
      )}
    </article>
  );
}
