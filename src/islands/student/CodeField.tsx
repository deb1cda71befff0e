import { TextInput } from '@/ui/plain/fields';
import styles from './student.module.css';

interface CodeFieldProps {
  label: string;
  description: string;
  value: string;
  error: string;
  most?: number;
  autoFocus?: boolean;
  change: (value: string) => void;
}

/** A code as it is typed from a slip: large, in capitals, without anybody's corrections. */
export function CodeField({ most = 12, autoFocus = true, change, ...field }: CodeFieldProps) {
  return (
    <TextInput
      {...field}
      autoFocus={autoFocus}
      autoComplete="off"
      autoCapitalize="characters"
      spellCheck={false}
      maxLength={most}
      className={styles.codeInput ?? ''}
      onChange={(event) => change(event.currentTarget.value)}
    />
  );
}

export const joinCodeWords = {
  label: 'Your join code',
  description: 'Six letters and digits, from your slip',
};
