import { useEffect, useRef, useState } from 'react';
import { clockTime } from '@/words/format';
import { say, unsavedWords } from '@/desk/act';

/** After a change the file is written once it has been quiet for so long. */
const quietMs = 2_000;

/** What of the File System Access API is used here: not every browser has it. */
interface SavePicker {
  showSaveFilePicker?: (options: {
    suggestedName: string;
    types: { accept: Record<string, string[]> }[];
  }) => Promise<FileSystemFileHandle>;
}

/**
 * A file on this computer that is written again whenever what it holds has changed.
 *
 * @param bytes makes its content
 * @param content changes when that does
 */
export function useKeptUp(
  name: string,
  mediaType: string,
  bytes: () => Promise<Uint8Array<ArrayBuffer>>,
  content: unknown,
) {
  const [handle, setHandle] = useState<FileSystemFileHandle | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const make = useRef(bytes);
  make.current = bytes;
  const text = handle ? JSON.stringify(content) : '';
  useEffect(() => {
    if (!handle) return undefined;
    const write = async () => {
      const file = await handle.createWritable();
      await file.write(await make.current());
      await file.close();
      setAt(Date.now());
    };
    const timer = setTimeout(
      () => void write().catch((error: unknown) => (setHandle(null), say(unsavedWords(error), true))),
      at === null ? 0 : quietMs,
    );
    return () => clearTimeout(timer);
    // Written again for another content, not for having been written.
  }, [handle, text]);
  // Another kind of file is another file.
  useEffect(() => (setHandle(null), setAt(null)), [name]);
  const picker = window as SavePicker;
  return {
    can: picker.showSaveFilePicker !== undefined,
    on: handle !== null,
    words: at === null ? '' : `${name} written ${clockTime(at)}`,
    begin: async () => {
      const ending = name.slice(name.lastIndexOf('.'));
      try {
        setHandle(
          (await picker.showSaveFilePicker?.({
            suggestedName: name,
            types: [{ accept: { [mediaType.replace(/;.*/, '')]: [ending] } }],
          })) ?? null,
        );
      } catch (error) {
        if ((error as Error).name !== 'AbortError') throw error;
      }
    },
    end: async () => setHandle(null),
  };
}
