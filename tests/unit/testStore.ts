import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openExchangeFolder } from '@/server/exchangeFolder';
import type { ExchangeStore } from '@/server/exchangeStore';

type Open = () => Promise<ExchangeStore>;

let open: Open = () => openExchangeFolder(mkdtempSync(join(tmpdir(), 'gribbet-store-')));

/** A new store for a test: a folder, unless all tests of a file are tried with another. */
export const testStore: Open = () => open();

export const tryWith = (other: Open): void => {
  open = other;
};
