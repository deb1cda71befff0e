import { useId, useLayoutEffect, useRef, type ComponentProps, type ReactNode } from 'react';
import { sizesFields } from '../sizesFields';
import styles from './plain.module.css';

/** Fields of the students' side: the browser's own, with label, description and error as the component library has them. */
interface Worded {
  label?: string | undefined;
  description?: string | undefined;
  error?: string | undefined;
}

interface FieldProps extends Worded {
  required?: boolean | undefined;
  /** The field itself, which gets these. */
  children: (field: { id: string; 'aria-describedby'?: string; 'aria-invalid'?: true }) => ReactNode;
}

function Field({ label, description, error, required, children }: FieldProps) {
  const id = useId();
  const told = [description && `${id}-d`, error && `${id}-e`].filter(Boolean).join(' ');
  return (
    <div className={styles.field}>
      {label && (
        <label htmlFor={id} className={styles.label}>
          {label}
          {required && (
            <span aria-hidden className={styles.required}>
              {' '}
              *
            </span>
          )}
        </label>
      )}
      {description && (
        <p id={`${id}-d`} className={styles.description}>
          {description}
        </p>
      )}
      {children({
        id,
        ...(told && { 'aria-describedby': told }),
        ...(error && { 'aria-invalid': true as const }),
      })}
      {error && (
        <p id={`${id}-e`} className={styles.error}>
          {error}
        </p>
      )}
    </div>
  );
}

export function TextInput({
  label,
  description,
  error,
  className = '',
  ...props
}: Worded & ComponentProps<'input'>) {
  const input = (field: object) => (
    <input type="text" {...field} {...props} className={`${styles.input} ${className}`} />
  );
  return label ? (
    <Field {...{ label, description, error, required: props.required }}>{input}</Field>
  ) : (
    input({})
  );
}

/** A field for several lines that grows with what is in it. */
export function Textarea({
  label,
  description,
  error,
  className = '',
  minRows = 2,
  ...props
}: Worded & ComponentProps<'textarea'> & { minRows?: number }) {
  const area = useRef<HTMLTextAreaElement>(null);
  const { value } = props;
  // Browsers that cannot size a field by what is in it are told how high it is.
  useLayoutEffect(() => {
    const at = area.current;
    if (!at || sizesFields()) return;
    at.style.height = 'auto';
    at.style.height = `${at.scrollHeight + 2}px`;
  }, [value]);
  const input = (field: object) => (
    <textarea
      ref={area}
      rows={minRows}
      style={{ minHeight: `${minRows * 1.55 + 1}em` }}
      {...field}
      {...props}
      className={`${styles.input} ${styles.lines} ${className}`}
    />
  );
  return label ? (
    <Field {...{ label, description, error, required: props.required }}>{input}</Field>
  ) : (
    input({})
  );
}

export function NativeSelect({
  label,
  description,
  error,
  data,
  className = '',
  ...props
}: Worded & ComponentProps<'select'> & { data: readonly { value: string; label: string }[] }) {
  const input = (field: object) => (
    <select {...field} {...props} className={`${styles.input} ${styles.select} ${className}`}>
      {data.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
  return label ? (
    <Field {...{ label, description, error, required: props.required }}>{input}</Field>
  ) : (
    input({})
  );
}
