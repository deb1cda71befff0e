import { WordedFault } from '@/words/wordedFault';
import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import type { FileRef } from '@/core/basics/file';

/** A file with its bytes. */
export interface FileBytes {
  name: string;
  mediaType: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** Where the pictures and files of a page come from, and where new ones go. */
export interface Files {
  /** Null when there is no such file here. */
  get: (id: string) => Promise<FileBytes | null>;
  put: (file: FileBytes) => Promise<FileRef>;
}

const nowhere: Files = {
  get: () => Promise.resolve(null),
  put: () => Promise.reject(new WordedFault('Files can’t be saved here')),
};

const FilesContext = createContext<Files>(nowhere);

export function FilesFrom({ files, children }: { files: Files; children: ReactNode }) {
  return <FilesContext value={files}>{children}</FilesContext>;
}

export const useFiles = () => useContext(FilesContext);

/** What is known of a file: its address in this page once its bytes are here; 'missing' when they are not. */
export type FileAddress = { href: string } | 'coming' | 'missing';

/**
 * An address for the bytes of a file, good as long as it is shown. Files come from outside: only what can do no harm
 * keeps its type, everything else is bytes to save.
 */
export function useFileAddress(id: string): FileAddress {
  const files = useFiles();
  const [address, setAddress] = useState<FileAddress>('coming');
  useEffect(() => {
    let href: string | null = null;
    let here = true;
    files.get(id).then(
      (file) => {
        if (!here) return;
        href = file && URL.createObjectURL(new Blob([file.bytes], { type: harmlessType(file.mediaType) }));
        setAddress(href ? { href } : 'missing');
      },
      () => here && setAddress('missing'),
    );
    return () => {
      here = false;
      if (href) URL.revokeObjectURL(href);
    };
  }, [files, id]);
  return address;
}

const harmless = /^(image\/(png|jpeg|gif|webp)|application\/pdf|audio\/[a-z0-9.+-]+)$/;

/** The type under which the browser may open a file itself; text as text, never as a page. */
export function harmlessType(mediaType: string): string {
  if (harmless.test(mediaType)) return mediaType;
  return mediaType.startsWith('text/') && mediaType !== 'text/html'
    ? 'text/plain'
    : 'application/octet-stream';
}

/** Files that are kept as long as the page is open, over those of another place. */
export function passingFiles(under: Files): Files {
  const kept = new Map<string, FileBytes>();
  return {
    get: (id) => Promise.resolve(kept.get(id) ?? under.get(id)),
    put: (file) => {
      const id = `passing-${kept.size}`;
      kept.set(id, file);
      return Promise.resolve({ id, name: file.name, mediaType: file.mediaType, size: file.bytes.length });
    },
  };
}
