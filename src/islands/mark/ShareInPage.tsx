import { Button, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { readShare } from '@/core/formats/packet/shareFile';
import type { ShareContent } from '@/core/model/share';
import { DeskReady } from '@/desk/DeskReady';
import { act } from '@/desk/act';
import { takeShare } from '@/store/takenShares';
import { desk } from '@/store/tables';
import { fetchShare } from '@/sync/sharedMarks';
import { FileButton } from '@/ui/FileButton';
import { isoNow } from '@/ui/clock';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { refusedFileWords } from './marksFiles';
import { overServer } from '@/words/shareFaults';
import { shareServer } from './shareOut';
import styles from './markers.module.css';

/** Taking in answers that a colleague gave to be marked: from a file, or by a code from the classroom server. */
export function ShareInPage() {
  return (
    <DeskReady>
      <ShareIn />
    </DeskReady>
  );
}

function ShareIn() {
  const [file, setFile] = useState<File | null>(null);
  const [code, setCode] = useState('');
  const [word, setWord] = useState('');
  const [busy, setBusy] = useState(false);
  const here = useLiveQuery(() => desk.sittings.filter(({ share }) => share === true).toArray()) ?? [];

  const opened = async (): Promise<ShareContent | string> => {
    if (file) {
      const read = await readShare(new Uint8Array(await file.arrayBuffer()), code);
      if (read.outcome === 'read') return read.content;
      return read.outcome === 'wrongCode'
        ? 'This code doesn’t open the file. Check it with the colleague who gave it.'
        : `${file.name}: ${refusedFileWords(read)}`;
    }
    const found = await overServer(fetchShare(shareServer, code));
    return found ?? 'The server at this address has no share for this code.';
  };
  const take = async () => {
    setBusy(true);
    setWord('');
    const content = await act(opened());
    setBusy(false);
    if (content === null) return;
    if (typeof content === 'string') return setWord(content);
    const taken = await act(takeShare(content, code, isoNow()));
    if (taken) window.location.assign(`/sittings/${taken.sittingId}/mark`);
  };
  return (
    <TwoColumns
      marginLabel="About shares of marking"
      margin={
        <MarginBlock title="Good to know">
          <p className={styles.soft}>
            You see answers without names, and mark them with everything Mark has. A share from a file goes
            back as a file; one from the server sends each mark as you give it, under the name your colleague
            gave you.
          </p>
        </MarginBlock>
      }
    >
      <h1 className={styles.heading}>Mark for a colleague</h1>
      <form
        className={styles.takeIn}
        onSubmit={(event) => {
          event.preventDefault();
          void take();
        }}
      >
        <div
          className={styles.drop}
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            setFile(event.dataTransfer.files[0] ?? null);
          }}
        >
          <FileButton onChange={setFile} inputProps={{ 'aria-label': 'Choose the file of a share' }}>
            {(button) => (
              <Button size="sm" {...button}>
                {file ? 'Choose another file' : 'Choose the file'}
              </Button>
            )}
          </FileButton>
          <span className={styles.soft}>
            {file ? file.name : 'or drop it here; none if it comes over this classroom server'}
          </span>
          {file && (
            <Button size="compact-sm" onClick={() => setFile(null)}>
              No file
            </Button>
          )}
        </div>
        <TextInput
          size="sm"
          label="Code"
          description="Your colleague tells you; capitals and hyphens don’t matter"
          autoComplete="off"
          spellCheck={false}
          value={code}
          error={word}
          onChange={(event) => setCode(event.currentTarget.value)}
        />
        <Button type="submit" variant="filled" loading={busy} disabled={code.trim().length < 8}>
          {file ? 'Open the file' : 'Fetch from the server'}
        </Button>
      </form>
      {here.length > 0 && (
        <>
          <h2 className={styles.heading}>Shares on this desk</h2>
          <ul className={styles.told}>
            {here.map(({ id, title }) => (
              <li key={id}>
                <a href={`/sittings/${id}/mark`}>{title}</a>
              </li>
            ))}
          </ul>
        </>
      )}
    </TwoColumns>
  );
}
