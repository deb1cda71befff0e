import { openExchangeFolder } from './exchangeFolder';
import type { ExchangeStore } from './exchangeStore';
import { openPostgresStore } from './postgresStore';
import type { Log } from './serverLog';
import type { ServerSettings } from './settings';

/** The store that the settings name. @throws where it cannot be opened */
export const openStore = (
  { store, folder }: Pick<ServerSettings, 'store' | 'folder'>,
  log: Log,
): Promise<ExchangeStore> => (store ? openPostgresStore(store, log) : openExchangeFolder(folder));
