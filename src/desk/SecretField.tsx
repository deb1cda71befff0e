import { TextInput } from '@mantine/core';
import { ServerFault } from '@/core/exchange/serverFault';

interface SecretFieldProps {
  value: string;
  error: string;
  change: (secret: string) => void;
  autoFocus?: boolean;
}

/** The fewest letters that a secret has. */
export const isWholeSecret = (typed: string): boolean => typed.trim().length >= 12;

/** The teacher's secret, typed to say that it is the teacher. It is none of the desk's: it can be typed where the desk is not. */
export function SecretField({ value, error, change, autoFocus = false }: SecretFieldProps) {
  return (
    <TextInput
      label="The teacher’s secret"
      data-not-desk
      autoFocus={autoFocus}
      autoComplete="off"
      spellCheck={false}
      maxLength={100}
      value={value}
      error={error}
      onChange={(event) => change(event.currentTarget.value)}
    />
  );
}

const words: Record<string, string> = {
  wrongSecret: 'That isn’t this server’s secret.',
  tooManyGuesses: 'Too many wrong attempts. Try again in ten minutes.',
  unreachable: 'The server can’t be reached. Check that Gribbet is running there.',
  notFound: 'It is forgotten already.',
};

/** Why the server did not take it. */
export const secretFaultWords = (error: unknown, otherwise: string): string =>
  words[error instanceof ServerFault ? error.why : ''] ?? otherwise;
