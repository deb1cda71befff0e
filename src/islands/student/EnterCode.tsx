import { Button, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { Carrier, Greeting } from '@/carriers/Carrier';
import { joinCodeFrom } from '@/core/model/people';
import styles from './student.module.css';

const rememberedKey = 'gribbet-join-code';

/** The join code, then a look at whose it is. A reload of the tab remembers it; a new tab asks again. */
export function EnterCode({ carrier, enter }: { carrier: Carrier; enter: (who: Greeting) => void }) {
  const [typed, setTyped] = useState(() => sessionStorage.getItem(rememberedKey) ?? '');
  const [found, setFound] = useState<Greeting | null>(null);
  const [word, setWord] = useState('');
  const ask = async () => {
    try {
      const greeting = await carrier.greet(joinCodeFrom(typed));
      setFound(greeting);
      setWord(
        greeting ? '' : 'Nobody has this code. Look at your slip again: it has six letters and digits.',
      );
    } catch {
      setWord('The desk does not answer. Try again in a moment.');
    }
  };
  useEffect(() => sessionStorage.removeItem(rememberedKey), []);
  if (found) {
    const confirm = () => {
      sessionStorage.setItem(rememberedKey, found.joinCode);
      enter(found);
    };
    return (
      <section className={styles.narrow} aria-labelledby="who">
        <h1 id="who">
          {found.givenName} {found.familyName}
        </h1>
        <p>{found.groups.join(', ')}</p>
        <Button variant="filled" size="md" autoFocus onClick={confirm}>
          Yes, this is me
        </Button>
        <Button size="md" onClick={() => (setFound(null), setTyped(''))}>
          No, another code
        </Button>
      </section>
    );
  }
  return (
    <form
      className={styles.narrow}
      onSubmit={(event) => {
        event.preventDefault();
        void ask();
      }}
    >
      <h1>Sit a paper</h1>
      <TextInput
        label="Your join code"
        description="Six letters and digits, from your slip"
        size="lg"
        autoFocus
        autoComplete="off"
        autoCapitalize="characters"
        spellCheck={false}
        maxLength={12}
        value={typed}
        error={word}
        classNames={{ input: styles.codeInput ?? '' }}
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      <Button type="submit" variant="filled" size="md" disabled={joinCodeFrom(typed).length < 6}>
        Go in
      </Button>
    </form>
  );
}
