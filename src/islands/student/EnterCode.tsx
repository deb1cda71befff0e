import { useEffect, useState } from 'react';
import type { Carrier, Greeting } from '@/carriers/Carrier';
import { joinCodeFrom } from '@/core/basics/joinCode';
import type { HeldAttempt } from '@/store/sitTables';
import { Button } from '@/ui/plain/Button';
import { TextInput } from '@/ui/plain/fields';
import { CodeField, joinCodeWords } from './CodeField';
import { faultWords } from '@/words/serverFaults';
import { HeldHere } from './sitParts';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

const rememberedKey = 'gribbet-join-code';

/** The join code, then a look at whose it is. A reload of the tab remembers it; a new tab asks again. */
export function EnterCode({
  carrier,
  enter,
  goOn,
  openFile,
}: {
  carrier: Carrier;
  enter: (who: Greeting) => void;
  /** Goes on, without a connection, with what this device holds. */
  goOn: (who: Greeting, held: HeldAttempt) => void;
  openFile: () => void;
}) {
  // A code in the address comes from the QR code of a slip.
  const [typed, setTyped] = useState(
    () =>
      new URLSearchParams(window.location.search).get('code')?.slice(0, 12) ??
      sessionStorage.getItem(rememberedKey) ??
      '',
  );
  const [guest, setGuest] = useState(false);
  const [found, setFound] = useState<Greeting | null>(null);
  const [word, setWord] = useState('');
  const [away, setAway] = useState(false);
  const ask = async () => {
    setAway(false);
    try {
      const greeting = await carrier.greet(joinCodeFrom(typed));
      setFound(greeting);
      setWord(greeting ? '' : 'Code not recognised. Check your slip: it has six letters and digits.');
    } catch (error) {
      setWord(faultWords(error));
      setAway(true);
    }
  };
  useEffect(() => sessionStorage.removeItem(rememberedKey), []);
  if (guest) return <GuestForm carrier={carrier} enter={enter} back={() => setGuest(false)} />;
  if (found) {
    const confirm = () => {
      sessionStorage.setItem(rememberedKey, found.joinCode);
      enter(found);
    };
    return (
      <section className={styles.narrow} aria-labelledby="who">
        <ViewHeading id="who" text={`${found.givenName} ${found.familyName}`.trim()} />
        <p>{found.groups.join(', ')}</p>
        <Button variant="filled" size="md" onClick={confirm}>
          Yes, this is me
        </Button>
        <Button size="md" onClick={() => (setFound(null), setTyped(''))}>
          No, use another code
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
      <ViewHeading text="Sit a paper" />
      <CodeField {...joinCodeWords} value={typed} error={word} change={setTyped} />
      <Button type="submit" variant="filled" size="md" disabled={joinCodeFrom(typed).length < 6}>
        Continue
      </Button>
      {away && <HeldHere joinCode={joinCodeFrom(typed)} goOn={(held) => held.who && goOn(held.who, held)} />}
      <button type="button" className={styles.quiet} onClick={() => setGuest(true)}>
        No code? Join as a guest
      </button>
      <button type="button" className={styles.quiet} onClick={openFile}>
        Your teacher gave you a file? Open it
      </button>
    </form>
  );
}

interface GuestFormProps {
  carrier: Carrier;
  enter: (who: Greeting) => void;
  back: () => void;
}

/** For someone on no list: a name, and the access code that is said in the room. */
function GuestForm({ carrier, enter, back }: GuestFormProps) {
  const [name, setName] = useState('');
  const [code, setCode] = useState('');
  const [word, setWord] = useState('');
  const come = async () => {
    try {
      const greeting = await carrier.comeAsGuest(name, code);
      if (!greeting)
        return setWord('This access code doesn’t work for guests right now. Ask the teacher in the room.');
      sessionStorage.setItem(rememberedKey, greeting.joinCode);
      enter(greeting);
    } catch (error) {
      setWord(faultWords(error));
    }
  };
  return (
    <form
      className={styles.narrow}
      onSubmit={(event) => {
        event.preventDefault();
        void come();
      }}
    >
      <ViewHeading text="Join as a guest" />
      <TextInput
        label="Your name"
        description="As your teacher knows you"
        autoFocus
        autoComplete="name"
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <TextInput
        label="Access code"
        description="The teacher says it in the room"
        autoComplete="off"
        maxLength={40}
        value={code}
        onChange={(event) => setCode(event.currentTarget.value)}
      />
      {word && <p role="alert">{word}</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md" disabled={!name.trim() || !code.trim()}>
          Join
        </Button>
        <Button size="md" onClick={back}>
          I have a join code
        </Button>
      </div>
    </form>
  );
}
