import { exchangeServer, type ExchangeServer } from './exchangeServer';
import { openStore } from './openStore';
import { serverLog } from './serverLog';
import { settingsFrom } from './settings';

interface Running {
  server: ExchangeServer;
  /** Lets go of the store; nothing may be asked any more. */
  close: () => Promise<void>;
}

async function open(): Promise<Running> {
  const settings = settingsFrom(process.env);
  const log = serverLog(settings.log);
  const store = await openStore(settings, log);
  if (settings.fresh) {
    const shown = settings.secret.replace(/(.{5})(?=.)/g, '$1-');
    console.log(`\nThe teacher's secret, to pair a browser with this server once: ${shown}\n`);
  }
  return { server: exchangeServer(store, settings, log), close: () => store.close() };
}

// Kept across reloads of the code while developing: a folder is opened once. `scripts/start.mjs` ends it by this.
const kept = globalThis as { gribbetExchange?: Promise<Running> | undefined };

/** The one classroom server of this process. */
export async function runningExchange(): Promise<ExchangeServer> {
  kept.gribbetExchange ??= open().catch((error: unknown) => {
    console.log(`exchange: ${error instanceof Error ? error.message : 'the exchange cannot be opened'}`);
    kept.gribbetExchange = undefined;
    throw error;
  });
  return (await kept.gribbetExchange).server;
}
