import { FileButton } from '@/ui/FileButton';
import { useState } from 'react';
import { openedWith, readFile, takenIn, type Openable } from '@/carriers/carriedFiles';
import { namesFrom } from '@/core/formats/csv/studentRows';
import type { PacketRead, PacketSeal, PacketStudent } from '@/core/formats/packet/packetFile';
import { joinCodeFrom, joinCodeAlphabet } from '@/core/basics/joinCode';
import { Button } from '@/ui/plain/Button';
import { TextInput } from '@/ui/plain/fields';
import { CodeField, joinCodeWords } from './CodeField';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

const refusals: Record<Extract<PacketRead, { outcome: 'refused' }>['why'], string> = {
  notPacket: 'isn’t a Gribbet paper.',
  otherKind: 'isn’t a paper for students.',
  newer: 'was made by a newer version of Gribbet. This computer needs an update first.',
  damaged: 'is damaged. Ask your teacher for it again.',
};

type Step =
  | { at: 'none'; word: string }
  | { at: 'sealed'; name: string; title: string; seal: PacketSeal }
  | { at: 'paper'; packet: Extract<Openable, { kind: 'paper' }> };

interface OpenFileProps {
  /** Who is in already; null: it has to be said. */
  who: PacketStudent | null;
  /** A file was opened, and this is whose it is. */
  opened: (joinCode: string) => Promise<void>;
  back: () => void;
}

/** Opens a file that the teacher gave: a paper to sit, or what came back of one. */
export function OpenFile({ who, opened, back }: OpenFileProps) {
  const [step, setStep] = useState<Step>({ at: 'none', word: '' });
  const take = async (packet: Openable, student: PacketStudent) => {
    await takenIn(packet, student);
    await opened(student.joinCode);
  };
  const found = async (name: string, read: PacketRead) => {
    const refuse = (word: string) => setStep({ at: 'none', word: `${name} ${word}` });
    if (read.outcome === 'refused') return refuse(refusals[read.why]);
    if (read.outcome === 'sealed') return setStep({ at: 'sealed', name, title: read.title, seal: read.seal });
    if (read.packet.kind === 'answers')
      return refuse('holds answers for your teacher. There is nothing to open in it here.');
    if (read.changed) return refuse('has changed since your teacher saved it. Ask for it again.');
    const { packet } = read;
    if (packet.kind === 'script') return take(packet, packet.content.student);
    if (who) return take(packet, who);
    setStep({ at: 'paper', packet });
  };
  const choose = async (file: File | null) => {
    if (file) await found(file.name, await readFile(file));
  };
  if (step.at === 'sealed')
    return (
      <Unseal
        title={step.title}
        seal={step.seal}
        known={step.seal.opensWith === 'joinCode' ? (who?.joinCode ?? '') : ''}
        read={(read) => found(step.name, read)}
        back={() => setStep({ at: 'none', word: '' })}
      />
    );
  if (step.at === 'paper')
    return (
      <WhoAreYou
        packet={step.packet}
        take={(student) => take(step.packet, student)}
        back={() => setStep({ at: 'none', word: '' })}
      />
    );
  return (
    <section className={styles.narrow} aria-labelledby="open-file">
      <ViewHeading id="open-file" text="A file from your teacher" />
      <p>A paper to sit, or one that was marked. It stays on this computer and works without a network.</p>
      <FileButton
        onChange={(file) => void choose(file)}
        inputProps={{ 'aria-label': 'Choose a file from your teacher' }}
      >
        {(props) => (
          <Button variant="filled" size="md" {...props}>
            Choose file
          </Button>
        )}
      </FileButton>
      {step.word && <p role="alert">{step.word}</p>}
      <Button size="md" onClick={back}>
        Back
      </Button>
    </section>
  );
}

interface UnsealProps {
  title: string;
  seal: PacketSeal;
  known: string;
  read: (read: PacketRead) => Promise<void>;
  back: () => void;
}

/** The code that a file is sealed with. */
function Unseal({ title, seal, known, read, back }: UnsealProps) {
  const [code, setCode] = useState(known);
  const [word, setWord] = useState('');
  const [opening, setOpening] = useState(false);
  const own = seal.opensWith === 'joinCode';
  const open = async () => {
    setOpening(true);
    setWord('');
    const inside = await openedWith(seal, code);
    setOpening(false);
    if (inside) await read(inside);
    else setWord(own ? 'That isn’t the join code of the student it is for.' : 'That isn’t the access code.');
  };
  return (
    <form
      className={styles.narrow}
      onSubmit={(event) => {
        event.preventDefault();
        void open();
      }}
    >
      <ViewHeading text={title} />
      <p>
        {own
          ? 'It is sealed with your join code.'
          : 'It is sealed until your teacher gives you the access code.'}
      </p>
      <CodeField
        {...(own ? joinCodeWords : { label: 'Access code', description: 'Your teacher says it in the room' })}
        most={500}
        value={code}
        error={word}
        change={setCode}
      />
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md" disabled={!code.trim()} loading={opening}>
          Open
        </Button>
        <Button size="md" onClick={back}>
          Choose another file
        </Button>
      </div>
    </form>
  );
}

interface WhoAreYouProps {
  packet: Extract<Openable, { kind: 'paper' }>;
  take: (student: PacketStudent) => Promise<void>;
  back: () => void;
}

/** Who is going to sit the paper: his teacher finds him by the join code. */
function WhoAreYou({ packet, take, back }: WhoAreYouProps) {
  const { student, sitting } = packet.content;
  const [name, setName] = useState('');
  const [typed, setTyped] = useState('');
  const [word, setWord] = useState('');
  const enter = async () => {
    const joinCode = joinCodeFrom(typed);
    if (joinCode.length !== 6) return setWord('A join code has six letters and digits.');
    const odd = [...joinCode].find((letter) => !joinCodeAlphabet.includes(letter));
    if (odd) return setWord(`Join codes have no ${odd}. Check your slip.`);
    const { familyName, givenName } = student ?? namesFrom(name.replace(/\s+/g, ' ').trim());
    await take({ joinCode, familyName, givenName });
  };
  return (
    <form
      className={styles.narrow}
      onSubmit={(event) => {
        event.preventDefault();
        void enter();
      }}
    >
      <ViewHeading text={sitting.title} />
      {student ? (
        <p>
          This file is for {student.givenName} {student.familyName}.
        </p>
      ) : (
        <TextInput
          label="Your name"
          description="As your teacher knows you"
          autoFocus
          autoComplete="name"
          maxLength={200}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      <CodeField
        label={joinCodeWords.label}
        description={`${joinCodeWords.description}. Your teacher finds you by it.`}
        autoFocus={student !== undefined}
        value={typed}
        error={word}
        change={setTyped}
      />
      <div className={styles.row}>
        <Button
          type="submit"
          variant="filled"
          size="md"
          disabled={joinCodeFrom(typed) === '' || (!student && !name.trim())}
        >
          Continue
        </Button>
        <Button size="md" onClick={back}>
          Choose another file
        </Button>
      </div>
    </form>
  );
}
