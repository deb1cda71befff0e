import type { ComponentProps } from 'react';
import styles from './plain.module.css';

interface ButtonProps extends ComponentProps<'button'> {
  /** The one next thing to do is filled. */
  variant?: 'default' | 'filled';
  size?: 'md' | 'compact-md';
  /** What it does is under way. */
  loading?: boolean;
}

/** A button of the students' side, where the component library would weigh more than all else that comes over the line. */
export function Button({
  variant = 'default',
  size = 'compact-md',
  loading = false,
  type = 'button',
  disabled,
  className = '',
  ...props
}: ButtonProps) {
  return (
    <button
      {...props}
      type={type}
      disabled={disabled || loading}
      aria-busy={loading || undefined}
      className={`${styles.button} ${className}`}
      data-variant={variant}
      data-size={size}
    />
  );
}

/** A small one, for a sign; `aria-label` says what it does. */
export function SquareButton(props: ButtonProps) {
  return <Button {...props} className={`${styles.square} ${props.className ?? ''}`} />;
}
