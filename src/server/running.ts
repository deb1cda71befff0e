import { openExchangeFolder } from './exchangeFolder';
import { exchangeServer, type ExchangeServer } from './exchangeServer';
import { settingsFrom } from './settings';

const log = (line: string) => console.log(`exchange: ${line}`);

async function open(): Promise<ExchangeServer> {
  const settings = settingsFrom(process.env);
  const store = await openExchangeFolder(settings.folder);
  if (settings.fresh) {
    const shown = settings.secret.replace(/(.{5})(?=.)/g, '$1-');
    console.log(`\nThe teacher's secret, to pair a browser with this server once: ${shown}\n`);
  }
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void store.close().finally(() => process.exit(0)));
  return exchangeServer(store, settings, log);
}

// Kept across reloads of the code while developing: a folder is opened once.
const kept = globalThis as { gribbetExchange?: Promise<ExchangeServer> | undefined };

/** The one classroom server of this process. */
export function runningExchange(): Promise<ExchangeServer> {
  kept.gribbetExchange ??= open().catch((error: unknown) => {
    log(error instanceof Error ? error.message : 'the exchange folder cannot be opened');
    kept.gribbetExchange = undefined;
    throw error;
  });
  return kept.gribbetExchange;
}
