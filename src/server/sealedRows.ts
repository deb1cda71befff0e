import type { SealedCode, SealedPaper } from '@/core/exchange/mailbox';
import type { unsealerWith } from '@/core/formats/packet/sealed';
import { PaperVersion } from '@/core/model/paper';
import type { Student } from '@/core/model/people';
import type { Sitting } from '@/core/model/sitting';
import type { ExchangeStore } from './exchangeStore';
import { keys } from './mailboxKeys';

/** A student as the mailbox has them: the fields that it was not given are empty. */
export const studentFrom = (row: unknown): Student => ({ ...(row as Student), number: '', email: '' });

/** Rows of the mailbox as what they are. */
export const rowsIn = (store: ExchangeStore) => ({
  row: async <T>(key: string) => (await store.get(key)) as T | undefined,
  rows: async <T>(prefix: string) => (await store.list(prefix)).map(({ value }) => value as T),
});
export type MailboxRows = ReturnType<typeof rowsIn>;

/** What lies sealed in the mailbox, opened in memory only, and once. */
export function sealedRows(store: ExchangeStore, unseal: ReturnType<typeof unsealerWith>) {
  const { row } = rowsIn(store);
  const codes = new Map<string, string>();
  const opened = new Map<string, Promise<PaperVersion | null>>();

  /** The paper with its key, where it was put in sealed. Opened once, in memory only. */
  const withKey = async (paperId: string, version: number): Promise<PaperVersion | null> => {
    const found = await row<SealedPaper>(keys.sealed(paperId, version));
    if (!found) return null;
    const known = `${paperId} ${version} ${found.seal.nonce}`;
    const open =
      opened.get(known) ?? unseal(found.seal).then((text) => text && PaperVersion.parse(JSON.parse(text)));
    opened.set(known, open as Promise<PaperVersion | null>);
    return open as Promise<PaperVersion | null>;
  };

  /** A sitting with its access code, which lies sealed: opened once, in memory only. */
  const withCode = async (sitting: Sitting): Promise<Sitting> => {
    const found = await row<SealedCode>(keys.access(sitting.id));
    if (!found) return sitting;
    const { nonce } = found.seal;
    const accessCode = codes.get(nonce) ?? (await unseal(found.seal));
    // Sealed with a secret that is no longer this server's: nobody gets in by guessing.
    if (accessCode === null) return { ...sitting, accessCode: nonce };
    codes.set(nonce, accessCode);
    return { ...sitting, accessCode };
  };

  const paperVersion = async (paperId: string, version: number) => {
    await store.readAhead([keys.sealed(paperId, version), keys.paper(paperId, version)]);
    return (await withKey(paperId, version)) ?? row<PaperVersion>(keys.paper(paperId, version));
  };
  return { withCode, paperVersion };
}
