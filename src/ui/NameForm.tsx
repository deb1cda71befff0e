import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import styles from './NameForm.module.css';

interface NameFormProps {
  label: string;
  placeholder?: string;
  /** What the button does. */
  button: string;
  /** @returns false, or null, where it could not be done: the name stays to be tried again */
  done: (name: string) => unknown;
}

/** A name, and a button that makes or keeps something under it. */
export function NameForm({ label, placeholder = 'Name', button, done }: NameFormProps) {
  const [name, setName] = useState('');
  const submit = async () => {
    const outcome = await done(name.trim());
    if (outcome !== null && outcome !== false) setName('');
  };
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <TextInput
        aria-label={label}
        placeholder={placeholder}
        size="sm"
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" size="compact-sm" disabled={!name.trim()}>
        {button}
      </Button>
    </form>
  );
}
