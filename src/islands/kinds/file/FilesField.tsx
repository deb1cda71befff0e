import { faultWords } from '@/words/faults';
import { FileButton } from '@/ui/FileButton';
import { useState, type DragEvent } from 'react';
import type { FileRef } from '@/core/basics/file';
import { mostFileBytes } from '@/core/basics/fileRules';
import { fileSize } from '@/words/format';
import { useFiles, type FileBytes } from '@/ui/files';
import { Button } from '@/ui/plain/Button';
import { FileLine } from './FileLine';
import styles from './file.module.css';

interface FilesFieldProps {
  files: FileRef[];
  most: number;
  /** What the button says. */
  add: string;
  /** For the chooser of the device, as in the `accept` of HTML. */
  accept: string;
  /** What is wrong with a file, in words; null when it is taken. */
  refused: (file: File) => string | null;
  /** The bytes that are kept of it. */
  prepared: (file: File) => Promise<FileBytes>;
  disabled: boolean;
  change: (files: FileRef[]) => void;
}

/** Files put into an answer: chosen or dropped, shown, and taken out again. */
export function FilesField(props: FilesFieldProps) {
  const { files, most, add, accept, refused, prepared, disabled, change } = props;
  const { put } = useFiles();
  const [fault, setFault] = useState('');
  const take = async (chosen: readonly File[]) => {
    setFault('');
    let kept = files;
    try {
      for (const file of chosen) {
        const why = kept.length >= most ? `You can add at most ${most}.` : refused(file);
        if (why) return setFault(why);
        if (file.size > mostFileBytes)
          return setFault(`${file.name} is too large: at most ${fileSize(mostFileBytes)}.`);
        const ref = await put(await prepared(file));
        if (!kept.some((each) => each.id === ref.id)) kept = [...kept, ref];
      }
    } catch (error) {
      setFault(faultWords(error, 'This file couldn’t be read.'));
    } finally {
      if (kept !== files) change(kept);
    }
  };
  const dropped = (event: DragEvent) => {
    event.preventDefault();
    if (!disabled) void take([...event.dataTransfer.files]);
  };
  return (
    <div className={styles.field} onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
      {files.length > 0 && (
        <ul className={styles.files}>
          {files.map((file) => (
            <li key={file.id}>
              <FileLine file={file} />
              <Button
                size="compact-md"
                disabled={disabled}
                aria-label={`Remove ${file.name}`}
                onClick={() => change(files.filter((each) => each.id !== file.id))}
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
      {files.length < most && (
        <FileButton
          multiple
          accept={accept}
          disabled={disabled}
          onChange={(chosen) => void take(chosen)}
          inputProps={{ 'aria-label': add }}
        >
          {(button) => (
            <Button {...button} size="md" variant="default" disabled={disabled}>
              {add}
            </Button>
          )}
        </FileButton>
      )}
      {fault && <p role="alert">{fault}</p>}
    </div>
  );
}
