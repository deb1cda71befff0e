import styles from './FillGlyph.module.css';

/** The state of one answer, for the glyph. */
export interface GlyphState {
  /** Share of the points, 0 to 1; null while there are none. */
  share: number | null;
  answered: boolean;
  /** On paper, and not read yet. */
  notRead?: boolean;
  /** Waits for the teacher. */
  waiting?: boolean;
  overridden?: boolean;
  /** Put forward as nearly right. */
  near?: boolean;
}

/** What the glyph says, in words. */
export function glyphWords({ share, answered, notRead, waiting, overridden, near }: GlyphState): string {
  const words: string[] = [];
  if (notRead) return 'not read yet';
  if (!answered) words.push('not answered');
  if (waiting) words.push('waits for a mark');
  else if (share !== null && (answered || share > 0)) words.push(`${Math.round(share * 100)}% of the points`);
  else if (answered) words.push('answered');
  if (overridden) words.push('overridden by hand');
  if (near) words.push('put forward as close');
  return words.join(', ');
}

/**
 * One small shape for the state of an answer: how full it is, is the share of the points; a dashed outline is
 * not answered; dots are on paper and not read yet; hatching waits for the teacher; a cut corner is an override; a bar below is nearly right and put forward.
 *
 * @param label '' where words beside it say the same
 */
export function FillGlyph({ size = 14, label, ...state }: GlyphState & { size?: number; label?: string }) {
  const { share, answered, notRead, waiting, overridden, near } = state;
  const height = 10 * (waiting ? 0 : (share ?? 0));
  const unscored = answered && share === null && !waiting && !notRead;
  const outline = overridden ? 'M1 1H7.5L11 4.5V11H1Z' : 'M1 1H11V11H1Z';
  return (
    <svg
      className={styles.glyph}
      width={size}
      height={size}
      viewBox="0 0 12 12"
      {...(label === ''
        ? { 'aria-hidden': true }
        : { role: 'img', 'aria-label': label ?? glyphWords(state) })}
    >
      {waiting && answered && <path className={styles.hatch} d="M1 6L6 1M1 11L11 1M6 11L11 6" />}
      {height > 0 && <rect className={styles.fill} x="1" y={11 - height} width="10" height={height} />}
      {overridden && <path className={styles.notch} d="M7.5 0.5L11.5 4.5V0.5Z" />}
      {near && <path className={styles.near} d="M3 8.5H9" />}
      {notRead && <path className={styles.unread} d="M3.2 6H3.3M6 6H6.1M8.7 6H8.8" />}
      {unscored && <circle className={styles.fill} cx="6" cy="6" r="1.6" />}
      <path className={answered || notRead ? styles.outline : styles.dashed} d={outline} />
    </svg>
  );
}
