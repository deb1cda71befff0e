import { MathfieldElement } from 'mathlive';
import { useEffect, useRef } from 'react';
import '@/ui/katexStyles';
import styles from './working.module.css';

// The letters come with the page (they are the ones of KaTeX), and there are no sounds.
MathfieldElement.fontsDirectory = null;
MathfieldElement.soundsDirectory = null;

/** The keypad lies over the foot of the page: so much room is made there, and the line that is typed in stays in sight. */
window.mathVirtualKeyboard.addEventListener('geometrychange', () => {
  const { height } = window.mathVirtualKeyboard.boundingRect;
  document.body.style.paddingBottom = height > 0 ? `${height}px` : '';
  document.documentElement.style.scrollPaddingBottom = height > 0 ? `${height + 8}px` : '';
  if (height > 0) document.activeElement?.scrollIntoView({ block: 'nearest' });
});

interface MathLineProps {
  label: string;
  value: string;
  /** Whether it gets the focus when it comes onto the page. */
  focus: boolean;
  disabled: boolean;
  change: (latex: string) => void;
}

/** A line in which maths is typed as it looks; kept as TeX. */
export default function MathLine({ label, value, focus, disabled, change }: MathLineProps) {
  const place = useRef<HTMLDivElement>(null);
  const field = useRef<MathfieldElement | null>(null);
  const keep = useRef(change);
  const focusFirst = useRef(focus);
  useEffect(() => {
    keep.current = change;
  });
  useEffect(() => {
    const made = new MathfieldElement();
    made.className = styles.mathField ?? '';
    made.addEventListener('input', () => keep.current(made.value.slice(0, 2_000)));
    place.current?.append(made);
    made.menuItems = [];
    field.current = made;
    if (focusFirst.current) made.focus();
    return () => made.remove();
  }, []);
  useEffect(() => {
    const made = field.current;
    if (!made) return;
    made.setAttribute('aria-label', label);
    made.disabled = disabled;
    if (made.value !== value) made.setValue(value, { silenceNotifications: true });
  }, [label, disabled, value]);
  return <div ref={place} className={styles.mathPlace} />;
}
