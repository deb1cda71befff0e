import { FillGlyph } from './FillGlyph';
import styles from './GlyphLegend.module.css';

/** What the fill glyph says, for whoever meets it first. */
export function GlyphLegend({ notRead = false }: { notRead?: boolean }) {
  const rows = [
    [{ share: null, answered: false }, 'not answered'],
    ...(notRead ? ([[{ share: null, answered: true, notRead: true }, 'not read yet']] as const) : []),
    [{ share: null, answered: true, waiting: true }, 'waits for a mark'],
    [{ share: 0, answered: true }, 'no points'],
    [{ share: 0, answered: true, near: true }, 'close, put forward'],
    [{ share: 0.5, answered: true }, 'half the points'],
    [{ share: 1, answered: true }, 'all the points'],
    [{ share: 1, answered: true, overridden: true }, 'overridden'],
    [{ share: null, answered: true }, 'no key yet'],
  ] as const;
  return (
    <p className={styles.legend} aria-hidden>
      {rows.map(([state, words]) => (
        <span key={words}>
          <FillGlyph {...state} /> {words}
        </span>
      ))}
    </p>
  );
}
